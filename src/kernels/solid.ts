// Solids: triangles drawn by depth and lit, sixteen samples a pixel.
import { scatter } from './lanes';
import { decode, encode } from './light';

/** Bytes of a triangle: x, y, nearness of its three corners; their three normals; its material, and the first triangle of the facet or face that it is a part of (by number); room for the area. */
const TRIANGLE: usize = 84;
const NORMALS: usize = 36;
const MATERIAL: usize = 72;
const FACET: usize = 76;
const AREA: usize = 80;
/** The material of sides, which alone are round. */
const SIDE: i32 = 1;
/** Bytes of a material: colour, glow, gloss. */
const LOOK: usize = 32;
/** Rows of pixels whose samples are held at a time. */
const BAND: i32 = 8;
/** Samples of a pixel along each side. */
const FINE: i32 = 4;
const NOTHING: i32 = -1;

/** Bytes of work that drawSolid needs for n triangles on a picture of w×h. */
export function solidWork(n: i32, w: i32, h: i32): i32 {
  return n * 4 + ((h + BAND - 1) / BAND) * 4 + w * FINE * BAND * FINE * 8 + 64;
}

/** The first sample whose middle is not left of x. */
// @ts-ignore: decorator
@inline
function sampleAt(x: f64, most: i32): i32 {
  const first = ceil(x * <f64>FINE - 0.5);
  return first <= 0 ? 0 : first >= <f64>most ? most : <i32>first;
}
/** How far a side goes along for a row: counted from its upper end, so that neighbours find the same. */
// @ts-ignore: decorator
@inline
function slope(xa: f64, ya: f64, xb: f64, yb: f64): f64 {
  return ya < yb ? (xb - xa) / (yb - ya) : ya > yb ? (xa - xb) / (ya - yb) : 0;
}
// @ts-ignore: decorator
@inline
function crossing(xa: f64, ya: f64, xb: f64, yb: f64, along: f64, y: f64): f64 {
  return ya < yb ? xa + (y - ya) * along : xb + (y - yb) * along;
}

/** Marks the samples of rows from..to that a triangle is nearest in. @param which whose they become @param depth, owner planes of samples of those rows */
function mark(at: usize, which: i32, depth: usize, owner: usize, wide: i32, from: i32, to: i32): void {
  const x0 = <f64>load<f32>(at);
  const y0 = <f64>load<f32>(at, 4);
  const q0 = load<f32>(at, 8);
  const x1 = <f64>load<f32>(at, 12);
  const y1 = <f64>load<f32>(at, 16);
  const q1 = load<f32>(at, 20);
  const x2 = <f64>load<f32>(at, 24);
  const y2 = <f64>load<f32>(at, 28);
  const q2 = load<f32>(at, 32);
  const inverse = <f64>load<f32>(at, AREA);
  const alongX = ((<f64>q1 - <f64>q0) * (y2 - y0) - (<f64>q2 - <f64>q0) * (y1 - y0)) * inverse;
  const alongY = ((x1 - x0) * (<f64>q2 - <f64>q0) - (x2 - x0) * (<f64>q1 - <f64>q0)) * inverse;
  // thin slivers have steep planes: what is found on them lies between their corners all the same
  const least = f32x4.splat(min(q0, min(q1, q2)));
  const most = f32x4.splat(max(q0, max(q1, q2)));
  const step = <f32>(alongX / <f64>FINE);
  const steps = f32x4.mul(f32x4.splat(step), f32x4(0, 1, 2, 3));
  const mine = i32x4.splat(which);
  const slope0 = slope(x0, y0, x1, y1);
  const slope1 = slope(x1, y1, x2, y2);
  const slope2 = slope(x2, y2, x0, y0);
  const top = y0 < y1 ? (y0 < y2 ? y0 : y2) : y1 < y2 ? y1 : y2;
  const bottom = y0 > y1 ? (y0 > y2 ? y0 : y2) : y1 > y2 ? y1 : y2;
  const last = sampleAt(bottom, to);
  for (let row = max(from, sampleAt(top, to)); row < last; row++) {
    const y = (<f64>row + 0.5) / <f64>FINE;
    let left = Infinity;
    let right = -Infinity;
    if (y0 <= y != y1 <= y) {
      const x = crossing(x0, y0, x1, y1, slope0, y);
      left = x < left ? x : left;
      right = x > right ? x : right;
    }
    if (y1 <= y != y2 <= y) {
      const x = crossing(x1, y1, x2, y2, slope1, y);
      left = x < left ? x : left;
      right = x > right ? x : right;
    }
    if (y2 <= y != y0 <= y) {
      const x = crossing(x2, y2, x0, y0, slope2, y);
      left = x < left ? x : left;
      right = x > right ? x : right;
    }
    if (!(left < right)) continue;
    const first = sampleAt(left, wide);
    const end = sampleAt(right, wide);
    const q = <f32>(<f64>q0 + alongX * ((<f64>first + 0.5) / <f64>FINE - x0) + alongY * (y - y0));
    let near = f32x4.add(f32x4.splat(q), steps);
    const further = f32x4.splat(step * <f32>FINE);
    let place = <usize>((row - from) * wide + first) << 2;
    for (let left4 = end - first; left4 > 0; left4 -= 4, place += 16) {
      const now = f32x4.pmax(least, f32x4.pmin(most, near));
      const held = v128.load(depth + place);
      let wins = f32x4.gt(now, held);
      if (left4 < 4) wins = v128.and(wins, i32x4.gt_s(i32x4.splat(left4), i32x4(0, 1, 2, 3)));
      v128.store(depth + place, v128.bitselect(now, held, wins));
      v128.store(owner + place, v128.bitselect(mine, v128.load(owner + place), wins));
      near = f32x4.add(near, further);
    }
  }
}

/** Light of the three together. @param much of each */
// @ts-ignore: decorator
@inline
function fromLights(lights: usize, much: v128): v128 {
  const one = f32x4.mul(v128.load(lights, 48), v128.shuffle<f32>(much, much, 0, 0, 0, 0));
  const two = f32x4.mul(v128.load(lights, 64), v128.shuffle<f32>(much, much, 1, 1, 1, 1));
  const three = f32x4.mul(v128.load(lights, 80), v128.shuffle<f32>(much, much, 2, 2, 2, 2));
  return f32x4.add(f32x4.add(one, two), three);
}

/** Which way the eye is from a place of the picture. @param eye its distance, in pixels; it is in front of cx, cy */
// @ts-ignore: decorator
@inline
function viewFrom(px: f32, py: f32, cx: f32, cy: f32, eye: f32): v128 {
  const x = cx - px;
  const y = cy - py;
  const away = <f32>1 / sqrt(x * x + y * y + eye * eye);
  return f32x4.mul(f32x4(x, y, eye, 0), f32x4.splat(away));
}

/** Linear colour of a triangle as seen in a place of the picture. @param px, py pixels */
function lit(at: usize, px: f32, py: f32, view: v128, looks: usize, lights: usize): v128 {
  const n = at + NORMALS;
  let nx = load<f32>(n);
  let ny = load<f32>(n, 4);
  let nz = load<f32>(n, 8);
  if (<i32>load<f32>(at, MATERIAL) == SIDE) {
    const x0 = load<f32>(at);
    const y0 = load<f32>(at, 4);
    const inverse = load<f32>(at, AREA);
    let one = ((px - x0) * (load<f32>(at, 28) - y0) - (load<f32>(at, 24) - x0) * (py - y0)) * inverse;
    let two = ((load<f32>(at, 12) - x0) * (py - y0) - (px - x0) * (load<f32>(at, 16) - y0)) * inverse;
    // in the other half of a facet of two it lies outside; so may the middle of a pixel that is only partly covered
    one = one < -1 ? -1 : one > 2 ? 2 : one;
    two = two < -1 ? -1 : two > 2 ? 2 : two;
    let none = <f32>1 - one - two;
    none *= load<f32>(at, 8);
    one *= load<f32>(at, 20);
    two *= load<f32>(at, 32);
    nx = none * nx + one * load<f32>(n, 12) + two * load<f32>(n, 24);
    ny = none * ny + one * load<f32>(n, 16) + two * load<f32>(n, 28);
    nz = none * nz + one * load<f32>(n, 20) + two * load<f32>(n, 32);
  }
  const long = <f32>1 / sqrt(nx * nx + ny * ny + nz * nz + <f32>1e-20);
  nx *= long;
  ny *= long;
  nz *= long;
  const vx = f32x4.extract_lane(view, 0);
  const vy = f32x4.extract_lane(view, 1);
  const vz = f32x4.extract_lane(view, 2);
  const look = looks + <usize>load<f32>(at, MATERIAL) * LOOK;
  const colour = v128.load(look);
  // a lane is a light
  const lx = v128.load(lights);
  const ly = v128.load(lights, 16);
  const lz = v128.load(lights, 32);
  const zero = f32x4.splat(0);
  const mx = f32x4.splat(nx);
  const my = f32x4.splat(ny);
  const mz = f32x4.splat(nz);
  const towards = f32x4.add(f32x4.add(f32x4.mul(mx, lx), f32x4.mul(my, ly)), f32x4.mul(mz, lz));
  const facing = f32x4.pmax(zero, towards);
  const matt = f32x4.add(f32x4.splat(load<f32>(look, 16)), fromLights(lights, facing));
  // Blinn 1977: how near the normal is to the middle between light and eye
  const hx = f32x4.add(lx, f32x4.splat(vx));
  const hy = f32x4.add(ly, f32x4.splat(vy));
  const hz = f32x4.add(lz, f32x4.splat(vz));
  const long2 = f32x4.add(f32x4.add(f32x4.mul(hx, hx), f32x4.mul(hy, hy)), f32x4.add(f32x4.mul(hz, hz), f32x4.splat(<f32>1e-20)));
  const along = f32x4.pmax(zero, f32x4.add(f32x4.add(f32x4.mul(mx, hx), f32x4.mul(my, hy)), f32x4.mul(mz, hz)));
  // to the power of 32, by squaring
  let near = f32x4.div(f32x4.mul(along, along), long2);
  near = f32x4.mul(near, near);
  near = f32x4.mul(near, near);
  near = f32x4.mul(near, near);
  near = f32x4.mul(near, near);
  near = v128.and(f32x4.mul(near, f32x4.splat(load<f32>(look, 20))), f32x4.gt(towards, zero));
  const shine = fromLights(lights, near);
  return f32x4.pmin(f32x4.add(f32x4.mul(colour, matt), shine), f32x4.splat(1));
}

/** The same for four pixels of a flat surface side by side. */
function litFour(at: usize, px: f32, py: f32, looks: usize, lights: usize, cx: f32, cy: f32, eye: f32, dst: usize): void {
  let nx = load<f32>(at, NORMALS);
  let ny = load<f32>(at, NORMALS + 4);
  let nz = load<f32>(at, NORMALS + 8);
  const long = <f32>1 / sqrt(nx * nx + ny * ny + nz * nz + <f32>1e-20);
  nx *= long;
  ny *= long;
  nz *= long;
  const look = looks + <usize>load<f32>(at, MATERIAL) * LOOK;
  const glow = load<f32>(look, 16);
  const gloss = f32x4.splat(load<f32>(look, 20));
  const dx = f32x4.sub(f32x4.splat(cx - px), f32x4(0, 1, 2, 3));
  const dy = cy - py;
  const far = f32x4.add(f32x4.mul(dx, dx), f32x4.splat(dy * dy + eye * eye));
  const away = f32x4.div(f32x4.splat(1), f32x4.sqrt(far));
  const vx = f32x4.mul(dx, away);
  const vy = f32x4.mul(f32x4.splat(dy), away);
  const vz = f32x4.mul(f32x4.splat(eye), away);
  const zero = f32x4.splat(0);
  let red = f32x4.splat(glow * load<f32>(look));
  let green = f32x4.splat(glow * load<f32>(look, 4));
  let blue = f32x4.splat(glow * load<f32>(look, 8));
  for (let i: usize = 0; i < 12; i += 4) {
    const lx = load<f32>(lights + i);
    const ly = load<f32>(lights + i, 16);
    const lz = load<f32>(lights + i, 32);
    const facing = nx * lx + ny * ly + nz * lz;
    if (!(facing > 0)) continue;
    const hx = f32x4.add(f32x4.splat(lx), vx);
    const hy = f32x4.add(f32x4.splat(ly), vy);
    const hz = f32x4.add(f32x4.splat(lz), vz);
    const long2 = f32x4.add(f32x4.add(f32x4.mul(hx, hx), f32x4.mul(hy, hy)), f32x4.add(f32x4.mul(hz, hz), f32x4.splat(<f32>1e-20)));
    const along = f32x4.pmax(zero, f32x4.add(f32x4.add(f32x4.mul(f32x4.splat(nx), hx), f32x4.mul(f32x4.splat(ny), hy)), f32x4.mul(f32x4.splat(nz), hz)));
    let near = f32x4.div(f32x4.mul(along, along), long2);
    near = f32x4.mul(near, near);
    near = f32x4.mul(near, near);
    near = f32x4.mul(near, near);
    near = f32x4.mul(near, near);
    near = f32x4.mul(near, gloss);
    const light = lights + (i << 2);
    red = f32x4.add(red, f32x4.mul(f32x4.splat(load<f32>(light, 48)), f32x4.add(f32x4.splat(facing * load<f32>(look)), near)));
    green = f32x4.add(green, f32x4.mul(f32x4.splat(load<f32>(light, 52)), f32x4.add(f32x4.splat(facing * load<f32>(look, 4)), near)));
    blue = f32x4.add(blue, f32x4.mul(f32x4.splat(load<f32>(light, 56)), f32x4.add(f32x4.splat(facing * load<f32>(look, 8)), near)));
  }
  const one = f32x4.splat(1);
  scatter(dst, encode(f32x4.pmin(red, one)), encode(f32x4.pmin(green, one)), encode(f32x4.pmin(blue, one)), one, 4);
}

/**
 * Draws n triangles over a clear picture of w×h premultiplied pixels: of each sample the nearest one. They may turn either way.
 * @param list triangles, in pixels of the picture; nearness = 1 / distance from the eye @param looks materials: display-encoded colour, glow, gloss
 * @param lights where three come from (unit, y down, z towards the eye): x of each, y of each, z of each, with a fourth that is unused; then their linear colours @param work see solidWork
 */
export function drawSolid(list: usize, n: i32, dst: usize, w: i32, h: i32, looks: usize, materials: i32, lights: usize, cx: f32, cy: f32, eye: f32, work: usize): void {
  const bands = (h + BAND - 1) / BAND;
  const next = work;
  const heads = next + (<usize>n << 2);
  const depth = (heads + (<usize>bands << 2) + 15) & ~15;
  const wide = w * FINE;
  const samples = wide * BAND * FINE;
  const owner = depth + (<usize>samples << 2);
  for (let i = 0; i < materials; i++) v128.store(looks + <usize>i * LOOK, decode(v128.load(looks + <usize>i * LOOK)));
  memory.fill(heads, 255, <usize>bands << 2);
  for (let i = n - 1; i >= 0; i--) {
    const at = list + <usize>i * TRIANGLE;
    const area = (load<f32>(at, 12) - load<f32>(at)) * (load<f32>(at, 28) - load<f32>(at, 4)) - (load<f32>(at, 24) - load<f32>(at)) * (load<f32>(at, 16) - load<f32>(at, 4));
    const top = min(load<f32>(at, 4), min(load<f32>(at, 16), load<f32>(at, 28)));
    const bottom = max(load<f32>(at, 4), max(load<f32>(at, 16), load<f32>(at, 28)));
    if (area == 0 || !(bottom > 0) || !(top < <f32>h)) continue;
    store<f32>(at, <f32>1 / area, AREA);
    const first = top > 0 ? <i32>top / BAND : 0;
    store<i32>(next + (<usize>i << 2), load<i32>(heads + (<usize>first << 2)));
    store<i32>(heads + (<usize>first << 2), i);
  }
  for (let band = 0; band < bands; band++) {
    let i = load<i32>(heads + (<usize>band << 2));
    if (i == NOTHING) continue;
    memory.fill(depth, 0, <usize>samples << 2);
    memory.fill(owner, 255, <usize>samples << 2);
    const from = band * BAND * FINE;
    const to = from + BAND * FINE;
    while (i != NOTHING) {
      const at = list + <usize>i * TRIANGLE;
      const following = load<i32>(next + (<usize>i << 2));
      mark(at, <i32>load<f32>(at, FACET), depth, owner, wide, from, to);
      const bottom = max(load<f32>(at, 4), max(load<f32>(at, 16), load<f32>(at, 28)));
      if (band + 1 < bands && bottom > <f32>((band + 1) * BAND)) {
        store<i32>(next + (<usize>i << 2), load<i32>(heads + (<usize>(band + 1) << 2)));
        store<i32>(heads + (<usize>(band + 1) << 2), i);
      }
      i = following;
    }
    const rows = min(BAND, h - band * BAND);
    for (let row = 0; row < rows; row++)
      resolve(list, dst + (<usize>((band * BAND + row) * w) << 4), owner + (<usize>(row * FINE * wide) << 2), w, <f32>(band * BAND + row) + <f32>0.5, looks, lights, cx, cy, eye);
  }
}

/** Which samples of a pixel are whose. */
// @ts-ignore: decorator
@inline
function whole(owner: usize, wide: usize, whose: v128): v128 {
  const upper = v128.and(i32x4.eq(v128.load(owner), whose), i32x4.eq(v128.load(owner + wide), whose));
  const lower = v128.and(i32x4.eq(v128.load(owner + 2 * wide), whose), i32x4.eq(v128.load(owner + 3 * wide), whose));
  return v128.and(upper, lower);
}

/** The same as sixteen bits. */
// @ts-ignore: decorator
@inline
function samplesOf(owner: usize, wide: usize, whose: v128): i32 {
  const one = i32x4.bitmask(i32x4.eq(v128.load(owner), whose));
  const two = i32x4.bitmask(i32x4.eq(v128.load(owner + wide), whose));
  const three = i32x4.bitmask(i32x4.eq(v128.load(owner + 2 * wide), whose));
  const four = i32x4.bitmask(i32x4.eq(v128.load(owner + 3 * wide), whose));
  return one | (two << 4) | (three << 8) | (four << 12);
}

/** Gives the pixels of a row the colours of their samples' owners. */
function resolve(list: usize, dst: usize, owner: usize, w: i32, py: f32, looks: usize, lights: usize, cx: f32, cy: f32, eye: f32): void {
  const wide = <usize>(w * FINE) << 2;
  for (let x = 0; x < w; x++, dst += 16, owner += 16) {
    const first = load<i32>(owner);
    const same = i32x4.splat(first);
    const px = <f32>x + <f32>0.5;
    if (i32x4.all_true(whole(owner, wide, same))) {
      if (first == NOTHING) continue;
      const at = list + <usize>first * TRIANGLE;
      const four = x + 3 < w && <i32>load<f32>(at, MATERIAL) != SIDE && i32x4.all_true(v128.and(v128.and(whole(owner + 16, wide, same), whole(owner + 32, wide, same)), whole(owner + 48, wide, same)));
      if (four) {
        litFour(at, px, py, looks, lights, cx, cy, eye, dst);
        x += 3;
        dst += 48;
        owner += 48;
      } else v128.store(dst, f32x4.replace_lane(encode(lit(at, px, py, viewFrom(px, py, cx, cy, eye), looks, lights)), 3, 1));
      continue;
    }
    const view = viewFrom(px, py, cx, cy, eye);
    let sum = f32x4.splat(0);
    let count = 0;
    let left = ~samplesOf(owner, wide, i32x4.splat(NOTHING)) & 0xffff;
    while (left) {
      const s = <usize>ctz(left);
      const i = load<i32>(owner + (s >> 2) * wide + ((s & 3) << 2));
      const its = samplesOf(owner, wide, i32x4.splat(i));
      const shown = lit(list + <usize>i * TRIANGLE, px, py, view, looks, lights);
      const many = popcnt(its);
      count += many;
      sum = f32x4.add(sum, f32x4.mul(shown, f32x4.splat(<f32>many)));
      left &= ~its;
    }
    const mean = f32x4.replace_lane(encode(f32x4.mul(sum, f32x4.splat(<f32>1 / <f32>count))), 3, 1);
    v128.store(dst, f32x4.mul(mean, f32x4.splat(<f32>count / <f32>(FINE * FINE))));
  }
}
