import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { floatsOf, pictureOf, testRig } from '../testing/rig';
import { BLEND_MODES, type BlendMode } from './blend';

// The formulas of W3C Compositing and Blending Level 1, section 10, written out for one colour.
type Rgb = [number, number, number];
const each = (f: (b: number, s: number) => number) => (b: Rgb, s: Rgb) => b.map((v, i) => f(v, s[i]!)) as Rgb;
const hardLight = (b: number, s: number) => (s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1));
const lum = ([r, g, b]: Rgb) => 0.3 * r + 0.59 * g + 0.11 * b;
const sat = (c: Rgb) => Math.max(...c) - Math.min(...c);
function clipColour(c: Rgb): Rgb {
  const l = lum(c);
  const n = Math.min(...c);
  const x = Math.max(...c);
  let out = c;
  if (n < 0) out = out.map((v) => l + ((v - l) * l) / (l - n)) as Rgb;
  if (x > 1) out = out.map((v) => l + ((v - l) * (1 - l)) / (x - l)) as Rgb;
  return out;
}
const setLum = (c: Rgb, l: number) => clipColour(c.map((v) => v + l - lum(c)) as Rgb);
function setSat(c: Rgb, s: number): Rgb {
  const order = [0, 1, 2].sort((i, j) => c[i]! - c[j]!) as Rgb;
  const [min, mid, max] = order;
  const out: Rgb = [0, 0, 0];
  if (c[max]! > c[min]!) {
    out[mid] = ((c[mid]! - c[min]!) * s) / (c[max]! - c[min]!);
    out[max] = s;
  }
  return out;
}
const FORMULAS: Record<Exclude<BlendMode, 'add'>, (b: Rgb, s: Rgb) => Rgb> = {
  normal: (_, s) => s,
  multiply: each((b, s) => b * s),
  screen: each((b, s) => b + s - b * s),
  overlay: each((b, s) => hardLight(s, b)),
  darken: each(Math.min),
  lighten: each(Math.max),
  'color-dodge': each((b, s) => (b === 0 ? 0 : s === 1 ? 1 : Math.min(1, b / (1 - s)))),
  'color-burn': each((b, s) => (b === 1 ? 1 : s === 0 ? 0 : 1 - Math.min(1, (1 - b) / s))),
  'hard-light': each(hardLight),
  'soft-light': each((b, s) => {
    const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
    return s <= 0.5 ? b - (1 - 2 * s) * b * (1 - b) : b + (2 * s - 1) * (d - b);
  }),
  difference: each((b, s) => Math.abs(b - s)),
  exclusion: each((b, s) => b + s - 2 * b * s),
  hue: (b, s) => setLum(setSat(s, sat(b)), lum(b)),
  saturation: (b, s) => setLum(setSat(b, sat(s)), lum(b)),
  color: (b, s) => setLum(s, lum(b)),
  luminosity: (b, s) => setLum(b, lum(s)),
  subtract: each((b, s) => Math.max(0, b - s)),
};

type Pixel = [number, number, number, number];
function expected(mode: BlendMode, b: Pixel, s: Pixel): Pixel {
  const [ab, as] = [b[3], s[3]];
  const alpha = as + ab - as * ab;
  const [cb, cs] = [b.slice(0, 3) as Rgb, s.slice(0, 3) as Rgb];
  if (mode === 'add') return [...cb.map((v, i) => Math.min(alpha, ab * v + as * cs[i]!)), alpha] as Pixel;
  const mixed = FORMULAS[mode](cb, cs);
  return [...cs.map((v, i) => as * (1 - ab) * v + as * ab * mixed[i]! + (1 - as) * ab * cb[i]!), alpha] as Pixel;
}

const channel = fc.oneof(fc.constantFrom(0, 0.25, 0.5, 0.75, 1), fc.double({ min: 0, max: 1, noNaN: true }));
const pixel = fc.tuple(channel, channel, channel, channel);
const premultiplied = ([r, g, b, a]: Pixel) => [r * a, g * a, b * a, a];

describe('blend modes follow the published formulas', () => {
  test.each(BLEND_MODES.map((mode, number) => [mode, number] as const))('%s', async (mode, number) => {
    const rig = await testRig(16e6);
    const rect = { x: 0, y: 0, w: 1, h: 1 };
    fc.assert(
      fc.property(pixel, pixel, (under, top) => {
        // colours that no 8-bit or float file can hold make dodge and burn jump; keep to steps of 1/4096
        const [b, s] = [under, top].map((p) => p.map((v) => Math.round(v * 4096) / 4096)) as [Pixel, Pixel];
        const below = pictureOf(rig, rect, premultiplied(b));
        const above = pictureOf(rig, rect, premultiplied(s));
        rig.kernels.blendSpan(number, below.at, above.at, 1);
        const got = floatsOf(rig, below);
        expected(mode, b, s).forEach((want, i) => expect(Math.abs(got[i]! - want)).toBeLessThanOrEqual(0.5 / 255));
        below.release();
        above.release();
      }),
      { numRuns: 400 },
    );
  });
});

describe('over', () => {
  test('is associative', async () => {
    const rig = await testRig(16e6);
    const rect = { x: 0, y: 0, w: 1, h: 1 };
    const over = (under: ArrayLike<number>, top: ArrayLike<number>) => {
      const below = pictureOf(rig, rect, under);
      const above = pictureOf(rig, rect, top);
      rig.kernels.blendSpan(0, below.at, above.at, 1);
      const out = floatsOf(rig, below);
      below.release();
      above.release();
      return out;
    };
    fc.assert(
      fc.property(pixel, pixel, pixel, (a, b, c) => {
        const [x, y, z] = [a, b, c].map(premultiplied) as [number[], number[], number[]];
        const left = over(over(x, y), z);
        const right = over(x, over(y, z));
        left.forEach((v, i) => expect(v).toBeCloseTo(right[i]!, 5));
      }),
    );
  });
});
