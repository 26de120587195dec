import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flattened, fromFreehand, nearestOn, segment, cubicAt, withVertex, type Vertex } from './path';

// taken once: looking globals up is slow where tests run
const { abs, hypot, max, min } = Math;

describe('paths', () => {
  const curved: Vertex[] = [
    [-30, 0, 0, 15, 0, -15, 0],
    [0, -25, -12, 0, 12, 0, 4],
    [30, 0, 0, -15, 0, 15, 0],
    [0, 25, 12, 0, -12, 0, 0],
  ];

  test('a vertex put in does not change the shape', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3 }), fc.double({ min: 0.05, max: 0.95, noNaN: true }), (i, t) => {
        const more = withVertex(curved, i, t);
        expect(more).toHaveLength(5);
        for (let k = 0; k <= 10; k++) {
          const [x, y] = cubicAt(segment(curved, i), (t * k) / 10);
          const [u, v] = cubicAt(segment(more, i), k / 10);
          expect(hypot(u - x, v - y)).toBeLessThan(1e-9);
        }
      }),
    );
  });

  test('the nearest place on a path is found', () => {
    const found = nearestOn(curved, 2, -40)!;
    expect(found.distance).toBeLessThan(15.1);
    expect(found.distance).toBeGreaterThan(14.9);
    expect(found.point[1]).toBeCloseTo(-25, 0);
  });

  test('flattening stays within a fiftieth of a pixel', () => {
    const { ring } = flattened(curved);
    for (let i = 0; i < 4; i++) {
      for (let k = 0; k < 50; k++) {
        const [x, y] = cubicAt(segment(curved, i), k / 50);
        let best = Infinity;
        for (let p = 0; p < ring.length; p += 2) {
          const q = (p + 2) % ring.length;
          const [dx, dy] = [ring[q]! - ring[p]!, ring[q + 1]! - ring[p + 1]!];
          const s = min(1, max(0, ((x - ring[p]!) * dx + (y - ring[p + 1]!) * dy) / (dx * dx + dy * dy)));
          best = min(best, hypot(ring[p]! + s * dx - x, ring[p + 1]! + s * dy - y));
        }
        expect(best).toBeLessThan(0.021);
      }
    }
  });

  test('a freehand circle becomes a few smooth vertices near it', () => {
    const points = Array.from(
      { length: 200 },
      (_, i) => [40 * Math.cos((i * Math.PI) / 100), 40 * Math.sin((i * Math.PI) / 100)] as const,
    );
    const path = fromFreehand(points, 1.5);
    expect(path.length).toBeLessThan(20);
    const { ring } = flattened(path);
    for (let i = 0; i < ring.length; i += 2) expect(abs(hypot(ring[i]!, ring[i + 1]!) - 40)).toBeLessThan(2.5);
  });
});
