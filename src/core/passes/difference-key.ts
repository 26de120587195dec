import { Picture } from '../picture/picture';
import { number } from '../params/number';
import { plate } from '../params/plate';
import { COMBINE, definePass } from './define';
import { EDGE_COLOUR, extendColour, FINISH, finishAt, finishReach, RULED } from './finishing';

/** Difference key: what is other than a clean plate stays; its edge is unmixed from the plate in linear light. */
export const differenceKey = definePass({
  type: 'difference-key',
  title: 'Difference key',
  group: 'cut out',
  words: [
    'clean plate',
    'remove background',
    'static camera',
    'unmoving camera',
    'subtract background',
    'cut out',
    'matte',
  ],
  help: 'Cuts out what differs from a clean plate: a frame without the subject, or the median over a clip whose camera does not move. Relatives: Colour key with a clean plate.',
  params: {
    plate: plate({ label: 'Clean plate', help: 'The scene without the subject.' }),
    threshold: number({
      label: 'Threshold',
      unit: '%',
      default: 0.1,
      min: 0,
      max: 1,
      slider: [0, 0.3],
      help: 'Differences up to this are clear.',
    }),
    softness: number({
      label: 'Softness',
      unit: '%',
      default: 0.3,
      min: 0.001,
      max: 1,
      slider: [0.01, 0.6],
      help: 'Width of the ramp from clear to solid.',
    }),
    smooth: number({
      label: 'Calm noise',
      unit: 'px',
      default: 1,
      min: 0,
      max: 20,
      slider: [0, 6],
      help: 'Differences are averaged this far around, so that noise does not count.',
    }),
    ...FINISH,
    edgeColour: { ...EDGE_COLOUR, default: 3 },
    ...RULED,
    combine: COMBINE,
  },
  idle: (v) => v.plate === null,
  reach: (v) => Math.ceil(v.smooth) + finishReach(v, v.edgeColour),
  run(picture, v, tools) {
    const { kernels, arena, scratch } = tools;
    const { w, h } = picture.rect;
    const clean = tools.plate(v.plate, picture.rect);
    if (!clean) return picture.retain();
    const plane = scratch(w * h * 4 + 12);
    kernels.differencePlane(picture.at, clean.at, w * h, plane);
    const values = calmed(arena.floats(plane, w * h).slice(), w, h, Math.round(v.smooth));
    for (let i = 0; i < values.length; i++)
      values[i] = Math.min(1, Math.max(0, (values[i]! - v.threshold) / v.softness));
    arena.floats(plane, w * h).set(values);
    finishAt(plane, picture, v, tools);
    const out = Picture.make(arena, picture.rect);
    kernels.unmixPlate(picture.at, clean.at, plane, out.at, out.pixels);
    if (v.edgeColour > 0) extendColour(out, v.edgeColour, tools);
    return out;
  },
});

/** Means over (2r+1)² pixels, the border repeated. */
function calmed(plane: Float32Array, w: number, h: number, r: number): Float32Array {
  if (r < 1) return plane;
  const along = (from: Float32Array, lines: number, n: number, line: number, step: number) => {
    const to = new Float32Array(from.length);
    for (let l = 0; l < lines; l++) {
      const at = (i: number) => from[l * line + Math.min(n - 1, Math.max(0, i)) * step]!;
      let sum = 0;
      for (let i = -r; i <= r; i++) sum += at(i);
      for (let i = 0; i < n; i++) {
        to[l * line + i * step] = sum / (2 * r + 1);
        sum += at(i + r + 1) - at(i - r);
      }
    }
    return to;
  };
  return along(along(plane, h, w, w, 1), w, h, 1, w);
}
