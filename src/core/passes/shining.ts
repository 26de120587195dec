// What passes share that let bright parts give off light.
import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { toLinear } from '../picture/light';
import { Picture } from '../picture/picture';
import type { Rect } from '../picture/rect';
import { partOf } from '../picture/rows';
import type { PassTools } from './define';

/** How soft the threshold is, as a share of it. */
const KNEE = 0.4;

/** Which light is given off, and how it is seen. */
export const SHINING = {
  of: choice({
    label: 'Light of',
    default: 'bright',
    options: [
      { value: 'bright', label: 'bright parts' },
      { value: 'all', label: 'all of the layer' },
    ],
    help: 'What gives off light: parts brighter than the next dial says, or everything, as for letters.',
  }),
  threshold: number({
    label: 'Brighter than',
    unit: '%',
    default: 0.65,
    min: 0,
    max: 1,
    slider: [0, 1],
    help: 'Brightness from which parts give off light, softly.',
    when: { choice: 'of', is: 'bright' },
  }),
  colour: colour({
    label: 'Colour',
    default: [1, 1, 1],
    help: 'What the light is tinted by; white leaves it as it is.',
  }),
  alone: choice({
    label: 'Shows',
    default: 'both',
    options: [
      { value: 'both', label: 'picture and light' },
      { value: 'light', label: 'the light alone' },
    ],
    help: 'Whether the picture stays below the light.',
  }),
};
export const strength = (initial: number) =>
  number({
    label: 'Strength',
    unit: '%',
    default: initial,
    min: 0,
    max: 20,
    slider: [0, 4],
    help: 'How bright it is.',
  });

interface Shining {
  of: string;
  threshold: number;
  colour: readonly [number, number, number];
  alone: string;
}

/** Light that was spread over a picture halved so many times, and how much of it counts. */
interface Spread {
  light: Picture;
  times: number;
  share: number;
}

/**
 * A picture with light on it: what is bright of it, spread in linear light, is added.
 * @param rect what the light may reach
 * @param spread gets what gives off light
 */
export function shone(
  picture: Picture,
  v: Shining & { strength: number },
  tools: PassTools,
  rect: Rect,
  spread: (bright: Picture) => Spread,
): Picture {
  const { kernels, arena } = tools;
  const out = partOf(tools, picture, rect);
  const bright = Picture.make(arena, rect);
  const threshold = v.of === 'all' ? 0 : Math.max(1e-4, toLinear(v.threshold));
  const tint = v.colour.map(toLinear) as [number, number, number];
  kernels.brightSpan(out.at, bright.at, out.pixels, threshold, KNEE * threshold, ...tint);
  const { light, times, share } = spread(bright);
  bright.release();
  const alone = v.alone === 'light' ? 1 : 0;
  const size = 2 ** times;
  const [left, top] = [rect.x - light.rect.x * size, rect.y - light.rect.y * size];
  arena.scratch(rect.w * 16, (row) => {
    for (let y = 0; y < rect.h; y++) {
      kernels.fill(row, rect.w, 0, 0, 0, 0);
      kernels.enlargeAdd(light.at, light.rect.w, light.rect.h, size, row, 0, left, top + y, rect.w, 1, share);
      kernels.lightRow(out.row(y), row, rect.w, v.strength, alone, rect.x, rect.y + y);
    }
  });
  light.release();
  return out;
}
