import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { arrowRing, cornersRing } from './forms';
import { ellipseRing, rectangleRing } from './outline';
import type { Ring } from './path';
import { fillRings } from './raster';
import { strokeRings, type Stroke } from './stroke';
import { thinned } from './thinned';

const PLAIN: Stroke = {
  width: 10,
  lies: 0,
  cap: 'flat',
  join: 'mitre',
  dash: 0,
  gap: 0,
  from: 0,
  to: 1,
  shift: 0,
  taper: 0,
};
const W = 240;
const plane = (ring: Ring, closed: boolean, stroke: Partial<Stroke>): Float32Array =>
  fillRings(
    strokeRings(ring, closed, { ...PLAIN, ...stroke }).map((own) => own.map((v) => v + W / 2)),
    W,
    W,
  );
const area = (...args: Parameters<typeof plane>): number => plane(...args).reduce((sum, v) => sum + v, 0);
const line = (length: number, degrees = 0): Ring => {
  const [x, y] = [
    (Math.cos((degrees * Math.PI) / 180) * length) / 2,
    (Math.sin((degrees * Math.PI) / 180) * length) / 2,
  ];
  return Float64Array.of(-x, -y, x, y);
};

describe('the area of a line', () => {
  test('is length by width, whichever way it runs; round ends add a circle, square ones half a width each', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 160 }),
        fc.integer({ min: 1, max: 24 }),
        fc.integer({ min: 0, max: 359 }),
        (l, width, turn) => {
          expect(area(line(l, turn), false, { width })).toBeCloseTo(l * width, 1);
          expect(area(line(l, turn), false, { width, cap: 'square' })).toBeCloseTo((l + width) * width, 1);
          const round = area(line(l, turn), false, { width, cap: 'round' });
          expect(Math.abs(round - l * width - (Math.PI * width * width) / 4)).toBeLessThan(0.01 * width * width + 0.1);
        },
      ),
      { numRuns: 30 },
    );
  });

  test('about a rectangle: on, inside or outside of its edge, with each kind of corner', () => {
    const box = rectangleRing([100, 60], 0);
    const width = 8;
    const mitred = (w: number, h: number, out: number, inn: number) =>
      (w + 2 * out) * (h + 2 * out) - (w - 2 * inn) * (h - 2 * inn);
    expect(area(box, true, { width })).toBeCloseTo(mitred(100, 60, 4, 4), 2);
    expect(area(box, true, { width, lies: 1 })).toBeCloseTo(mitred(100, 60, 0, 8), 2);
    expect(area(box, true, { width, lies: -1 })).toBeCloseTo(mitred(100, 60, 8, 0), 2);
    // a cut corner lacks a triangle with half a width for legs, a round one what a quarter circle leaves of the square
    expect(area(box, true, { width, join: 'bevel' })).toBeCloseTo(mitred(100, 60, 4, 4) - 4 * (16 / 2), 2);
    expect(area(box, true, { width, join: 'round' })).toBeCloseTo(mitred(100, 60, 4, 4) - (16 * 4 - Math.PI * 16), 0);
  });

  test('about a circle is a ring, wherever it lies', () => {
    const circle = ellipseRing([120, 120]);
    for (const [lies, inner, outer] of [
      [0, 55, 65],
      [1, 50, 60],
      [-1, 60, 70],
    ] as const)
      expect(area(circle, true, { lies }) / (Math.PI * (outer ** 2 - inner ** 2))).toBeCloseTo(1, 3);
  });

  test('a line as wide as its bends are sharp covers nothing twice and leaves no hole', () => {
    const zigzag = Float64Array.of(-60, 30, -20, -30, 0, 25, 6, -28, 40, 30, 44, -30);
    const cover = plane(zigzag, false, { width: 18, cap: 'round', join: 'round' });
    expect(Math.max(...cover)).toBeLessThanOrEqual(1);
    // every place along the way is covered, a little to both sides too
    for (let i = 0; i + 3 < zigzag.length; i += 2)
      for (let t = 0; t <= 1; t += 0.05) {
        const at = (k: number) => zigzag[i + k]! + (zigzag[i + 2 + k]! - zigzag[i + k]!) * t + W / 2;
        expect(cover[Math.floor(at(1)) * W + Math.floor(at(0))]).toBeGreaterThan(0.99);
      }
  });
});

describe('a part of a line', () => {
  test('is as long as said; it goes on past the beginning of a closed way and stops at the ends of an open one', () => {
    const box = rectangleRing([100, 60], 0);
    expect(area(line(100), false, { from: 0.25, to: 0.75 })).toBeCloseTo(500, 2);
    expect(area(line(100), false, { from: 0.5, to: 1, shift: 0.25 })).toBeCloseTo(250, 2);
    expect(area(line(100), false, { from: 0.5, to: 0.5 })).toBe(0);
    // a quarter of the way round from anywhere; at a corner both legs share half a width's square
    for (const shift of [0, 0.2, 0.8, 0.95, 1.3, -0.4]) {
      const part = area(box, true, { from: 0, to: 0.25, shift, width: 4 });
      expect(Math.abs(part - 320)).toBeLessThan(4 * 4);
    }
    expect(area(box, true, { from: 0, to: 0.999999, width: 4 })).toBeCloseTo(area(box, true, { width: 4 }), -1);
  });

  test('dashes cover their share and stay where they are while a line is drawn', () => {
    expect(area(line(120), false, { dash: 8, gap: 4 })).toBeCloseTo(80 * 10, 1);
    const whole = plane(line(120), false, { dash: 8, gap: 4 });
    const half = plane(line(120), false, { dash: 8, gap: 4, to: 0.5 });
    for (let x = 0; x < W / 2 - 1; x++) expect(half[(W / 2) * W + x]).toBeCloseTo(whole[(W / 2) * W + x]!, 6);
    expect(half[(W / 2) * W + W / 2 + 20]).toBe(0);
  });

  test('with thin ends it covers half of what it would over them', () => {
    expect(area(line(120), false, { taper: 0.25 }) / (120 * 10 * 0.75)).toBeCloseTo(1, 2);
    expect(area(line(120), false, { taper: 0.5 }) / (120 * 10 * 0.5)).toBeCloseTo(1, 2);
  });
});

describe('figures', () => {
  const filled = (ring: Ring) => fillRings([ring.map((v) => v + W / 2)], W, W).reduce((sum, v) => sum + v, 0);
  test('a polygon covers what one with its corners does, a star ten triangles, an arrow its shaft and its head', () => {
    for (const n of [3, 5, 6, 12])
      expect(filled(cornersRing([100, 100], n))).toBeCloseTo((n / 2) * 50 ** 2 * Math.sin((2 * Math.PI) / n), 1);
    expect(filled(cornersRing([100, 100], 5, 0.4))).toBeCloseTo(5 * 50 * 20 * Math.sin(Math.PI / 5), 1);
    expect(filled(arrowRing([120, 40], 0.8, 0.5))).toBeCloseTo((120 - 32) * 20 + (32 * 40) / 2, 2);
  });
});

test('a thinned ring has few points and lies within the tolerance of the full one', () => {
  const circle = ellipseRing([200, 200]);
  const few = thinned(circle, 0.05);
  expect(few.length).toBeLessThan(circle.length / 2);
  const covered = (ring: Ring) => fillRings([ring.map((v) => v + W / 2)], W, W).reduce((sum, v) => sum + v, 0);
  // the chords of a circle lie at most that far inside of it
  expect(covered(circle) - covered(few)).toBeLessThan(Math.PI * 200 * 0.05);
  expect(thinned(rectangleRing([50, 20], 0), 1)).toEqual(rectangleRing([50, 20], 0));
});
