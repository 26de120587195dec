import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readScopes, vectorOf, VECTOR_SIDE, WAVE_COLUMNS } from './read';

const picture = (w: number, h: number, at: (x: number, y: number) => readonly number[]): Uint8ClampedArray =>
  Uint8ClampedArray.from(Array.from({ length: w * h }, (_, i) => at(i % w, Math.floor(i / w))).flat());

describe('scopes', () => {
  test('count every pixel once in each of them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 1, max: 30 }), fc.integer(), (w, h, seed) => {
        let state = seed;
        const next = () => ((state = (Math.imul(state, 1664525) + 1013904223) | 0) >>> 24) & 255;
        const read = readScopes(
          picture(w, h, () => [next(), next(), next(), 255]),
          w,
          h,
        );
        const sum = (list: ArrayLike<number>) => Array.from(list).reduce((all, v) => all + v, 0);
        expect(read.pixels).toBe(w * h);
        [...read.histogram, ...read.wave, read.vector].forEach((list) => expect(sum(list)).toBe(w * h));
      }),
      { numRuns: 20 },
    );
  });

  test('a ramp is a diagonal in the waveform and level in the histogram', () => {
    const { wave, histogram } = readScopes(
      picture(256, 4, (x) => [x, x, x, 255]),
      256,
      4,
    );
    for (let x = 0; x < WAVE_COLUMNS; x++) expect(wave[3][x * 256 + x]).toBe(4);
    histogram[3].forEach((count) => expect(count).toBe(4));
  });

  test('red, green and blue lie a third of a turn apart on the vector; greys in its middle', () => {
    const [r, g, b] = [vectorOf(1, 0, 0), vectorOf(0, 1, 0), vectorOf(0, 0, 1)];
    for (const [p, q] of [
      [r, g],
      [g, b],
      [b, r],
    ]) {
      const turn = Math.atan2(q![1], q![0]) - Math.atan2(p![1], p![0]);
      expect(((turn * 180) / Math.PI + 720) % 360).toBeCloseTo(120, 6);
    }
    expect(Math.hypot(...vectorOf(0.4, 0.4, 0.4))).toBeCloseTo(0, 9);
    const { vector } = readScopes(
      picture(8, 8, () => [90, 90, 90, 255]),
      8,
      8,
    );
    const middle = Math.round((VECTOR_SIDE - 1) / 2);
    expect(vector[middle * VECTOR_SIDE + middle]).toBe(64);
  });

  test('say how much is clipped, and see what is clear over black', () => {
    const { beyond, histogram } = readScopes(
      picture(4, 1, (x) =>
        x === 0
          ? [255, 200, 100, 255]
          : x === 1
            ? [0, 30, 40, 255]
            : x === 2
              ? [90, 90, 90, 255]
              : [200, 200, 200, 128],
      ),
      4,
      1,
    );
    expect(beyond).toEqual({ limits: 'clipped', low: 0.25, high: 0.25 });
    expect(histogram[0][100]).toBe(1);
  });

  test('say how much lies beyond video levels, 16 for black and 235 for white', () => {
    const levels = [15, 16, 235, 236, 120];
    const of = (limits: 'clipped' | 'video') =>
      readScopes(
        picture(5, 1, (x) => [levels[x]!, 100, 200, 255]),
        5,
        1,
        { limits },
      ).beyond;
    expect(of('video')).toMatchObject({ low: 0.2, high: 0.2 });
    expect(of('clipped')).toMatchObject({ low: 0, high: 0 });
  });

  test('a part is read as if it were the whole picture, and what is clear does not count where only solid pixels do', () => {
    const at = (x: number, y: number) => [x * 20, y * 30, (x * y) % 256, x === 3 ? 100 : 255] as const;
    const part = { x: 2, y: 1, w: 5, h: 3 };
    const cut = picture(part.w, part.h, (x, y) => at(x + part.x, y + part.y));
    expect(readScopes(picture(12, 8, at), 12, 8, { part })).toEqual(readScopes(cut, part.w, part.h));
    const solid = readScopes(picture(12, 8, at), 12, 8, { part, solid: true });
    expect(solid.pixels).toBe(part.w * part.h - part.h);
    expect(solid.mean[0]).toBeCloseTo(((2 + 4 + 5 + 6) * 20) / 4 / 255, 9);
    expect(
      readScopes(
        picture(4, 4, () => [9, 9, 9, 0]),
        4,
        4,
        { solid: true },
      ).pixels,
    ).toBe(0);
  });
});
