import type { Colour } from '../params/define';
import { defineMeasure } from './define';

export interface FoundScreen {
  samples: Colour[];
  /** of the picture that is like them, 0…1 */
  share: number;
}

/** Least saturation of a screen: how far its strongest channel is above the next, display-encoded. */
const LEAST = 0.09;
/** The frame's rim counts this much more: a screen reaches it more often than a subject does. */
const RIM = 4;

/**
 * Colours of a screen, proposed without a pick: of the three strong hues the one that covers most, at the rim above all.
 * @param data straight 8-bit RGBA @returns the median of the screen, and its dark and bright parts where the light is very uneven; null when nothing is saturated enough
 */
export function screenIn(data: Uint8Array | Uint8ClampedArray, w: number, h: number): FoundScreen | null {
  const classes = [0, 1, 2].map(() => ({ weight: 0, pixels: [] as number[] }));
  const step = Math.max(1, Math.floor(Math.sqrt((w * h) / 60_000)));
  let looked = 0;
  for (let y = 0; y < h; y += step) {
    for (let x = 0; x < w; x += step, looked++) {
      const i = (y * w + x) * 4;
      const [r, g, b] = [data[i]! / 255, data[i + 1]! / 255, data[i + 2]! / 255];
      const most = Math.max(r, g, b);
      const middle = r + g + b - most - Math.min(r, g, b);
      if (most - middle < LEAST || data[i + 3]! < 250) continue;
      const own = classes[r === most ? 0 : g === most ? 1 : 2]!;
      const rim = Math.min(x / w, y / h, 1 - x / w, 1 - y / h) < 0.12;
      own.weight += (rim ? RIM : 1) * (most - middle);
      own.pixels.push(i);
    }
  }
  const best = classes.reduce((a, b) => (b.weight > a.weight ? b : a));
  if (best.pixels.length < 0.02 * looked) return null;
  const bright = (i: number) => 0.2126 * data[i]! + 0.7152 * data[i + 1]! + 0.0722 * data[i + 2]!;
  const sorted = best.pixels.sort((a, b) => bright(a) - bright(b));
  /** the mean of a few pixels about a place in the order of brightness */
  const around = (at: number): Colour => {
    const from = Math.max(0, Math.floor(at * sorted.length) - Math.ceil(sorted.length * 0.02));
    const few = sorted.slice(from, from + Math.max(1, Math.ceil(sorted.length * 0.04)));
    return [0, 1, 2].map(
      (c) => Math.round((few.reduce((sum, i) => sum + data[i + c]!, 0) / few.length / 255) * 10000) / 10000,
    ) as unknown as Colour;
  };
  const [dark, light] = [sorted[Math.floor(sorted.length * 0.15)]!, sorted[Math.floor(sorted.length * 0.85)]!];
  const uneven = bright(light) > 1.6 * bright(dark);
  return {
    samples: uneven ? [around(0.5), around(0.15), around(0.85)] : [around(0.5)],
    share: best.pixels.length / looked,
  };
}

export const findScreen = defineMeasure({
  help: 'Colours proposed for a screen, and the share of the picture that is like them.',
  async run(of, _options: null): Promise<FoundScreen | null> {
    const { data, w, h } = await of.bytes();
    return screenIn(data, w, h);
  },
});
