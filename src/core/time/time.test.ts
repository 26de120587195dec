import { valueOn } from '../testing/documents';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ease } from './easing';
import { FRAME_RATES, frameAt, framesIn, rateFromStamps, rateLabel, sameRate, secondsAt } from './rate';
import { frameTyped, timecode } from './timecode';

const anyRate = fc.constantFrom(...FRAME_RATES.map((entry) => entry.rate));

describe('frame rates', () => {
  test('a frame’s own start is that frame, up to many hours', () => {
    fc.assert(
      fc.property(anyRate, fc.nat(1_000_000), (rate, frame) =>
        expect(frameAt(secondsAt(frame, rate), rate)).toBe(frame),
      ),
    );
  });

  test('the rate is found from stamps that are rounded to whole milliseconds, as WebM does', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FRAME_RATES.map((entry) => entry.rate)),
        fc.integer({ min: 110, max: 400 }),
        (rate, count) => {
          const stamps = Array.from({ length: count }, (_, i) => Math.round(secondsAt(i, rate) * 1000) / 1000);
          const found = rateFromStamps(stamps)!;
          // 24 and 23.976 differ by a thousandth: short clips cannot tell them apart after rounding, so the whole number is taken
          expect(Math.abs(found.num / found.den / (rate.num / rate.den) - 1)).toBeLessThan(0.0011);
        },
      ),
    );
  });

  test('exact stamps give the exact fraction', () => {
    for (const { rate } of FRAME_RATES) {
      const found = rateFromStamps(Array.from({ length: 400 }, (_, i) => secondsAt(i, rate)))!;
      if (rate.den === 1) expect(sameRate(found, rate)).toBe(true);
      else expect(Math.abs(found.num / found.den - rate.num / rate.den)).toBeLessThan(0.05);
    }
  });

  test('phone footage with uneven spacing is variable', () => {
    expect(rateFromStamps([0, 0.033, 0.066, 0.12, 0.153, 0.186])).toBeNull();
    expect(rateFromStamps([0])).toBeNull();
  });

  test('labels and lengths', () => {
    expect(rateLabel({ num: 24000, den: 1001 })).toBe('23.976');
    expect(rateLabel({ num: 15, den: 1 })).toBe('15');
    expect(framesIn(5, { num: 24, den: 1 })).toBe(120);
    expect(framesIn(0, { num: 24, den: 1 })).toBe(1);
  });

  test('timecode counts minutes, seconds and frames', () => {
    expect(timecode(84, { num: 24, den: 1 })).toBe('0:03.12');
    expect(timecode(24 * 61, { num: 24000, den: 1001 })).toBe('1:01.00');
    expect(timecode(-12, { num: 24, den: 1 })).toBe('-0:00.12');
  });
});

describe('values over time', () => {
  const linear = {
    keys: [
      { at: 10, value: 0, ease: 'linear' as const },
      { at: 20, value: 5, ease: 'hold' as const },
      { at: 30, value: 9, ease: 'linear' as const },
    ],
  };

  test('hold before the first and after the last keyframe, and are exact at each', () => {
    expect([-5, 10, 20, 30, 99].map((frame) => valueOn(linear, frame))).toEqual([0, 0, 5, 9, 9]);
  });

  test('go straight between linear keyframes and stay through a hold', () => {
    expect(valueOn(linear, 15)).toBeCloseTo(2.5);
    expect(valueOn(linear, 29)).toBe(5);
  });

  test('pairs move part by part; words switch at the next keyframe', () => {
    const pair = {
      keys: [
        { at: 0, value: [0, 10], ease: 'linear' as const },
        { at: 4, value: [4, 0], ease: 'linear' as const },
      ],
    };
    expect(valueOn(pair, 1)).toEqual([1, 7.5]);
    const word = {
      keys: [
        { at: 0, value: 'fade', ease: 'linear' as const },
        { at: 4, value: 'extend', ease: 'linear' as const },
      ],
    };
    expect(valueOn(word, 3)).toBe('fade');
  });

  test('many keyframes are found as a plain search finds them', () => {
    const keys = Array.from({ length: 500 }, (_, i) => ({ at: i * 3, value: (i * 7919) % 101, ease: 'hold' as const }));
    fc.assert(
      fc.property(fc.nat(1600), (frame) =>
        expect(valueOn({ keys }, frame)).toBe(keys.filter((key) => key.at <= frame).at(-1)!.value),
      ),
    );
  });

  test('cubic easing follows CSS: x(s) = t gives y(s)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0.001, max: 0.999, noNaN: true }),
        (x1, x2, s) => {
          const bezier = (a: number, b: number) => 3 * (1 - s) ** 2 * s * a + 3 * (1 - s) * s * s * b + s ** 3;
          const steep = Math.abs(3 * (1 - s) ** 2 * x1 + 6 * (1 - s) * s * (x2 - x1) + 3 * s * s * (1 - x2));
          fc.pre(steep > 0.05);
          expect(ease({ cubic: [x1, 0.2, x2, 0.9] }, bezier(x1, x2))).toBeCloseTo(bezier(0.2, 0.9), 5);
        },
      ),
    );
  });
});

describe('a typed frame', () => {
  test.each([
    ['67', 67],
    ['+12', 22],
    ['-4', 6],
    ['−4', 6],
    ['2.5s', 60],
    ['0:02.12', 60],
    ['1:00:03', 1443],
    ['2*30+1', 61],
    ['abc', null],
    ['', null],
  ])('%s is %s', (text, frame) => expect(frameTyped(text, 10, { num: 24, den: 1 })).toBe(frame));

  test('is what the time of that frame says', () => {
    fc.assert(
      fc.property(fc.nat(100_000), fc.constantFrom(24, 25, 30, 60), (frame, num) => {
        const rate = { num, den: 1 };
        expect(frameTyped(timecode(frame, rate), 0, rate)).toBe(frame);
      }),
    );
  });
});
