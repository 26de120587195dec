// Triangles drawn by depth, against every sample looked at by itself.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { Picture } from '../picture/picture';
import { floatsOf, testRig, type TestRig } from '../testing/rig';
import { lotOf } from '../base/lot';
import { FRONT, SIDE } from './body';
import { extruded } from './extrude';
import { litBy, type Look } from './light';
import { boundsOfTriangles, movedBy, seenTriangles, then, TRIANGLE, turned } from './seen';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const [W, H] = [48, 32];
const DARK = {
  strength1: 0,
  around1: 0,
  height1: 90,
  light1: [1, 1, 1],
  strength2: 0,
  around2: 0,
  height2: 90,
  light2: [1, 1, 1],
  strength3: 0,
  around3: 0,
  height3: 90,
  light3: [1, 1, 1],
};
/** Parts that glow in three colours without any light. */
const GLOWING = {
  ...DARK,
  ...{ frontColour: [1, 0, 0], frontGlow: 1, frontGloss: 0 },
  ...{ sideColour: [0, 1, 0], sideGlow: 1, sideGloss: 0 },
  ...{ backColour: [0, 0, 1], backGlow: 1, backGloss: 0 },
} as unknown as Look;

function drawn(list: Float32Array, look: Look = GLOWING, eye = 100): Float32Array {
  const { kernels, arena } = rig;
  const picture = Picture.make(arena, { x: 0, y: 0, w: W, h: H });
  kernels.fill(picture.at, picture.pixels, 0, 0, 0, 0);
  const { looks, lights } = litBy(look);
  arena.lending((scratch) => {
    const lent = (floats: Float32Array) => {
      const at = scratch(floats.byteLength + 16);
      arena.floats(at, floats.length).set(floats);
      return at;
    };
    const count = list.length / TRIANGLE;
    const work = scratch(kernels.solidWork(count, W, H));
    kernels.drawSolid(lent(list), count, picture.at, W, H, lent(looks), 3, lent(lights), W / 2, H / 2, eye, work);
  });
  const out = floatsOf(rig, picture);
  picture.release();
  return out;
}
/** A triangle of three corners x, y, nearness. */
function triangle(own: number, part: number, corners: readonly number[]): Float32Array {
  const list = new Float32Array(TRIANGLE);
  list.set(corners);
  list.set([0, 0, 1, 0, 0, 1, 0, 0, 1, part, own], 9);
  return list;
}
const joined = (lists: readonly Float32Array[]): Float32Array => Float32Array.from(lists.flatMap((list) => [...list]));

/** Whose each of 16 samples of a pixel is, by barycentric coordinates: the part of the nearest triangle. */
function truth(list: Float32Array, x: number, y: number): number[] {
  const colour = [0, 0, 0, 0];
  for (let s = 0; s < 16; s++) {
    const [px, py] = [x + ((s % 4) + 0.5) / 4, y + (Math.floor(s / 4) + 0.5) / 4];
    let [best, part] = [0, -1];
    for (let at = 0; at < list.length; at += TRIANGLE) {
      const [x0, y0, q0, x1, y1, q1, x2, y2, q2] = list.subarray(at, at + 9) as unknown as number[];
      const area = (x1! - x0!) * (y2! - y0!) - (x2! - x0!) * (y1! - y0!);
      const one = ((px - x0!) * (y2! - y0!) - (x2! - x0!) * (py - y0!)) / area;
      const two = ((x1! - x0!) * (py - y0!) - (px - x0!) * (y1! - y0!)) / area;
      if (one < 0 || two < 0 || one + two > 1) continue;
      const near = q0! + one * (q1! - q0!) + two * (q2! - q0!);
      if (near > best) [best, part] = [near, list[at + 18]!];
    }
    if (part >= 0) {
      colour[part]! += 1 / 16;
      colour[3]! += 1 / 16;
    }
  }
  return colour;
}

describe('triangles drawn by depth', () => {
  test.each([1, 2, 3, 4, 5, 6])('every sample is the nearest triangle’s (lot %i)', (seed) => {
    const lots = (i: number) => lotOf(i, seed);
    const list = joined(
      Array.from({ length: 12 }, (_, i) => {
        const corners = [0, 1, 2].flatMap((k) => [
          lots(i * 9 + k * 3) * 70 - 11,
          lots(i * 9 + k * 3 + 1) * 50 - 9,
          0.002 + 0.02 * lots(i * 9 + k * 3 + 2),
        ]);
        return triangle(i, i % 3, corners);
      }),
    );
    const out = drawn(list);
    let off = 0;
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++)
        truth(list, x, y).forEach((share, c) => {
          // edges that run through a sample may count to either side
          if (Math.abs(out[(y * W + x) * 4 + c]! - (c < 3 ? encoded(share, truth(list, x, y)[3]!) : share)) > 1e-3)
            off++;
        });
    expect(off).toBeLessThan(8);
  });

  test('neighbours leave no gap: a fan of slivers covers all it lies on', () => {
    const around = Array.from({ length: 61 }, (_, i) => (i / 60) * 2 * Math.PI);
    const [cx, cy] = [23.37, 15.81];
    const list = joined(
      around
        .slice(1)
        .map((to, i) =>
          triangle(0, FRONT, [
            cx,
            cy,
            0.01,
            cx + 90 * Math.cos(around[i]!),
            cy + 90 * Math.sin(around[i]!),
            0.01,
            cx + 90 * Math.cos(to),
            cy + 90 * Math.sin(to),
            0.01,
          ]),
        ),
    );
    const out = drawn(list);
    for (let i = 3; i < out.length; i += 4) expect(out[i]).toBe(1);
  });

  test('nothing outside of the picture is written, and nothing without area is drawn', () => {
    const out = drawn(
      joined([
        triangle(0, SIDE, [-900, -900, 0.01, -800, -900, 0.01, -900, -800, 0.01]),
        triangle(1, FRONT, [5, 5, 0.01, 9, 9, 0.01, 7, 7, 0.01]),
      ]),
    );
    expect(Math.max(...out)).toBe(0);
  });
});
/** Light is averaged before it is encoded, over what is covered. */
function encoded(share: number, covered: number): number {
  if (!covered) return 0;
  const v = share / covered;
  return covered * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
}

describe('bodies before the eye', () => {
  const box = extruded([{ outline: Float64Array.of(-10, -6, 10, -6, 10, 6, -10, 6), holes: [] }], 0);
  const eye = { middle: [W / 2, H / 2] as const, distance: 100 };

  test('what is nearer is larger, as lines of sight say', () => {
    const list = seenTriangles([{ body: box, pose: movedBy(0, 0, 0), depth: 20 }], eye);
    // its front is 20 nearer than the plane in which it has its own size; nothing else faces the eye
    expect(boundsOfTriangles(list)).toEqual(
      [W / 2 - 12.5, H / 2 - 7.5, W / 2 + 12.5, H / 2 + 7.5].map((v) => expect.closeTo(v, 4)),
    );
    expect(list.length / TRIANGLE).toBe(2);
  });

  test('turned half round its back is seen; a quarter of a turn shows its side', () => {
    const colours = (tip: number, swing: number) => {
      const pose = then(movedBy(0, 0, -10), turned(0, tip, swing));
      const out = drawn(seenTriangles([{ body: box, pose, depth: 20 }], eye));
      return [...out.subarray((16 * W + 24) * 4, (16 * W + 24) * 4 + 4)].map((v) => Math.round(v));
    };
    expect([colours(0, 0), colours(0, 180), colours(0, 90), colours(90, 0)]).toEqual([
      [1, 0, 0, 1],
      [0, 0, 1, 1],
      [0, 1, 0, 1],
      [0, 1, 0, 1],
    ]);
  });

  test('which way it turns: swung, its right goes away; tipped, its top; rolled, clockwise', () => {
    const turn = (pose: ReturnType<typeof turned>, [x, y, z]: readonly number[]) =>
      [0, 4, 8].map((r) => pose[r]! * x! + pose[r + 1]! * y! + pose[r + 2]! * z! + pose[r + 3]!);
    expect(turn(turned(0, 0, 30), [10, 0, 0])[2]).toBeCloseTo(-5);
    expect(turn(turned(0, 30, 0), [0, -10, 0])[2]).toBeCloseTo(-5);
    expect(turn(turned(90, 0, 0), [10, 0, 0])).toEqual([0, 10, 0].map((v) => expect.closeTo(v, 6)));
  });

  test('what comes too near to the eye is cut off, the rest of it stays', () => {
    const pose = then(movedBy(0, 0, -60), then(turned(0, 0, 60), movedBy(0, 0, 60)));
    const list = seenTriangles([{ body: box, pose, depth: 120 }], eye);
    expect(list.length).toBeGreaterThan(0);
    for (let at = 0; at < list.length; at += TRIANGLE)
      for (const k of [2, 5, 8]) {
        expect(list[at + k]!).toBeGreaterThan(0);
        expect(list[at + k]!).toBeLessThanOrEqual(1 / 2 + 1e-6);
      }
    expect(seenTriangles([{ body: box, pose: movedBy(0, 0, 500), depth: 20 }], eye)).toHaveLength(0);
  });

  test('light falls by the angle: the cosine of it times the colour, and the glow', () => {
    const look = {
      ...GLOWING,
      frontColour: [0.5, 0.5, 0.5],
      frontGlow: 0.1,
      strength1: 0.6,
      height1: 30,
    } as unknown as Look;
    const out = drawn(seenTriangles([{ body: box, pose: movedBy(0, 0, 0), depth: 20 }], eye), look);
    const linear = ((0.5 + 0.055) / 1.055) ** 2.4;
    const light = linear * (0.1 + 0.6 * Math.sin(Math.PI / 6));
    expect(out[(16 * W + 24) * 4]!).toBeCloseTo(1.055 * light ** (1 / 2.4) - 0.055, 3);
  });
});
