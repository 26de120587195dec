import { angle } from '../params/angle';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { point } from '../params/point';
import { gaussian } from '../picture/gaussian';
import { BYTES_PER_PIXEL, Picture } from '../picture/picture';
import { grow, intersect, isEmpty, union, type Rect } from '../picture/rect';
import { copyOf, partOf } from '../picture/rows';
import { definePass } from './define';

/** Blurs that the picture goes through from the band outwards, as shares of the strongest. */
const STEPS = [0.35, 0.65, 1] as const;

/** Focus band: sharp along a band or around a place, softer the further away from it. */
export const focusBand = definePass({
  type: 'focus-band',
  title: 'Focus band',
  group: 'focus',
  words: ['tilt shift', 'miniature', 'toy town', 'small world', 'shallow focus', 'graduated blur'],
  help: 'Stays sharp along a band, or around a place that may follow a track, and blurs what lies beside it, so that a harbour looks like a model. Relatives: Defocus, Blur in an area.',
  uses: [
    {
      title: 'Follow focus',
      words: ['focus on a face', 'keep in focus', 'rack focus', 'focus follows a track', 'sharp spot', 'draw the eye'],
      values: { form: 'round', sharp: 240, soft: 260 },
    },
  ],
  params: {
    form: choice({
      label: 'Sharp is',
      default: 'band',
      options: [
        { value: 'band', label: 'a band' },
        { value: 'round', label: 'around a place' },
      ],
      help: 'A band goes across the whole picture; around a place it is round.',
    }),
    at: point({
      label: 'Sharp at',
      default: [0, 0],
      help: 'The middle of what is sharp; it may follow a track.',
    }),
    turn: angle({
      label: 'Turned',
      default: 0,
      help: 'How the band lies: at 0° level.',
      when: { choice: 'form', is: 'band' },
    }),
    sharp: number({
      label: 'Sharp',
      unit: 'px',
      default: 120,
      min: 0,
      max: 16384,
      slider: [0, 720],
      help: 'How tall what is sharp is.',
    }),
    soft: number({
      label: 'Goes over in',
      unit: 'px',
      default: 220,
      min: 1,
      max: 16384,
      slider: [1, 720],
      help: 'How far it is from sharp to the full blur.',
    }),
    radius: number({
      label: 'Radius',
      unit: 'px',
      default: 8,
      min: 0,
      max: 400,
      slider: [0, 40],
      help: 'The blur far from the band.',
    }),
  },
  idle: (v) => v.radius < 0.05,
  reach: (v) => Math.ceil(v.radius * 3),
  run(picture, v, tools) {
    const { kernels, arena } = tools;
    const out = copyOf(tools, picture);
    const round = v.form === 'round';
    const turn = (v.turn * Math.PI) / 180;
    const [across, down] = [-Math.sin(turn), Math.cos(turn)];
    /** how far the middle of a pixel lies from the middle of the band, negative to one side */
    const off = (x: number, y: number): number => (x + 0.5 - v.at[0]) * across + (y + 0.5 - v.at[1]) * down;
    const startOf = (step: number): number => v.sharp / 2 + v.soft * (STEPS[step - 1] ?? 0);
    STEPS.forEach((share, k) => {
      const sigma = share * v.radius;
      const from = startOf(k);
      const per = 1 / Math.max(1e-3, v.soft * share + v.sharp / 2 - from);
      // blurred only where this step is seen: from its beginning to where the next one has taken over
      const until = k + 2 > STEPS.length ? Infinity : startOf(k + 2);
      for (const rect of round ? within(picture.rect, v.at, until) : sides(picture.rect, off, from, until)) {
        const near = intersect(grow(rect, Math.ceil(3 * sigma) + 2), picture.rect);
        const whole = near.w === picture.rect.w;
        const soft = whole ? Picture.make(arena, near) : partOf(tools, picture, near);
        const read = whole ? picture.row(near.y - picture.rect.y) : soft.at;
        gaussian({ kernels, arena }, read, soft.at, near.w, near.h, sigma, true);
        for (let y = rect.y; y < rect.y + rect.h; y++) {
          const to = out.row(y - out.rect.y) + (rect.x - out.rect.x) * BYTES_PER_PIXEL;
          const blurred = soft.row(y - near.y) + (rect.x - near.x) * BYTES_PER_PIXEL;
          const [first, step, aside] = round
            ? [rect.x + 0.5 - v.at[0], 1, y + 0.5 - v.at[1]]
            : [off(rect.x, y), across, 0];
          kernels.bandSpan(to, blurred, rect.w, first, step, aside, from, per);
        }
        soft.release();
      }
    });
    return out;
  },
});

/** The part of a rectangle that lies no further off a place than said; one rectangle, or none. */
function within(rect: Rect, [x, y]: readonly [number, number], far: number): Rect[] {
  if (far === Infinity) return [rect];
  const side = 2 * Math.ceil(far) + 2;
  const part = intersect(rect, { x: Math.round(x) - side / 2, y: Math.round(y) - side / 2, w: side, h: side });
  return isEmpty(part) ? [] : [part];
}

/** The rectangles within one in which places lie so far off a line: one on each side of it, or one for both where these would meet. */
function sides(within: Rect, off: (x: number, y: number) => number, from: number, until: number): Rect[] {
  const step = off(1, 0) - off(0, 0);
  const each = [1, -1].flatMap((side) => {
    let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let y = within.y; y < within.y + within.h; y++) {
      // where a row enters and leaves what lies between the two distances
      const at = side * off(within.x, y);
      const ends = [from, until].map((far) => (far - at) / (side * step));
      let [first, last] = [0, within.w - 1];
      if (Math.abs(step) > 1e-9) {
        first = Math.max(first, Math.floor(Math.min(...ends)));
        last = Math.min(last, Math.ceil(Math.max(...ends)));
      } else if (at <= from || at >= until) continue;
      if (first > last) continue;
      [left, right] = [Math.min(left, within.x + first), Math.max(right, within.x + last + 1)];
      [top, bottom] = [Math.min(top, y), Math.max(bottom, y + 1)];
    }
    return right > left ? [{ x: left, y: top, w: right - left, h: bottom - top }] : [];
  });
  const [one, other] = each;
  return one && other && !isEmpty(intersect(one, other)) ? [union(one, other)] : each;
}
