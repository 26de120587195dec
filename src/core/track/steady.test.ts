import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply, invert, multiply, rotation, scaling, translation, type Matrix } from '../picture/matrix';
import type { Samples } from './samples';
import { corrections, coveringZoom, MOST_ZOOM } from './steady';

const swayed = (f: number): Matrix => {
  const by = 1 + 0.02 * Math.sin(f / 4);
  return multiply(
    translation(9 * Math.sin(f / 3), 5 * Math.cos(f / 5)),
    multiply(rotation(2 * Math.sin(f / 6)), scaling(by, by)),
  );
};
const samples: Samples = {
  first: 0,
  rows: Array.from({ length: 40 }, (_, f) => ({
    confidence: 1,
    points: [apply(swayed(f), -300, 0), apply(swayed(f), 300, 0)],
  })),
};
const ALL = { position: 1, rotation: 1, scale: 1 };

test('held still, every place of the picture stays where it was on the first frame', () => {
  corrections(samples, { ...ALL, smooth: null }).forEach((move, f) => {
    for (const [x, y] of [
      [0, 0],
      [-400, 200],
      [350, -180],
    ] as const) {
      const [u, v] = apply(multiply(move, swayed(f)), x, y);
      const [x0, y0] = apply(swayed(0), x, y);
      expect(Math.hypot(u - x0, v - y0)).toBeLessThan(1e-6);
    }
  });
});

test('a steady pan is left alone when the camera is to move smoothly, and trembling on it is taken away', () => {
  const panned = (f: number, tremble: number): Samples['rows'][number] => ({
    confidence: 1,
    points: [
      [-300 + 4 * f + tremble, 0],
      [300 + 4 * f + tremble, 0],
    ],
  });
  const pan: Samples = { first: 0, rows: Array.from({ length: 60 }, (_, f) => panned(f, 0)) };
  corrections(pan, { ...ALL, smooth: 12 }).forEach((move) => expect(Math.hypot(move[4], move[5])).toBeLessThan(1e-6));
  const shaken: Samples = { first: 0, rows: Array.from({ length: 60 }, (_, f) => panned(f, f % 2 ? 3 : -3)) };
  const left = corrections(shaken, { ...ALL, smooth: 12 }).map(
    (move, f) => apply(move, 4 * f + (f % 2 ? 3 : -3), 0)[0] - 4 * f,
  );
  left.slice(6, -6).forEach((off) => expect(Math.abs(off)).toBeLessThan(0.3));
});

test('parts that are not to be taken away stay', () => {
  corrections(samples, { position: 1, rotation: 0, scale: 0, smooth: null }).forEach((move) => {
    expect(move[0]).toBeCloseTo(1, 9);
    expect(move[1]).toBeCloseTo(0, 9);
  });
});

describe('the covering zoom', () => {
  const moves = fc.record({
    x: fc.double({ min: -60, max: 60, noNaN: true }),
    y: fc.double({ min: -40, max: 40, noNaN: true }),
    turn: fc.double({ min: -8, max: 8, noNaN: true }),
    size: fc.double({ min: 0.9, max: 1.1, noNaN: true }),
  });
  const [W, H] = [640, 360];
  const inside = (move: Matrix, zoom: number): number => {
    const back = invert(multiply(scaling(zoom, zoom), move))!;
    const corners = [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map(([x, y]) => apply(back, (x! * W) / 2, (y! * H) / 2));
    return Math.max(...corners.map(([x, y]) => Math.max(Math.abs(x) - W / 2, Math.abs(y) - H / 2)));
  };
  test('leaves no corner empty on any frame, and is no larger than that', () => {
    fc.assert(
      fc.property(fc.array(moves, { minLength: 1, maxLength: 6 }), (list) => {
        const all = list.map(({ x, y, turn, size }) =>
          multiply(translation(x, y), multiply(rotation(turn), scaling(size, size))),
        );
        const zoom = coveringZoom(all, W, H, 0);
        expect(zoom).toBeGreaterThanOrEqual(1);
        all.forEach((move) => expect(inside(move, zoom)).toBeLessThan(1e-6));
        if (zoom > 1.001 && zoom < MOST_ZOOM)
          expect(Math.max(...all.map((move) => inside(move, zoom * 0.999)))).toBeGreaterThan(0);
      }),
    );
  });
  test('of what does not move is none', () => {
    expect(coveringZoom([[1, 0, 0, 1, 0, 0]], W, H, 0)).toBe(1);
  });
});
