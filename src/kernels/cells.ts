// Means known in some cells of a grid, spread over all of it. A cell is three v128 of sums; the fourth number of the first is how many there were.

/** Bytes of a cell. */
const SIZE: usize = 48;
/** Samples of a cell from which on its own means count fully. */
const ENOUGH: f32 = 8;

// @ts-ignore: decorator
@inline
function countOf(cell: usize): f32 {
  return load<f32>(cell, 12);
}
// @ts-ignore: decorator
@inline
function add(to: usize, from: usize, share: v128): void {
  v128.store(to, f32x4.add(v128.load(to), f32x4.mul(v128.load(from), share)));
  v128.store(to, f32x4.add(v128.load(to, 16), f32x4.mul(v128.load(from, 16), share)), 16);
  v128.store(to, f32x4.add(v128.load(to, 32), f32x4.mul(v128.load(from, 32), share)), 32);
}

/**
 * Replaces sums by means for every cell, in place: its own where there are samples enough, else what lies around, the nearer the more.
 * @param scratch bytes for as many cells again @returns false, and nothing done, when there is no sample anywhere
 * Source: pull-push, Gortler et al. 1996.
 */
export function spreadCells(cells: usize, w: i32, h: i32, scratch: usize): bool {
  if (w == 1 && h == 1) {
    const count = countOf(cells);
    if (count == 0) return false;
    scaled(cells, f32x4.splat(<f32>1 / count));
    return true;
  }
  const cw = (w + 1) >> 1;
  const ch = (h + 1) >> 1;
  memory.fill(scratch, 0, <usize>(cw * ch) * SIZE);
  const all = f32x4.splat(1);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const cell = cells + <usize>(y * w + x) * SIZE;
      if (countOf(cell) > 0) add(scratch + <usize>((y >> 1) * cw + (x >> 1)) * SIZE, cell, all);
    }
  }
  if (!spreadCells(scratch, cw, ch, scratch + <usize>(cw * ch) * SIZE)) return false;
  for (let y = 0; y < h; y++) {
    const v = min(max((<f32>y + <f32>0.5) * <f32>0.5 - <f32>0.5, <f32>0), <f32>(ch - 1));
    const y0 = <i32>v;
    const down = v - <f32>y0;
    const upper = scratch + <usize>(y0 * cw) * SIZE;
    const lower = scratch + <usize>(min(ch - 1, y0 + 1) * cw) * SIZE;
    for (let x = 0; x < w; x++) {
      const cell = cells + <usize>(y * w + x) * SIZE;
      const count = countOf(cell);
      const own = min(<f32>1, count / ENOUGH);
      scaled(cell, f32x4.splat(count > 0 ? own / count : 0));
      if (own == 1) continue;
      const rest = <f32>1 - own;
      const u = min(max((<f32>x + <f32>0.5) * <f32>0.5 - <f32>0.5, <f32>0), <f32>(cw - 1));
      const x0 = <i32>u;
      const across = u - <f32>x0;
      const x1 = <usize>min(cw - 1, x0 + 1) * SIZE;
      add(cell, upper + <usize>x0 * SIZE, f32x4.splat(rest * (<f32>1 - across) * (<f32>1 - down)));
      add(cell, upper + x1, f32x4.splat(rest * across * (<f32>1 - down)));
      add(cell, lower + <usize>x0 * SIZE, f32x4.splat(rest * (<f32>1 - across) * down));
      add(cell, lower + x1, f32x4.splat(rest * across * down));
    }
  }
  return true;
}

// @ts-ignore: decorator
@inline
function scaled(cell: usize, by: v128): void {
  v128.store(cell, f32x4.mul(v128.load(cell), by));
  v128.store(cell, f32x4.mul(v128.load(cell, 16), by), 16);
  v128.store(cell, f32x4.mul(v128.load(cell, 32), by), 32);
}

/** Two grids of cells as rows are made of, with the border repeated once on both sides: the first means, and the variances of the second. */
export function cellGrids(cells: usize, w: i32, h: i32, means: usize, variances: usize): void {
  for (let y = 0; y < h; y++) {
    for (let x = -1; x <= w; x++, means += 16, variances += 16) {
      const cell = cells + <usize>(y * w + min(max(x, 0), w - 1)) * SIZE;
      const second = v128.load(cell, 16);
      v128.store(means, v128.load(cell));
      v128.store(variances, f32x4.pmax(f32x4.sub(v128.load(cell, 32), f32x4.mul(second, second)), f32x4.splat(0)));
    }
  }
}
