import { valueOn } from '../testing/documents';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Ease, Key, Value } from '../base/value';
import { EASINGS, ease } from './easing';
import { noiseAt, wanderAt } from './wander';
import { bentAt, spanLength } from './path';
import { steadyAt } from './values';

const unit = fc.double({ min: 0, max: 1, noNaN: true });
const keyed = fc
  .array(fc.record({ gap: fc.integer({ min: 1, max: 30 }), value: fc.double({ min: -100, max: 100, noNaN: true }) }), {
    minLength: 2,
    maxLength: 7,
  })
  .map((list) => {
    let at = 0;
    return list.map(({ gap, value }): Key<number> => ({ at: (at += gap), value, ease: 'smooth' }));
  });

describe('easing', () => {
  test('begins at 0 and ends at 1, whatever its kind', () => {
    const kinds: Ease[] = [
      'linear',
      'smooth',
      { bounce: 3 },
      EASINGS.in(0.6),
      EASINGS.out(0.6),
      EASINGS.both(1),
      EASINGS.overshoot(0.5),
    ];
    for (const kind of kinds) expect([ease(kind, 0), ease(kind, 1)]).toEqual([0, 1]);
    expect(ease('hold', 0.999)).toBe(0);
  });

  test('in, out and both are slow where they say; in and out mirror each other', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 1, noNaN: true }),
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        (strength, t) => {
          expect(ease(EASINGS.in(strength), t)).toBeLessThan(t);
          expect(ease(EASINGS.in(strength), t)).toBeCloseTo(1 - ease(EASINGS.out(strength), 1 - t), 6);
          expect(ease(EASINGS.both(strength), t)).toBeCloseTo(1 - ease(EASINGS.both(strength), 1 - t), 6);
        },
      ),
    );
  });

  test('overshoot goes past its end and comes back; a bounce touches it so many times and never passes it', () => {
    const samples = Array.from({ length: 1001 }, (_, i) => i / 1000);
    expect(Math.max(...samples.map((t) => ease(EASINGS.overshoot(0.5), t)))).toBeGreaterThan(1.05);
    const heights = samples.map((t) => ease({ bounce: 3 }, t));
    expect(Math.max(...heights)).toBeLessThanOrEqual(1);
    const dips = heights.filter((v, i) => i > 0 && i < 1000 && v < heights[i - 1]! && v <= heights[i + 1]!).length;
    expect(dips).toBe(3);
  });

  test('a cubic’s slope never stands in the way of its search: steep handles are met to 1e-6', () => {
    fc.assert(
      fc.property(unit, unit, unit, (x1, x2, s) => {
        const x = 3 * x1 * s * (1 - s) ** 2 + 3 * x2 * s * s * (1 - s) + s ** 3;
        const y = 3 * 0.2 * s * (1 - s) ** 2 + 3 * 0.9 * s * s * (1 - s) + s ** 3;
        // y is steepest against x where x stands nearly still, and there a tiny step of x is much of y
        const dx = 3 * x1 * (1 - s) * (1 - 3 * s) + 3 * x2 * s * (2 - 3 * s) + 3 * s * s;
        if (dx > 1e-3) expect(ease({ cubic: [x1, 0.2, x2, 0.9] }, x)).toBeCloseTo(y, 5);
      }),
    );
  });
});

describe('smooth keyframes', () => {
  test('never leave the range of the two keyframes they are between, and meet both', () => {
    fc.assert(
      fc.property(keyed, unit, (keys, share) => {
        const value: Value<number> = { keys };
        const at = keys[0]!.at + share * (keys.at(-1)!.at - keys[0]!.at);
        const i = keys.findLastIndex((key) => key.at <= at);
        const [a, b] = [keys[i]!, keys[Math.min(i + 1, keys.length - 1)]!];
        const got = valueOn(value, at);
        expect(got).toBeGreaterThanOrEqual(Math.min(a.value, b.value) - 1e-9);
        expect(got).toBeLessThanOrEqual(Math.max(a.value, b.value) + 1e-9);
        for (const key of keys) expect(valueOn(value, key.at)).toBeCloseTo(key.value, 9);
      }),
    );
  });

  test('a straight row of keyframes gives a straight line', () => {
    const keys = [0, 10, 25, 40].map((at): Key<number> => ({ at, value: 3 * at + 2, ease: 'smooth' }));
    for (let frame = 0; frame <= 40; frame++) expect(valueOn({ keys }, frame)).toBeCloseTo(3 * frame + 2, 9);
  });

  test('run through a keyframe without a kink', () => {
    fc.assert(
      fc.property(keyed, (keys) => {
        if (keys.length < 3) return;
        const { at } = keys[1]!;
        const h = 1e-4;
        const before = (valueOn({ keys }, at) - valueOn({ keys }, at - h)) / h;
        const after = (valueOn({ keys }, at + h) - valueOn({ keys }, at)) / h;
        expect(Math.abs(before - after)).toBeLessThan(0.5);
      }),
    );
  });
});

describe('jitter', () => {
  const jitter = { amount: 5, every: 3, smooth: 0.5, seed: 42 };

  test('stays within its amount, is the same each time, and differs by seed and part', () => {
    fc.assert(
      fc.property(fc.integer({ min: -500, max: 500 }), fc.nat(1000), unit, (frame, seed, smooth) => {
        const one = wanderAt({ ...jitter, seed, smooth }, frame, 0);
        expect(Math.abs(one)).toBeLessThanOrEqual(5);
        expect(wanderAt({ ...jitter, seed, smooth }, frame, 0)).toBe(one);
      }),
    );
    const run = (seed: number, stream: number) =>
      Array.from({ length: 40 }, (_, i) => wanderAt({ ...jitter, seed }, i * 3, stream));
    expect(run(1, 0)).not.toEqual(run(2, 0));
    expect(run(1, 0)).not.toEqual(run(1, 1));
  });

  test('unsmoothed it holds for so many frames and then jumps; smoothed it never jumps', () => {
    const steps = Array.from({ length: 12 }, (_, i) => wanderAt({ ...jitter, smooth: 0 }, i));
    expect(new Set(steps).size).toBe(4);
    for (let f = 0; f < 60; f += 0.05)
      expect(
        Math.abs(wanderAt({ ...jitter, smooth: 1 }, f + 0.05) - wanderAt({ ...jitter, smooth: 1 }, f)),
      ).toBeLessThan(0.3);
  });

  test('its noise has mean 0 and the spread of even chances', () => {
    const many = Array.from({ length: 20000 }, (_, i) => noiseAt(7, 0, i));
    const mean = many.reduce((a, b) => a + b, 0) / many.length;
    const spread = many.reduce((a, b) => a + b * b, 0) / many.length;
    expect(Math.abs(mean)).toBeLessThan(0.02);
    expect(Math.abs(spread - 1 / 3)).toBeLessThan(0.02);
    const neighbours = many.slice(1).reduce((sum, v, i) => sum + v * many[i]!, 0) / many.length;
    expect(Math.abs(neighbours)).toBeLessThan(0.02);
  });

  test('shakes every part of a value on its own, on top of its keyframes', () => {
    const still: Value<[number, number]> = { still: [10, 20], drivers: [{ type: 'jitter', ...jitter }] };
    const [x, y] = valueOn(still, 7);
    expect(x).toBe(10 + wanderAt(jitter, 7, 0));
    expect(y).toBe(20 + wanderAt(jitter, 7, 1));
    expect(steadyAt(still, 7)).toEqual([10, 20]);
  });
});

describe('motion paths', () => {
  const bent: Key<[number, number]>[] = [
    { at: 0, value: [0, 0], ease: 'linear', bend: { in: [0, 0], out: [0, 80] } },
    { at: 10, value: [100, 0], ease: 'linear', bend: { in: [0, 80], out: [0, -40] } },
    { at: 40, value: [160, 30], ease: 'linear' },
  ];

  test('a bent span goes through its Bézier curve, at one speed within the span', () => {
    const value = { keys: bent };
    const points = Array.from({ length: 11 }, (_, i) => valueOn(value, i));
    const steps = points.slice(1).map(([x, y], i) => Math.hypot(x - points[i]![0], y - points[i]![1]));
    const mean = steps.reduce((a, b) => a + b, 0) / steps.length;
    for (const step of steps) expect(Math.abs(step / mean - 1)).toBeLessThan(0.03);
    // the middle of a symmetric curve is its highest point: ¾ of the handles' height
    expect(valueOn(value, 5)[0]).toBeCloseTo(50, 1);
    expect(valueOn(value, 5)[1]).toBeCloseTo(60, 1);
    expect(bentAt(bent[0]!, bent[1]!, 0.5)).toEqual([50, 60]);
  });

  test('at constant speed every frame goes equally far over the whole path', () => {
    const value = { keys: bent, even: true };
    const points = Array.from({ length: 41 }, (_, i) => valueOn(value, i));
    const steps = points.slice(1).map(([x, y], i) => Math.hypot(x - points[i]![0], y - points[i]![1]));
    const whole = (spanLength(bent[0]!, bent[1]!) + spanLength(bent[1]!, bent[2]!)) / 40;
    for (const step of steps) expect(Math.abs(step / whole - 1)).toBeLessThan(0.05);
    expect(valueOn(value, 40)).toEqual([160, 30]);
  });
});
