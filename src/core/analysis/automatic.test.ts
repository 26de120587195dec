import { describe, expect, test } from '@jest/globals';
import { toDisplay, toLinear } from '../picture/light';
import { balanceMatrix } from '../picture/white';
import { asDials } from '../passes/grade/balance';
import { meanReading, rampFor, readAutomatic, toneFor } from './automatic';

const [W, H] = [160, 120];
const dice = (seed: number) => () => ((seed = (Math.imul(seed, 1664525) + 1013904223) | 0) >>> 0) / 4294967296;

/** Patches of random colours, a few of them grey, in a light of its own; no card is told apart from the rest. */
function scene(seed: number, cast: readonly [number, number, number], exposure = 1): Uint8ClampedArray {
  const next = dice(seed);
  const patches = Array.from({ length: 48 }, (_, i) => {
    const grey = i % 5 === 0;
    const level = 0.05 + 0.5 * next();
    return grey ? [level, level, level] : [0, 1, 2].map(() => 0.03 + 0.6 * next() ** 1.5);
  });
  const out = new Uint8ClampedArray(W * H * 4);
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    const patch = patches[Math.floor(x / 20) + 8 * Math.floor(y / 20)]!;
    const noise = 0.004 * (next() - 0.5);
    out.set(
      [
        ...patch.map((v, c) => Math.round(255 * Math.min(1, toDisplay(Math.max(0, v * cast[c]! * exposure + noise))))),
        255,
      ],
      i * 4,
    );
  }
  return out;
}
/** ΔE 1976 between a colour and the grey of its luminance, in CIELAB under D65. */
function castLeft([r, g, b]: readonly number[]): number {
  const f = (t: number) => (t > 0.008856 ? Math.cbrt(t) : 7.787 * t + 16 / 116);
  const x = (0.4124 * r! + 0.3576 * g! + 0.1805 * b!) / 0.9505;
  const y = 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
  const z = (0.0193 * r! + 0.1192 * g! + 0.9505 * b!) / 1.089;
  return Math.hypot(500 * (f(x) - f(y)), 200 * (f(y) - f(z)));
}

describe('the automatics', () => {
  // seeds that were not looked at while this was written: 101…124
  test('a grey card loses its cast, in warm, cold, green and magenta light', () => {
    const casts = [
      [1.25, 1, 0.6],
      [0.75, 1, 1.3],
      [0.9, 1.12, 0.9],
      [1.1, 0.88, 1.1],
      [1.4, 1, 0.45],
      [1, 1, 1],
    ] as const;
    const left: number[] = [];
    casts.forEach((cast, k) => {
      for (let n = 0; n < 4; n++) {
        const { grey } = readAutomatic(scene(101 + 4 * k + n, cast), W, H)!;
        const dials = asDials(grey.map((v) => toDisplay(v)) as never);
        const m = balanceMatrix(dials.temperature, dials.tint * 0.05);
        const card = cast.map((v) => 0.3 * v);
        left.push(
          castLeft([0, 1, 2].map((i) => m[i * 3]! * card[0]! + m[i * 3 + 1]! * card[1]! + m[i * 3 + 2]! * card[2]!)),
        );
      }
    });
    left.sort((a, b) => a - b);
    expect(left[Math.floor(left.length / 2)]!).toBeLessThan(2);
    expect(left.at(-1)!).toBeLessThan(6);
  });

  test('what is two stops too dark or too bright comes near the middle, and keeps its ends', () => {
    for (const by of [0.25, 1, 2.2]) {
      const { exposure, black, white } = toneFor(readAutomatic(scene(140, [1, 1, 1], by), W, H)!);
      const { key } = readAutomatic(scene(140, [1, 1, 1], by), W, H)!;
      expect(Math.abs(Math.log2((key * 2 ** exposure) / 0.18))).toBeLessThan(0.85);
      expect(black).toBeLessThan(0.16);
      expect(white).toBeGreaterThan(0.6);
    }
  });

  test('nothing solid tells nothing, and one odd frame among many does not decide', () => {
    expect(readAutomatic(new Uint8ClampedArray(W * H * 4), W, H)).toBeNull();
    const usual = readAutomatic(scene(150, [1, 1, 1]), W, H)!;
    const odd = readAutomatic(scene(150, [1, 1, 1], 4), W, H)!;
    const mean = meanReading([usual, usual, usual, usual, odd]);
    expect(Math.abs(Math.log2(mean.key / usual.key))).toBeLessThan(0.5);
    expect(toLinear(usual.high)).toBeGreaterThan(usual.key);
  });

  test('the ramp of a brightness key goes from where what goes ends to where what stays begins', () => {
    /** Two grounds, each with values of its own alike often, and a share of each. */
    const two = (dark: [number, number], bright: [number, number], share: number): Uint8ClampedArray => {
      const data = new Uint8ClampedArray(W * H * 4).fill(255);
      for (let i = 0; i < W * H; i++) {
        const [low, high] = (i * 0.618034) % 1 < share ? bright : dark;
        data.fill(low + ((i * 0.7548777) % 1) * (high - low), 4 * i, 4 * i + 3);
      }
      return data;
    };
    for (const share of [0.08, 0.5, 0.85]) {
      const reading = readAutomatic(two([20, 50], [140, 220], share), W, H)!;
      const lit = rampFor(reading, 'bright');
      // below it all of the dark, above it all but the darkest of the bright
      expect(255 * (lit.threshold - lit.softness / 2)).toBeCloseTo(50, -1);
      expect(255 * (lit.threshold + lit.softness / 2)).toBeCloseTo(144, -1);
      const ink = rampFor(reading, 'dark');
      expect(255 * (ink.threshold + ink.softness / 2)).toBeCloseTo(141, -1);
      expect(255 * (ink.threshold - ink.softness / 2)).toBeCloseTo(48.5, -1);
    }
    expect(rampFor(readAutomatic(two([90, 90], [91, 91], 0.5), W, H)!, 'bright').softness).toBeCloseTo(0.04, 6);
  });
});
