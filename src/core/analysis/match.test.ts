import { describe, expect, test } from '@jest/globals';
import { differenceOf, labOf } from '../picture/difference';
import { toDisplay, toLinear } from '../picture/light';
import { balanceMatrix, times } from '../picture/white';
import { diceOf } from '../testing/plates/dice';
import { coloursOf, matched, matchTo, partOfWay } from './match';

type RGB = readonly [number, number, number];
interface Thing {
  colour: RGB;
  share: number;
}
const PIXELS = 3000;

/** Things of some size and linear colour, muted more often than strong. */
function things(seed: number, count = 14): Thing[] {
  const next = diceOf(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1e-9 + next())) * Math.cos(2 * Math.PI * next());
  return Array.from({ length: count }, () => {
    const light = Math.min(0.85, 0.18 * 2 ** (1.3 * normal()));
    const [strong, hue] = [next() ** 1.5, next() * 2 * Math.PI];
    const part = (k: number) =>
      Math.min(0.9, Math.max(0.01, light * (1 + strong * Math.cos(hue - (k * 2 * Math.PI) / 3))));
    return { colour: [part(0), part(1), part(2)], share: 0.3 + next() ** 2 };
  });
}
/** Display-encoded pixels of things, each with shading of its own. */
function pixels(list: readonly Thing[], seed: number): RGB[] {
  const next = diceOf(seed);
  const whole = list.reduce((sum, { share }) => sum + share, 0);
  return list.flatMap(({ colour, share }) =>
    Array.from({ length: Math.round((share / whole) * PIXELS) }, () => {
      const shade = 0.6 + 0.6 * next();
      return colour.map((v) => toDisplay(Math.min(1, v * shade))) as unknown as RGB;
    }),
  );
}
/** Light of another temperature and strength, with less or more contrast and colour: none of it made by wheels. */
function misgraded(seed: number): (colour: RGB) => RGB {
  const next = diceOf(seed);
  const between = (a: number, b: number) => a + (b - a) * next();
  const light = 2 ** between(-0.9, 0.9);
  const slope = between(0.75, 1.4);
  const matrix = balanceMatrix(10 ** between(3.62, 4.02), between(-0.015, 0.015));
  const saturation = Math.exp(between(-0.4, 0.4));
  return (colour) => {
    const lit = times(matrix, colour.map(toLinear) as unknown as RGB).map((v) => toDisplay(Math.max(0, v * light)));
    const turned = lit.map((v) => Math.max(0, (v - 0.46) * slope + 0.46));
    const luma = 0.2126 * turned[0]! + 0.7152 * turned[1]! + 0.0722 * turned[2]!;
    return turned.map((v) => Math.min(1, Math.max(0, luma + (v - luma) * saturation))) as unknown as RGB;
  };
}
const bytes = (list: readonly RGB[]) => Uint8ClampedArray.from(list.flatMap((c) => [...c.map((v) => v * 255), 255]));
const apart = (a: readonly RGB[], b: readonly RGB[]): number =>
  a.reduce((sum, colour, i) => sum + differenceOf(labOf(colour), labOf(b[i]!)), 0) / a.length;

/** What a match leaves of the mean ΔE00 to the truth. @param other what the picture that it is matched to shows */
function left(seed: number, other: readonly Thing[]): number {
  const truth = pixels(things(seed), seed + 1);
  const off = truth.map(misgraded(seed + 2));
  const { values } = matchTo(coloursOf(bytes(off))!, coloursOf(bytes(pixels(other, seed + 3)))!);
  return (
    apart(
      off.map((colour) => matched(colour, values)),
      truth,
    ) / apart(off, truth)
  );
}
// seeds that were not looked at while this was written
const SEEDS = [8101, 8102, 8103, 8104, 8105, 8106];
const mean = (list: readonly number[]): number => list.reduce((sum, v) => sum + v) / list.length;

describe('a match', () => {
  test('to the same scene in its right light leaves less than half of what was wrong', () => {
    for (const seed of SEEDS) expect(left(seed, things(seed))).toBeLessThan(0.5);
  });

  test('to a scene that shows some other things too is held back, so that it does no harm', () => {
    const all = SEEDS.map((seed) => left(seed, [...things(seed).slice(0, 10), ...things(seed + 5000, 4)]));
    expect(Math.max(...all)).toBeLessThan(1.1);
    expect(mean(all)).toBeLessThan(0.8);
  });

  test('to itself changes nothing that shows; half of the way is half of each dial', () => {
    const own = coloursOf(bytes(pixels(things(8200), 1)))!;
    const { values, alike } = matchTo(own, own);
    expect(alike).toBe(1);
    for (const colour of own) expect(differenceOf(labOf(matched(colour, values)), labOf(colour))).toBeLessThan(0.2);
    const half = partOfWay({ lift: [0.2, 0, 0.4], gamma: [0, 0, 0], gain: [0, -0.1, 0], saturation: 1.5 }, 0.5);
    expect(half).toEqual({ lift: [0.1, 0, 0.2], gamma: [0, 0, 0], gain: [0, -0.05, 0], saturation: 1.25 });
  });

  test('in a part of the tones moves nothing else', () => {
    const own = coloursOf(bytes(pixels(things(8300), 1)))!;
    const other = coloursOf(bytes(pixels(things(8300), 1).map(misgraded(8301))))!;
    const { values } = matchTo(own, other, 'dark');
    expect(values.lift).not.toEqual([0, 0, 0]);
    expect([values.gamma, values.gain, values.saturation]).toEqual([[0, 0, 0], [0, 0, 0], 1]);
  });

  test('needs something solid to go by', () => {
    expect(coloursOf(new Uint8ClampedArray(4000))).toBeNull();
  });
});
