import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply, invert, multiply, rotation, scaling, translation, type Matrix } from '../picture/matrix';
import type { Samples } from './samples';
import { evenPath } from './camera-path';
import { corrections, coveringZoom, fillingZoom, MOST_ZOOM } from './steady';

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
  corrections(samples, { ...ALL, way: { is: 'still' } }).forEach((move, f) => {
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
  corrections(pan, { ...ALL, way: { is: 'smooth', over: 12 } }).forEach((move) =>
    expect(Math.hypot(move[4], move[5])).toBeLessThan(1e-6),
  );
  const shaken: Samples = { first: 0, rows: Array.from({ length: 60 }, (_, f) => panned(f, f % 2 ? 3 : -3)) };
  const left = corrections(shaken, { ...ALL, way: { is: 'smooth', over: 12 } }).map(
    (move, f) => apply(move, 4 * f + (f % 2 ? 3 : -3), 0)[0] - 4 * f,
  );
  left.slice(6, -6).forEach((off) => expect(Math.abs(off)).toBeLessThan(0.3));
});

describe('even pieces', () => {
  const ROOM = 12;
  const meant = (f: number) => (f < 50 ? 0 : f < 110 ? 2 * (f - 50) : 120);
  const shaken = Array.from({ length: 160 }, (_, f) => meant(f) + 5 * Math.sin(f / 2.3) + 3 * Math.sin(f / 5.1 + 1));
  const sums = (list: readonly number[], order: number): number => {
    let own = list;
    for (let k = 0; k < order; k++) own = own.slice(1).map((v, i) => v - own[i]!);
    return own.reduce((sum, v) => sum + Math.abs(v), 0);
  };

  test('stand where the camera was meant to stand and go evenly where it was meant to go', () => {
    const path = evenPath(shaken, ROOM);
    for (const f of [10, 25, 40, 120, 135, 150]) expect(Math.abs(path[f]! - path[f - 1]!)).toBeLessThan(0.1);
    for (const f of [70, 80, 90]) expect(path[f + 4]! - path[f - 4]!).toBeCloseTo(16, -1);
    path.forEach((v, f) => expect(Math.abs(v - shaken[f]!)).toBeLessThanOrEqual(ROOM + 1e-9));
    // far less of all three than a mean of neighbours leaves
    const mean = shaken.map((_, f) => {
      const near = shaken.slice(Math.max(0, f - 12), f + 13);
      return near.reduce((sum, v) => sum + v) / near.length;
    });
    for (const order of [2, 3]) expect(sums(path, order)).toBeLessThan(0.75 * sums(mean, order));
  });

  test('never lead farther than the room, however long the path', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -50, max: 50, noNaN: true }), { minLength: 1, maxLength: 40 }),
        fc.double({ min: 0.5, max: 60, noNaN: true }),
        fc.constantFrom(1, 40),
        (list, room, times) => {
          const path = Array.from({ length: times }, () => list).flat();
          const found = evenPath(path, room);
          expect(found.length).toBe(path.length);
          found.forEach((v, i) => expect(Math.abs(v - path[i]!)).toBeLessThanOrEqual(room + 1e-9));
        },
      ),
      { numRuns: 25 },
    );
  });

  test('take the trembling of a pan away, corners included', () => {
    const corner = Math.hypot(640, 360);
    const rows = shaken.map((x, f) => {
      const at = multiply(translation(x, 0), rotation(1.5 * Math.sin(f / 3)));
      return { confidence: 1, points: [apply(at, -300, 0), apply(at, 300, 0)] };
    });
    const moves = corrections({ first: 0, rows }, { ...ALL, way: { is: 'even', room: 40, corner } });
    moves.forEach((move) => {
      const [x, y] = apply(move, 0, 0);
      expect(Math.hypot(x, y)).toBeLessThan(45);
    });
    const turns = rows.map((row, f) => {
      const [a, b] = row.points.map(([x, y]) => apply(moves[f]!, x, y));
      return (Math.atan2(b![1] - a![1], b![0] - a![0]) * 180) / Math.PI;
    });
    expect(sums(turns, 1)).toBeLessThan(
      0.1 *
        sums(
          shaken.map((_, f) => 1.5 * Math.sin(f / 3)),
          1,
        ),
    );
  });
});

test('parts that are not to be taken away stay', () => {
  corrections(samples, { position: 1, rotation: 0, scale: 0, way: { is: 'still' } }).forEach((move) => {
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
  test('is less where other frames fill what one lacks, and then every place of the border is covered', () => {
    const all = Array.from({ length: 60 }, (_, f) => translation(30 * Math.sin(f / 4), 12 * Math.cos(f / 3)));
    const zoom = fillingZoom(all, [2, 6, 12, 24], W, H, 0);
    expect(zoom).toBeLessThan(1 + 0.7 * (coveringZoom(all, W, H, 0) - 1));
    all.forEach((_, at) => {
      const near = [0, -2, 2, -6, 6, -12, 12, -24, 24].flatMap((by) => (all[at + by] ? [all[at + by]!] : []));
      for (let x = -W / 2; x <= W / 2; x += 8)
        for (const y of [-H / 2, H / 2])
          expect(
            near.some((move) => Math.abs(x / zoom - move[4]) <= W / 2 && Math.abs(y / zoom - move[5]) <= H / 2),
          ).toBe(true);
    });
    expect(fillingZoom([translation(30, 0)], [2], W, H, 0)).toBeCloseTo(coveringZoom([translation(30, 0)], W, H, 0), 2);
  });
  test('of what does not move is none', () => {
    expect(coveringZoom([[1, 0, 0, 1, 0, 0]], W, H, 0)).toBe(1);
  });
});
