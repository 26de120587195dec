import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { floatsOf, pictureOf, testRig, type TestRig } from '../testing/rig';
import { Arena } from './arena';
import { toDisplay, toLinear } from './light';
import { apply, invert, multiply, rotation, scaling, translation } from './matrix';
import { Picture } from './picture';
import { intersect } from './rect';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});

describe('arena', () => {
  test('blocks never overlap, and everything given back can be taken again as one', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 200_000 }), fc.boolean()), { maxLength: 60 }),
        (wishes) => {
          const arena = new Arena(32e6);
          const held: { at: number; size: number }[] = [];
          for (const [size, drop] of wishes) {
            const at = arena.take(size);
            expect(at % 64).toBe(0);
            for (const other of held) expect(at >= other.at + other.size || at + size <= other.at).toBe(true);
            held.push({ at, size });
            if (drop) arena.give(held.splice(size % held.length, 1)[0]!.at);
          }
          held.forEach((block) => arena.give(block.at));
          expect(arena.used).toBe(0);
          const whole = arena.memory.buffer.byteLength - 65536;
          expect(arena.tryTake(whole)).not.toBeNull();
        },
      ),
      { numRuns: 40 },
    );
  });

  test('asks for relief when short, and says so in a sentence when there is none', () => {
    const arena = new Arena(4e6);
    const hold = arena.take(2e6);
    arena.relief = () => (arena.used ? (arena.give(hold), true) : false);
    expect(arena.take(3e6)).toBeGreaterThan(0);
    arena.relief = () => false;
    expect(() => arena.take(3e6)).toThrow(/set aside for computing/);
  });

  test('a picture gives its memory back with its last holder, and not twice', () => {
    const before = rig.arena.used;
    const picture = Picture.make(rig.arena, { x: 0, y: 0, w: 10, h: 10 });
    picture.retain();
    picture.release();
    expect(rig.arena.used).toBe(before + 1600);
    picture.release();
    expect(rig.arena.used).toBe(before);
    expect(() => picture.release()).toThrow();
  });
});

describe('conversion', () => {
  test('8-bit → float → 8-bit gives every colour and alpha back, where there is alpha', () => {
    const n = 4099; // not a multiple of four
    const bytes = Uint8ClampedArray.from({ length: n * 4 }, (_, i) => (i * 2654435761) >>> 24);
    const picture = Picture.make(rig.arena, { x: 0, y: 0, w: n, h: 1 });
    rig.arena.scratch(n * 4, (at) => {
      rig.arena.bytes(at, n * 4).set(bytes);
      rig.kernels.widen(at, picture.at, n);
      rig.arena.bytes(at, n * 4).fill(77);
      rig.kernels.narrow(picture.at, at, n);
      const back = rig.arena.bytes(at, n * 4);
      for (let i = 0; i < n * 4; i += 4) {
        const want = bytes[i + 3] ? bytes.subarray(i, i + 4) : [0, 0, 0, 0];
        expect([...back.subarray(i, i + 4)]).toEqual([...want]);
      }
    });
    picture.release();
  });

  test.each([2, 4])('reduction by %d is the mean of the premultiplied pixels, also at odd borders', (factor) => {
    const [w, h] = [7, 5];
    const bytes = Uint8ClampedArray.from({ length: w * h * 4 }, (_, i) => (i * 37) % 256);
    const [dw, dh] = [Math.ceil(w / factor), Math.ceil(h / factor)];
    const picture = Picture.make(rig.arena, { x: 0, y: 0, w: dw, h: dh });
    rig.arena.scratch(bytes.length, (at) => {
      rig.arena.bytes(at, bytes.length).set(bytes);
      rig.kernels.widenReduced(at, w, h, picture.at, factor);
    });
    const got = floatsOf(rig, picture);
    picture.release();
    for (let y = 0; y < dh; y++) {
      for (let x = 0; x < dw; x++) {
        let [red, count] = [0, 0];
        for (let v = y * factor; v < Math.min(h, (y + 1) * factor); v++) {
          for (let u = x * factor; u < Math.min(w, (x + 1) * factor); u++, count++)
            red += (bytes[(v * w + u) * 4]! / 255) * (bytes[(v * w + u) * 4 + 3]! / 255);
        }
        expect(got[(y * dw + x) * 4]).toBeCloseTo(red / count, 5);
      }
    }
  });

  test('linear light and back: each within 1/2550 of the standard’s formulas', () => {
    const n = 2001;
    const row = pictureOf(
      rig,
      { x: 0, y: 0, w: n, h: 1 },
      Array.from({ length: n }, (_, i) => [i / (n - 1), 0, 0, 1]).flat(),
    );
    rig.kernels.toLinearSpan(row.at, n);
    const linear = floatsOf(rig, row);
    rig.kernels.toDisplaySpan(row.at, n);
    const display = floatsOf(rig, row);
    row.release();
    for (let i = 0; i < n; i++) {
      expect(Math.abs(linear[4 * i]! - toLinear(i / (n - 1)))).toBeLessThan(5e-5);
      expect(Math.abs(display[4 * i]! - i / (n - 1))).toBeLessThan(1 / 1275);
    }
    for (let v = 0; v <= 1; v += 0.01) expect(toDisplay(toLinear(v))).toBeCloseTo(v, 6);
  });
});

describe('geometry', () => {
  const number = fc.double({ min: -100, max: 100, noNaN: true });
  test('a map and its inverse cancel out', () => {
    fc.assert(
      fc.property(
        number,
        number,
        fc.integer({ min: -360, max: 360 }),
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        number,
        number,
        (x, y, turn, scale, u, v) => {
          const map = multiply(translation(x, y), multiply(rotation(turn), scaling(scale, scale)));
          const [a, b] = apply(invert(map)!, ...apply(map, u, v));
          expect(a).toBeCloseTo(u, 5);
          expect(b).toBeCloseTo(v, 5);
        },
      ),
    );
  });
  test('a flat map has no inverse', () => expect(invert(scaling(1, 0))).toBeNull());
  test('rectangles that do not meet have an empty intersection', () =>
    expect(intersect({ x: 0, y: 0, w: 5, h: 5 }, { x: 9, y: 0, w: 5, h: 5 }).w).toBe(0));
});
