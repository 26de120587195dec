import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Arena } from '../picture/arena';
import { Picture } from '../picture/picture';
import { PictureCache } from './cache';

const BYTES = 4 * 4 * 16;
const made = (arena: Arena) => Picture.make(arena, { x: 0, y: 0, w: 4, h: 4 });

/** Puts a picture in and lets go of it, so that only the cache holds it. */
function put(cache: PictureCache<Picture>, arena: Arena, key: string): void {
  const picture = made(arena);
  cache.put(key, picture);
  picture.release();
}

describe('the picture cache', () => {
  test('is a list by last use: what a plain model of one would hold, whatever is put and read', () => {
    const step = fc.record({ put: fc.boolean(), key: fc.constantFrom('a', 'b', 'c', 'd', 'e') });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 60 }), fc.integer({ min: 1, max: 4 }), (steps, room) => {
        const arena = new Arena(8e6);
        const cache = new PictureCache<Picture>(room * BYTES);
        let model: string[] = [];
        for (const { put: putting, key } of steps) {
          const known = model.includes(key);
          if (putting) {
            put(cache, arena, key);
            if (!known) model = [...model, key].slice(-room);
          } else {
            const got = cache.get(key);
            expect(got !== undefined).toBe(known);
            got?.release();
            if (known) model = [...model.filter((other) => other !== key), key];
          }
          expect(['a', 'b', 'c', 'd', 'e'].filter((name) => cache.has(name))).toEqual([...model].sort());
          expect(cache.bytes).toBe(model.length * BYTES);
          expect(arena.used).toBe(model.length * BYTES);
        }
        cache.clear();
        expect([cache.bytes, arena.used]).toEqual([0, 0]);
      }),
    );
  });

  test('a picture that someone still holds stays alive when the cache lets it go', () => {
    const arena = new Arena(8e6);
    const cache = new PictureCache<Picture>(BYTES);
    put(cache, arena, 'a');
    const held = cache.get('a')!;
    put(cache, arena, 'b');
    expect(cache.has('a')).toBe(false);
    expect(arena.used).toBe(2 * BYTES);
    held.release();
    expect(arena.used).toBe(BYTES);
  });

  test('a picture larger than all of it is not held, and pushes nothing out', () => {
    const arena = new Arena(8e6);
    const cache = new PictureCache<Picture>(2 * BYTES);
    put(cache, arena, 'a');
    const large = Picture.make(arena, { x: 0, y: 0, w: 64, h: 64 });
    cache.put('large', large);
    large.release();
    expect([cache.has('large'), cache.has('a')]).toEqual([false, true]);
    expect(cache.dropOldest()).toBe(true);
    expect(cache.dropOldest()).toBe(false);
  });
});
