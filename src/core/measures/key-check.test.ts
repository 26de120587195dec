import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { checkKey } from './key-check';

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
  test('shares are counted and make one', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: W * H, maxLength: W * H }), (alpha) => {
        const { solid, clear, between } = checkKey(alpha, W, H);
        expect(solid + clear + between).toBeCloseTo(1, 9);
        expect(clear).toBe(alpha.filter((v) => v <= 5).length / alpha.length);
        expect(solid).toBe(alpha.filter((v) => v >= 250).length / alpha.length);
      }),
      { numRuns: 20 },
    );
  });

  test('a crumb in the clear and a gap in the solid are found where they are; a clean matte has none', () => {
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
      { x: 51, y: 10.5, radius: 1.5, kind: 'crumb' },
      { x: 10.5, y: 30.5, radius: 1, kind: 'gap' },
    ]);
  });

  test('what is too faint to be seen is no island, however often it occurs', () => {
    const { crumbs, gaps } = checkKey(
      matte((set) => {
        for (let y = 2; y < 32; y += 3) for (let x = 40; x < 59; x += 3) set(x, y, 12);
        set(50, 36, 13);
        set(10, 30, 244);
      }),
      W,
      H,
    );
    expect([crumbs, gaps]).toEqual([1, 0]);
  });

  test('of many islands the largest forty are given, and all are counted', () => {
    const { crumbs, gaps, islands } = checkKey(
      matte((set) => {
        for (let y = 2; y < 32; y += 3) for (let x = 34; x < 59; x += 3) set(x, y, 200);
        set(53, 36, 200);
        set(54, 36, 200);
      }),
      W,
      H,
    );
    expect([crumbs, gaps]).toEqual([91, 0]);
    expect(islands.length).toBe(40);
    expect(islands[0]).toMatchObject({ x: 54, y: 36.5 });
  });

  test('what touches the subject, the border or is large is no island', () => {
    const { islands } = checkKey(
      matte((set) => {
        set(W / 2, 12, 128); // at the subject's edge
        set(W / 2 + 1, 13, 128); // by a corner
        set(W / 2 + 2, 20, 128); // two clear pixels away: still its edge
        set(W / 2 - 3, 30, 128); // two solid pixels from the clear
        set(W - 1, 5, 255); // at the border
        for (let y = 22; y < 34; y++) for (let x = 40; x < 54; x++) set(x, y, 255);
      }),
      W,
      H,
    );
    expect(islands).toEqual([]);
  });
});
