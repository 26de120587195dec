import { defineMeasure } from './define';

/** Darkest and brightest luma and mean colourfulness of footage that was recorded with a log curve, at most. */
const DARKEST = 0.055;
const BRIGHTEST = 0.72;
const COLOURFUL = 0.16;

export interface Flatness {
  /** lumas that a hundredth of the picture lies beyond, 0…1 */
  low: number;
  high: number;
  /** mean difference of the channels, 0…1 */
  colour: number;
  flat: boolean;
}

/** @param data straight 8-bit RGBA */
export function readFlatness(data: Uint8ClampedArray): Flatness {
  const counts = new Uint32Array(256);
  let [pixels, differences] = [0, 0];
  for (let i = 0; i < data.length; i += 4) {
    if (data[i + 3]! < 128) continue;
    const [r, g, b] = [data[i]!, data[i + 1]!, data[i + 2]!];
    counts[Math.round(0.2126 * r + 0.7152 * g + 0.0722 * b)]!++;
    differences += Math.max(r, g, b) - Math.min(r, g, b);
    pixels++;
  }
  const at = (share: number): number => {
    let sum = 0;
    return counts.findIndex((count) => (sum += count) >= share * pixels) / 255;
  };
  const [low, high, colour] = [at(0.01), at(0.99), differences / Math.max(1, pixels) / 255];
  return { low, high, colour, flat: pixels > 0 && low > DARKEST && high < BRIGHTEST && colour < COLOURFUL };
}

export const flatness = defineMeasure({
  help: 'Whether a picture lacks black, white and colour, as footage recorded with a log curve does.',
  run: async (of, _options: null): Promise<Flatness> => readFlatness((await of.bytes()).data),
});
