import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { toDisplay, toLinear } from '../picture/light';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';
import { boxesFor } from '../picture/gaussian';
import { trackNow } from '../testing/moving';
import { newPass } from '../document/edits/passes';
import { passSchema, type PassId } from '../document/schema';
import { OFFERED, paramsOf, PASSES } from './registry';
import type { PlainValues } from '../params/registry';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});

/** Runs one pass with its defaults and some values over a picture given as a function of its pixels. */
function run(type: string, values: PlainValues, w: number, h: number, at: (x: number, y: number) => number[]) {
  const picture = pictureOf(
    rig,
    { x: 0, y: 0, w, h },
    Array.from({ length: w * h }, (_, i) => at(i % w, Math.floor(i / w))).flat(),
  );
  const out = runPass(rig, type, values, picture);
  const floats = floatsOf(rig, out);
  const { rect } = out;
  out.release();
  return (x: number, y: number) =>
    x < rect.x || y < rect.y || x >= rect.x + rect.w || y >= rect.y + rect.h
      ? [0, 0, 0, 0]
      : [...floats.subarray(((y - rect.y) * rect.w + x - rect.x) * 4).subarray(0, 4)];
}

describe('blur', () => {
  test.each([0.5, 0.6, 0.7, 0.8, 0.95, 1.3, 2, 3.7, 8, 15.5])(
    'an edge blurred by σ = %d is what a sampled Gaussian gives, within 1 % of range',
    (radius) => {
      const w = 201;
      const at = run('blur', { radius }, w, 9, (x) => (x < 100 ? [0, 0, 0, 1] : [1, 1, 1, 1]));
      const weights = Array.from({ length: 2 * w + 1 }, (_, i) => Math.exp(-((i - w) ** 2) / (2 * radius * radius)));
      const whole = weights.reduce((sum, v) => sum + v);
      for (let x = 40; x < 160; x++) {
        const want = weights.reduce((sum, v, i) => sum + (x + i - w >= 100 ? v : 0), 0) / whole;
        expect(Math.abs(at(x, 4)[0]! - want)).toBeLessThanOrEqual(0.01);
      }
    },
  );

  test('the boxes have exactly the variance asked for', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 300, noNaN: true }), (sigma) => {
        const { r, ends } = boxesFor(sigma);
        let squares = 0;
        for (let k = 1; k <= r; k++) squares += 2 * k * k;
        const variance = ends.reduce((sum, end) => sum + (squares + 2 * end * (r + 1) ** 2) / (2 * r + 1 + 2 * end), 0);
        expect(variance / sigma ** 2).toBeCloseTo(1, 6);
        ends.forEach((end) => expect(end).toBeGreaterThanOrEqual(-1e-9));
      }),
    );
  });

  test.each([1.3, 2.5, 6])(
    'σ = %d: extended borders keep a flat picture flat; fading ones keep the whole light',
    (radius) => {
      const flat = run('blur', { radius }, 41, 30, () => [0.2, 0.4, 0.6, 1]);
      for (const [x, y] of [
        [0, 0],
        [40, 29],
        [20, 0],
      ] as const)
        [0.2, 0.4, 0.6, 1].forEach((want, c) => expect(flat(x, y)[c]).toBeCloseTo(want, 4));
      const faded = run('blur', { radius, edges: 'fade' }, 41, 30, () => [0.2, 0.4, 0.6, 1]);
      let sum = 0;
      for (let y = -30; y < 60; y++) for (let x = -30; x < 71; x++) sum += faded(x, y)[3]!;
      expect(sum / (41 * 30)).toBeCloseTo(1, 2);
    },
  );

  test.each([0.6, 2, 6, 20])(
    'σ = %d: a mirrored picture of any width becomes the mirror of what it became',
    (radius) => {
      for (const [w, h] of [
        [41, 29],
        [19, 7],
        [8, 5],
      ] as const) {
        const value = (x: number, y: number) => ((x * 7 + y * 5 + x * y) % 13) / 13;
        const [one, other] = [false, true].map((back) =>
          run('blur', { radius }, w, h, (x, y) => [back ? value(w - 1 - x, h - 1 - y) : value(x, y), 0, 0, 1]),
        );
        for (let y = 0; y < h; y++)
          for (let x = 0; x < w; x++) expect(one!(x, y)[0]).toBeCloseTo(other!(w - 1 - x, h - 1 - y)[0]!, 4);
      }
    },
  );

  test('a picture smaller than the blur: every pixel is the weighted sum of the others, borders repeated', () => {
    const [w, h, radius] = [5, 3, 2];
    const value = (x: number, y: number) => ((x * 7 + y * 5) % 11) / 11;
    const at = run('blur', { radius }, w, h, (x, y) => [value(x, y), 0, 0, 1]);
    const held = (v: number, n: number) => Math.min(n - 1, Math.max(0, v));
    const weight = (d: number) => Math.exp(-(d * d) / (2 * radius * radius));
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        let [sum, whole] = [0, 0];
        for (let v = -9; v <= 9; v++) {
          for (let u = -9; u <= 9; u++) {
            sum += weight(u) * weight(v) * value(held(x + u, w), held(y + v, h));
            whole += weight(u) * weight(v);
          }
        }
        expect(Math.abs(at(x, y)[0]! - sum / whole)).toBeLessThan(0.005);
      }
    }
  });
});

describe('adjust', () => {
  const colours = [
    [0.1, 0.5, 0.9],
    [0.02, 0.3, 0.7],
    [1, 1, 1],
    [0, 0, 0],
  ];
  const adjusted = (values: PlainValues) =>
    colours.map((colour) => run('adjust', values, 1, 1, () => [...colour, 1])(0, 0));

  test('defaults change nothing', () =>
    adjusted({}).forEach((got, i) => colours[i]!.forEach((want, c) => expect(got[c]).toBeCloseTo(want, 6))));

  test('a stop of exposure doubles the light', () => {
    adjusted({ exposure: 1 }).forEach((got, i) =>
      colours[i]!.forEach((v, c) => expect(Math.abs(got[c]! - toDisplay(2 * toLinear(v)))).toBeLessThan(1 / 255)),
    );
  });

  test('no saturation leaves the luma in all three channels', () => {
    adjusted({ saturation: 0 }).forEach((got, i) => {
      const [r, g, b] = colours[i] as [number, number, number];
      for (let c = 0; c < 3; c++) expect(got[c]).toBeCloseTo(0.2126 * r + 0.7152 * g + 0.0722 * b, 3);
    });
  });

  test('warmth raises red against blue, tint raises magenta against green, and both leave alpha', () => {
    const grey = (values: PlainValues) => run('adjust', values, 1, 1, () => [0.25, 0.25, 0.25, 0.5])(0, 0);
    const warm = grey({ temperature: 0.5 });
    expect(warm[0]! - warm[2]!).toBeGreaterThan(0.05);
    const magenta = grey({ tint: 0.5 });
    expect(magenta[0]).toBeCloseTo(magenta[2]!, 5);
    expect(magenta[0]! - magenta[1]!).toBeGreaterThan(0.02);
    expect(warm[3]).toBe(0.5);
  });
});

describe('tone curves', () => {
  const grey = (v: number) => () => [v, v, v, 1];
  test('a straight curve is a straight line, in every channel or in one, one after the other', () => {
    const flat = [
      [0, 0.2],
      [1, 0.8],
    ];
    for (const v of [0, 0.13, 0.5, 0.9]) {
      const all = run('tone-curves', { all: flat }, 2, 2, grey(v))(0, 0);
      all.slice(0, 3).forEach((c) => expect(c).toBeCloseTo(0.2 + 0.6 * v, 3));
      const red = run('tone-curves', { all: flat, red: flat }, 2, 2, grey(v))(0, 0);
      expect(red[0]).toBeCloseTo(0.2 + 0.6 * (0.2 + 0.6 * v), 3);
      expect(red[1]).toBeCloseTo(0.2 + 0.6 * v, 3);
    }
  });
  test('half clear pixels get the same colours as solid ones', () => {
    const bent = [
      [0, 0],
      [0.5, 0.7],
      [1, 1],
    ];
    const solid = run('tone-curves', { all: bent }, 2, 2, grey(0.4))(0, 0);
    const half = run('tone-curves', { all: bent }, 2, 2, () => [0.2, 0.2, 0.2, 0.5])(0, 0);
    expect(solid[0]).toBeGreaterThan(0.5);
    expect(half[3]).toBe(0.5);
    expect(half[0]! * 2).toBeCloseTo(solid[0]!, 4);
  });
});

describe('crop', () => {
  const cover = (values: PlainValues) => run('crop', values, 60, 40, () => [1, 1, 1, 1]);

  test('whole edges cut exactly', () => {
    const at = cover({ left: 10, right: 5, top: 3, bottom: 7 });
    expect([at(9, 20)[3], at(10, 20)[3], at(54, 20)[3], at(55, 20)[3]]).toEqual([0, 1, 1, 0]);
    expect([at(30, 2)[3], at(30, 3)[3], at(30, 32)[3], at(30, 33)[3]]).toEqual([0, 1, 1, 0]);
  });

  test('round corners cover what 16×16 samples a pixel say, within 1/255 on average', () => {
    const radius = 12;
    const at = cover({ left: 4, right: 4, top: 4, bottom: 4, radius });
    const inside = (x: number, y: number) =>
      Math.hypot(Math.max(0, Math.abs(x - 30) - (26 - radius)), Math.max(0, Math.abs(y - 20) - (16 - radius))) <=
      radius;
    let [sum, worst] = [0, 0];
    for (let y = 0; y < 40; y++) {
      for (let x = 0; x < 60; x++) {
        let want = 0;
        for (let k = 0; k < 256; k++)
          want += Number(inside(x + ((k % 16) + 0.5) / 16, y + (Math.floor(k / 16) + 0.5) / 16)) / 256;
        sum += Math.abs(at(x, y)[3]! - want);
        worst = Math.max(worst, Math.abs(at(x, y)[3]! - want));
      }
    }
    expect(sum / 2400).toBeLessThan(1 / 255);
    expect(worst).toBeLessThan(0.12);
  });

  test('a feather is half covered on the cut itself', () => {
    const at = cover({ left: 20, feather: 10 });
    expect((at(19, 20)[3]! + at(20, 20)[3]!) / 2).toBeCloseTo(0.5, 4);
    expect(at(14, 20)[3]).toBe(0);
    expect(at(26, 20)[3]).toBe(1);
  });

  test('cutting everything leaves nothing', () => expect(cover({ left: 40, right: 40 })(30, 20)[3]).toBe(0));
});

describe('every pass', () => {
  test.each(PASSES.map((pass) => [pass.type, pass] as const))(
    '%s is declared with labels, help and defaults in range',
    (_, pass) => {
      expect(pass.help.length).toBeGreaterThan(20);
      for (const param of Object.values(pass.params)) {
        expect(param.label).toMatch(/^[A-Z]/);
        expect(param.help).toMatch(/\.$/);
        if (param.kind !== 'number') continue;
        expect(param.default).toBeGreaterThanOrEqual(param.min);
        expect(param.default).toBeLessThanOrEqual(param.max);
        expect(param.slider[0]).toBeGreaterThanOrEqual(param.min);
        expect(param.slider[1]).toBeLessThanOrEqual(param.max);
      }
    },
  );

  test.each(PASSES.map((pass) => pass.type))('%s takes pictures of one pixel and gives numbers', (type) => {
    const { now } = trackNow({ w: 1, h: 1 });
    const values: PlainValues =
      type === 'colour-key'
        ? { screen: [[0.3, 0.66, 0.35]] }
        : 'track' in paramsOf(type)
          ? { track: now, way: [] }
          : {};
    if (type === 'steady') Object.assign(values, { move: [1, 0, 0, 1, 0.3, 0], zoom: 1.1, way: 'still', others: [] });
    run(type, values, 1, 1, () => [0.5, 0.25, 0.125, 0.5])(0, 0).forEach((v) => expect(Number.isFinite(v)).toBe(true));
  });
});

test('every further use of a pass has values that it takes, a title of its own, and looks other than the pass at its beginning', () => {
  const titles = OFFERED.map(({ title }) => title);
  expect(new Set(titles).size).toBe(titles.length);
  const uses = OFFERED.filter(({ values }) => values);
  expect(uses.length).toBeGreaterThan(7);
  for (const { pass, values } of uses) {
    const made = newPass('p' as PassId, pass.type, { w: 64, h: 36 }, values);
    expect(passSchema.safeParse(JSON.parse(JSON.stringify(made))).error).toBeUndefined();
    expect(made.values).not.toEqual(newPass('p' as PassId, pass.type, { w: 64, h: 36 }).values);
  }
});
