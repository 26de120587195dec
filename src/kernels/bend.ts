// How far off the pixels of a row are taken, for pictures that are bent by a formula.
import { alphas, blues, greens, reds } from './lanes';

/**
 * Of a bend that turns and sizes what is about a middle, by how far it lies from there.
 * @param dx, dy planes for n places, with room for three more @param x, y of the row's first pixel from the middle
 * @param table of steps+2 entries, two floats each: the cosine and the sine of the turn, both times the size, the cosine less 1
 * @param per entries a pixel; beyond the last one it goes on as there
 */
export function aboutRow(dx: usize, dy: usize, n: i32, x: f32, y: f32, table: usize, steps: i32, per: f32): void {
  const down = f32x4.splat(y);
  const last = f32x4.splat(<f32>steps);
  const entries = f32x4.splat(per);
  for (let i = 0; i < n; i += 4, dx += 16, dy += 16) {
    const across = f32x4.add(f32x4.splat(x + <f32>i), f32x4(0, 1, 2, 3));
    const far = f32x4.sqrt(f32x4.add(f32x4.mul(across, across), f32x4.mul(down, down)));
    const place = f32x4.pmin(f32x4.mul(far, entries), last);
    const index = i32x4.trunc_sat_f32x4_s(place);
    const part = f32x4.sub(place, f32x4.convert_i32x4_s(index));
    // an entry and the next one, of four places
    const p0 = v128.load(table + (<usize>i32x4.extract_lane(index, 0) << 3));
    const p1 = v128.load(table + (<usize>i32x4.extract_lane(index, 1) << 3));
    const p2 = v128.load(table + (<usize>i32x4.extract_lane(index, 2) << 3));
    const p3 = v128.load(table + (<usize>i32x4.extract_lane(index, 3) << 3));
    const c0 = reds(p0, p1, p2, p3);
    const s0 = greens(p0, p1, p2, p3);
    const c = f32x4.add(c0, f32x4.mul(f32x4.sub(blues(p0, p1, p2, p3), c0), part));
    const s = f32x4.add(s0, f32x4.mul(f32x4.sub(alphas(p0, p1, p2, p3), s0), part));
    v128.store(dx, f32x4.sub(f32x4.mul(c, across), f32x4.mul(s, down)));
    v128.store(dy, f32x4.add(f32x4.mul(s, across), f32x4.mul(c, down)));
  }
}

/** n numbers that are each `step` more than the one before. @param dst with room for three more */
export function slopeSpan(dst: usize, n: i32, first: f32, step: f32): void {
  const more = f32x4.splat(step);
  const start = f32x4.splat(first);
  for (let i = 0; i < n; i += 4, dst += 16) v128.store(dst, f32x4.add(start, f32x4.mul(f32x4.add(f32x4.splat(<f32>i), f32x4(0, 1, 2, 3)), more)));
}
