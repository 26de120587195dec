import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  packSamples,
  pointsAt,
  TRACK_POINTS,
  unpackSamples,
  withSamples,
  type Sample,
  type Samples,
  type TrackKind,
} from './samples';
import { averaged, filled, joined, reversedSamples, smoothedSamples } from './work';

const half = fc.float({ min: -8000, max: 8000, noNaN: true });
const kinds = Object.keys(TRACK_POINTS) as TrackKind[];
const tracks = fc.constantFrom(...kinds).chain((kind) =>
  fc.record({
    kind: fc.constant(kind),
    first: fc.integer({ min: 0, max: 500 }),
    rows: fc.array(
      fc.option(
        fc.record({
          confidence: fc.float({ min: 0, max: 1, noNaN: true }),
          points: fc.array(fc.tuple(half, half), { minLength: TRACK_POINTS[kind], maxLength: TRACK_POINTS[kind] }),
        }),
      ),
      { maxLength: 40 },
    ),
  }),
);

test('samples come back as they were packed', () => {
  fc.assert(
    fc.property(tracks, ({ kind, first, rows }) => {
      const back = unpackSamples(packSamples({ first, rows }, kind), kind)!;
      expect(JSON.parse(JSON.stringify(back))).toEqual(JSON.parse(JSON.stringify({ first, rows })));
    }),
  );
});

test.each([
  ['no base64', '%%%'],
  ['a row that is cut off', btoa('12345')],
  ['a confidence of 7', btoa(String.fromCharCode(...new Uint8Array(Float32Array.of(7, 0, 0).buffer)))],
  ['an infinite place', btoa(String.fromCharCode(...new Uint8Array(Float32Array.of(1, Infinity, 0).buffer)))],
])('%s is refused', (_, rows) => {
  expect(unpackSamples({ first: 0, rows }, 'point')).toBeNull();
});

const row = (x: number, y = 0, confidence = 1): Sample => ({ confidence, points: [[x, y]] });
const gap: Samples = { first: 10, rows: [row(0), row(2), null, null, row(8), row(9)] };

describe('between frames', () => {
  test.each([
    [10, 0],
    [10.5, 1],
    [12, 4],
    [12.5, 5],
    [14, 8],
    [2, 0],
    [99, 9],
  ])('at %d the point is at %d', (frame, x) => {
    expect(pointsAt(gap, frame)![0]![0]).toBeCloseTo(x, 9);
  });
  test('nothing is known of nothing', () => {
    expect(pointsAt({ first: 0, rows: [] }, 3)).toBeNull();
  });
});

describe('work on tracks', () => {
  test('gaps are filled in straight lines, and say that they were not measured', () => {
    const rows = filled(gap);
    expect([...rows.values()].map(({ points }) => points[0]![0])).toEqual([0, 2, 4, 6, 8, 9]);
    expect(rows.get(12)!.confidence).toBeLessThan(0.5);
    expect(rows.get(11)!.confidence).toBe(1);
  });
  test('smoothing leaves a straight way as it is, and takes a jag down', () => {
    const straight: Samples = { first: 0, rows: Array.from({ length: 9 }, (_, i) => row(3 * i, i)) };
    smoothedSamples(straight, 5).forEach(({ points }, frame) => {
      expect(points[0]![0]).toBeCloseTo(3 * frame, 9);
      expect(points[0]![1]).toBeCloseTo(frame, 9);
    });
    const jag: Samples = { first: 0, rows: [0, 0, 0, 5, 0, 0, 0].map((x) => row(x)) };
    expect(smoothedSamples(jag, 5).get(3)!.points[0]![0]).toBeCloseTo(1, 9);
  });
  test('reversed twice is as it was', () => {
    const once = reversedSamples(gap, 40);
    const twice = reversedSamples(withSamples({ first: 0, rows: [] }, once), 40);
    expect(withSamples({ first: 0, rows: [] }, twice)).toEqual(gap);
  });
  test('an average weighs by confidence', () => {
    const mean = averaged([
      { first: 0, rows: [row(0, 0, 0.25)] },
      { first: 0, rows: [row(4, 0, 0.75)] },
    ]);
    expect(mean.get(0)!.points[0]![0]).toBeCloseTo(3, 4);
  });
  test('a joined track goes on where the first one ends, without a jump', () => {
    const all = joined([
      { first: 0, rows: [row(0), row(1), row(2)] },
      { first: 1, rows: [row(11), row(12), row(13), row(14)] },
    ]);
    expect([...all.values()].map(({ points }) => points[0]![0])).toEqual([0, 1, 2, 3, 4]);
  });
});
