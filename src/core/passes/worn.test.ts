// What defocus, a focus band, tape, drawn edges and scattering do, against what their words mean.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { toDisplay, toLinear } from '../picture/light';
import { pictureOf, planned, runPass, testRig, wholeFloats, type TestRig } from '../testing/rig';
import { through as takenThrough, type Paint } from '../testing/painted';
import type { PlainValues } from '../params/registry';
import { apertureRows } from '../picture/aperture';

const [W, H] = [160, 120];
const MIDDLE = [W / 2, H / 2] as const;
let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const through = (type: string, values: PlainValues, paint: Paint) =>
  takenThrough(rig, { w: W, h: H }, type, values, paint);
const grey =
  (v: number): Paint =>
  () => [v, v, v];

describe('defocus', () => {
  /** a white pixel in the dark, by its light */
  const spot: Paint = (x, y) => (Math.abs(x - 80.5) < 0.6 && Math.abs(y - 60.5) < 0.6 ? [1, 1, 1] : [0, 0, 0]);
  const light = (seen: (x: number, y: number) => number[]) => (x: number, y: number) => toLinear(seen(x, y)[0]!);

  test('makes of a point an even disc as large as its radius, and loses no light', () => {
    const at = light(through('defocus', { radius: 9, blades: 0, turn: 0, bloom: 0 }, spot));
    const even = 1 / (Math.PI * 81);
    let sum = 0;
    for (let y = 40; y < 81; y++)
      for (let x = 60; x < 101; x++) {
        const far = Math.hypot(x - 80, y - 60);
        sum += at(x, y);
        if (far < 7.5) expect(at(x, y) / even).toBeCloseTo(1, 1);
        if (far > 10.5) expect(at(x, y)).toBeLessThan(even / 20);
      }
    expect(sum).toBeCloseTo(1, 1);
  });

  test('has as many corners as its aperture has blades', () => {
    const rows = apertureRows(20, 4, 0);
    // a square on its corner: as wide as it is high at its middle, nothing at its top
    const half = (rows.length - 1) / 2;
    expect(rows[half]!.left).toBeCloseTo(20, 0);
    expect(rows[half - 10]!.right).toBeCloseTo(10, 0);
    const area = (of: typeof rows) => of.reduce((sum, { left, right, share }) => sum + (left + right) * share, 0);
    expect(area(rows)).toBeCloseTo(1, 6);
  });

  test('lets bright spots outshine what the picture can show; an even picture stays as it is, to its borders', () => {
    const plain = light(through('defocus', { radius: 6, blades: 0, bloom: 0 }, spot));
    const bright = light(through('defocus', { radius: 6, blades: 0, bloom: 3, from: 0.5 }, spot));
    expect(bright(80, 60) / plain(80, 60)).toBeCloseTo(4, 1);
    for (const radius of [4, 9, 30]) {
      const even = through('defocus', { radius, bloom: 0 }, grey(0.4));
      for (const [x, y] of [
        [0, 0],
        [80, 60],
        [159, 119],
      ] as const)
        expect(even(x, y)[0]).toBeCloseTo(0.4, 2);
    }
  });

  test('is the mean of light, not of what is displayed', () => {
    const half = through('defocus', { radius: 8, blades: 0, bloom: 0 }, (x) => (x < 80 ? [1, 1, 1] : [0, 0, 0]));
    expect(half(79, 60)[0]! * 0.5 + half(80, 60)[0]! * 0.5).toBeCloseTo(toDisplay(0.5), 1);
  });
});

test('a focus band is sharp within, and softer the further away, up to its blur', () => {
  const stripes: Paint = (x) => (Math.floor(x / 4) % 2 ? [1, 1, 1] : [0, 0, 0]);
  const seen = through('focus-band', { at: MIDDLE, turn: 0, sharp: 20, soft: 30, radius: 6 }, stripes);
  const contrast = (y: number) => Math.abs(seen(81, y)[0]! - seen(85, y)[0]!);
  expect(contrast(60)).toBeCloseTo(1, 5);
  expect(contrast(52)).toBeCloseTo(1, 3);
  expect(contrast(40)).toBeGreaterThan(contrast(30) + 0.02);
  expect(contrast(10)).toBeLessThan(0.05);
  expect(contrast(110)).toBeLessThan(0.05);
});

test('focus around a place is as sharp in every direction, and moves with the place', () => {
  const checks: Paint = (x, y) => ((Math.floor(x / 4) + Math.floor(y / 4)) % 2 ? [1, 1, 1] : [0, 0, 0]);
  const around = { form: 'round', sharp: 30, soft: 24, radius: 6 };
  const contrastAt = (at: readonly [number, number]) => {
    const seen = through('focus-band', { ...around, at }, checks);
    return (x: number, y: number) => Math.abs(seen(x + 1, y + 1)[0]! - seen(x + 5, y + 1)[0]!);
  };
  const middle = contrastAt(MIDDLE);
  expect(middle(76, 60)).toBeCloseTo(1, 3);
  // left, right, above and below of it, as far off
  const far = [middle(32, 60), middle(124, 60), middle(80, 12), middle(80, 104)];
  for (const contrast of far) expect(contrast).toBeLessThan(0.05);
  const moved = contrastAt([40, 30]);
  expect(moved(36, 28)).toBeCloseTo(1, 3);
  expect(moved(116, 88)).toBeLessThan(0.05);
});

describe('tape', () => {
  const still = { jitter: 0, bleed: 0, beside: 0, band: 0, hum: 0, drops: 0 };
  test('puts colours beside their things and leaves brightness where it is', () => {
    const red: Paint = (x) => (x > 70 && x < 90 ? [0.8, 0.2, 0.2] : [0.3, 0.3, 0.3]);
    const seen = through('tape', { ...still, beside: 6 }, red);
    const luma = ([r, g, b]: number[]) => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
    const redness = ([r, g]: number[]) => r! - g!;
    expect(luma(seen(72, 60))).toBeCloseTo(0.3276, 3);
    expect(redness(seen(72, 60))).toBeCloseTo(0, 3);
    expect(redness(seen(94, 60))).toBeGreaterThan(0.4);
    expect(luma(seen(94, 60))).toBeCloseTo(0.3, 2);
  });
  test('smears colour evenly to both sides: a step becomes a slope as wide as it runs', () => {
    const seen = through('tape', { ...still, bleed: 10 }, (x) => (x < 80 ? [0.5, 0.3, 0.3] : [0.3, 0.3, 0.5]));
    const at = (x: number) => seen(x, 60)[0]! - seen(x, 60)[2]!;
    expect(at(60)).toBeCloseTo(0.2, 2);
    expect(at(99)).toBeCloseTo(-0.2, 2);
    expect(Math.abs(at(79) + at(80))).toBeLessThan(0.01);
    for (const x of [71, 75, 84, 88]) expect(at(x)).toBeCloseTo(-0.2 * ((x + 0.5 - 80) / 10.5), 2);
  });
  test('moves each row by itself, no further than it says', () => {
    const seen = through('tape', { ...still, jitter: 5 }, (x) => (x < 80 ? [1, 1, 1] : [0, 0, 0]));
    const edges = Array.from({ length: H }, (_, y) => {
      let sum = 0;
      for (let x = 0; x < W; x++) sum += seen(x, y)[0]!;
      return sum;
    });
    edges.forEach((edge) => expect(Math.abs(edge - 80)).toBeLessThanOrEqual(5.01));
    expect(new Set(edges.map((edge) => Math.round(10 * edge))).size).toBeGreaterThan(20);
  });
});

test('drawn edges lie where brightness changes and nowhere else', () => {
  const step: Paint = (x) => (x < 80 ? [0.2, 0.2, 0.2] : [0.7, 0.7, 0.7]);
  const seen = through('drawn-edges', { colour: [1, 0, 0], ground: 'clear', from: 0.06, soft: 0.16 }, step);
  // half of the step on either side of it, by Sobel's operator
  expect(seen(79, 60)).toEqual([1, 0, 0, 1]);
  expect(seen(80, 60)).toEqual([1, 0, 0, 1]);
  expect(seen(77, 60)[3]).toBe(0);
  expect(seen(0, 0)[3]).toBe(0);
});

describe('scatter', () => {
  const card: Paint = (x, y) => [1, 1, 1, Math.abs(x - 80) < 20 && Math.abs(y - 60) < 20 ? 1 : 0];
  const values = { size: 10, about: MIDDLE, spread: 0, turn: 0, shrink: 0 };
  const centre = (seen: (x: number, y: number) => number[], from: number, to: number) => {
    let [sum, x0] = [0, 0];
    for (let y = 0; y < H; y++)
      for (let x = from; x < to; x++) {
        sum += seen(x, y)[3]!;
        x0 += seen(x, y)[3]! * (x + 0.5);
      }
    return { sum, x: x0 / sum };
  };
  test('pushes bits away from its middle by as much as it says, and loses none of them', () => {
    const [before, after] = [
      through('scatter', { ...values, far: 0 }, card),
      through('scatter', { ...values, far: 15 }, card),
    ];
    const [a, b] = [centre(before, 80, W), centre(after, 80, W)];
    expect(b.sum).toBeCloseTo(a.sum, -2);
    expect(b.x - a.x).toBeGreaterThan(8);
    expect(b.x - a.x).toBeLessThan(15);
    // the gap in the middle is clear
    expect(after(80, 60)[3]).toBeLessThan(0.05);
  });

  test('bits that are turned, and lie on no whole pixel, cover as much as before; small ones less', () => {
    const sumOf = (more: object) =>
      centre(through('scatter', { ...values, size: 11.5, far: 30, ...more }, card), 0, W).sum;
    const whole = 40 * 40;
    expect(Math.abs(sumOf({}) / whole - 1)).toBeLessThan(0.005);
    expect(Math.abs(sumOf({ turn: 90 }) / whole - 1)).toBeLessThan(0.02);
    // by lot between whole size and nothing: the mean of squares is a third
    const shrunk = sumOf({ shrink: 1 }) / whole;
    expect(shrunk).toBeGreaterThan(0.15);
    expect(shrunk).toBeLessThan(0.55);
  });
});

test('a spot that drops out is the same in a part of the picture as in all of it', () => {
  const values = planned('tape', { jitter: 0, bleed: 0, beside: 0, band: 0, hum: 0, drops: 60 });
  const flat = (w: number, x: number) =>
    pictureOf(rig, { x, y: 0, w, h: H }, Array.from({ length: w * H }, () => [0.2, 0.2, 0.2, 1]).flat());
  const size = { w: W, h: H };
  const [whole, part] = [
    runPass(rig, 'tape', values, flat(W, 0), null, size),
    runPass(rig, 'tape', values, flat(41, 60), null, size),
  ];
  const [a, b] = [wholeFloats(rig, whole, size), wholeFloats(rig, part, size)];
  let [different, dropped] = [0, 0];
  for (let y = 0; y < H; y++)
    for (let x = 61; x < 100; x++) {
      if (Math.abs(a[(y * W + x) * 4]! - b[(y * W + x) * 4]!) > 1e-5) different++;
      if (a[(y * W + x) * 4]! > 0.3) dropped++;
    }
  expect(dropped).toBeGreaterThan(50);
  expect(different).toBe(0);
  whole.release();
  part.release();
});
