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
  const cells = Math.ceil(((wide + 2) * (tall + 2)) / 4) * 4;
  arena.lending((lent) => {
    const [squares, means, work] = [lent(wide * tall * 4), lent(wide * tall * 4), lent(cells * 4)];
    const all = lent(cells * 4);
    arena.floats(all, cells).fill(0);
    const likes = others.map((other) => {
      kernels.unlikeCells(picture.at, other.at, w, h, squares, means);
      const limits = [...limitsOf(squares, SQUARES), ...limitsOf(means, MEANS)] as const;
      const like = lent(cells * 4);
      kernels.likeCells(squares, means, wide, tall, ...limits, like, work);
      kernels.addScaled(like, all, cells / 4, 1);
      return like;
    });
    for (let y = 0; y < h; y++) {
      // the middles of cells lie half a cell in; there is one row of cells more above the first
      const cell = Math.floor((y + CELL / 2) / CELL);
      const share = (y + CELL / 2 + 0.5) / CELL - cell;
      const rows = (at: number) => [at + cell * (wide + 2) * 4, at + (cell + 1) * (wide + 2) * 4, share] as const;
      kernels.copy(picture.row(y), out.row(y), w);
      others.forEach((other, k) => kernels.addByCells(other.row(y), w, ...rows(likes[k]!), out.row(y)));
      kernels.divideByCells(w, ...rows(all), out.row(y));
    }
    /** What most of the picture differs by is taken for noise. */
    function limitsOf(at: number, [least, most]: readonly [number, number]): [all: number, none: number] {
      const noise = Math.min(MOST, median(arena.floats(at, wide * tall)));
      return [least * noise, most * noise];
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
