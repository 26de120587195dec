import { beforeAll, expect, test } from '@jest/globals';
import { testRig, type TestRig } from '../testing/rig';
import { Picture } from './picture';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig();
});

const clamp = (v: number) => Math.min(1, Math.max(0, v));

/** ITU-R BT.709-6 by its own formulas, limited range, chroma of the mean of two by two pixels. @param pixels premultiplied */
function published(pixels: Float32Array, w: number, h: number, alpha: boolean) {
  const [cw, ch] = [Math.ceil(w / 2), Math.ceil(h / 2)];
  const [y, u, v, a] = [new Array(w * h), new Array(cw * ch), new Array(cw * ch), new Array(w * h)];
  const brightness = ([r, g, b]: number[]) => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
  const pixel = (i: number) => Array.from(pixels.subarray(i * 4, i * 4 + 4));
  const straight = (p: number[]) => (p[3]! > 0 ? p.slice(0, 3).map((c) => clamp(c / p[3]!)) : [0, 0, 0]);
  for (let i = 0; i < w * h; i++) {
    const p = pixel(i);
    y[i] = 16 + 219 * brightness(alpha ? straight(p) : p.slice(0, 3).map(clamp));
    a[i] = 255 * clamp(p[3]!);
  }
  for (let row = 0; row < ch; row++)
    for (let col = 0; col < cw; col++) {
      const own = [0, 1, w, w + 1]
        .filter((step) => 2 * col + (step % w) < w && (step < w || 2 * row + 1 < h) && !(w === 1 && step === 1))
        .map((step) => pixel(2 * row * w + 2 * col + step))
        .map((p) => (alpha ? p : [...p.slice(0, 3).map(clamp), 1]));
      const sum = own.reduce((all, p) => all.map((c, k) => c + p[k]!));
      const mean = straight(sum);
      u[row * cw + col] = 128 + (224 * (mean[2]! - brightness(mean))) / 1.8556;
      v[row * cw + col] = 128 + (224 * (mean[0]! - brightness(mean))) / 1.5748;
    }
  return [...y, ...u, ...v, ...(alpha ? a : [])] as number[];
}

test.each([
  [16, 6, false],
  [19, 7, false],
  [3, 5, false],
  [18, 4, true],
  [7, 3, true],
])('a picture of %i×%i becomes the bytes of BT.709, alpha %s', (w, h, alpha) => {
  const { arena, kernels } = rig;
  const picture = Picture.make(arena, { x: 0, y: 0, w, h });
  const pixels = Float32Array.from({ length: w * h * 4 }, (_, i) => {
    const a = alpha ? ((i >> 2) % 5) / 4 : 1;
    return i % 4 === 3 ? a : (((i * 37) % 113) / 100 - 0.06) * a;
  });
  arena.floats(picture.at, pixels.length).set(pixels);
  const [luma, chroma] = [w * h, Math.ceil(w / 2) * Math.ceil(h / 2)];
  const length = luma + 2 * chroma + (alpha ? luma : 0);
  const got = arena.scratch(length + 8, (at) => {
    const room = arena.bytes(at, length + 8).fill(77);
    kernels.toYuv(picture.at, w, h, at, at + luma, at + luma + chroma, alpha ? at + luma + 2 * chroma : 0);
    // nothing is written past the end
    expect([...room.subarray(length)]).toEqual(Array(8).fill(77));
    return [...room.subarray(0, length)];
  });
  picture.release();
  const want = published(pixels, w, h, alpha);
  const worst = Math.max(...got.map((v, i) => Math.abs(v - want[i]!)));
  expect(worst).toBeLessThanOrEqual(0.51);
});
