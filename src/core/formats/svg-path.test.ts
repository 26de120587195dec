import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { flattened, type Vertex } from '../masks/path';
import { fillRings } from '../masks/raster';
import { pathData, pathsOf } from './svg-path';

const area = (path: readonly Vertex[]) => fillRings([flattened(path).ring], 200, 200).reduce((sum, v) => sum + v, 0);

describe('SVG paths', () => {
  const part = fc.integer({ min: -900, max: 900 }).map((v) => v / 10 + 0);
  const vertex = fc.tuple(part, part, part, part, part, part, fc.constant(0)).map((v) => v as Vertex);
  test('what was written is read again', () => {
    fc.assert(
      fc.property(fc.array(vertex, { minLength: 3, maxLength: 12 }), (path) => {
        const [read] = pathsOf(pathData(path));
        // feather is no part of SVG; a last vertex on the first one is the first one
        if (Math.hypot(path[0]![0] - path.at(-1)![0], path[0]![1] - path.at(-1)![1]) < 1e-3) return;
        expect(read).toHaveLength(path.length);
        read!.forEach((v, i) => v.forEach((value, k) => expect(Math.abs(value - path[i]![k]!)).toBeLessThan(0.02)));
      }),
    );
  });

  test.each([
    ['a square by relative lines', 'm20 20h100v100h-100z', 10_000],
    ['a circle by arcs', 'M150 100A50 50 0 1 1 50 100A50 50 0 1 1 150 100Z', Math.PI * 2500],
    ['a leaf by quadratic curves and their short form', 'M20 100Q100 20 180 100T20 100Z', null],
  ])('%s', (_, data, expected) => {
    const [path] = pathsOf(data);
    if (expected !== null) expect(Math.abs(area(path!) / expected - 1)).toBeLessThan(0.003);
    else expect(area(path!)).toBeGreaterThan(1000);
  });

  test('transforms are applied; several parts are several paths', () => {
    const paths = pathsOf('M0 0h10v10h-10zM20 0h10v10z', 'translate(50 50) scale(2)');
    expect(paths).toHaveLength(2);
    expect(paths[0]!.map((v) => [v[0], v[1]])).toEqual([
      [50, 50],
      [70, 50],
      [70, 70],
      [50, 70],
    ]);
  });

  test.each(['M0 0 L1e9 0 L5 5Z', 'nonsense', 'M0 0L'])('%s does no harm', (data) => {
    let read: unknown[] = [];
    try {
      read = pathsOf(data);
    } catch (error) {
      expect((error as Error).message).toMatch(/The SVG path .*import it again/);
    }
    expect(read).toHaveLength(0);
  });
});
