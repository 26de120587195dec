import { stockSource } from './layers';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { PASSES } from '../../passes/registry';
import { steadyAt } from '../../time/values';
import { valueOn, clipStock, colourSource, layerOf } from '../../testing/documents';
import { newPass } from './passes';
import type { PassId } from '../schema';
import type { Ease, Key, Value } from '../../base/value';
import { changedAt, eachKeyed, entriesOf, isKeyed, mapped, pegged, valueIn, withKeys, writeValue } from './values';
import { keysOf } from '../../base/value';

const eases = fc.constantFrom<Ease>('hold', 'linear', 'smooth', { cubic: [0.4, 0, 0.2, 1] });
const values: fc.Arbitrary<Value<number>> = fc.oneof(
  fc.double({ min: -50, max: 50, noNaN: true }).map((still) => ({ still })),
  fc
    .uniqueArray(fc.integer({ min: -30, max: 90 }), { minLength: 1, maxLength: 8 })
    .chain((frames) =>
      fc
        .tuple(
          ...frames
            .sort((a, b) => a - b)
            .map((at) =>
              fc.record({ at: fc.constant(at), value: fc.double({ min: -50, max: 50, noNaN: true }), ease: eases }),
            ),
        )
        .map((keys) => ({ keys: keys as Key<number>[] })),
    ),
);
const frame = fc.integer({ min: -40, max: 100 });
const ascending = (value: Value<unknown>) => keysOf(value).every((key, i, all) => i === 0 || all[i - 1]!.at < key.at);

describe('values by path', () => {
  const layer = layerOf('kite', stockSource(clipStock('kite').id), {
    passes: PASSES.map((pass) => newPass(pass.type as PassId, pass.type)),
  });

  test('every value of a layer and of every kind of pass is found, written and found again', () => {
    const entries = entriesOf(layer);
    expect(new Set(entries.map((entry) => entry.path)).size).toBe(entries.length);
    const params = PASSES.reduce((sum, pass) => sum + Object.keys(pass.params).length, 0);
    // speed, eight of place and opacity, level
    expect(entries).toHaveLength(params + 10);
    for (const { path, parts } of entries) {
      const copy = structuredClone(layer);
      const value = valueIn(copy, path)!;
      expect(value).toHaveProperty('still');
      if (parts.length > 1) expect((value as { still: unknown[] }).still).toHaveLength(parts.length);
      const next = pegged(value, 3);
      writeValue(copy, path, next);
      expect(valueIn(copy, path)).toBe(next);
      expect(isKeyed(valueIn(layer, path))).toBe(false);
    }
  });

  test('plain colours have a colour and no speed; a path that leads nowhere gives nothing', () => {
    const plain = layerOf('card', colourSource([0, 0, 0]));
    expect(entriesOf(plain).map((entry) => entry.path)).toContain('source.colour');
    expect(entriesOf(plain).map((entry) => entry.path)).not.toContain('time.speed');
    for (const path of ['pass.none.radius', 'place.nothing', 'nothing', 'place'])
      expect(valueIn(plain, path)).toBeUndefined();
    expect(() => writeValue(structuredClone(plain), 'place.nothing', { still: 1 })).not.toThrow();
  });

  test('only keyed values are visited', () => {
    const copy = structuredClone(layer);
    writeValue(copy, 'opacity', pegged(copy.opacity, 0) as Value<unknown>);
    const seen: string[] = [];
    eachKeyed(copy, (value, path) => {
      seen.push(path);
      return value;
    });
    expect(seen).toEqual(['opacity']);
  });
});

describe('keyframes of a value', () => {
  test('a peg changes nothing at any keyframe and leaves them in order', () => {
    fc.assert(
      fc.property(values, frame, (value, at) => {
        const next = pegged(value, at, 'linear');
        expect(ascending(next)).toBe(true);
        // where there was one it goes, and only the others count
        const removed = keysOf(value).some((key) => key.at === at);
        expect(keysOf(next).some((key) => key.at === at)).toBe(!removed);
        if (!removed) expect(steadyAt(next, at)).toBeCloseTo(steadyAt(value, at), 9);
        for (const key of keysOf(value)) if (key.at !== at) expect(steadyAt(next, key.at)).toBeCloseTo(key.value, 9);
      }),
    );
  });

  test('a changed value is what was asked for at that frame, and at the other keyframes what it was', () => {
    fc.assert(
      fc.property(values, frame, fc.double({ min: -9, max: 9, noNaN: true }), (value, at, wanted) => {
        const next = changedAt(value, at, wanted);
        expect(valueOn(next, at)).toBeCloseTo(wanted, 12);
        expect(ascending(next)).toBe(true);
        for (const key of keysOf(value)) if (key.at !== at) expect(valueOn(next, key.at)).toBeCloseTo(key.value, 12);
        expect('still' in next).toBe('still' in value);
      }),
    );
  });

  test('of keyframes at one frame the last one stays; with none left the value is still; jitter goes along', () => {
    const jitter = { amount: 1, every: 2, smooth: 0, seed: 5 };
    const drivers = [{ type: 'jitter', ...jitter }];
    const value: Value<number> = { still: 1, drivers };
    const keys: Key<number>[] = [
      { at: 9, value: 1, ease: 'linear' },
      { at: 2, value: 2, ease: 'hold' },
      { at: 9, value: 3, ease: 'linear' },
    ];
    expect(withKeys(value, keys, 0)).toEqual({ keys: [keys[1], keys[2]], drivers });
    expect(withKeys({ keys, drivers }, [], 7)).toEqual({ still: 7, drivers });
  });

  test('a map goes over every keyframe', () => {
    fc.assert(
      fc.property(values, frame, (value, at) => {
        const doubled = mapped(value, (v) => 2 * v);
        expect(steadyAt(doubled, at)).toBeCloseTo(2 * steadyAt(value, at), 6);
      }),
    );
  });
});
