import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { FrameCache } from './frame-cache';
import type { ShownFrame } from './types';

/** A frame of 10×10 pixels, 400 bytes, that counts how often it is closed. */
const frame = () => {
  const bitmap = { width: 10, height: 10, closed: 0, close: () => void bitmap.closed++ };
  return { bitmap, problems: [] } as unknown as ShownFrame & { bitmap: { closed: number } };
};

describe('the cache of finished frames', () => {
  test('says how many frames of a size it can hold', () => {
    expect(new FrameCache(1.024e9).room(1920, 1080)).toBe(123);
    expect(new FrameCache(4000).room(10, 10)).toBe(10);
  });

  test('lets those go first that nobody wants, whatever their age, and closes each once', () => {
    const cache = new FrameCache(4 * 400);
    const frames = Object.fromEntries(['a', 'b', 'c', 'd', 'e', 'f'].map((key) => [key, frame()]));
    for (const key of ['a', 'b', 'c', 'd']) cache.put(key, frames[key]!);
    cache.want(['a', 'b', 'e', 'f']);
    cache.put('e', frames['e']!);
    cache.put('f', frames['f']!);
    expect(['a', 'b', 'c', 'd', 'e', 'f'].filter((key) => cache.has(key))).toEqual(['a', 'b', 'e', 'f']);
    expect(['c', 'd'].map((key) => frames[key]!.bitmap.closed)).toEqual([1, 1]);
  });

  test('of the others the least recently used goes', () => {
    const cache = new FrameCache(2 * 400);
    cache.put('a', frame());
    cache.put('b', frame());
    cache.get('a');
    cache.put('c', frame());
    expect([cache.has('a'), cache.has('b'), cache.has('c')]).toEqual([true, false, true]);
  });

  test('a frame that comes twice is closed and the first one stays', () => {
    const cache = new FrameCache(4000);
    const [first, second] = [frame(), frame()];
    cache.put('a', first);
    cache.put('a', second);
    expect(cache.get('a')).toBe(first);
    expect([first.bitmap.closed, second.bitmap.closed]).toEqual([0, 1]);
  });

  test('whatever is put and wanted, it never holds more than its limit and what it counts is what it holds', () => {
    const keys = fc.constantFrom(...'abcdefghijkl');
    fc.assert(
      fc.property(fc.array(fc.tuple(keys, fc.array(keys, { maxLength: 8 }))), (moves) => {
        const cache = new FrameCache(5 * 400);
        for (const [key, wanted] of moves) {
          cache.want(wanted);
          cache.put(key, frame());
          expect(cache.bytes).toBeLessThanOrEqual(cache.limit);
          expect(cache.has(key)).toBe(true);
        }
        expect(cache.bytes).toBe(400 * [...'abcdefghijkl'].filter((key) => cache.has(key)).length);
        cache.clear();
        expect(cache.bytes).toBe(0);
      }),
    );
  });
});
