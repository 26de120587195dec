// Facts that hold for every transition there is, and what each makes of a white card that fills the shot.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { single } from '../execute/backends/wasm/passes';
import { PictureCache } from '../execute/cache';
import { firstValues, type PlainValues } from '../params/registry';
import type { PassPlan } from '../plan/types';
import type { PassId } from '../document/schema';
import { pictureOf, testRig, type TestRig } from '../testing/rig';
import type { Picture } from '../picture/picture';
import { EASES } from './define';
import { stepType, transitionOf, TRANSITIONS } from './registry';

let rig: TestRig & { cache: PictureCache<Picture> };
beforeAll(async () => {
  const tools = await testRig(256e6);
  rig = { ...tools, cache: new PictureCache<Picture>(64e6) };
});
const SIZE = { w: 128, h: 96 };

/** Values of a new one, with places resolved to the shot. */
const begun = (type: string, size = SIZE): PlainValues =>
  Object.fromEntries(
    Object.entries(firstValues(transitionOf(type)!.params)).map(([name, value]) => {
      const { still } = value as { still: PlainValues[string] };
      const isPoint = transitionOf(type)!.params[name]!.kind === 'point';
      return [name, isPoint ? [size.w / 2, size.h / 2] : still];
    }),
  );
/** RGBA floats of the shot when so much of a picture is there. @param pixel premultiplied, by place */
function drawn(
  type: string,
  shown: number,
  values: PlainValues = {},
  { leaving = false, size = SIZE, pixel = (): readonly number[] => [1, 1, 1, 1] as readonly number[] } = {} as {
    leaving?: boolean;
    size?: { w: number; h: number };
    pixel?: (x: number, y: number) => readonly number[];
  },
): Float32Array {
  const { w, h } = size;
  const picture = pictureOf(
    rig,
    { x: 0, y: 0, w, h },
    Array.from({ length: w * h }, (_, i) => pixel(i % w, Math.floor(i / w))).flat(),
  );
  const own = { ...begun(type, size), ...values, shown, leaving } as unknown as PlainValues;
  const step: PassPlan = {
    id: 'start' as PassId,
    type: stepType(transitionOf(type)!),
    values: own,
    area: null,
    key: '',
  };
  const space = { size, coverage: () => new Float32Array(0) };
  const out = single(rig, space, step, picture);
  const whole = new Float32Array(w * h * 4);
  const floats = rig.arena.floats(out.at, out.pixels * 4);
  const { rect } = out;
  for (let y = Math.max(0, rect.y); y < Math.min(h, rect.y + rect.h); y++)
    for (let x = Math.max(0, rect.x); x < Math.min(w, rect.x + rect.w); x++) {
      const from = ((y - rect.y) * rect.w + x - rect.x) * 4;
      whole.set(floats.subarray(from, from + 4), (y * w + x) * 4);
    }
  out.release();
  picture.release();
  return whole;
}
const coverOf = (floats: Float32Array): number[] =>
  Array.from({ length: floats.length / 4 }, (_, i) => floats[4 * i + 3]!);
const mean = (list: readonly number[]): number => list.reduce((sum, v) => sum + v, 0) / list.length;
const covered = (...args: Parameters<typeof drawn>): number => mean(coverOf(drawn(...args)));
const STEPS = [0, 0.1, 0.25, 0.4, 0.5, 0.6, 0.75, 0.9, 0.99, 1];

test.each(TRANSITIONS.map(({ type }) => type))(
  '%s begins with nothing, ends with all of the picture, and never takes back what is there',
  (type) => {
    for (const leaving of [false, true]) {
      const shares = STEPS.map((shown) => covered(type, shown, {}, { leaving }));
      expect(shares[0]).toBeLessThan(1e-3);
      expect(shares.at(-1)).toBeGreaterThan(1 - 1e-6);
      expect(shares.at(-2)).toBeGreaterThan(0.8);
      // the dip is all there half way, with the colour
      if (type !== 'dip')
        shares.slice(1).forEach((share, i) => expect(share).toBeGreaterThanOrEqual(shares[i]! - 1e-3));
      // coverage stays coverage, and no colour is brighter than it
      const half = drawn(type, 0.5, {}, { leaving });
      let above = 0;
      for (let i = 0; i < half.length; i++) above = Math.max(above, half[i]! - half[i | 3]!);
      expect(above).toBeLessThan(1e-5);
    }
  },
);

test.each(TRANSITIONS.map(({ type }) => type))('%s looks the same in a smaller preview', (type) => {
  const pixel = (x: number, y: number): readonly number[] => [0.2 + x / 300, 0.3 + y / 300, 0.4, 1];
  const small = { w: SIZE.w / 2, h: SIZE.h / 2 };
  const halved = Object.fromEntries(
    Object.entries(transitionOf(type)!.params)
      .filter(([, param]) => 'unit' in param && param.unit === 'px')
      .map(([name, param]) => [name, (param.default as number) / 2]),
  );
  const full = drawn(type, 0.6, {}, { pixel });
  const half = drawn(type, 0.6, halved, {
    size: small,
    pixel: (x, y) => pixel(2 * x + 0.5, 2 * y + 0.5),
  });
  let sum = 0;
  for (let y = 0; y < small.h; y++)
    for (let x = 0; x < small.w; x++)
      for (let c = 0; c < 4; c++) {
        const at = (dx: number, dy: number) => full[((2 * y + dy) * SIZE.w + 2 * x + dx) * 4 + c]!;
        const block = (at(0, 0) + at(1, 0) + at(0, 1) + at(1, 1)) / 4;
        sum += Math.abs(half[(y * small.w + x) * 4 + c]! - block);
      }
  expect(sum / (small.w * small.h * 4)).toBeLessThan(0.02);
});

describe('what is there half way, by geometry', () => {
  test('a wipe covers half the shot; what leaves and what enters at the same edge add up to the whole', () => {
    for (const angle of [0, 37, 90, 200]) {
      expect(covered('wipe', 0.5, { angle })).toBeCloseTo(0.5, 3);
      const enters = coverOf(drawn('wipe', 0.3, { angle }));
      const leaves = coverOf(drawn('wipe', 0.7, { angle }, { leaving: true }));
      expect(Math.max(...enters.map((v, i) => Math.abs(v + leaves[i]! - 1)))).toBeLessThan(1e-4);
    }
    // it goes to the right: the left is there first
    const right = coverOf(drawn('wipe', 0.5, { angle: 0 }));
    expect([right[0], right[SIZE.w - 1]]).toEqual([1, 0]);
  });

  test('a round iris covers its circle, a square one its square, a star what a star of its size covers', () => {
    const { w, h } = SIZE;
    const farthest = Math.hypot(w / 2, h / 2);
    const area = (form: string, shown: number) => covered('iris', shown, { form, soft: 0 }) * w * h;
    const radius = (shown: number, reach: number) => (farthest * reach + 1) * shown - 0.5;
    expect(area('circle', 0.4)).toBeCloseTo(Math.PI * radius(0.4, 1) ** 2, -1.5);
    expect(area('square', 0.4)).toBeCloseTo((2 * radius(0.4, 1)) ** 2, -1.5);
    expect(area('diamond', 0.25)).toBeCloseTo(4 * radius(0.25, Math.SQRT2) ** 2, -1.5);
    // ten triangles between the middle, a point and the inner corner beside it, which lies at 0.45 of a point's distance
    const r = radius(0.15, 2.7);
    expect(area('star', 0.15)).toBeCloseTo(5 * r * 0.45 * r * Math.sin(Math.PI / 5), -1.5);
  });

  test('the star has five points, one of them up', () => {
    const { w, h } = SIZE;
    const star = coverOf(drawn('iris', 0.15, { form: 'star', soft: 0 }));
    const far = (degrees: number) => {
      const [dx, dy] = [Math.sin((degrees * Math.PI) / 180), -Math.cos((degrees * Math.PI) / 180)];
      let r = 0;
      while ((star[Math.floor(h / 2 + r * dy) * w + Math.floor(w / 2 + r * dx)] ?? 0) > 0.5) r += 0.25;
      return r;
    };
    const points = [0, 72, 144, 216, 288].map(far);
    const corners = [36, 108, 180, 252, 324].map(far);
    expect(Math.max(...points) - Math.min(...points)).toBeLessThan(2.5);
    expect(Math.max(...corners)).toBeLessThan(0.65 * Math.min(...points));
  });

  test('a sweep has gone over its share of the circle, clockwise from above', () => {
    const square = { w: 96, h: 96 };
    for (const shown of [0.125, 0.25, 0.5, 0.75])
      expect(covered('sweep', shown, { soft: 1 }, { size: square })).toBeCloseTo(shown, 1.7);
    const quarter = coverOf(drawn('sweep', 0.25, {}, { size: square }));
    // upper right is there, lower left is not
    expect([quarter[20 * 96 + 76], quarter[76 * 96 + 20]]).toEqual([1, 0]);
  });

  test('slats are open by their share; the bright comes before the dark; crumbs by their share', () => {
    expect(covered('slats', 0.4, { soft: 0.05 })).toBeCloseTo(0.4, 1.5);
    expect(covered('crumble', 0.4, { size: 2, soft: 0.01 })).toBeCloseTo(0.4, 1.5);
    const pixel = (x: number): readonly number[] => [x / 127, x / 127, x / 127, 1];
    const cover = coverOf(drawn('by-brightness', 0.4, { soft: 0.01 }, { pixel }));
    expect([cover[10], cover[120]]).toEqual([0, 1]);
    const dark = coverOf(drawn('by-brightness', 0.4, { soft: 0.01, first: 'dark' }, { pixel }));
    expect([dark[10], dark[120]]).toEqual([1, 0]);
  });

  test('a torn edge has its fibre, and stays within its raggedness', () => {
    const rough = 10;
    const pixel = (): readonly number[] => [0, 0, 0, 1];
    const torn = drawn('torn', 0.5, { angle: 0, rough, rim: 4, tooth: 20 }, { pixel });
    const edges = Array.from({ length: SIZE.h }, (_, y) => {
      let x = 0;
      while (torn[(y * SIZE.w + x) * 4 + 3]! > 0.5) x++;
      return x;
    });
    expect(Math.min(...edges)).toBeGreaterThanOrEqual(SIZE.w / 2 - rough - 1);
    expect(Math.max(...edges)).toBeLessThanOrEqual(SIZE.w / 2 + rough + 1);
    expect(new Set(edges).size).toBeGreaterThan(6);
    const bare = edges.filter((x, y) => torn[(y * SIZE.w + x - 2) * 4]! > 0.8).length;
    expect(bare).toBeGreaterThan(SIZE.h * 0.6);
    expect(torn[4 * 5]).toBe(0);
  });

  test('a slide is the picture moved by the rest of its way; gates by halves of it from both sides', () => {
    const pixel = (x: number): readonly number[] => [x / 127, 0, 0, 1];
    const slid = drawn('slide', 0.75, { side: 'left' }, { pixel });
    // it comes from the left: a quarter of the shot is still to go
    expect(slid[4 * 10]).toBeCloseTo((10 + 32) / 127, 4);
    expect(slid[4 * 120 + 3]).toBe(0);
    const gate = drawn('gates', 0.5, {}, { pixel });
    expect(gate[4 * 10]).toBeCloseTo((10 + 32) / 127, 4);
    expect(gate[4 * 117]).toBeCloseTo((117 - 32) / 127, 4);
    expect(gate[4 * 64 + 3]).toBe(0);
  });

  test('half way through a dip nothing but the colour is seen; a quarter later half of each', () => {
    const half = drawn('dip', 0.5, { colour: [0.5, 0.25, 0] });
    expect([...half.subarray(0, 4)]).toEqual([0.5, 0.25, 0, 1]);
    const later = drawn('dip', 0.75, { colour: [0, 0, 0] });
    expect(later[0]).toBeCloseTo(0.5, 5);
    expect(later[3]).toBe(1);
  });

  test('a page that turns in is as wide as its angle makes it, and its hinge stays', () => {
    for (const shown of [0.3, 0.6]) {
      const cover = coverOf(drawn('turn-in', shown, { side: 'left', perspective: 0 }));
      const wide = cover.slice(48 * SIZE.w, 49 * SIZE.w).reduce((sum, v) => sum + v, 0);
      expect(Math.abs(wide - SIZE.w * Math.cos(((1 - shown) * Math.PI) / 2))).toBeLessThan(1.5);
      expect(cover[48 * SIZE.w + 1]).toBeGreaterThan(0.9);
    }
  });
});

test('every pace begins at its beginning, ends at its end and never turns back', () => {
  for (const pace of Object.values(EASES)) {
    expect([pace(0), pace(1)]).toEqual([0, 1]);
    for (let t = 0; t < 1; t += 0.05) expect(pace(t + 0.05)).toBeGreaterThan(pace(t));
  }
});
