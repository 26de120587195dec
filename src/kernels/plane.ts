// Planes: one float for each pixel.
import { held } from './lanes';

/** dst = (dst − from) / width, limited to 0…1, n floats. */
export function rampPlane(dst: usize, n: i32, from: f32, width: f32): void {
  const share: f32 = <f32>1 / width;
  let left = n;
  for (; left >= 4; left -= 4, dst += 16) v128.store(dst, held(f32x4.mul(f32x4.sub(v128.load(dst), f32x4.splat(from)), f32x4.splat(share))));
  for (; left > 0; left--, dst += 4) store<f32>(dst, min(max((load<f32>(dst) - from) * share, <f32>0), <f32>1));
}

/** Each of n floats 0…1 looked up in a table, straight between its steps. @param steps places in the table less one */
export function tablePlane(dst: usize, n: i32, table: usize, steps: i32): void {
  for (let end = dst + (<usize>n << 2); dst < end; dst += 4) {
    const place = min(max(load<f32>(dst), <f32>0), <f32>1) * <f32>steps;
    const k = min(<i32>place, steps - 1);
    const a = load<f32>(table + (<usize>k << 2));
    store<f32>(dst, a + (load<f32>(table + (<usize>k << 2), 4) - a) * (place - <f32>k));
  }
}

/** The greater of two planes, or with `clear` the lesser of the first and one less the second; in place, n floats. */
export function overrule(dst: usize, plane: usize, n: i32, clear: i32): void {
  for (let end = dst + (<usize>n << 2); dst < end; dst += 4, plane += 4) {
    const a = load<f32>(dst);
    const b = load<f32>(plane);
    store<f32>(dst, clear ? min(a, <f32>1 - b) : max(a, b));
  }
}

/** A mask joins those before it, n floats: 0 add a+b−ab, 1 subtract a(1−b), 2 intersect a(b+1−opacity), 3 exclude a+b−2ab, b at its opacity. */
export function joinMask(sum: usize, mask: usize, n: i32, mode: i32, invert: i32, opacity: f32): void {
  for (let end = sum + (<usize>n << 2); sum < end; sum += 4, mask += 4) {
    const a = load<f32>(sum);
    const own = load<f32>(mask);
    const b = (invert ? <f32>1 - own : own) * opacity;
    let v: f32 = a + b - a * b;
    if (mode == 1) v = a * (<f32>1 - b);
    else if (mode == 2) v = a * (b + <f32>1 - opacity);
    else if (mode == 3) v = a + b - <f32>2 * a * b;
    store<f32>(sum, v);
  }
}

/** Blurs n places of four lines side by side with boxes of 2r+1 places and a share of one more at both ends, the border repeated. @param room n + 2r + 2 vectors */
function boxLines(line: usize, n: i32, r: i32, ends: usize, count: i32, room: usize): void {
  const edge = r + 1;
  for (let k = 0; k < count; k++) {
    const share = load<f32>(ends + (<usize>k << 2));
    const places: i32 = 2 * r + 1;
    const weight = f32x4.splat(<f32>1 / (<f32>places + <f32>2 * share));
    const first = v128.load(line);
    const last = v128.load(line + (<usize>(n - 1) << 4));
    for (let i = 0; i < edge; i++) {
      v128.store(room + (<usize>i << 4), first);
      v128.store(room + (<usize>(edge + n + i) << 4), last);
    }
    memory.copy(room + (<usize>edge << 4), line, <usize>n << 4);
    let sum = f32x4.splat(0);
    for (let i = 1; i <= 2 * r + 1; i++) sum = f32x4.add(sum, v128.load(room + (<usize>i << 4)));
    const far = <usize>(2 * edge) << 4;
    const s = f32x4.splat(share);
    for (let i = 0, at = room, to = line; i < n; i++, at += 16, to += 16) {
      const outer = v128.load(at + far);
      v128.store(to, f32x4.mul(f32x4.add(sum, f32x4.mul(s, f32x4.add(v128.load(at), outer))), weight));
      sum = f32x4.add(sum, f32x4.sub(outer, v128.load(at, 16)));
    }
  }
}

/**
 * Blurs a plane in place by boxes one after the other, their border repeated. @param ends for each box the share of one more place at both
 * sides, floats @param count of boxes @param scratch 2·max(w, h) + 2r + 2 vectors of 16 bytes
 */
export function blurPlane(plane: usize, w: i32, h: i32, r: i32, ends: usize, count: i32, scratch: usize): void {
  const room = scratch + (<usize>max(w, h) << 4);
  for (let y = 0; y < h; y += 4) {
    // beyond the last row the last one is done again, to no effect
    const r0 = plane + (<usize>(y * w) << 2);
    const r1 = plane + (<usize>(min(y + 1, h - 1) * w) << 2);
    const r2 = plane + (<usize>(min(y + 2, h - 1) * w) << 2);
    const r3 = plane + (<usize>(min(y + 3, h - 1) * w) << 2);
    for (let x = 0; x < w; x++) {
      const off = <usize>x << 2;
      v128.store(scratch + (<usize>x << 4), f32x4(load<f32>(r0 + off), load<f32>(r1 + off), load<f32>(r2 + off), load<f32>(r3 + off)));
    }
    boxLines(scratch, w, r, ends, count, room);
    for (let x = 0; x < w; x++) {
      const off = <usize>x << 2;
      const v = v128.load(scratch + (<usize>x << 4));
      store<f32>(r0 + off, f32x4.extract_lane(v, 0));
      if (y + 1 < h) store<f32>(r1 + off, f32x4.extract_lane(v, 1));
      if (y + 2 < h) store<f32>(r2 + off, f32x4.extract_lane(v, 2));
      if (y + 3 < h) store<f32>(r3 + off, f32x4.extract_lane(v, 3));
    }
  }
  for (let x = 0; x < w; x += 4) {
    const lanes = min(4, w - x);
    for (let y = 0; y < h; y++) {
      const at = plane + (<usize>(y * w + x) << 2);
      const to = scratch + (<usize>y << 4);
      if (lanes == 4) v128.store(to, v128.load(at));
      else for (let k = 0; k < lanes; k++) store<f32>(to + (<usize>k << 2), load<f32>(at + (<usize>k << 2)));
    }
    boxLines(scratch, h, r, ends, count, room);
    for (let y = 0; y < h; y++) {
      const at = plane + (<usize>(y * w + x) << 2);
      const from = scratch + (<usize>y << 4);
      if (lanes == 4) v128.store(at, v128.load(from));
      else for (let k = 0; k < lanes; k++) store<f32>(at + (<usize>k << 2), load<f32>(from + (<usize>k << 2)));
    }
  }
}

/** Least of 2·reach+1 places around each of w places. @param line where they are; w + 2·reach + 4 floats, undone @param out w floats */
function leastAlong(line: usize, w: i32, reach: i32, out: usize): void {
  const window = 2 * reach + 1;
  const long = w + 2 * reach;
  let span = 1;
  // windows of a power of two, each out of two half as long
  for (; span * 2 <= window; span *= 2) {
    let i = 0;
    for (; i + span + 4 <= long; i += 4) {
      const at = line + (<usize>i << 2);
      v128.store(at, f32x4.pmin(v128.load(at), v128.load(at + (<usize>span << 2))));
    }
    for (; i + span < long; i++) {
      const at = line + (<usize>i << 2);
      store<f32>(at, min(load<f32>(at), load<f32>(at + (<usize>span << 2))));
    }
  }
  const other = <usize>(window - span) << 2;
  for (let x = 0; x < w; x++) {
    const at = line + (<usize>x << 2);
    store<f32>(out + (<usize>x << 2), min(load<f32>(at), load<f32>(at + other)));
  }
}

/**
 * Least of a disc around each pixel, or with sign −1 the greatest; row by row, the least over the chord that the disc has there.
 * @param out w·h floats @param scratch 2·w + 2·radius + 8 floats
 */
export function leastInDisc(plane: usize, w: i32, h: i32, radius: i32, sign: f32, out: usize, scratch: usize): void {
  const far: f32 = 1e30;
  const n = w * h;
  const signs = f32x4.splat(sign);
  for (let i = 0; i < n; i++) store<f32>(out + (<usize>i << 2), far);
  const least = scratch + (<usize>(w + 2 * radius + 4) << 2);
  let done = -1;
  for (let first = radius; first >= 0; first--) {
    const reach = <i32>floor(sqrt(<f64>(radius * radius - first * first)) + 1e-6);
    if (reach == done) continue;
    done = reach;
    // the rows of the disc whose chord is as long as this one
    let last = first;
    while (last > 0 && <i32>floor(sqrt(<f64>(radius * radius - (last - 1) * (last - 1))) + 1e-6) == reach) last--;
    for (let y = 0; y < h; y++) {
      for (let i = 0; i < reach; i++) {
        store<f32>(scratch + (<usize>i << 2), far);
        store<f32>(scratch + (<usize>(reach + w + i) << 2), far);
      }
      const from = plane + (<usize>(y * w) << 2);
      const line = scratch + (<usize>reach << 2);
      let x = 0;
      for (; x + 4 <= w; x += 4) v128.store(line + (<usize>x << 2), f32x4.mul(signs, v128.load(from + (<usize>x << 2))));
      for (; x < w; x++) store<f32>(line + (<usize>x << 2), sign * load<f32>(from + (<usize>x << 2)));
      leastAlong(scratch, w, reach, least);
      for (let dy = last; dy <= first; dy++) {
        takeLeast(out, least, w, h, y - dy);
        if (dy) takeLeast(out, least, w, h, y + dy);
      }
    }
  }
  for (let i = 0; i < n; i++) store<f32>(out + (<usize>i << 2), sign * load<f32>(out + (<usize>i << 2)));
}

function takeLeast(out: usize, line: usize, w: i32, h: i32, y: i32): void {
  if (y < 0 || y >= h) return;
  const row = out + (<usize>(y * w) << 2);
  let x = 0;
  for (; x + 4 <= w; x += 4) {
    const at = row + (<usize>x << 2);
    v128.store(at, f32x4.pmin(v128.load(at), v128.load(line + (<usize>x << 2))));
  }
  for (; x < w; x++) {
    const at = row + (<usize>x << 2);
    store<f32>(at, min(load<f32>(at), load<f32>(line + (<usize>x << 2))));
  }
}

// @ts-ignore: decorator
@inline
function belongs(plane: usize, at: i32, limit: f32, above: i32): bool {
  const v = load<f32>(plane + (<usize>at << 2));
  return above ? v > limit : v < limit;
}

/**
 * Sets connected patches of pixels above, or below, a limit to a value when they lie wholly inside the picture and are no larger than `most`.
 * @param scratch w·h bytes and w·h whole numbers
 */
export function clearPatches(plane: usize, w: i32, h: i32, most: f64, limit: f32, above: i32, to: f32, scratch: usize): void {
  const n = w * h;
  const stack = scratch;
  const seen = scratch + (<usize>n << 2);
  memory.fill(seen, 0, n);
  for (let begin = 0; begin < n; begin++) {
    if (load<u8>(seen + begin) || !belongs(plane, begin, limit, above)) continue;
    // the stack is never taken down: what has been looked at stays in it, and is the patch
    let top = 0;
    let done = 0;
    let open = false;
    store<i32>(stack, begin);
    top = 1;
    store<u8>(seen + begin, 1);
    while (done < top) {
      const at = load<i32>(stack + (<usize>done << 2));
      done++;
      const x = at % w;
      if (x == 0 || x == w - 1 || at < w || at >= n - w) open = true;
      for (let side = 0; side < 4; side++) {
        if ((side == 0 && x == 0) || (side == 1 && x == w - 1)) continue;
        const next = side == 0 ? at - 1 : side == 1 ? at + 1 : side == 2 ? at - w : at + w;
        if (next < 0 || next >= n || load<u8>(seen + next) || !belongs(plane, next, limit, above)) continue;
        store<u8>(seen + next, 1);
        store<i32>(stack + (<usize>top << 2), next);
        top++;
      }
    }
    if (open || <f64>top > most) continue;
    for (let k = 0; k < top; k++) store<f32>(plane + (<usize>load<i32>(stack + (<usize>k << 2)) << 2), to);
  }
}

/** What a pixel is while spots are looked for: between the limits, beyond both, or neither. */
const FAINT: u8 = 1;
const STRONG: u8 = 2;

/** Four values as they are, sorted. */
// @ts-ignore: decorator
@inline
function sorted(v: v128, way: v128, from: v128, until: v128): v128 {
  const there = f32x4.mul(v, way);
  return v128.bitselect(i32x4.splat(STRONG), v128.and(f32x4.gt(there, from), i32x4.splat(FAINT)), f32x4.gt(there, until));
}

/** Bytes that dropSpots works in. */
export function spotsScratch(w: i32, h: i32): i32 {
  return w * h * 4 + (w + 2) * (h + 2) + 16;
}

/**
 * Sets faint spots to a value: connected patches (by sides or corners) of pixels on the far side of `limit`, in which and beside which none
 * goes further than `faint`, and which are no larger than `most`. With `faint` above `limit` spots are looked for upwards, else downwards.
 * @param scratch as spotsScratch says
 */
export function dropSpots(plane: usize, w: i32, h: i32, limit: f32, faint: f32, most: i32, to: f32, scratch: usize): void {
  const sign: f32 = faint > limit ? 1 : -1;
  const way = f32x4.splat(sign);
  const from = f32x4.splat(sign * limit);
  const until = f32x4.splat(sign * faint);
  const stack = scratch;
  // a byte a pixel, with a margin of one
  const kinds = scratch + (<usize>(w * h) << 2);
  const stride = w + 2;
  memory.fill(kinds, 0, stride * (h + 2) + 16);
  for (let y = 0; y < h; y++) {
    const row = plane + (<usize>(y * w) << 2);
    const line = kinds + (y + 1) * stride + 1;
    let x = 0;
    for (; x + 8 <= w; x += 8) {
      const at = row + (<usize>x << 2);
      const eight = i16x8.narrow_i32x4_u(sorted(v128.load(at), way, from, until), sorted(v128.load(at, 16), way, from, until));
      v128.store64_lane(line + x, i8x16.narrow_i16x8_u(eight, eight), 0);
    }
    for (; x < w; x++) store<u8>(line + x, <u8>i32x4.extract_lane(sorted(v128.load32_splat(row + (<usize>x << 2)), way, from, until), 0));
  }
  const end = kinds + (h + 1) * stride;
  const faints = i8x16.splat(FAINT);
  for (let begin = kinds + stride; begin < end; begin++) {
    // most of a matte is clear or solid
    while (begin + 16 <= end && !v128.any_true(i8x16.eq(v128.load(begin), faints))) begin += 16;
    if (begin >= end) break;
    if (load<u8>(begin) != FAINT) continue;
    // what is more than faint is not gone through: it is enough to touch it
    let top = 1;
    let done = 0;
    let held = false;
    store<usize>(stack, begin);
    store<u8>(begin, 0);
    while (done < top) {
      const at = load<usize>(stack + (<usize>done << 2));
      done++;
      for (let row = at - stride - 1; row <= at + stride - 1; row += stride) {
        const three = load<u32>(row) & 0xffffff;
        if (!three) continue;
        held = held || (three & (0x010101 * <u32>STRONG)) != 0;
        for (let faint = three & (0x010101 * <u32>FAINT); faint; faint &= faint - 1) {
          const next = row + (ctz(faint) >> 3);
          store<u8>(next, 0);
          store<usize>(stack + (<usize>top << 2), next);
          top++;
        }
      }
    }
    if (held || top > most) continue;
    for (let k = 0; k < top; k++) {
      const place = <i32>(load<usize>(stack + (<usize>k << 2)) - kinds) - stride - 1;
      store<f32>(plane + (<usize>((place / stride) * w + (place % stride)) << 2), to);
    }
  }
}
