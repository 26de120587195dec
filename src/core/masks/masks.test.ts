import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Rect } from '../picture/rect';
import { testRig, type TestRig } from '../testing/rig';
import { coverage as coverageBy, type CoveragePlan, type MaskAssets, type MaskPlan, type ShapePlan } from './coverage';
import { withDistance } from './distance';
import { corner, type Ring } from './path';
import { fillRings } from './raster';

// taken once: looking globals up is slow where tests run
const { abs, floor, hypot, max, min } = Math;
let tools: TestRig;
beforeAll(async () => {
  tools = await testRig(64e6);
});
const coverage = (plan: CoveragePlan, rect: Rect, assets: MaskAssets) => coverageBy(plan, rect, assets, tools);
const NOTHING: MaskAssets = { plane: () => null, outlines: () => [] };
const mask = (shape: ShapePlan, change: Partial<MaskPlan> = {}): MaskPlan => ({
  mode: 'add',
  invert: false,
  opacity: 1,
  feather: 0,
  featherSide: 'both',
  grow: 0,
  shape,
  ...change,
});
const plan = (masks: MaskPlan[], w = 80, h = 60, change: Partial<CoveragePlan> = {}): CoveragePlan => ({
  masks,
  side: 'inside',
  scale: 1,
  centre: [w / 2, h / 2],
  ...change,
});
const whole = (w = 80, h = 60) => ({ x: 0, y: 0, w, h });
const ellipse = (w: number, h: number, rotation = 0, centre: [number, number] = [0, 0]): ShapePlan => ({
  kind: 'ellipse',
  centre,
  size: [w, h],
  rotation,
});
const total = (plane: Float32Array) => plane.reduce((sum, v) => sum + v, 0);

/** Winding number of a point, by crossings of the ray to its right. */
function winding(rings: readonly Ring[], px: number, py: number): number {
  let turns = 0;
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      const [x0, y0, x1, y1] = [ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!];
      if (y0 <= py === y1 <= py) continue;
      if (x0 + ((x1 - x0) * (py - y0)) / (y1 - y0) > px) turns += y1 > y0 ? 1 : -1;
    }
  }
  return turns;
}
/** n×n samples a pixel, by the non-zero rule. */
function supersampled(rings: readonly Ring[], w: number, h: number, n: number): Float32Array {
  return Float32Array.from({ length: w * h }, (_, at) => {
    let inside = 0;
    for (let j = 0; j < n; j++)
      for (let i = 0; i < n; i++)
        if (winding(rings, (at % w) + (i + 0.5) / n, floor(at / w) + (j + 0.5) / n) !== 0) inside++;
    return inside / (n * n);
  });
}
function worst(a: Float32Array, b: Float32Array): { mean: number; worst: number } {
  const gaps = a.map((v, i) => abs(v - b[i]!));
  return { mean: total(gaps) / gaps.length, worst: max(...gaps) };
}
const star = (points: number, r1: number, r2: number, cx: number, cy: number): Ring =>
  Float64Array.from({ length: points * 4 }, (_, i) => {
    const k = i >> 1;
    const turn = (Math.PI * k) / points + 0.3;
    const r = k % 2 ? r2 : r1;
    return i % 2 ? cy + r * Math.sin(turn) : cx + r * Math.cos(turn);
  });
/** A star drawn in one go, whose lines cross each other. */
const pentagram = (r: number, cx: number, cy: number): Ring =>
  Float64Array.from({ length: 10 }, (_, i) =>
    i % 2
      ? cy + r * Math.sin(((i >> 1) * 4 * Math.PI) / 5 + 0.1)
      : cx + r * Math.cos(((i >> 1) * 4 * Math.PI) / 5 + 0.1),
  );

describe('coverage of outlines', () => {
  test.each([
    ['a star', [star(7, 27, 12, 40.3, 30.7)]],
    ['a pentagram, whose middle is wound about twice', [pentagram(28, 40.2, 30.4)]],
    [
      'two overlapping rings, one the other way round',
      [
        star(5, 22, 21, 32, 30),
        star(6, 20, 19, 52, 28)
          .slice()
          .reverse()
          .map((_, i, all) => all[i % 2 ? i - 1 : i + 1]!),
      ],
    ],
    ['a ring that leaves the plane on all sides', [star(3, 90, 40, 40, 30)]],
  ])('%s is as in supersampling', (_, large) => {
    const rings = large.map((ring) => ring.map((v) => v / 2));
    const gap = worst(fillRings(rings, 40, 30), supersampled(rings, 40, 30, 40));
    expect(gap.mean).toBeLessThan(1 / 255);
    expect(gap.worst).toBeLessThan(4 / 255);
  });

  test('steps with level edges within rows are as in supersampling', () => {
    // up stairs of a third of a pixel and down again, and a thin bar that lies across them
    const up = Array.from({ length: 24 }, (_, i) => [2 + 1.35 * ((i + 1) >> 1), 24 - 0.85 * (i >> 1)]);
    const stairs = Float64Array.from([...up, [up.at(-1)![0]!, 24.4], [2, 24.4]].flat());
    const bar = Float64Array.of(4, 20.2, 30.6, 20.2, 30.6, 20.9, 4, 20.9);
    const gap = worst(fillRings([stairs, bar], 40, 30), supersampled([stairs, bar], 40, 30, 40));
    expect(gap.mean).toBeLessThan(1 / 255);
    expect(gap.worst).toBeLessThan(7 / 255);
  });

  test('a rectangle on half pixels covers just its area', () => {
    const plane = coverage(
      plan([mask({ kind: 'rectangle', centre: [0.25, -0.5], size: [30.5, 21], rotation: 0, radius: 0 })]),
      whole(),
      NOTHING,
    );
    expect(total(plane)).toBeCloseTo(30.5 * 21, 2);
    expect(plane[30 * 80 + 25]).toBe(1);
    expect(plane[30 * 80 + 10]).toBe(0);
  });

  test('a round rectangle and an ellipse have the areas of the formulas', () => {
    const round = coverage(
      plan([mask({ kind: 'rectangle', centre: [0, 0], size: [50, 40], rotation: 17, radius: 10 })]),
      whole(),
      NOTHING,
    );
    expect(total(round)).toBeCloseTo(50 * 40 - (4 - Math.PI) * 100, 0);
    expect(total(coverage(plan([mask(ellipse(50, 36, 33))]), whole(), NOTHING)) / (Math.PI * 25 * 18)).toBeCloseTo(
      1,
      3,
    );
  });

  test('the same shape at half scale is the full one reduced', () => {
    const shape = mask(ellipse(50, 30, 20, [3, -4]), { feather: 8, grow: 3 });
    const full = coverage(plan([shape]), whole(), NOTHING);
    const half = coverage(plan([shape], 40, 30, { scale: 0.5 }), whole(40, 30), NOTHING);
    const reduced = half.map((_, i) => {
      const at = floor(i / 40) * 160 + (i % 40) * 2;
      return (full[at]! + full[at + 1]! + full[at + 80]! + full[at + 81]!) / 4;
    });
    expect(worst(half, reduced).mean).toBeLessThan(1.5 / 255);
  });
});

describe('distance, growing and feather', () => {
  test('distances to lines are those of brute force', () => {
    const ring = star(6, 24, 10, 41, 29);
    const lines: number[] = [];
    for (let i = 0; i < ring.length; i += 2)
      lines.push(ring[i]!, ring[i + 1]!, ring[(i + 2) % ring.length]!, ring[(i + 3) % ring.length]!);
    const distances = (limit: number) =>
      withDistance(tools, { lines: Float64Array.from(lines) }, 80, 60, limit, (at) =>
        tools.arena.floats(at, 80 * 60).slice(),
      );
    const distance = distances(1000);
    let far = 0;
    distance.forEach((got, at) => {
      const [px, py] = [(at % 80) + 0.5, floor(at / 80) + 0.5];
      let best = Infinity;
      for (let k = 0; k < lines.length; k += 4) {
        for (let s = 0; s <= 150; s++)
          best = min(
            best,
            hypot(
              lines[k]! + ((lines[k + 2]! - lines[k]!) * s) / 150 - px,
              lines[k + 1]! + ((lines[k + 3]! - lines[k + 1]!) * s) / 150 - py,
            ),
          );
      }
      far = max(far, abs(got - best));
    });
    expect(far).toBeLessThan(0.1);
    // what lies beyond a limit is not followed, and what lies within is as before
    const near = distances(5);
    expect(distance.some((d) => d > 12)).toBe(true);
    distance.forEach((d, i) => (d <= 5 ? expect(near[i]).toBe(d) : expect(near[i]).toBeGreaterThanOrEqual(5)));
  });

  test.each([-20, -7.3, 6.4, 20])('a circle grown by %d is the circle of that radius', (grow) => {
    const radius = 30;
    const [w, h] = [120, 120];
    const grown = coverage(plan([mask(ellipse(2 * radius, 2 * radius), { grow })], w, h), whole(w, h), NOTHING);
    // along rays, the place where coverage passes a half; the mean radius tells it to a fraction of a pixel
    const area = total(grown);
    expect(abs(Math.sqrt(area / Math.PI) - (radius + grow))).toBeLessThan(0.1);
    const exact = coverage(plan([mask(ellipse(2 * (radius + grow), 2 * (radius + grow)))], w, h), whole(w, h), NOTHING);
    expect(worst(grown, exact).worst).toBeLessThan(0.1);
  });

  test('a painted dot grows by its half-way line', () => {
    const shape: ShapePlan = {
      kind: 'brush',
      strokes: [{ points: [[0, 0, 1]], size: 30, hardness: 1, opacity: 1, erase: false }],
    };
    const area = total(coverage(plan([mask(shape, { grow: 8 })]), whole(), NOTHING));
    expect(abs(Math.sqrt(area / Math.PI) - 23)).toBeLessThan(0.15);
  });

  test('feather on both sides keeps the total coverage; inside and outside stay on their side', () => {
    const [w, h] = [160, 160];
    const flat = coverage(plan([mask(ellipse(60, 60))], w, h), whole(w, h), NOTHING);
    fc.assert(
      fc.property(fc.double({ min: 1, max: 40, noNaN: true }), (feather) => {
        const soft = coverage(plan([mask(ellipse(60, 60), { feather })], w, h), whole(w, h), NOTHING);
        expect(total(soft) / total(flat)).toBeCloseTo(1, 3);
      }),
      { numRuns: 15 },
    );
    const inside = coverage(
      plan([mask(ellipse(60, 60), { feather: 16, featherSide: 'inside' })], w, h),
      whole(w, h),
      NOTHING,
    );
    const outside = coverage(
      plan([mask(ellipse(60, 60), { feather: 16, featherSide: 'outside' })], w, h),
      whole(w, h),
      NOTHING,
    );
    expect(max(...inside.filter((_, i) => flat[i] === 0))).toBeLessThan(0.035);
    expect(min(...outside.filter((_, i) => flat[i] === 1))).toBeGreaterThan(0.965);
  });

  test('a feathered straight edge is the integral of a Gaussian a quarter as wide, for lines and for polygons', () => {
    // error function by Abramowitz and Stegun 7.1.26
    const erf = (x: number) => {
      const t = 1 / (1 + 0.3275911 * abs(x));
      const y =
        1 -
        ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) *
          t *
          Math.exp(-x * x);
      return Math.sign(x) * y;
    };
    const feather = 24;
    const line = coverage(plan([mask({ kind: 'line', centre: [0, 0], rotation: 0 }, { feather })]), whole(), NOTHING);
    const box = coverage(
      plan([mask({ kind: 'rectangle', centre: [0, 200], size: [800, 400], rotation: 0, radius: 0 }, { feather })]),
      whole(),
      NOTHING,
    );
    for (let y = 0; y < 60; y++) {
      const want = 0.5 * (1 + erf((y + 0.5 - 30) / (feather / 4) / Math.SQRT2));
      expect(abs(line[y * 80 + 40]! - want)).toBeLessThan(0.01);
      expect(abs(box[y * 80 + 40]! - want)).toBeLessThan(0.02);
    }
  });

  test('feather of one vertex softens the edge there only', () => {
    const at = (softness: number): ShapePlan => ({
      kind: 'path',
      closed: true,
      path: [corner(-30, -20, softness), corner(30, -20), corner(30, 20), corner(-30, 20)],
    });
    const plane = coverage(plan([mask(at(20))]), whole(), NOTHING);
    const between = (x: number, y0: number, y1: number) =>
      Array.from({ length: y1 - y0 }, (_, k) => plane[(y0 + k) * 80 + x]!).filter((v) => v > 0.03 && v < 0.97).length;
    expect(between(14, 0, 25)).toBeGreaterThan(8);
    expect(between(66, 35, 60)).toBeLessThanOrEqual(2);
  });
});

describe('masks together', () => {
  const shapes = fc.record({
    w: fc.integer({ min: 5, max: 70 }),
    h: fc.integer({ min: 5, max: 50 }),
    x: fc.integer({ min: -20, max: 20 }),
    y: fc.integer({ min: -15, max: 15 }),
    opacity: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  const made = (
    { w, h, x, y, opacity }: { w: number; h: number; x: number; y: number; opacity: number },
    change: Partial<MaskPlan> = {},
  ) => mask(ellipse(w, h, 10, [x, y]), { opacity, ...change });
  const of = (masks: MaskPlan[], side: 'inside' | 'outside' = 'inside') =>
    coverage(plan(masks, 80, 60, { side }), whole(), NOTHING);

  test('adding is commutative; subtracting from a sum in any order is the same', () => {
    fc.assert(
      fc.property(shapes, shapes, shapes, (a, b, c) => {
        expect(worst(of([made(a), made(b)]), of([made(b), made(a)])).worst).toBeLessThan(1e-6);
        const minus = { mode: 'subtract' as const };
        expect(
          worst(of([made(a), made(b, minus), made(c, minus)]), of([made(a), made(c, minus), made(b, minus)])).worst,
        ).toBeLessThan(1e-6);
      }),
      { numRuns: 20 },
    );
  });

  test('inverted twice is the same; outside is one less inside; excluding itself leaves nothing solid', () => {
    fc.assert(
      fc.property(shapes, (a) => {
        const once = of([made(a, { opacity: 1 })]);
        const twice = of([made(a, { opacity: 1, invert: true })], 'outside');
        expect(worst(once, twice).worst).toBeLessThan(1e-6);
        const solid = of([made(a, { opacity: 1 }), made(a, { opacity: 1, mode: 'exclude' })]);
        expect(max(...solid.filter((_, i) => once[i] === 1 || once[i] === 0))).toBe(0);
      }),
      { numRuns: 20 },
    );
  });

  test('intersecting keeps what both cover, and first of all from everything', () => {
    const [a, b] = [ellipse(40, 40, 0, [-10, 0]), ellipse(40, 40, 0, [10, 0])];
    const both = of([mask(a), mask(b, { mode: 'intersect' })]);
    const [left, right] = [of([mask(a)]), of([mask(b)])];
    expect(
      worst(
        both,
        left.map((v, i) => v * right[i]!),
      ).worst,
    ).toBeLessThan(1e-6);
    expect(worst(of([mask(a, { mode: 'intersect' })]), left).worst).toBeLessThan(1e-6);
  });

  test('gradients are solid at their beginning and clear at their end', () => {
    const linear = of([mask({ kind: 'linear', from: [0, -15], to: [0, 15] })]);
    expect([linear[5 * 80 + 40], linear[55 * 80 + 40]]).toEqual([1, 0]);
    expect((linear[29 * 80 + 3]! + linear[30 * 80 + 3]!) / 2).toBeCloseTo(0.5, 5);
    const radial = of([mask({ kind: 'radial', centre: [0, 0], size: [60, 40], rotation: 0, core: 0.5 })]);
    expect([radial[30 * 80 + 40], radial[30 * 80 + 52], radial[30 * 80 + 71]]).toEqual([1, 1, 0]);
  });

  test('erasing takes away what was painted, a weak stroke covers evenly', () => {
    const stroke = (points: [number, number, number][], change = {}) => ({
      points,
      size: 20,
      hardness: 1,
      opacity: 1,
      erase: false,
      ...change,
    });
    const painted = (strokes: ReturnType<typeof stroke>[]) => of([mask({ kind: 'brush', strokes })]);
    const there = painted([
      stroke([
        [-20, 0, 1],
        [20, 0, 1],
      ]),
    ]);
    expect(abs(total(there) - (40 * 20 + Math.PI * 100))).toBeLessThan(3);
    const gone = painted([
      stroke([
        [-20, 0, 1],
        [20, 0, 1],
      ]),
      stroke(
        [
          [-20, 0, 1],
          [20, 0, 1],
        ],
        { size: 26, erase: true },
      ),
    ]);
    expect(total(gone)).toBeLessThan(0.01);
    const weak = painted([
      stroke(
        [
          [-20, 0, 1],
          [20, 0, 1],
          [-20, 0, 1],
        ],
        { opacity: 0.4 },
      ),
    ]);
    expect(weak[30 * 80 + 40]).toBeCloseTo(0.4, 5);
  });

  test('a drawn matte is stretched over the whole source', () => {
    const assets: MaskAssets = { ...NOTHING, plane: () => ({ w: 2, h: 1, values: Uint8Array.of(0, 255) }) };
    const plane = coverage(plan([mask({ kind: 'matte', id: 'm' })]), whole(), assets);
    expect(plane[10]).toBe(0);
    expect(plane[70]).toBe(1);
    expect((plane[39]! + plane[40]!) / 2).toBeCloseTo(0.5, 5);
  });
});
