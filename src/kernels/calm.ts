// A picture evened over its neighbours in time, where they show the same.

/** Pixels across a cell. */
const CELL = 8;

/**
 * How two pictures differ in cells of 8×8 pixels: four floats a cell, means of the differences of red, green and blue, and of the sum of
 * their squares; every other row counts. Cells that are cut off by the border count what there is of them.
 */
export function unlikeCells(a: usize, b: usize, w: i32, h: i32, out: usize): void {
  const colour = f32x4(1, 1, 1, 0);
  for (let top = 0; top < h; top += CELL) {
    const bottom = min(top + CELL, h);
    for (let left = 0; left < w; left += CELL, out += 16) {
      const right = min(left + CELL, w);
      let sum = f32x4.splat(0);
      let squares = f32x4.splat(0);
      for (let y = top; y < bottom; y += 2) {
        let at = <usize>(y * w + left) << 4;
        for (let x = left; x < right; x++, at += 16) {
          const far = f32x4.mul(f32x4.sub(v128.load(a + at), v128.load(b + at)), colour);
          sum = f32x4.add(sum, far);
          squares = f32x4.add(squares, f32x4.mul(far, far));
        }
      }
      const all = f32x4.extract_lane(squares, 0) + f32x4.extract_lane(squares, 1) + f32x4.extract_lane(squares, 2);
      const share: f32 = <f32>1 / <f32>(((bottom - top + 1) >> 1) * (right - left));
      v128.store(out, f32x4.mul(f32x4.replace_lane(sum, 3, all), f32x4.splat(share)));
    }
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
