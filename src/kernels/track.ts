// Patterns found again in other pictures.
// Source: Baker & Matthews 2004 for the inverse compositional step, Shi & Tomasi 1994 for what is good to track.

/** Bytes as floats 0…1. @param src n bytes, read up to a whole number of fours */
export function bytesPlane(src: usize, n: i32, dst: usize): void {
  const per = f32x4.splat(<f32>(1.0 / 255.0));
  for (let i = 0; i < n; i += 4, src += 4, dst += 16) {
    const wide = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(src)));
    v128.store(dst, f32x4.mul(f32x4.convert_i32x4_u(wide), per));
  }
}

/** Luma of straight 8-bit RGBA, as floats 0…1. */
export function rgbaPlane(src: usize, n: i32, dst: usize): void {
  for (let i = 0; i < n; i++, src += 4, dst += 4) {
    const sum: f32 = <f32>0.2126 * <f32>load<u8>(src) + <f32>0.7152 * <f32>load<u8>(src, 1) + <f32>0.0722 * <f32>load<u8>(src, 2);
    store<f32>(dst, sum * <f32>(1.0 / 255.0));
  }
}

/** What is larger lies in a hole, or too near to one to be told from it. */
const HOLE: f32 = 1e6;

/** Makes holes in a plane where it is not to be looked at. @param looked n bytes, below 128 not */
export function makeHoles(looked: usize, n: i32, plane: usize): void {
  for (let i = 0; i < n; i++, looked++, plane += 4) {
    if (load<u8>(looked) < 128) store<f32>(plane, <f32>1e30);
  }
}

/** Where the place that was read last lies in its plane. */
let inside: bool = false;

/** A plane at a place counted from its upper left corner, by a cubic through the four rows and columns around it (Catmull-Rom); beyond the border its border goes on. */
// @ts-ignore: decorator
@inline
function cubicAt(plane: usize, w: i32, h: i32, x: f32, y: f32): f32 {
  inside = x >= 0 && y >= 0 && x <= <f32>w && y <= <f32>h;
  const px: f32 = x - <f32>0.5;
  const py: f32 = y - <f32>0.5;
  const fx = floor(px);
  const fy = floor(py);
  const ix = <i32>fx;
  const iy = <i32>fy;
  const tx = px - fx;
  const ty = py - fy;
  if (ix >= 1 && iy >= 1 && ix < w - 2 && iy < h - 2) {
    const at = plane + (<usize>((iy - 1) * w + ix - 1) << 2);
    const row = <usize>w << 2;
    const a = v128.load(at);
    const b = v128.load(at + row);
    const c = v128.load(at + 2 * row);
    const d = v128.load(at + 3 * row);
    const sum = f32x4.add(f32x4.add(f32x4.mul(a, f32x4.splat(outer(ty))), f32x4.mul(b, f32x4.splat(inner(ty)))), f32x4.add(f32x4.mul(c, f32x4.splat(inner(<f32>1 - ty))), f32x4.mul(d, f32x4.splat(outer(<f32>1 - ty)))));
    const left: f32 = f32x4.extract_lane(sum, 0) * outer(tx) + f32x4.extract_lane(sum, 1) * inner(tx);
    return left + f32x4.extract_lane(sum, 2) * inner(<f32>1 - tx) + f32x4.extract_lane(sum, 3) * outer(<f32>1 - tx);
  }
  const x0 = min(max(ix, 0), w - 1);
  const x1 = min(max(ix + 1, 0), w - 1);
  const y0 = plane + (<usize>(min(max(iy, 0), h - 1) * w) << 2);
  const y1 = plane + (<usize>(min(max(iy + 1, 0), h - 1) * w) << 2);
  const top: f32 = load<f32>(y0 + (<usize>x0 << 2)) * (<f32>1 - tx) + load<f32>(y0 + (<usize>x1 << 2)) * tx;
  const low: f32 = load<f32>(y1 + (<usize>x0 << 2)) * (<f32>1 - tx) + load<f32>(y1 + (<usize>x1 << 2)) * tx;
  return top + (low - top) * ty;
}
/** Weights of the cubic for the sample before a place and the one before that. */
// @ts-ignore: decorator
@inline
function inner(t: f32): f32 {
  return <f32>1 + t * t * (<f32>1.5 * t - <f32>2.5);
}
// @ts-ignore: decorator
@inline
function outer(t: f32): f32 {
  return t * (<f32>-0.5 + t * (<f32>1 - <f32>0.5 * t));
}

/** A place of a pattern seen through a map of nine floats. */
// @ts-ignore: decorator
@inline
function through(plane: usize, w: i32, h: i32, map: usize, x: f32, y: f32): f32 {
  const per: f32 = <f32>1 / (load<f32>(map, 24) * x + load<f32>(map, 28) * y + load<f32>(map, 32));
  return cubicAt(plane, w, h, (load<f32>(map) * x + load<f32>(map, 4) * y + load<f32>(map, 8)) * per, (load<f32>(map, 12) * x + load<f32>(map, 16) * y + load<f32>(map, 20)) * per);
}

/**
 * A pattern as a plane shows it: three planes of pw×ph floats, its values and how they change along both ways for each half of its longer side.
 * @param map nine floats, row by row: places of the pattern, counted in its samples from its middle → places of the plane
 * @param near how far from each sample its slopes are taken, in samples
 */
export function seePattern(plane: usize, w: i32, h: i32, map: usize, pw: i32, ph: i32, near: f32, out: usize): void {
  const room = <usize>(pw * ph) << 2;
  const half: f32 = <f32>max(pw, ph) * <f32>0.5;
  const per: f32 = half / (<f32>2 * near);
  const left: f32 = <f32>(pw - 1) * <f32>-0.5;
  const top: f32 = <f32>(ph - 1) * <f32>-0.5;
  for (let j = 0; j < ph; j++) {
    const y: f32 = top + <f32>j;
    for (let i = 0; i < pw; i++, out += 4) {
      const x: f32 = left + <f32>i;
      store<f32>(out, through(plane, w, h, map, x, y));
      store<f32>(out + room, (through(plane, w, h, map, x + near, y) - through(plane, w, h, map, x - near, y)) * per);
      store<f32>(out + 2 * room, (through(plane, w, h, map, x, y + near) - through(plane, w, h, map, x, y - near)) * per);
    }
  }
}

/** How much a sample counts: of a windowed pattern less at the very rim. @param u, v −1…1 */
// @ts-ignore: decorator
@inline
function weightOf(windowed: i32, u: f32, v: f32): f32 {
  if (!windowed) return 1;
  const u4: f32 = u * u * u * u;
  const v4: f32 = v * v * v * v;
  return (<f32>1.1 - u4 * u4) * (<f32>1.1 - v4 * v4);
}

/** Sums over what of a pattern lies in the plane and in no hole. */
let sw: f64 = 0;
let st: f64 = 0;
let si: f64 = 0;
let stt: f64 = 0;
let sii: f64 = 0;
let sti: f64 = 0;
let whole: f64 = 0;

/** @param seen out: what is seen of each sample, or a very large number where that lies beyond the plane */
function sumUp(plane: usize, w: i32, h: i32, map: usize, pattern: usize, pw: i32, ph: i32, windowed: i32, seen: usize): void {
  sw = st = si = stt = sii = sti = whole = 0;
  const left: f32 = <f32>(pw - 1) * <f32>-0.5;
  const top: f32 = <f32>(ph - 1) * <f32>-0.5;
  for (let j = 0; j < ph; j++) {
    const y: f32 = top + <f32>j;
    const v: f32 = y * <f32>2 / <f32>ph;
    let rw: f32 = 0;
    let rt: f32 = 0;
    let ri: f32 = 0;
    let rtt: f32 = 0;
    let rii: f32 = 0;
    let rti: f32 = 0;
    for (let i = 0; i < pw; i++, pattern += 4, seen += 4) {
      const x: f32 = left + <f32>i;
      const was = load<f32>(pattern);
      if (abs(was) > HOLE) {
        store<f32>(seen, <f32>1e9);
        continue;
      }
      const weight = weightOf(windowed, x * <f32>2 / <f32>pw, v);
      whole += weight;
      const now = through(plane, w, h, map, x, y);
      if (!inside || abs(now) > HOLE) {
        store<f32>(seen, <f32>1e9);
        continue;
      }
      store<f32>(seen, now);
      rw += weight;
      rt += weight * was;
      ri += weight * now;
      rtt += weight * was * was;
      rii += weight * now * now;
      rti += weight * was * now;
    }
    sw += rw;
    st += rt;
    si += ri;
    stt += rtt;
    sii += rii;
    sti += rti;
  }
}
/** Normalised correlation of the sums, −1…1. */
function correlation(): f64 {
  if (sw <= 0) return 0;
  const tt = stt - (st * st) / sw;
  const ii = sii - (si * si) / sw;
  return tt <= 1e-9 || ii <= 1e-9 ? 0 : (sti - (st * si) / sw) / sqrt(tt * ii);
}

/** The columns of the normal equations for one sample with their right side last, twelve floats, and their sums over a row of the pattern: ten rows of twelve. */
const columns: usize = memory.data(48, 16);
const rowSums: usize = memory.data(480, 16);

/**
 * One step of finding a pattern in a plane, as normal equations: what moves the pattern, then what brightens it and lifts it.
 * @param kind 2 shift, 4 shift, turn and size, 6 affine, 8 projective: how many numbers move it
 * @param stray differences far above this count less; 0 counts all alike
 * @param seen scratch, pw×ph floats
 * @param out doubles: correlation, share of the pattern within the plane and out of its holes, gain, lift, root mean square of what differs, then kind + 2 rows of kind + 3: the equations with their right side
 */
export function matchStep(plane: usize, w: i32, h: i32, map: usize, pattern: usize, pw: i32, ph: i32, kind: i32, windowed: i32, stray: f32, seen: usize, out: usize): void {
  sumUp(plane, w, h, map, pattern, pw, ph, windowed, seen);
  const n = kind + 2;
  const wide = <usize>(n + 1) << 3;
  const rows = out + 40;
  memory.fill(rows, 0, <usize>n * wide);
  store<f64>(out, correlation());
  store<f64>(out, whole > 0 ? sw / whole : 0, 8);
  const tt = stt - (st * st) / max(sw, 1e-9);
  const gain: f64 = tt > 1e-9 ? (sti - (st * si) / sw) / tt : 1;
  const lift: f64 = sw > 0 ? (si - gain * st) / sw : 0;
  store<f64>(out, gain, 16);
  store<f64>(out, lift, 24);
  const room = <usize>(pw * ph) << 2;
  const left: f32 = <f32>(pw - 1) * <f32>-0.5;
  const top: f32 = <f32>(ph - 1) * <f32>-0.5;
  const half: f32 = <f32>2 / <f32>max(pw, ph);
  const per: f32 = <f32>(1.0 / (abs(gain) > 0.05 ? gain : 0.05));
  const off = <f32>lift;
  const far: f32 = stray > 0 ? <f32>1 / (stray * stray) : 0;
  let missed: f64 = 0;
  let counted: f64 = 0;
  memory.fill(columns, 0, 48);
  memory.fill(rowSums, 0, 480);
  for (let j = 0; j < ph; j++) {
    const v: f32 = (top + <f32>j) * half;
    for (let i = 0; i < pw; i++, pattern += 4, seen += 4) {
      const now = load<f32>(seen);
      if (now > <f32>1e8) continue;
      const u: f32 = (left + <f32>i) * half;
      const was = load<f32>(pattern);
      const gx = load<f32>(pattern + room);
      const gy = load<f32>(pattern + 2 * room);
      if (abs(gx) > HOLE || abs(gy) > HOLE) continue;
      const r: f32 = (now - off) * per - was;
      const plain = weightOf(windowed, (left + <f32>i) * <f32>2 / <f32>pw, (top + <f32>j) * <f32>2 / <f32>ph);
      const weight: f32 = plain / (<f32>1 + r * r * far);
      missed += weight * r * r;
      counted += weight;
      let k = columns;
      if (kind == 2) {
        store<f32>(k, gx);
        store<f32>(k, gy, 4);
      } else if (kind == 4) {
        store<f32>(k, gx);
        store<f32>(k, gy, 4);
        store<f32>(k, gx * u + gy * v, 8);
        store<f32>(k, gy * u - gx * v, 12);
      } else {
        store<f32>(k, gx * u);
        store<f32>(k, gx * v, 4);
        store<f32>(k, gx, 8);
        store<f32>(k, gy * u, 12);
        store<f32>(k, gy * v, 16);
        store<f32>(k, gy, 20);
        if (kind == 8) {
          const along: f32 = gx * u + gy * v;
          store<f32>(k, -u * along, 24);
          store<f32>(k, -v * along, 28);
        }
      }
      k += <usize>kind << 2;
      store<f32>(k, was);
      store<f32>(k, 1, 4);
      store<f32>(k, r, 8);
      const c0 = v128.load(columns);
      const c1 = v128.load(columns, 16);
      const c2 = v128.load(columns, 32);
      let row = rowSums;
      for (let a = 0; a < n; a++, row += 48) {
        const by = f32x4.splat(weight * load<f32>(columns + (<usize>a << 2)));
        v128.store(row, f32x4.add(v128.load(row), f32x4.mul(by, c0)));
        v128.store(row, f32x4.add(v128.load(row, 16), f32x4.mul(by, c1)), 16);
        if (kind > 4) v128.store(row, f32x4.add(v128.load(row, 32), f32x4.mul(by, c2)), 32);
      }
    }
    // rows are summed up exactly enough by themselves; all of them together are not
    for (let a: usize = 0; a < <usize>n; a++) {
      for (let b: usize = 0; b <= <usize>n; b++) {
        const at = rows + a * wide + (b << 3);
        store<f64>(at, load<f64>(at) + <f64>load<f32>(rowSums + a * 48 + (b << 2)));
      }
    }
    memory.fill(rowSums, 0, 480);
  }
  store<f64>(out, counted > 0 ? sqrt(missed / counted) : 0, 32);
}

/**
 * Where within a reach of whole pixels a pattern fits best. @param reach each way
 * @param taken nine floats, scratch @param seen scratch, pw×ph floats
 * @param out doubles: x and y to go, correlation there, and the best correlation further than two pixels from there
 */
export function matchSearch(plane: usize, w: i32, h: i32, map: usize, pattern: usize, pw: i32, ph: i32, windowed: i32, reach: i32, taken: usize, seen: usize, out: usize, scores: usize): void {
  let best: f64 = -2;
  let bx = 0;
  let by = 0;
  let at = scores;
  for (let dy = -reach; dy <= reach; dy++) {
    for (let dx = -reach; dx <= reach; dx++, at += 4) {
      for (let k: usize = 0; k < 36; k += 12) {
        const shift: f32 = k == 0 ? <f32>dx : k == 12 ? <f32>dy : 0;
        store<f32>(taken + k, load<f32>(map + k) + shift * load<f32>(map, 24));
        store<f32>(taken + k, load<f32>(map + k, 4) + shift * load<f32>(map, 28), 4);
        store<f32>(taken + k, load<f32>(map + k, 8) + shift * load<f32>(map, 32), 8);
      }
      sumUp(plane, w, h, taken, pattern, pw, ph, windowed, seen);
      // what lies half beyond the picture is no find
      const score: f64 = sw < whole * 0.5 ? -1 : correlation();
      store<f32>(at, <f32>score);
      if (score > best) {
        best = score;
        bx = dx;
        by = dy;
      }
    }
  }
  let second: f64 = -1;
  at = scores;
  for (let dy = -reach; dy <= reach; dy++) {
    for (let dx = -reach; dx <= reach; dx++, at += 4) {
      if (abs(dx - bx) > 2 || abs(dy - by) > 2) second = max(second, <f64>load<f32>(at));
    }
  }
  store<f64>(out, <f64>bx);
  store<f64>(out, <f64>by, 8);
  store<f64>(out, best, 16);
  store<f64>(out, second, 24);
}

/** The smaller eigenvalue of how a plane changes within r pixels about each pixel, by the pixel: how surely it can be found again whichever way it moves. */
export function cornerPlane(plane: usize, w: i32, h: i32, r: i32, out: usize): void {
  memory.fill(out, 0, <usize>(w * h) << 2);
  const side = 2 * r + 1;
  const area = side * side;
  const per: f32 = <f32>1 / <f32>area;
  for (let y = r + 1; y < h - r - 1; y++) {
    for (let x = r + 1; x < w - r - 1; x++) {
      let xx: f32 = 0;
      let xy: f32 = 0;
      let yy: f32 = 0;
      for (let j = -r; j <= r; j++) {
        const row = plane + (<usize>((y + j) * w + x - r) << 2);
        const above = row - (<usize>w << 2);
        const below = row + (<usize>w << 2);
        for (let i: usize = 0; i <= <usize>(2 * r); i++) {
          const at = i << 2;
          const gx: f32 = load<f32>(row + at, 4) - load<f32>(row + at - 4);
          const gy: f32 = load<f32>(below + at) - load<f32>(above + at);
          xx += gx * gx;
          xy += gx * gy;
          yy += gy * gy;
        }
      }
      const mid: f32 = (xx + yy) * <f32>0.5;
      const off: f32 = (xx - yy) * <f32>0.5;
      store<f32>(out + (<usize>(y * w + x) << 2), max(<f32>0, mid - sqrt(off * off + xy * xy)) * per * <f32>0.25);
    }
  }
}
