// Colour tables.
import { straight } from './light';

/**
 * Premultiplied display-encoded pixels through a lattice of colours, between whose points tetrahedra are taken.
 * @param table size³ entries of four floats, red changing fastest @param domain six floats: what the first and the last points stand for
 * @param strength 0…1 @param source Kasson et al. 1995
 */
export function latticeSpan(src: usize, dst: usize, n: i32, table: usize, size: i32, domain: usize, strength: f32): void {
  const last: f32 = <f32>(size - 1);
  const row = <usize>size << 4;
  const plane = row * <usize>size;
  const share = f32x4.splat(strength);
  const most = size - 2;
  for (let i = 0; i < n; i++, src += 16, dst += 16) {
    const p = v128.load(src);
    const a = f32x4.extract_lane(p, 3);
    if (a <= 0) {
      v128.store(dst, p);
      continue;
    }
    const c = straight(p);
    const x: f32 = min(max((f32x4.extract_lane(c, 0) - load<f32>(domain)) / (load<f32>(domain, 12) - load<f32>(domain)), <f32>0), <f32>1) * last;
    const y: f32 = min(max((f32x4.extract_lane(c, 1) - load<f32>(domain, 4)) / (load<f32>(domain, 16) - load<f32>(domain, 4)), <f32>0), <f32>1) * last;
    const z: f32 = min(max((f32x4.extract_lane(c, 2) - load<f32>(domain, 8)) / (load<f32>(domain, 20) - load<f32>(domain, 8)), <f32>0), <f32>1) * last;
    const ix = min(<i32>x, most);
    const iy = min(<i32>y, most);
    const iz = min(<i32>z, most);
    const fx: f32 = x - <f32>ix;
    const fy: f32 = y - <f32>iy;
    const fz: f32 = z - <f32>iz;
    const at = table + (<usize>ix << 4) + <usize>iy * row + <usize>iz * plane;
    // from the corner nearest to black along the axes, the farthest one first
    let one: usize = 0;
    let two: usize = 0;
    let ga: f32 = 0;
    let gb: f32 = 0;
    let gc: f32 = 0;
    if (fx >= fy) {
      if (fy >= fz) {
        one = 16; two = 16 + row; ga = fx; gb = fy; gc = fz;
      } else if (fx >= fz) {
        one = 16; two = 16 + plane; ga = fx; gb = fz; gc = fy;
      } else {
        one = plane; two = plane + 16; ga = fz; gb = fx; gc = fy;
      }
    } else if (fx >= fz) {
      one = row; two = row + 16; ga = fy; gb = fx; gc = fz;
    } else if (fy >= fz) {
      one = row; two = row + plane; ga = fy; gb = fz; gc = fx;
    } else {
      one = plane; two = plane + row; ga = fz; gb = fy; gc = fx;
    }
    let sum = f32x4.mul(v128.load(at), f32x4.splat(<f32>1 - ga));
    sum = f32x4.add(sum, f32x4.mul(v128.load(at + one), f32x4.splat(ga - gb)));
    sum = f32x4.add(sum, f32x4.mul(v128.load(at + two), f32x4.splat(gb - gc)));
    sum = f32x4.add(sum, f32x4.mul(v128.load(at + 16 + row + plane), f32x4.splat(gc)));
    const out = f32x4.pmax(f32x4.add(c, f32x4.mul(f32x4.sub(sum, c), share)), f32x4.splat(0));
    v128.store(dst, f32x4.replace_lane(f32x4.mul(out, f32x4.splat(a)), 3, a));
  }
}
