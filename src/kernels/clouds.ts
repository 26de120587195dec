// Clouds: gradient noise in three dimensions, layer over layer.
import { mixed } from './lanes';

/** The slope of one of twelve directions at a corner. Source: Perlin 2002, “Improving noise”. */
// @ts-ignore: decorator
@inline
function slope(hash: u32, x: f32, y: f32, z: f32): f32 {
  const h = hash & 15;
  const u: f32 = h < 8 ? x : y;
  const v: f32 = h < 4 ? y : h == 12 || h == 14 ? x : z;
  return (h & 1 ? -u : u) + (h & 2 ? -v : v);
}
// @ts-ignore: decorator
@inline
function eased(t: f32): f32 {
  return t * t * t * (t * (t * <f32>6 - <f32>15) + <f32>10);
}
// @ts-ignore: decorator
@inline
function mix(a: f32, b: f32, t: f32): f32 {
  return a + (b - a) * t;
}
/** Numbers 0…255 in some order, twice, so that sums of two need not be wrapped; by seed. */
const ORDER = memory.data(512);
let ordered: u32 = 0xffffffff;
function order(seed: u32): void {
  if (ordered == seed) return;
  ordered = seed;
  for (let i = 0; i < 256; i++) store<u8>(ORDER + i, <u8>i);
  for (let i = 255; i > 0; i--) {
    const j = mixed(<u32>i * 0x9e3779b1 ^ seed) % <u32>(i + 1);
    const other = load<u8>(ORDER + j);
    store<u8>(ORDER + j, load<u8>(ORDER + i));
    store<u8>(ORDER + i, other);
  }
  memory.copy(ORDER + 256, ORDER, 256);
}
// @ts-ignore: decorator
@inline
function pick(at: u32): u32 {
  return <u32>load<u8>(ORDER + <usize>at);
}

/** Noise about −1…1 whose grain is as wide as the unit, by the order that was made last. Source: Perlin 2002. */
// @ts-ignore: decorator
@inline
function gradientNoise(x: f32, y: f32, z: f32): f32 {
  const fx = floor(x);
  const fy = floor(y);
  const fz = floor(z);
  const ix = <u32><i32>fx & 255;
  const iy = <u32><i32>fy & 255;
  const iz = <u32><i32>fz & 255;
  x -= fx;
  y -= fy;
  z -= fz;
  const u = eased(x);
  const v = eased(y);
  const left = pick(ix) + iy;
  const right = pick(ix + 1) + iy;
  const a0 = pick(left) + iz;
  const a1 = pick(left + 1) + iz;
  const b0 = pick(right) + iz;
  const b1 = pick(right + 1) + iz;
  const low = mix(
    mix(slope(pick(a0), x, y, z), slope(pick(b0), x - 1, y, z), u),
    mix(slope(pick(a1), x, y - 1, z), slope(pick(b1), x - 1, y - 1, z), u),
    v,
  );
  const high = mix(
    mix(slope(pick(a0 + 1), x, y, z - 1), slope(pick(b0 + 1), x - 1, y, z - 1), u),
    mix(slope(pick(a1 + 1), x, y - 1, z - 1), slope(pick(b1 + 1), x - 1, y - 1, z - 1), u),
    v,
  );
  return mix(low, high, eased(z));
}

/** A w×h plane of noise about −1…1. @param x, y, z of its first place, in grains @param dx, dy grains from one place to the next */
export function noisePlane(dst: usize, w: i32, h: i32, x: f32, y: f32, z: f32, dx: f32, dy: f32, seed: u32): void {
  order(seed);
  for (let row = 0; row < h; row++) {
    const py = y + <f32>row * dy;
    for (let i = 0; i < w; i++, dst += 4) store<f32>(dst, gradientNoise(x + <f32>i * dx, py, z));
  }
}

/**
 * Adds a coarse plane to a w×h one, `step` places of which lie between two of the coarse ones, in straight lines between those.
 * @param wide places in a row of the coarse plane @param fromX, fromY how far the first place lies from the first coarse one @param veins 1 folds it, so that where it crosses 0 it is most
 */
export function addCoarse(coarse: usize, wide: i32, step: i32, fromX: i32, fromY: i32, dst: usize, w: i32, h: i32, weight: f32, veins: i32): void {
  const per: f32 = <f32>1 / <f32>step;
  for (let y = 0; y < h; y++) {
    const cy = (y + fromY) / step;
    const ty: f32 = <f32>(y + fromY - cy * step) * per;
    const row = coarse + (<usize>(cy * wide) << 2);
    const below = row + (<usize>wide << 2);
    let left: f32 = mix(load<f32>(row), load<f32>(below), ty);
    let right: f32 = mix(load<f32>(row, 4), load<f32>(below, 4), ty);
    for (let x = 0, cx = 1, k = fromX; x < w; x++, k++, dst += 4) {
      if (k == step) {
        left = right;
        cx++;
        right = mix(load<f32>(row + (<usize>cx << 2)), load<f32>(below + (<usize>cx << 2)), ty);
        k = 0;
      }
      const v = mix(left, right, <f32>k * per);
      store<f32>(dst, load<f32>(dst) + weight * (veins ? <f32>1 - <f32>2 * abs(v) : v));
    }
  }
}

/**
 * Pixels of a table of premultiplied colours by n floats. @param low, high floats that are the table's ends @param table `steps` colours of four floats
 */
export function tableColours(plane: usize, dst: usize, n: i32, low: f32, high: f32, table: usize, steps: i32): void {
  const per: f32 = <f32>(steps - 1) / max(high - low, <f32>1e-6);
  for (let i = 0; i < n; i++, plane += 4, dst += 16) {
    const place = min(max((load<f32>(plane) - low) * per, <f32>0), <f32>(steps - 1));
    const index = min(<i32>place, steps - 2);
    const from = v128.load(table + (<usize>index << 4));
    v128.store(dst, f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(table + (<usize>index << 4), 16), from), f32x4.splat(place - <f32>index))));
  }
}

/** A pixel between four of a picture. @param tu, tv how far it lies to the right and down of the first, 0…1 */
// @ts-ignore: decorator
@inline
function betweenFour(src: usize, w: i32, h: i32, dst: usize, iu: i32, iv: i32, tu: v128, tv: v128): void {
  const r0 = src + (<usize>(iv * w + iu) << 4);
  const right: usize = iu + 1 < w ? 16 : 0;
  const down: usize = iv + 1 < h ? <usize>w << 4 : 0;
  const p00 = v128.load(r0);
  const p01 = v128.load(r0 + down);
  const top = f32x4.add(p00, f32x4.mul(f32x4.sub(v128.load(r0 + right), p00), tu));
  const low = f32x4.add(p01, f32x4.mul(f32x4.sub(v128.load(r0 + down + right), p01), tu));
  v128.store(dst, f32x4.add(top, f32x4.mul(f32x4.sub(low, top), tv)));
}

/**
 * A row of a picture whose pixels are taken from elsewhere, between four pixels each; beyond the border there is the border's own.
 * @param src w×h pixels @param dst n pixels of the row @param x, y of the row's first pixel in the picture @param dx, dy planes of how far off each is taken, with room for three more
 */
export function displacedRow(src: usize, w: i32, h: i32, dst: usize, n: i32, x: i32, y: i32, dx: usize, dy: usize, amount: f32): void {
  const much = f32x4.splat(amount);
  const zero = f32x4.splat(0);
  const lastX = f32x4.splat(<f32>(w - 1));
  const lastY = f32x4.splat(<f32>(h - 1));
  const row = f32x4.splat(<f32>y);
  // places are cut to whole pixels four at a time: one by one that takes longer than all the rest
  for (let i = 0; i < n; i += 4, dx += 16, dy += 16) {
    const across = f32x4.add(f32x4.splat(<f32>(x + i)), f32x4(0, 1, 2, 3));
    const u = f32x4.pmin(f32x4.pmax(f32x4.add(across, f32x4.mul(much, v128.load(dx))), zero), lastX);
    const v = f32x4.pmin(f32x4.pmax(f32x4.add(row, f32x4.mul(much, v128.load(dy))), zero), lastY);
    const iu = i32x4.trunc_sat_f32x4_s(u);
    const iv = i32x4.trunc_sat_f32x4_s(v);
    const tu = f32x4.sub(u, f32x4.convert_i32x4_s(iu));
    const tv = f32x4.sub(v, f32x4.convert_i32x4_s(iv));
    betweenFour(src, w, h, dst, i32x4.extract_lane(iu, 0), i32x4.extract_lane(iv, 0), v128.shuffle<f32>(tu, tu, 0, 0, 0, 0), v128.shuffle<f32>(tv, tv, 0, 0, 0, 0));
    if (i + 1 < n) betweenFour(src, w, h, dst + 16, i32x4.extract_lane(iu, 1), i32x4.extract_lane(iv, 1), v128.shuffle<f32>(tu, tu, 1, 1, 1, 1), v128.shuffle<f32>(tv, tv, 1, 1, 1, 1));
    if (i + 2 < n) betweenFour(src, w, h, dst + 32, i32x4.extract_lane(iu, 2), i32x4.extract_lane(iv, 2), v128.shuffle<f32>(tu, tu, 2, 2, 2, 2), v128.shuffle<f32>(tv, tv, 2, 2, 2, 2));
    if (i + 3 < n) betweenFour(src, w, h, dst + 48, i32x4.extract_lane(iu, 3), i32x4.extract_lane(iv, 3), v128.shuffle<f32>(tu, tu, 3, 3, 3, 3), v128.shuffle<f32>(tv, tv, 3, 3, 3, 3));
    dst += 64;
  }
}
