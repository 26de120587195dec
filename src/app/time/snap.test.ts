import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { LayerId } from '../../core/document/schema';
import { colourSource, layerOf, shotOf } from '../../core/testing/documents';
import { snapTargets, snapped, snappedSpan } from './snap';

describe('snapping', () => {
  const targets = fc.array(fc.integer({ min: -100, max: 300 }), { maxLength: 12 });
  const frame = fc.double({ min: -100, max: 300, noNaN: true });

  test('goes to the nearest target within reach, or nowhere', () => {
    fc.assert(
      fc.property(frame, targets, fc.integer({ min: 0, max: 9 }), (at, list, reach) => {
        const near = list
          .filter((target) => Math.abs(target - at) <= reach)
          .sort((a, b) => Math.abs(a - at) - Math.abs(b - at))[0];
        const got = snapped(at, list, reach);
        expect(got === null ? undefined : Math.abs(got - at)).toBe(
          near === undefined ? undefined : Math.abs(near - at),
        );
      }),
    );
  });

  test('a moved span meets a target with one of its ends, or lies on a whole frame', () => {
    fc.assert(
      fc.property(frame, fc.integer({ min: 1, max: 99 }), targets, (start, length, list) => {
        const got = snappedSpan(start, length, list, 4);
        expect(Number.isInteger(got)).toBe(true);
        expect(Math.abs(got - start)).toBeLessThanOrEqual(4);
        if (Math.abs(got - start) > 0.5) expect(list.includes(got) || list.includes(got + length)).toBe(true);
      }),
    );
  });

  test('with a negative reach nothing snaps: the modifier suspends it', () => {
    expect(snapped(10, [10], -1)).toBeNull();
    expect(snappedSpan(10.4, 5, [10, 15], -1)).toBe(10);
  });
});

describe('what there is to snap to', () => {
  const shot = shotOf({
    length: 90,
    markers: [{ at: 17, name: 'horn', colour: 'sand' }],
    range: { from: 5, to: 80 },
    layers: [
      layerOf('a', colourSource([0, 0, 0]), {
        span: { start: 10, length: 20 },
        opacity: {
          keys: [
            { at: 3, value: 0, ease: 'linear' },
            { at: 9, value: 1, ease: 'linear' },
          ],
        },
      }),
      layerOf('b', colourSource([0, 0, 0]), { span: { start: 40, length: 7 } }),
    ],
  });

  test('ends, playhead, markers, range, layers and keyframes', () => {
    const targets = new Set(snapTargets(shot, 33, {}));
    for (const frame of [0, 90, 33, 17, 5, 80, 10, 30, 40, 47, 13, 19]) expect(targets.has(frame)).toBe(true);
  });

  test('never what is being moved itself', () => {
    const withoutLayer = new Set(snapTargets(shot, 33, { layer: 'a' as LayerId }));
    for (const frame of [10, 30, 13, 19]) expect(withoutLayer.has(frame)).toBe(false);
    const withoutKey = new Set(snapTargets(shot, 33, { without: [{ layer: 'a' as LayerId, path: 'opacity', at: 3 }] }));
    expect([withoutKey.has(13), withoutKey.has(19), withoutKey.has(10)]).toEqual([false, true, true]);
  });
});
