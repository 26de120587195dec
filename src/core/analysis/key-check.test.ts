import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { CHECK_TONES, checkKey, checkPicture } from './key-check';

const W = 60;
const H = 40;
/** Solid on the left, clear on the right, with what is drawn on top. */
function matte(draw: (set: (x: number, y: number, v: number) => void) => void = () => undefined): Uint8Array {
  const out = new Uint8Array(W * H);
  for (let y = 0; y < H; y++) for (let x = 0; x < W / 2; x++) out[y * W + x] = 255;
  draw((x, y, v) => (out[y * W + x] = v));
  return out;
}

describe('key check', () => {
  test('shares are counted and make one; tones follow them', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: W * H, maxLength: W * H }), (alpha) => {
        const { solid, clear, between } = checkKey(alpha, W, H);
        expect(solid + clear + between).toBeCloseTo(1, 9);
        expect(clear).toBe(alpha.filter((v) => v <= 5).length / alpha.length);
        const painted = checkPicture(alpha);
        const sand = alpha.filter((_, i) => painted[i * 4] === CHECK_TONES.solid[0]).length;
        expect(sand).toBe(alpha.filter((v) => v >= 250).length);
      }),
      { numRuns: 20 },
    );
  });

  test('a speck in the clear and a hole in the solid are found where they are; a clean matte has none', () => {
    expect(checkKey(matte(), W, H).islands).toEqual([]);
    const { islands } = checkKey(
      matte((set) => {
        set(50, 10, 90);
        set(51, 10, 255);
        set(10, 30, 120);
      }),
      W,
      H,
    );
    expect(islands).toEqual([
      { x: 51, y: 10.5, radius: 1.5, kind: 'speck' },
      { x: 10.5, y: 30.5, radius: 1, kind: 'hole' },
    ]);
  });

  test('what touches the subject, the border or is large is no island', () => {
    const { islands } = checkKey(
      matte((set) => {
        set(W / 2, 12, 128); // at the subject's edge
        set(W - 1, 5, 255); // at the border
        for (let y = 22; y < 34; y++) for (let x = 40; x < 54; x++) set(x, y, 255);
      }),
      W,
      H,
    );
    expect(islands).toEqual([]);
  });
});
