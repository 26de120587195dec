import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { newShape, type Shape } from '../../core/document/mask';
import { still, type Value } from '../../core/base/value';
import { corner, type Vertex } from '../../core/masks/path';
import { gripsOf } from './grips';
import { boxOf, movedBy, scaledBy, snapPoint, turnedBy, withHandle } from './path-edit';

const now = <T>(value: Value<T>): T => ('still' in value ? value.still : value.keys[0]!.value);
const curved: Vertex[] = [[-10, 0, 0, 4, 0, -4, 0], corner(10, -6), [12, 9, 3, 1, -3, -1, 5]];

describe('editing chosen vertices', () => {
  test('only the chosen ones move, and their handles go along', () => {
    const moved = movedBy(curved, new Set([0, 2]), 3, -2);
    expect(moved[0]).toEqual([-7, -2, 0, 4, 0, -4, 0]);
    expect(moved[1]).toEqual(curved[1]);
    expect(moved[2]!.slice(2)).toEqual(curved[2]!.slice(2));
  });

  test('the box is that of the chosen ones, and there is none about a single one', () => {
    expect(boxOf(curved, new Set([0, 1]))).toEqual({ left: -10, right: 10, top: -6, bottom: 0 });
    expect(boxOf(curved, new Set([1]))).toBeNull();
  });

  test('scaling about a corner leaves that corner, and doubles distances and handles', () => {
    const scaled = scaledBy(curved, new Set([0, 1, 2]), [-10, 0], 2, 2);
    expect(scaled[0]).toEqual([-10, 0, 0, 8, 0, -8, 0]);
    expect([scaled[2]![0], scaled[2]![1]]).toEqual([34, 18]);
  });

  test('a whole turn comes back, and a turn keeps distances', () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (angle) => {
        const all = new Set([0, 1, 2]);
        const turned = turnedBy(curved, all, [2, 1], angle);
        turned.forEach((v, i) => {
          expect(
            Math.abs(Math.hypot(v[0] - 2, v[1] - 1) - Math.hypot(curved[i]![0] - 2, curved[i]![1] - 1)),
          ).toBeLessThan(0.1);
          expect(Math.hypot(v[2], v[3])).toBeCloseTo(Math.hypot(curved[i]![2], curved[i]![3]), 6);
        });
        const back = turnedBy(turned, all, [2, 1], -angle);
        back.forEach((v, i) => expect(Math.hypot(v[0] - curved[i]![0], v[1] - curved[i]![1])).toBeLessThan(0.2));
      }),
    );
  });

  test('the other handle turns along and keeps its length, unless they move apart', () => {
    const together = withHandle(curved[0]!, 'out', [6, 0], false);
    expect(together.slice(2, 6).map((v) => v + 0)).toEqual([-4, 0, 6, 0]);
    const apart = withHandle(curved[0]!, 'out', [6, 0], true);
    expect(apart.slice(2, 6)).toEqual([0, 4, 6, 0]);
  });

  test('a point snaps to the lines of others and of the picture’s middle and borders, when near', () => {
    const size = { w: 200, h: 100 };
    expect(snapPoint([31, -2], [[30, 40]], size, 3)).toEqual({ point: [30, 0], x: 30, y: 0 });
    expect(snapPoint([98, 48.5], [], size, 3)).toEqual({ point: [100, 50], x: 100, y: 50 });
    expect(snapPoint([70.04, 20], [[30, 40]], size, 3)).toEqual({ point: [70, 20], x: null, y: null });
  });
});

describe('grips of shapes', () => {
  const kinds = ['rectangle', 'ellipse', 'line', 'linear', 'radial', 'text'] as const;
  test.each(kinds)('dragging a grip of a %s to where it is changes nothing', (kind) => {
    const shape = newShape(kind, { w: 640, h: 360 });
    const grips = gripsOf(shape, now);
    expect(grips.length).toBeGreaterThanOrEqual(2);
    for (const grip of grips) {
      for (const [name, value] of Object.entries(grip.put(grip.at))) {
        const before = now((shape as unknown as Record<string, Value<number | number[]>>)[name]!);
        [value].flat().forEach((v, i) => expect(v).toBeCloseTo([before].flat()[i]!, 0));
      }
    }
  });

  test('a dragged corner leaves the opposite one, whatever the rotation', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -180, max: 180 }),
        fc.integer({ min: -60, max: 60 }),
        fc.integer({ min: -40, max: 40 }),
        (rotation, dx, dy) => {
          const shape = { ...newShape('rectangle', { w: 640, h: 360 }), rotation: still(rotation) } as Shape;
          const corners = (of: Shape) => gripsOf(of, now).filter((grip) => grip.name.endsWith('corner'));
          const [before, grip] = [corners(shape), corners(shape).find((item) => item.name === 'Bottom right corner')!];
          const changed = Object.fromEntries(
            Object.entries(grip.put([grip.at[0] + dx, grip.at[1] + dy])).map(([name, value]) => [name, still(value)]),
          );
          const after = corners({ ...shape, ...changed } as Shape);
          const opposite = (list: typeof before) => list.find((item) => item.name === 'Top left corner')!.at;
          expect(
            Math.hypot(opposite(after)[0] - opposite(before)[0], opposite(after)[1] - opposite(before)[1]),
          ).toBeLessThan(0.2);
        },
      ),
    );
  });

  test('the turning grip points where it is dragged', () => {
    const grip = gripsOf(newShape('line', { w: 640, h: 360 }), now).find((item) => item.name === 'Rotation')!;
    expect(grip.put([0, 50])).toEqual({ rotation: 90 });
    expect(grip.put([-50, 0])).toEqual({ rotation: 180 });
  });

  test('painted, pictured and drawn masks have none', () => {
    expect(gripsOf(newShape('brush', { w: 10, h: 10 }), now)).toEqual([]);
    expect(gripsOf({ kind: 'picture', stock: 'x' as never, channel: 'alpha' }, now)).toEqual([]);
  });
});
