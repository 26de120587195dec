// A picture evened over its neighbours in time, where they show the same.

/** Pixels across a cell. */
const CELL = 8;

/**
 * How two pictures differ in cells of 8×8 pixels, summed over red, green and blue; every other row counts. Cells that are cut off by the
 * border count what there is of them. @param squares a float a cell: means of squared differences @param means the same: squares of mean differences
 */
export function unlikeCells(a: usize, b: usize, w: i32, h: i32, squares: usize, means: usize): void {
  const colour = f32x4(1, 1, 1, 0);
  for (let top = 0; top < h; top += CELL) {
    const bottom = min(top + CELL, h);
    for (let left = 0; left < w; left += CELL, squares += 4, means += 4) {
      const right = min(left + CELL, w);
      let sum = f32x4.splat(0);
      let squared = f32x4.splat(0);
      for (let y = top; y < bottom; y += 2) {
        let at = <usize>(y * w + left) << 4;
        for (let x = left; x < right; x++, at += 16) {
          const far = f32x4.mul(f32x4.sub(v128.load(a + at), v128.load(b + at)), colour);
          sum = f32x4.add(sum, far);
          squared = f32x4.add(squared, f32x4.mul(far, far));
        }
      }
      const share: f32 = <f32>1 / <f32>(((bottom - top + 1) >> 1) * (right - left));
      const mean = f32x4.mul(sum, f32x4.splat(share));
      store<f32>(squares, ofThree(squared) * share);
      store<f32>(means, ofThree(f32x4.mul(mean, mean)));
    }
  }
}

// @ts-ignore: decorator
@inline
function ofThree(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + f32x4.extract_lane(v, 2);
}

/** How much a cell counts that differs by v: all of it up to `all`, nothing from `none` on. */
// @ts-ignore: decorator
@inline
function counts(v: f32, all: f32, none: f32): f32 {
  return v <= all ? 1 : v < none ? (none - v) / (none - all) : 0;
}

/**
 * How much cells show the same, 0…1: the least of each and those beside it. @param squares, means as unlikeCells gives them, with those up to which a
 * cell counts fully and from which on it does not count @param out with a border of one cell all round @param work a float for each of those
 */
export function likeCells(
  squares: usize, means: usize, wide: i32, tall: i32, allSquares: f32, noSquares: f32, allMeans: f32, noMeans: f32, out: usize, work: usize,
): void {
  const line = <usize>(wide + 2) << 2;
  for (let at = out, end = out + line * <usize>(tall + 2), to = work; at < end; at += 4, to += 4) {
    store<f32>(at, 1);
    store<f32>(to, 1);
  }
  // along rows, then along columns
  for (let y = 0; y < tall; y++) {
    for (let x = 0; x < wide; x++, squares += 4, means += 4) {
      const own = min(counts(load<f32>(squares), allSquares, noSquares), counts(load<f32>(means), allMeans, noMeans));
      if (own == 1) continue;
      for (let at = work + line * <usize>y + (<usize>x << 2), end = at + 12; at < end; at += 4) if (own < load<f32>(at)) store<f32>(at, own);
    }
  }
  for (let at = work, end = work + line * <usize>tall, to = out; at < end; at += 4, to += 4) {
    const own = load<f32>(at);
    if (own == 1) continue;
    for (let down = to, last = to + line * 3; down < last; down += line) if (own < load<f32>(down)) store<f32>(down, own);
  }
}

// @ts-ignore: decorator
@inline
function between(above: usize, below: usize, share: f32): f32 {
  return load<f32>(above) + (load<f32>(below) - load<f32>(above)) * share;
}

/**
 * Adds a row of another moment to a sum, by weights of cells that go over into each other. @param n pixels
 * @param above, below weights of the rows of cells whose middles lie on both sides of this row, from the cell before the first one on
 * @param share how far the row lies from the upper to the lower @param sum n pixels
 */
export function addByCells(other: usize, n: i32, above: usize, below: usize, share: f32, sum: usize): void {
  let left = between(above, below, share);
  for (let x = -CELL / 2; x < n; x += CELL, above += 4, below += 4) {
    const right = between(above + 4, below + 4, share);
    const step: f32 = (right - left) * (<f32>1 / <f32>CELL);
    const first = max(x, 0);
    let weight = left + step * (<f32>(first - x) + <f32>0.5);
    left = right;
    if (weight == 0 && step == 0) continue;
    const end = <usize>min(x + CELL, n) << 4;
    for (let at = <usize>first << 4; at < end; at += 16, weight += step)
      v128.store(sum + at, f32x4.add(v128.load(sum + at), f32x4.mul(v128.load(other + at), f32x4.splat(weight))));
  }
}

/** Divides a row by the sum of the weights with which pictures were added to it, and its own, in place. The rest as in addByCells. */
export function divideByCells(n: i32, above: usize, below: usize, share: f32, sum: usize): void {
  let left = between(above, below, share) + <f32>1;
  for (let x = -CELL / 2; x < n; x += CELL, above += 4, below += 4) {
    const right = between(above + 4, below + 4, share) + <f32>1;
    const step: f32 = (right - left) * (<f32>1 / <f32>CELL);
    const first = max(x, 0);
    let weight = left + step * (<f32>(first - x) + <f32>0.5);
    left = right;
    const end = <usize>min(x + CELL, n) << 4;
    for (let at = <usize>first << 4; at < end; at += 16, weight += step)
      v128.store(sum + at, f32x4.mul(v128.load(sum + at), f32x4.splat(<f32>1 / weight)));
  }
}
