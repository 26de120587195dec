// The screen behind a subject: where it is seen, and how it goes on where it is not.
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
  const across = (w + CELL - 1) / CELL;
  const end = samples + 4 + 12 * <usize>load<f32>(samples);
  for (let y = 0; y < h; y += 4) {
    for (let x = 0; x < w; x += 2) {
      const p = v128.load(src + (<usize>(y * w + x) << 4));
      const alpha = f32x4.extract_lane(p, 3);
      if (alpha < <f32>0.99) continue;
      const c = decode(alpha == 1 ? p : f32x4.div(p, f32x4.splat(alpha)));
      const r = f32x4.extract_lane(c, 0);
      const g = f32x4.extract_lane(c, 1);
      const b = f32x4.extract_lane(c, 2);
      const key = channel == 0 ? r : channel == 1 ? g : b;
      const one = channel == 0 ? g : r;
      const two = channel == 2 ? g : b;
      if (key <= one || key <= two) continue;
      const most = near * key;
      for (let at = samples + 4; at < end; at += 12) {
        const full = load<f32>(at);
        if (key < <f32>0.2 * full || key > <f32>4 * full || abs(one - load<f32>(at, 4) * key) > most || abs(two - load<f32>(at, 8) * key) > most) continue;
        const cell = out + (<usize>((y / CELL) * across + x / CELL) << 4);
        v128.store(cell, f32x4.add(v128.load(cell), f32x4.replace_lane(c, 3, 1)));
        break;
      }
    }
  }
}

/**
 * Evens out some cells until each is the mean of its neighbours, by going a little more than the way at each round.
 * @param cells v128 each @param places five byte offsets for each of these cells: itself, left, right, above, below
 * Source: successive over-relaxation, Young 1954.
 */
export function evenOut(cells: usize, places: usize, count: i32, rounds: i32): void {
  const end = places + <usize>count * 20;
  const share = f32x4.splat(<f32>0.4);
  const back = f32x4.splat(<f32>0.6);
  for (let round = 0; round < rounds; round++) {
    for (let at = places; at < end; at += 20) {
      const own = cells + <usize>load<u32>(at);
      const others = f32x4.add(f32x4.add(v128.load(cells + <usize>load<u32>(at, 8)), v128.load(cells + <usize>load<u32>(at, 12))), v128.load(cells + <usize>load<u32>(at, 16)));
      const rest = f32x4.sub(f32x4.mul(others, share), f32x4.mul(v128.load(own), back));
      v128.store(own, f32x4.pmax(f32x4.add(rest, f32x4.mul(v128.load(cells + <usize>load<u32>(at, 4)), share)), f32x4.splat(0)));
    }
  }
}
