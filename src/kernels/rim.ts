// The screen's light on a subject's rim, by what the subject is like further inside.
import { alphas, blues, bytesOf, greens, reds } from './lanes';
import { decode, encode } from './light';
import { cellAt, past, pixelAt, screenPart } from './key';
import { CLEAR, DEEP } from './sure';

/** Marks of four pixels that are left alone: clear ones, and those far inside. */
const LEFT_ALONE: u32 = <u32>(CLEAR | DEEP) * 0x01010101;
/** How far above the mean of what lies inside a colour may be. */
const ROOM: f32 = 1.03;
/** The least that is left of the key channel where an inside of one colour has more. */
const LEFT: f32 = 0.8;
/** How far the share of one of the other two channels in both may be from that inside, for the same hue and for quite another. */
const SAME: f32 = 0.06;
const OTHER: f32 = 0.16;
/** Variances of both colour differences inside, together, at which that is of one colour, and of several. */
const ONE_COLOUR: f32 = 0.001;
const SEVERAL: f32 = 0.004;

/**
 * Limits the key channel of one premultiplied row, in linear light, to the share of the other two that it has of them further inside, and keeps most of that share. In place.
 * @param inside, stray rows of grids of linear colours and of variances of luma and colour differences there @param strength 0…1
 */
export function limitRim(at: usize, n: i32, marks: usize, inside: usize, stray: usize, channel: i32, strength: f32): void {
  const one = f32x4.splat(1);
  const least = f32x4.splat(<f32>1e-6);
  for (let x = 0; x < n; x += 4, at += 64, marks += 4) {
    const left = n - x;
    const four = load<u32>(marks) & LEFT_ALONE;
    if (left >= 4 && four & 255 && four & 0xff00 && four & 0xff0000 && four >> 24) continue;
    const p0 = v128.load(at);
    const p1 = pixelAt(at, 1, left);
    const p2 = pixelAt(at, 2, left);
    const p3 = pixelAt(at, 3, left);
    const a = alphas(p0, p1, p2, p3);
    if (!v128.any_true(f32x4.gt(a, f32x4.splat(0)))) continue;
    const per = f32x4.div(one, f32x4.pmax(a, f32x4.splat(<f32>1e-9)));
    const r = decode(f32x4.mul(reds(p0, p1, p2, p3), per));
    const g = decode(f32x4.mul(greens(p0, p1, p2, p3), per));
    const b = decode(f32x4.mul(blues(p0, p1, p2, p3), per));
    const cell = cellAt(inside, x);
    const t = past(x);
    const own = screenPart(cell, t, channel);
    const first = screenPart(cell, t, channel == 0 ? 1 : 0);
    const others = f32x4.add(first, screenPart(cell, t, channel == 2 ? 1 : 2));
    const share = f32x4.mul(f32x4.div(own, f32x4.pmax(others, least)), f32x4.splat(ROOM));
    const key = channel == 0 ? r : channel == 1 ? g : b;
    const rest = f32x4.add(channel == 0 ? g : r, channel == 2 ? g : b);
    // another hue than inside says nothing of the light on it, nor does an inside of several colours
    const hue = f32x4.div(channel == 0 ? g : r, f32x4.pmax(rest, least));
    const apart = f32x4.abs(f32x4.sub(hue, f32x4.div(first, f32x4.pmax(others, least))));
    const alike = f32x4.pmin(f32x4.pmax(f32x4.mul(f32x4.sub(f32x4.splat(OTHER), apart), f32x4.splat(<f32>1 / (OTHER - SAME))), f32x4.splat(0)), one);
    const varied = f32x4.add(screenPart(cellAt(stray, x), t, 1), screenPart(cellAt(stray, x), t, 2));
    const plain = f32x4.pmin(f32x4.pmax(f32x4.mul(f32x4.sub(f32x4.splat(SEVERAL), varied), f32x4.splat(<f32>1 / (SEVERAL - ONE_COLOUR))), f32x4.splat(0)), one);
    const over = f32x4.pmax(f32x4.sub(key, f32x4.mul(rest, share)), f32x4.splat(0));
    // what has lost more than that was mixed of something else than was taken for its sides
    const under = f32x4.mul(f32x4.pmax(f32x4.sub(f32x4.mul(f32x4.mul(rest, share), f32x4.splat(LEFT)), key), f32x4.splat(0)), plain);
    const change = f32x4.mul(f32x4.sub(f32x4.mul(over, f32x4.mul(alike, plain)), under), f32x4.splat(strength));
    const cut = v128.and(change, i32x4.eq(bytesOf(four), i32x4.splat(0)));
    if (!v128.any_true(f32x4.ne(cut, f32x4.splat(0)))) continue;
    const changed = f32x4.mul(encode(f32x4.sub(key, cut)), a);
    const to = at + (<usize>channel << 2);
    store<f32>(to, f32x4.extract_lane(changed, 0));
    if (left > 1) store<f32>(to, f32x4.extract_lane(changed, 1), 16);
    if (left > 2) store<f32>(to, f32x4.extract_lane(changed, 2), 32);
    if (left > 3) store<f32>(to, f32x4.extract_lane(changed, 3), 48);
  }
}
