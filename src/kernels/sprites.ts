// Many small pictures, turned and sized, drawn into one.
import { within } from './lanes';
import { ENDLESS, LEVEL, PARTS } from './swarm';

/** The largest whole number of 16 bits: what the greatest value of a sheet becomes, and what weights add up to. */
const WHOLE: f32 = 32767;

/**
 * A sheet that sprites are drawn from: whole numbers of 16 bits, each texel's channels side by side with those of its right neighbour, 16 bytes a texel.
 * @param src w×h premultiplied pixels @returns what a whole one stands for
 */
export function sheetOf(src: usize, w: i32, h: i32, dst: usize): f32 {
  const end = src + (<usize>(w * h) << 4);
  let most = f32x4.splat(1);
  for (let at = src; at < end; at += 16) most = f32x4.max(most, f32x4.abs(v128.load(at)));
  const pair = f32x4.max(most, v128.shuffle<f32>(most, most, 2, 3, 0, 1));
  const greatest = max(f32x4.extract_lane(pair, 0), f32x4.extract_lane(pair, 1));
  const scale = f32x4.splat(WHOLE / greatest);
  for (let row = 0; row < h; row++) {
    let own = i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(v128.load(src), scale)));
    for (let column = 1; column <= w; column++, dst += 16) {
      src += 16;
      // the last of a row has no neighbour but itself
      const next = column < w ? i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(v128.load(src), scale))) : own;
      const both = i16x8.narrow_i32x4_s(own, next);
      v128.store(dst, v128.shuffle<i16>(both, both, 0, 4, 1, 5, 2, 6, 3, 7));
      own = next;
    }
  }
  return greatest;
}

const ONE: f32 = 65536;
const PART_OF_ONE: f32 = 1 / 65536;
/** From this alpha on nothing is seen of what lies below; as the whole number that its bits are, which is quicker to compare. */
const HIDDEN: i32 = reinterpret<i32>(<f32>0.9999);
const NEVER: i32 = i32.MAX_VALUE;

/**
 * What is loaded for each pixel although it stays the same for many: the browser's compiler works out anew, for each, what only stands in registers
 * and is needed behind a branch. By four bytes each: of four pixels the weights of their texels and those right of them, of the two below, and how
 * many texels into the sheet they are. Then, 16 bytes each: what the texels are multiplied by, and lanes of what is there that leave less room.
 */
const FOUR = memory.data(80, 16);
const SHOWN: usize = 48;
const COVERS: usize = 64;

/** Weighs and finds the texels of four pixels. @param us, vs places on the sheet, 16 bits after the point @param strides 1 and texels a row, 16 bits each */
// @ts-ignore: decorator
@inline
function findFour(us: v128, vs: v128, strides: v128): void {
  const whole = i32x4.splat(0x7fff);
  const fu = v128.and(i32x4.shr_u(us, 1), whole);
  const fv = v128.and(i32x4.shr_u(vs, 1), whole);
  const both = i32x4.shr_u(i32x4.dot_i16x8_s(fu, fv), 15);
  const right = i32x4.sub(fu, both);
  const below = i32x4.sub(fv, both);
  const own = v128.and(i32x4.sub(i32x4.sub(whole, fu), below), i32x4.splat(0xffff));
  v128.store(FOUR, v128.or(own, i32x4.shl(right, 16)));
  v128.store(FOUR, v128.or(below, i32x4.shl(both, 16)), 16);
  const place = v128.or(i32x4.shr_u(us, 16), v128.and(vs, i32x4.splat(0xffff0000)));
  v128.store(FOUR, i32x4.shl(i32x4.dot_i16x8_s(place, strides), 4), 32);
}

/** Draws a pixel below what is there. @param one of four: where its numbers lie @param row16 bytes of a row of the sheet */
// @ts-ignore: decorator
@inline
function draw(at: usize, one: usize, texels: usize, row16: usize): void {
  const p = texels + <usize>load<i32>(one, 32);
  const top = i32x4.dot_i16x8_s(v128.load(p), v128.load32_splat(one));
  const texel = i32x4.add(top, i32x4.dot_i16x8_s(v128.load(p + row16), v128.load32_splat(one, 16)));
  const over = f32x4.mul(f32x4.convert_i32x4_s(texel), v128.load(FOUR, SHOWN));
  const above = v128.load(at);
  const taken = v128.and(v128.shuffle<f32>(above, above, 3, 3, 3, 3), v128.load(FOUR, COVERS));
  v128.store(at, f32x4.add(above, f32x4.sub(over, f32x4.mul(over, taken))));
}

/**
 * Draws pictures into rows from..to of a picture w wide of premultiplied pixels, the first of them lowest and all below what is there: turned, sized,
 * multiplied by the colour and opacity of their figures. The topmost are drawn first, so that those which are hidden cost little.
 * @param which sheet each of n figures has @param sheets address, width, height and what a whole one stands for, with a clear pixel around each
 * @param light 1 = they add light instead of covering what lies below
 */
export function drawSprites(list: usize, n: i32, which: usize, sheets: usize, dst: usize, w: i32, from: i32, to: i32, light: i32): void {
  // light leaves what is there as it is, but covers what was clear
  v128.store(FOUR, light ? i32x4(0, 0, 0, -1) : i32x4.splat(-1), COVERS);
  const hidden = light ? NEVER : HIDDEN;
  list += PARTS * <usize>n;
  for (let i = n - 1; i >= 0; i--) {
    list -= PARTS;
    const x = load<f32>(list);
    const y = load<f32>(list, 4);
    const long = load<f32>(list, 8);
    const wide = load<f32>(list, 12);
    const c = load<f32>(list, 16);
    const s = load<f32>(list, 20);
    const opacity = load<f32>(list, 36);
    if (!(long > 0) || !(wide > 0) || !(opacity > 0)) continue;
    const sheet = sheets + (<usize>load<i32>(which + (<usize>i << 2)) << 4);
    const texels = <usize>load<i32>(sheet);
    const tw = load<i32>(sheet, 4);
    const th = load<i32>(sheet, 8);
    const colour = f32x4.mul(f32x4.replace_lane(v128.load(list, 24), 3, 1), f32x4.splat(opacity));
    const across = abs(c) * long + abs(s) * wide + <f32>1;
    const down = abs(s) * long + abs(c) * wide + <f32>1;
    const y0 = within(floor(y - down), from, to);
    const y1 = within(ceil(y + down), from, to);
    const x0 = within(floor(x - across), 0, w);
    const x1 = within(ceil(x + across), 0, w);
    if (y0 >= y1 || x0 >= x1) continue;
    const thin: f32 = min(<f32>1, <f32>2 * long) * min(<f32>1, <f32>2 * wide);
    // from pixels to those of the sheet, whose border is no part of the sprite
    const halfW = <f32>(tw - 2) * <f32>0.5;
    const halfH = <f32>(th - 2) * <f32>0.5;
    const ax = (c / long) * halfW;
    const ay = (s / long) * halfW;
    const bx = (-s / wide) * halfH;
    const by = (c / wide) * halfH;
    const midX = <f32>tw * <f32>0.5 - <f32>0.5;
    const midY = <f32>th * <f32>0.5 - <f32>0.5;
    // so much less that no place is beyond the sheet once steps have been added up
    const spare: f32 = <f32>0.0157 + across * <f32>2 * PART_OF_ONE;
    const mostX = halfW + <f32>0.5 - spare;
    const mostY = halfH + <f32>0.5 - spare;
    const row16 = <usize>tw << 4;
    const stepU = <i32>(ax * ONE);
    const stepV = <i32>(bx * ONE);
    v128.store(FOUR, f32x4.mul(colour, f32x4.splat((thin * load<f32>(sheet, 12)) / (WHOLE * WHOLE))), SHOWN);
    const strides = i32x4.splat(1 | (tw << 16));
    const stepsU = i32x4(0, stepU, 2 * stepU, 3 * stepU);
    const stepsV = i32x4(0, stepV, 2 * stepV, 3 * stepV);
    const levelA = abs(ax) < LEVEL;
    const levelB = abs(bx) < LEVEL;
    const ia: f32 = levelA ? 0 : <f32>1 / ax;
    const ib: f32 = levelB ? 0 : <f32>1 / bx;
    const reachA: f32 = levelA ? ENDLESS : abs(ia) * mostX;
    const reachB: f32 = levelB ? ENDLESS : abs(ib) * mostY;
    for (let row = y0; row < y1; row++) {
      const dy = <f32>row + <f32>0.5 - y;
      if ((levelA && abs(ay * dy) > mostX) || (levelB && abs(by * dy) > mostY)) continue;
      const midA = -ay * dy * ia;
      const midB = -by * dy * ib;
      const low = (midA - reachA > midB - reachB ? midA - reachA : midB - reachB) + x - <f32>0.5;
      const high = (midA + reachA < midB + reachB ? midA + reachA : midB + reachB) + x - <f32>0.5;
      const first = within(ceil(low), x0, x1);
      const end = within(floor(high) + <f32>1, x0, x1);
      let at = dst + (<usize>(row * w + first) << 4);
      const dx = <f32>first + <f32>0.5 - x;
      // across and down side by side, whole numbers of which 16 bits lie after the point: cutting floats to whole ones takes longer than all the rest
      const u = <i32>((midX + ax * dx + ay * dy) * ONE);
      const v = <i32>((midY + bx * dx + by * dy) * ONE);
      let us = i32x4.add(i32x4.splat(u), stepsU);
      let vs = i32x4.add(i32x4.splat(v), stepsV);
      const stop = at + (<usize>(end - first) << 4);
      while (at < stop) {
        findFour(us, vs, strides);
        us = i32x4.add(us, i32x4.splat(4 * stepU));
        vs = i32x4.add(vs, i32x4.splat(4 * stepV));
        const until = min(at + 64, stop);
        for (let one = FOUR; at < until; at += 16, one += 4) if (load<i32>(at, 12) < hidden) draw(at, one, texels, row16);
      }
    }
  }
}
