import { stockSource } from '../document/edits/layers';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Layer } from '../document/schema';
import { still, type Value } from '../base/value';
import { SHOT, layerOf, projectOf } from '../testing/documents';
import { planFrame } from './plan';
import type { SourcePlan } from './types';

// the clip of these tests has 48 frames at 24 a second
const source = stockSource('plate' as never);
const planned = (time: Partial<Layer['time']>, frame: number): Extract<SourcePlan, { kind: 'stock' }> => {
  const layer = layerOf('plate', source);
  const plan = planFrame(
    projectOf([{ ...layer, span: { start: 0, length: 200 }, time: { ...layer.time, ...time } }], { length: 200 }),
    SHOT,
    frame,
  );
  return plan.layers[0]!.source as Extract<SourcePlan, { kind: 'stock' }>;
};
const frameOf = (seconds: number) => Math.floor(seconds * 24 + 1e-6);

describe('which source frame shows', () => {
  test('nearest: the frame that is due, never a half of one', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 3, noNaN: true }), fc.integer({ min: 0, max: 60 }), (speed, frame) => {
        const plan = planned({ speed: still(speed) }, frame);
        expect(plan.next).toBeUndefined();
        // a moment a rounding error short of a frame's start counts as that frame
        const exact = Math.min(47, speed * frame);
        expect(frameOf(plan.seconds)).toBe(Math.floor(exact + 0.024 + 1e-6));
      }),
    );
  });

  test('between: two neighbours, and the share of the way from one to the other', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.9, noNaN: true }),
        fc.integer({ min: 1, max: 45 }),
        fc.constantFrom('blend' as const, 'flow' as const),
        (speed, frame, how) => {
          const at = speed * frame;
          const share = at - Math.floor(at);
          const plan = planned({ speed: still(speed), between: how }, frame);
          if (share < 0.002 || share > 0.998) return;
          expect(frameOf(plan.seconds)).toBe(Math.floor(at));
          expect(frameOf(plan.next!.seconds)).toBe(Math.floor(at) + 1);
          expect(plan.next!.share).toBeCloseTo(share, 6);
          expect(plan.next!.how).toBe(how);
        },
      ),
    );
  });

  test('beyond its ends the first and the last frame hold', () => {
    expect(frameOf(planned({ speed: still(3), between: 'flow' }, 150).seconds)).toBe(47);
    expect(planned({ speed: still(3), between: 'flow' }, 150).next).toBeUndefined();
    expect(frameOf(planned({ speed: still(-1) }, 30).seconds)).toBe(0);
    expect(planned({ speed: still(3) }, 150)).toEqual(planned({ speed: still(3) }, 160));
  });

  test('backwards from the end it shows every frame once, down to the first', () => {
    const seen = Array.from({ length: 48 }, (_, frame) =>
      frameOf(planned({ offset: 47, speed: still(-1) }, frame).seconds),
    );
    expect(seen).toEqual(Array.from({ length: 48 }, (_, i) => 47 - i));
  });

  test('through a ramp that is smooth, frames never run backwards and never leap', () => {
    const ramp: Value<number> = {
      keys: [
        { at: 0, value: 2, ease: { cubic: [0.6, 0, 0.4, 1] } },
        { at: 20, value: 0.2, ease: { cubic: [0.6, 0, 0.4, 1] } },
        { at: 40, value: 2, ease: 'linear' },
      ],
    };
    const moments = Array.from({ length: 40 }, (_, frame) => {
      const plan = planned({ speed: ramp, between: 'blend' }, frame);
      return frameOf(plan.seconds) + (plan.next?.share ?? 0);
    });
    for (let i = 1; i < moments.length; i++) {
      expect(moments[i]! - moments[i - 1]!).toBeGreaterThan(0);
      expect(moments[i]! - moments[i - 1]!).toBeLessThanOrEqual(2.01);
    }
  });
});
