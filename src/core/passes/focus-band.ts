import { angle } from '../params/angle';
import { number } from '../params/number';
import { point } from '../params/point';
import { gaussian } from '../picture/gaussian';
import { Picture } from '../picture/picture';
import { definePass } from './define';

/** How planes are joined: what either covers. */
const ADD = 0;
/** Blurs that the picture goes through from the band outwards, as shares of the strongest. */
const STEPS = [0.35, 0.65, 1] as const;

/** Focus band: sharp along a band, softer the further away from it. */
export const focusBand = definePass({
  type: 'focus-band',
  title: 'Focus band',
  group: 'focus',
  words: ['tilt shift', 'miniature', 'toy town', 'small world', 'shallow focus', 'graduated blur'],
  help: 'Stays sharp along a band and blurs what lies beside it, so that a harbour looks like a model. Relatives: Defocus, Blur in an area.',
  params: {
    at: point({
      label: 'Sharp at',
      default: [0, 0],
      help: 'A place in the middle of the band; it may follow a track.',
    }),
    turn: angle({ label: 'Turned', default: 0, help: 'How the band lies: at 0° level.' }),
    sharp: number({
      label: 'Sharp',
      unit: 'px',
      default: 120,
      min: 0,
      max: 16384,
      slider: [0, 720],
      help: 'How tall the sharp band is.',
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
    const { x, y, w, h } = picture.rect;
    const out = Picture.make(arena, picture.rect);
    kernels.copy(picture.at, out.at, out.pixels);
    const turn = (v.turn * Math.PI) / 180;
    const [across, up] = [-Math.sin(turn), Math.cos(turn)];
    const soft = Picture.make(arena, picture.rect);
    arena.scratch(out.pixels * 8 + 32, (plane) => {
      const other = plane + out.pixels * 4;
      STEPS.forEach((share, k) => {
        gaussian({ kernels, arena }, picture.at, soft.at, w, h, share * v.radius, true);
        const before = k ? STEPS[k - 1]! : 0;
        // blur grows evenly with the distance; this step takes over from the one before it
        for (const way of [1, -1]) {
          const [dx, dy] = [way * across, way * up];
          const far = v.sharp / 2 + v.soft * share;
          const long = Math.max(1e-3, v.soft * (share - before));
          kernels.linearPlane(
            way > 0 ? plane : other,
            w,
            h,
            x - v.at[0] - dx * far,
            y - v.at[1] - dy * far,
            -dx * long,
            -dy * long,
            0,
            0,
          );
        }
        kernels.joinMask(plane, other, out.pixels, ADD, 0, 1);
        kernels.lerpByPlane(out.at, soft.at, plane, out.at, out.pixels);
      });
    });
    soft.release();
    return out;
  },
});
