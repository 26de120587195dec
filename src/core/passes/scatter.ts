import { lotOf } from '../base/lot';
import { angle } from '../params/angle';
import { number } from '../params/number';
import { point } from '../params/point';
import { seed } from '../params/seed';
import { Picture } from '../picture/picture';
import { grow, intersect, isEmpty, type Rect } from '../picture/rect';
import { onGrid, reducedBy } from '../picture/reduced';
import { partOf } from '../picture/rows';
import { definePass, type PassTools } from './define';

/** Bits are no smaller than this, and there are no more than so many; in very large pictures they are made larger up to here. */
const [SMALLEST, MOST_BITS, COARSEST] = [3, 6000, 64];

/** Scatter: the picture breaks into bits, which fly apart. */
export const scatter = definePass({
  type: 'scatter',
  title: 'Scatter',
  group: 'distort',
  lots: true,
  words: ['shatter', 'explode', 'break apart', 'disintegrate', 'dissolve into pieces', 'burst', 'fly apart', 'crumbs'],
  help: 'Breaks the picture into bits and pushes them outwards, each a little otherwise. Keyframes of Pushed let something burst or come together. Relatives: Crumble among transitions, Mosaic.',
  params: {
    far: number({
      label: 'Pushed',
      unit: 'px',
      default: 60,
      min: 0,
      max: 4096,
      slider: [0, 600],
      help: 'How far bits are pushed at most.',
    }),
    size: number({
      label: 'Size of a bit',
      unit: 'px',
      default: 18,
      min: SMALLEST,
      max: 2048,
      slider: [SMALLEST, 120],
      help: 'Side of a bit. Very small ones are made larger where there would be more than six thousand.',
    }),
    about: point({
      label: 'Away from',
      default: [0, 0],
      help: 'The place that they are pushed away from; it may follow a track.',
    }),
    spread: number({
      label: 'By lot',
      unit: '%',
      default: 0.7,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much their ways differ; at 100 they fly anywhere.',
    }),
    turn: angle({ label: 'Turn', default: 90, help: 'How far they are turned at most, as they are pushed.' }),
    shrink: number({
      label: 'Shrink',
      unit: '%',
      default: 0.35,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How much smaller they get as they are pushed.',
    }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is another burst.' }),
  },
  // what is pushed by less has not broken
  idle: (v) => v.far < 0.5,
  reach: (v) => Math.ceil(v.far + 2 * Math.max(v.size, COARSEST)) + 2,
  run(picture, v, tools) {
    const { kernels, arena, size } = tools;
    const side = Math.max(v.size, SMALLEST, Math.min(COARSEST, Math.sqrt((size.w * size.h) / MOST_BITS)));
    const rect = grow(picture.rect, Math.ceil(v.far + side) + 2);
    const out = Picture.make(arena, rect);
    kernels.fill(out.at, out.pixels, 0, 0, 0, 0);
    const { x, y, w, h } = picture.rect;
    const border = (cell: number) => Math.round(cell * side);
    const bits: Bit[] = [];
    for (let row = Math.floor(y / side); border(row) < y + h; row++)
      for (let column = Math.floor(x / side); border(column) < x + w; column++) {
        const [left, top] = [border(column), border(row)];
        const whole = { x: left, y: top, w: border(column + 1) - left, h: border(row + 1) - top };
        const box = intersect(whole, picture.rect);
        if (!isEmpty(box)) bits.push({ box, ...thrown(v, side, whole, lotsOf(row, column, v.seed)) });
      }
    drawn(tools, picture, out, bits);
    return out;
  },
});

interface Bit {
  box: Rect;
  /** its middle, before and after */
  from: readonly [number, number];
  to: readonly [number, number];
  /** in radians, clockwise */
  turn: number;
  size: number;
}
type Lots = (question: number) => number;

const lotsOf =
  (row: number, column: number, seed: number): Lots =>
  (question) =>
    lotOf(Math.imul(row, 73856093) ^ Math.imul(column, 19349663) ^ Math.imul(question, 83492791), Math.round(seed));

interface Throw {
  far: number;
  about: readonly [number, number];
  spread: number;
  turn: number;
  shrink: number;
}

/** How a bit lies once it is thrown. @param side of bits as they are meant, in pixels */
function thrown(v: Throw, side: number, { x, y, w, h }: Rect, lot: Lots): Omit<Bit, 'box'> {
  // how far on the way they are: turning and shrinking go along with the push, as far as a bit is large
  const gone = Math.min(1, v.far / (4 * side));
  const [cx, cy] = [x + w / 2, y + h / 2];
  const way = Math.atan2(cy - v.about[1], cx - v.about[0]) + (lot(1) - 0.5) * 2 * Math.PI * v.spread;
  const far = v.far * (1 - 0.8 * v.spread * lot(2));
  return {
    from: [cx, cy],
    to: [cx + far * Math.cos(way), cy + far * Math.sin(way)],
    turn: ((v.turn * Math.PI) / 180) * gone * (2 * lot(3) - 1),
    size: 1 - v.shrink * gone * lot(4),
  };
}

/** Floats that the kernel takes for a bit, and how often a picture is halved at most for small ones. */
const [PARTS, HALVES] = [16, 3];

function drawn(tools: PassTools, picture: Picture, out: Picture, bits: readonly Bit[]): void {
  const { kernels, arena } = tools;
  const smaller: Picture[] = [];
  const halved = (times: number): Picture => {
    if (times === 0) return picture;
    return (smaller[times - 1] ??= arena.guarded(() => {
      const even = partOf(tools, picture, onGrid(picture.rect, times));
      const small = reducedBy(tools, even, times);
      even.release();
      return small;
    }));
  };
  const floats = new Float32Array(bits.length * PARTS);
  const whole = new Uint32Array(floats.buffer);
  bits.forEach(({ box, from, to, turn, size }, i) => {
    // what is drawn small is taken from a picture as small
    const times = Math.min(HALVES, Math.floor(Math.log2(1 / Math.max(size, 1e-3))));
    const { at, rect } = halved(times);
    const by = 2 ** -times;
    const own = Math.max(size, 1e-3) / by;
    const [left, top] = [Math.floor(box.x * by), Math.floor(box.y * by)];
    const [right, bottom] = [Math.ceil((box.x + box.w) * by), Math.ceil((box.y + box.h) * by)];
    const [c, s] = [Math.cos(turn) / own, Math.sin(turn) / own];
    const [px, py] = [to[0] - out.rect.x, to[1] - out.rect.y];
    const across = from[0] * by - rect.x - c * px - s * py;
    const down = from[1] * by - rect.y + s * px - c * py;
    const reach = (size * Math.hypot(box.w, box.h)) / 2 + 1;
    const edges = [left - rect.x, top - rect.y, right - rect.x, bottom - rect.y];
    floats.set([...edges, c, -s, s, c, across, down, px, py, reach, own], i * PARTS);
    whole.set([at, rect.w], (i + 1) * PARTS - 2);
  });
  arena.scratch(floats.byteLength + 16, (list) => {
    arena.floats(list, floats.length).set(floats);
    kernels.drawBits(list, bits.length, out.at, out.rect.w, out.rect.h);
  });
  smaller.forEach((one) => one.release());
}
