// What passes share that let bright parts give off light.
import { choice } from '../params/choice';
import { colour } from '../params/colour';
import { number } from '../params/number';
import { toLinear } from '../picture/light';
import { BYTES_PER_PIXEL, Picture } from '../picture/picture';
import type { Rect } from '../picture/rect';
import { reducedBy } from '../picture/reduced';
import { copyRow } from '../picture/rows';
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
 * @param rect what the light may reach @param times how often what gives off light is halved; the rectangle lies on that grid
 * @param spread gets what gives off light
 */
export function shone(
  picture: Picture,
  v: Shining & { strength: number },
  tools: PassTools,
  rect: Rect,
  times: number,
  spread: (bright: Picture) => Spread,
): Picture {
  const { kernels, arena } = tools;
  const bright = brightOf(picture, v, tools, rect, times);
  const { light, times: smaller, share } = spread(bright);
  bright.release();
  const out = Picture.make(arena, rect);
  const alone = v.alone === 'light' ? 1 : 0;
  const size = 2 ** smaller;
  const [left, top] = [rect.x - light.rect.x * size, rect.y - light.rect.y * size];
  arena.scratch(rect.w * BYTES_PER_PIXEL, (row) => {
    for (let y = 0; y < rect.h; y++) {
      copyRow(kernels, picture, rect, y, out.row(y));
      kernels.fill(row, rect.w, 0, 0, 0, 0);
      kernels.enlargeAdd(light.at, light.rect.w, light.rect.h, size, row, 0, left, top + y, rect.w, 1, share);
      kernels.lightRow(out.row(y), row, rect.w, v.strength, alone, rect.x, rect.y + y);
    }
  });
  light.release();
  return out;
}

/** The light of what is bright of a picture, halved so many times; it is halved once row by row, so that it never is there at full size. */
function brightOf(picture: Picture, v: Shining, tools: PassTools, rect: Rect, times: number): Picture {
  const { kernels, arena } = tools;
  const threshold = v.of === 'all' ? 0 : Math.max(1e-4, toLinear(v.threshold));
  const tint = v.colour.map(toLinear) as [number, number, number];
  const bright = (y: number, row: number) => {
    copyRow(kernels, picture, rect, y, row);
    kernels.brightSpan(row, row, rect.w, threshold, KNEE * threshold, ...tint);
  };
  if (times === 0) {
    const whole = Picture.make(arena, rect);
    for (let y = 0; y < rect.h; y++) bright(y, whole.row(y));
    return whole;
  }
  const half = Picture.make(arena, { x: rect.x / 2, y: rect.y / 2, w: rect.w / 2, h: rect.h / 2 });
  const bytes = rect.w * BYTES_PER_PIXEL;
  arena.scratch(2 * bytes, (rows) => {
    for (let y = 0; y < half.rect.h; y++) {
      bright(2 * y, rows);
      bright(2 * y + 1, rows + bytes);
      kernels.halve(rows, rect.w, 2, half.row(y));
    }
  });
  const small = reducedBy(tools, half, times - 1);
  half.release();
  return small;
}
