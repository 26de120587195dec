import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { apply, invert, multiply, rotation, scaling, translation, type Matrix } from '../../../picture/matrix';
import { floatsOf, pictureOf, testRig, type TestRig } from '../../../testing/rig';
import { place } from '../../../picture/transform';
import { backdrop } from './composite';
import { thumbnail } from './looked';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});

const W = 24;
const H = 18;
const whole = { x: 0, y: 0, w: 60, h: 40 };
const texture = (x: number, y: number) => [
  0.5 + 0.4 * Math.sin(x / 3),
  0.5 + 0.4 * Math.cos(y / 4),
  ((x + y) % 5) / 5,
  1,
];
const source = () =>
  pictureOf(
    rig,
    { x: 0, y: 0, w: W, h: H },
    Array.from({ length: W * H }, (_, i) => texture(i % W, Math.floor(i / W))).flat(),
  );

/** A placed picture as a plain function of shot pixels; clear outside what was computed. */
function placed(map: Matrix): (x: number, y: number) => number[] {
  const picture = source();
  const out = place(rig, picture, map, 1, whole);
  const floats = out ? floatsOf(rig, out) : new Float32Array();
  const rect = out?.rect ?? { x: 0, y: 0, w: 0, h: 0 };
  out?.release();
  picture.release();
  return (x, y) =>
    x < rect.x || y < rect.y || x >= rect.x + rect.w || y >= rect.y + rect.h
      ? [0, 0, 0, 0]
      : [...floats.subarray(((y - rect.y) * rect.w + x - rect.x) * 4).subarray(0, 4)];
}

describe('placement', () => {
  test('whole shifts, quarter turns and flips move pixels without changing them', () => {
    const quarter = placed(multiply(translation(30, 5), rotation(90)));
    const flipped = placed(multiply(translation(40, 8), scaling(-1, 1)));
    for (let y = 0; y < H; y++) {
      for (let x = 0; x < W; x++) {
        texture(x, y).forEach((want, c) => {
          expect(quarter(29 - y, 5 + x)[c]).toBeCloseTo(want, 5);
          expect(flipped(39 - x, 8 + y)[c]).toBeCloseTo(want, 5);
        });
      }
    }
  });

  test('inside, it is bilinear sampling at the mapped point', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -180, max: 180 }),
        fc.double({ min: 0.6, max: 2.5, noNaN: true }),
        fc.double({ min: 0, max: 20, noNaN: true }),
        (turn, scale, shift) => {
          const map = multiply(translation(20 + shift, 12), multiply(rotation(turn), scaling(scale, scale)));
          const at = placed(map);
          const back = invert(map)!;
          for (let y = 0; y < whole.h; y += 3) {
            for (let x = 0; x < whole.w; x += 3) {
              const [u, v] = apply(back, x + 0.5, y + 0.5).map((c) => c - 0.5) as [number, number];
              if (u < 1 || v < 1 || u > W - 3 || v > H - 3) continue;
              const [iu, iv] = [Math.floor(u), Math.floor(v)];
              const [fu, fv] = [u - iu, v - iv];
              const want =
                (texture(iu, iv)[1]! * (1 - fu) + texture(iu + 1, iv)[1]! * fu) * (1 - fv) +
                (texture(iu, iv + 1)[1]! * (1 - fu) + texture(iu + 1, iv + 1)[1]! * fu) * fv;
              expect(at(x, y)[1]).toBeCloseTo(want, 3);
            }
          }
        },
      ),
      { numRuns: 30 },
    );
  });

  test('an aligned enlargement is solid up to its border and clear beyond it', () => {
    const at = placed(multiply(translation(4, 2), scaling(2, 2)));
    expect(at(4, 2)[3]).toBe(1);
    expect(at(51, 37)[3]).toBe(1);
    expect(at(3, 10)[3]).toBe(0);
    expect(at(52, 10)[3]).toBe(0);
  });

  test('coverage is the area: a turned picture covers as much as its size says', () => {
    for (const turn of [10, 30, 45, 77]) {
      const at = placed(multiply(translation(30, 20), multiply(rotation(turn), translation(-W / 2, -H / 2))));
      let sum = 0;
      for (let y = 0; y < whole.h; y++) for (let x = 0; x < whole.w; x++) sum += at(x, y)[3]!;
      expect(Math.abs(sum / (W * H) - 1)).toBeLessThan(0.01);
    }
  });

  test('strong reduction averages all pixels instead of skipping some', () => {
    const checks = pictureOf(
      rig,
      { x: 0, y: 0, w: 64, h: 64 },
      Array.from({ length: 4096 }, (_, i) =>
        ((i % 64) + Math.floor(i / 64)) % 2 ? [1, 1, 1, 1] : [0, 0, 0, 1],
      ).flat(),
    );
    const out = place(rig, checks, scaling(0.125, 0.125), 1, whole)!;
    const floats = floatsOf(rig, out);
    const middle = (4 * out.rect.w + 4) * 4;
    expect(floats[middle]).toBeCloseTo(0.5, 3);
    out.release();
    checks.release();
  });

  test('what lies outside the shot, or has no size, gives nothing', () => {
    const picture = source();
    expect(place(rig, picture, translation(500, 0), 1, whole)).toBeNull();
    const before = rig.arena.used;
    expect(place(rig, picture, scaling(0, 0), 1, whole)).toBeNull();
    expect(rig.arena.used).toBe(before);
    picture.release();
  });
});

test('a thumbnail shows the whole picture in the middle, clear around it', () => {
  const flat = backdrop(rig, { x: 0, y: 0, w: 40, h: 20 }, [1, 0, 0]);
  const small = thumbnail(rig, flat, { w: 40, h: 20 }, 20, 20);
  const floats = floatsOf(rig, small);
  expect(floats.subarray((10 * 20 + 10) * 4, (10 * 20 + 10) * 4 + 4)).toEqual(Float32Array.of(1, 0, 0, 1));
  expect(floats[3]).toBe(0);
  small.release();
  flat.release();
});
