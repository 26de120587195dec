// The screen behind a subject: where it is seen, and how it goes on where it is not.
import { alphas, blues, greens, pixel, reds, sums } from './lanes';
import { decode } from './light';

/** Pixels along a side of a cell of the model. */
export const CELL: i32 = 8;

/**
 * Sums of the screen in the cells of a grid: of every second pixel of every fourth row that has the hue of a sample, whatever its
 * brightness. @param samples count, then for each the linear value of the key channel and those of the two others, in order, in
 * shares of it @param near how far a pixel's two other channels may be from that, in the same shares
 * @param out for each cell linear r, g, b and how many
 */
export function screenCells(src: usize, w: i32, h: i32, channel: i32, samples: usize, near: f32, out: usize): void {
  const end = samples + 4 + 12 * <usize>load<f32>(samples);
  for (let y = 0; y < h; y += CELL) {
    for (let x = 0; x < w; x += CELL, out += 16) {
      let red = f32x4.splat(0);
      let green = red;
      let blue = red;
      let count = red;
      const left = w - x;
      for (let v = y; v < min(y + CELL, h); v += 4) {
        const at = src + (<usize>(v * w + x) << 4);
        const p0 = v128.load(at);
        const p1 = pixel(at, 2, left);
        const p2 = pixel(at, 4, left);
        const p3 = pixel(at, 6, left);
        const alpha = alphas(p0, p1, p2, p3);
        const whole = f32x4.ge(alpha, f32x4.splat(<f32>0.99));
        if (!v128.any_true(whole)) continue;
        const per = f32x4.div(f32x4.splat(1), f32x4.pmax(alpha, f32x4.splat(<f32>0.99)));
        const r = f32x4.mul(reds(p0, p1, p2, p3), per);
        const g = f32x4.mul(greens(p0, p1, p2, p3), per);
        const b = f32x4.mul(blues(p0, p1, p2, p3), per);
        // the strongest is so as encoded and in light
        const most = f32x4.pmax(channel == 0 ? g : r, channel == 2 ? g : b);
        const strongest = v128.and(whole, f32x4.gt(channel == 0 ? r : channel == 1 ? g : b, most));
        if (!v128.any_true(strongest)) continue;
        const lr = decode(r);
        const lg = decode(g);
        const lb = decode(b);
        const key = channel == 0 ? lr : channel == 1 ? lg : lb;
        const one = channel == 0 ? lg : lr;
        const two = channel == 2 ? lg : lb;
        const room = f32x4.mul(key, f32x4.splat(near));
        let like = f32x4.splat(0);
        for (let sample = samples + 4; sample < end; sample += 12) {
          const full = v128.load32_splat(sample);
          const lit = v128.and(f32x4.ge(key, f32x4.mul(full, f32x4.splat(<f32>0.2))), f32x4.le(key, f32x4.mul(full, f32x4.splat(4))));
          const first = f32x4.abs(f32x4.sub(one, f32x4.mul(v128.load32_splat(sample, 4), key)));
          const second = f32x4.abs(f32x4.sub(two, f32x4.mul(v128.load32_splat(sample, 8), key)));
          like = v128.or(like, v128.and(lit, f32x4.le(f32x4.pmax(first, second), room)));
        }
        like = v128.and(like, strongest);
        red = f32x4.add(red, v128.and(lr, like));
        green = f32x4.add(green, v128.and(lg, like));
        blue = f32x4.add(blue, v128.and(lb, like));
        count = f32x4.add(count, v128.and(f32x4.splat(1), like));
      }
      v128.store(out, sums(red, green, blue, count));
    }
  }
}

/** Bytes that carryOn works in. */
export function carryScratch(w: i32, h: i32): i32 {
  return w * h * 44 + 64 * 16;
}

/**
 * Carries colours on to the cells that have none: from coarser and coarser means, then evened out until each is the mean of its neighbours; all are
 * evened with those around them at the end. In place.
 * @param cells v128 each: linear r, g, b and 1 where they are known, else zeros; at least one is known @param scratch as carryScratch says
 */
export function carryOn(cells: usize, w: i32, h: i32, rounds: i32, scratch: usize): void {
  const places = scratch;
  const end = placesOf(cells, w, h, places);
  const work = scratch + <usize>(w * h) * 20;
  fillFromCoarser(cells, w, h, work);
  evenOut(places, end, rounds);
  for (let y = 0; y < h; y++) meansOfThree(cells + (<usize>(y * w) << 4), w, 16, work + (<usize>(y * w) << 4));
  for (let x = 0; x < w; x++) meansOfThree(work + (<usize>x << 4), h, <usize>w << 4, cells + (<usize>x << 4));
}

/** Addresses of each unknown cell and of its neighbours: itself, left, right, above, below; the border repeats. @returns where the list ends */
function placesOf(cells: usize, w: i32, h: i32, to: usize): usize {
  const line = <usize>w << 4;
  for (let y = 0, at = cells; y < h; y++) {
    for (let x = 0; x < w; x++, at += 16) {
      if (load<f32>(at, 12) > 0) continue;
      store<usize>(to, at);
      store<usize>(to, x > 0 ? at - 16 : at, 4);
      store<usize>(to, x < w - 1 ? at + 16 : at, 8);
      store<usize>(to, y > 0 ? at - line : at, 12);
      store<usize>(to, y < h - 1 ? at + line : at, 16);
      to += 20;
    }
  }
  return to;
}

/** Gives unknown cells the mean of what is known in the four that they share with their neighbours, or in more. @param scratch for a third as many cells */
function fillFromCoarser(cells: usize, w: i32, h: i32, scratch: usize): void {
  const end = cells + (<usize>(w * h) << 4);
  let known = true;
  for (let at = cells; at < end; at += 16) known = known && load<f32>(at, 12) > 0;
  if (known) return;
  const cw = (w + 1) >> 1;
  const ch = (h + 1) >> 1;
  const coarseEnd = scratch + (<usize>(cw * ch) << 4);
  memory.fill(scratch, 0, coarseEnd - scratch);
  for (let y = 0, at = cells; y < h; y++) {
    for (let x = 0; x < w; x++, at += 16) {
      if (load<f32>(at, 12) == 0) continue;
      const coarse = scratch + (<usize>((y >> 1) * cw + (x >> 1)) << 4);
      v128.store(coarse, f32x4.add(v128.load(coarse), v128.load(at)));
    }
  }
  for (let at = scratch; at < coarseEnd; at += 16) {
    const count = load<f32>(at, 12);
    if (count > 1) v128.store(at, f32x4.mul(v128.load(at), f32x4.splat(<f32>1 / count)));
  }
  fillFromCoarser(scratch, cw, ch, coarseEnd);
  for (let y = 0, at = cells; y < h; y++) {
    for (let x = 0; x < w; x++, at += 16) {
      if (load<f32>(at, 12) == 0) v128.store(at, v128.load(scratch + (<usize>((y >> 1) * cw + (x >> 1)) << 4)));
    }
  }
}

/**
 * Evens out cells until each is the mean of its neighbours, by going a little more than the way at each round. @param at, end a list of their places
 * Source: successive over-relaxation, Young 1954.
 */
function evenOut(places: usize, end: usize, rounds: i32): void {
  const share = f32x4.splat(<f32>0.4);
  const back = f32x4.splat(<f32>0.6);
  for (let round = 0; round < rounds; round++) {
    for (let at = places; at < end; at += 20) {
      const own = load<usize>(at);
      const others = f32x4.add(f32x4.add(v128.load(load<usize>(at, 8)), v128.load(load<usize>(at, 12))), v128.load(load<usize>(at, 16)));
      const rest = f32x4.sub(f32x4.mul(others, share), f32x4.mul(v128.load(own), back));
      v128.store(own, f32x4.pmax(f32x4.add(rest, f32x4.mul(v128.load(load<usize>(at, 4)), share)), f32x4.splat(0)));
    }
  }
}

/** Means of each cell of a line with those before and after it; both ends are repeated. @param step bytes from one to the next, in both */
function meansOfThree(from: usize, n: i32, step: usize, to: usize): void {
  const third = f32x4.splat(<f32>(1.0 / 3.0));
  let before = v128.load(from);
  let own = before;
  for (let i = 0; i < n; i++, to += step) {
    if (i < n - 1) from += step;
    const after = v128.load(from);
    v128.store(to, f32x4.mul(f32x4.add(f32x4.add(before, own), after), third));
    before = own;
    own = after;
  }
}

/**
 * A grid as rows of the screen are made of: cells with the border repeated once on both sides; linear colour and 1/(its colour difference).
 * @param first, second weights of the other two channels, in order @param least of a difference
 */
export function screenGrid(cells: usize, w: i32, h: i32, channel: i32, first: f32, second: f32, least: f32, grid: usize): void {
  const own = <usize>channel << 2;
  const one: usize = channel == 0 ? 4 : 0;
  const two: usize = channel == 2 ? 4 : 8;
  for (let y = 0; y < h; y++) {
    for (let x = -1; x <= w; x++, grid += 16) {
      const cell = cells + (<usize>(y * w + min(max(x, 0), w - 1)) << 4);
      const difference = load<f32>(cell + own) - max(first * load<f32>(cell + one), second * load<f32>(cell + two));
      v128.store(grid, f32x4.replace_lane(v128.load(cell), 3, <f32>1 / max(difference, least)));
    }
  }
}
