// What a key looks at, evened over the frames before and after: noise differs from one to the next, what stands still does not.
import { number } from '../params/number';
import { Picture } from '../picture/picture';
import { sameRect } from '../picture/rect';
import { partOf } from '../picture/rows';
import { whole } from './at-moments';
import type { PassTools } from './define';
import { TIDYING } from './finishing';

export const CALM = number({
  group: TIDYING,
  label: 'Calm over frames',
  unit: '',
  default: 0,
  min: 0,
  max: 8,
  slider: [0, 6],
  help: 'Takes the matte from the mean of so many frames before and as many after, wherever nothing moves between them, so that noise does not make edges boil. The picture keeps its grain. 0 looks at each frame by itself.',
});

/** Frames from the present one to those that are looked at too. */
export const calmMoments = ({ calm }: { calm: number }): number[] => {
  const count = whole(calm);
  return Array.from({ length: 2 * count }, (_, i) => (i < count ? i - count : i - count + 1));
};

/** Pixels across the cells that are compared. */
const CELL = 8;
/** How many times as much as most of the picture a cell may differ, and from where on it shows something else: by squares, and by its mean. */
const [SQUARES, MEANS] = [
  [1.5, 2.1],
  [6, 12],
] as const;
/** More than this is no noise: a mean of squared differences, summed over three channels. */
const MOST = 0.012;

/** @returns the picture evened where neighbours in time show the same, owned by the caller; the very picture where there are none */
export function calmed(picture: Picture, values: { calm: number }, tools: PassTools): Picture {
  const { kernels, arena } = tools;
  const { w, h } = picture.rect;
  const others = calmMoments(values).flatMap((_, i) => aligned(tools.moment(i), picture, tools) ?? []);
  if (!others.length) return picture.retain();
  const out = Picture.make(arena, picture.rect);
  const [wide, tall] = [Math.ceil(w / CELL), Math.ceil(h / CELL)];
  const cells = (wide + 2) * (tall + 2);
  arena.lending((lent) => {
    const compared = lent(wide * tall * 16);
    const together = new Float32Array(cells);
    const likes = others.map((other) => {
      kernels.unlikeCells(picture.at, other.at, w, h, compared);
      const like = likenessOf(arena.floats(compared, wide * tall * 4), wide, tall);
      for (let i = 0; i < cells; i++) together[i]! += like[i]!;
      return lentFloats(like);
    });
    const all = lentFloats(together);
    for (let y = 0; y < h; y++) {
      // the middles of cells lie half a cell in; there is one row of cells more above the first
      const cell = Math.floor((y + CELL / 2) / CELL);
      const share = (y + CELL / 2 + 0.5) / CELL - cell;
      const rows = (at: number) => [at + cell * (wide + 2) * 4, at + (cell + 1) * (wide + 2) * 4, share] as const;
      kernels.copy(picture.row(y), out.row(y), w);
      others.forEach((other, k) => kernels.addByCells(other.row(y), w, ...rows(likes[k]!), out.row(y)));
      kernels.divideByCells(w, ...rows(all), out.row(y));
    }
    function lentFloats(values: Float32Array): number {
      const at = lent(values.byteLength);
      arena.floats(at, values.length).set(values);
      return at;
    }
  });
  others.forEach((other) => other.release());
  return out;
}

/** Another moment where the present one lies, owned by the caller. */
function aligned(other: Picture | null, picture: Picture, tools: PassTools): Picture | null {
  if (!other) return null;
  return sameRect(other.rect, picture.rect) ? other.retain() : partOf(tools, other, picture.rect);
}

/** Every so many cells are looked at for what most of them are like. */
const EVERY = 3;
function median(values: Float32Array): number {
  const some = values.filter((_, i) => i % EVERY === 0).sort();
  return some[some.length >> 1]!;
}
/** How much a cell counts that differs by so much where most differ by `noise`. */
function within(v: number, noise: number, [all, none]: readonly [number, number]): number {
  if (v <= all * noise) return 1;
  return v < none * noise ? (none - v / noise) / (none - all) : 0;
}

/**
 * How much cells show the same at two moments, 0…1. What most of the picture differs by is taken for noise; a cell next to one that
 * shows something else does not count as the same either. @param cells as kernels.unlikeCells leaves them
 * @returns with a border of one cell all round
 */
function likenessOf(cells: Float32Array, wide: number, tall: number): Float32Array {
  const [squares, means] = [new Float32Array(wide * tall), new Float32Array(wide * tall)];
  for (let i = 0; i < squares.length; i++) {
    squares[i] = cells[i * 4 + 3]!;
    for (let c = 0; c < 3; c++) means[i]! += cells[i * 4 + c]! ** 2;
  }
  const [square, mean] = [Math.min(MOST, median(squares)), Math.min(MOST, median(means))];
  // the least of three in a row, then of three such rows
  const rows = new Float32Array((wide + 2) * tall).fill(1);
  for (let y = 0, i = 0; y < tall; y++) {
    for (let x = 0; x < wide; x++, i++) {
      const own = Math.min(within(squares[i]!, square, SQUARES), within(means[i]!, mean, MEANS));
      for (let u = 0, at = y * (wide + 2) + x; u < 3; u++, at++) if (own < rows[at]!) rows[at] = own;
    }
  }
  const out = new Float32Array((wide + 2) * (tall + 2)).fill(1);
  for (let v = 0; v < 3; v++)
    for (let i = 0, at = v * (wide + 2); i < rows.length; i++, at++) if (rows[i]! < out[at]!) out[at] = rows[i]!;
  return out;
}
