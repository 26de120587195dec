import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { listed, parseQuantity } from './quantity';

const rate = { num: 24, den: 1 };

describe('typed numbers', () => {
  test.each([
    ['960', 960],
    ['1920/2', 960],
    ['2+3*4', 14],
    ['(2+3)*4', 20],
    ['-12.5', -12.5],
    ['10 - -4', 14],
    ['1,5', 1.5],
    ['6 ÷ 4', 1.5],
    ['3 × 4', 12],
    ['.5', 0.5],
    ['120 px', 120],
  ])('%s is %d', (text, value) => expect(parseQuantity(text, { current: 0 })).toBe(value));

  test('a leading plus steps from the current value, a percentage is a share of it', () => {
    expect(parseQuantity('+40', { current: 100 })).toBe(140);
    expect(parseQuantity('50%', { current: 300 })).toBe(150);
    expect(parseQuantity('50%', { current: 80, percent: true })).toBe(50);
  });

  test('seconds and frames count frames where a rate is known, and nowhere else', () => {
    expect(parseQuantity('1.5s', { current: 0, rate })).toBe(36);
    expect(parseQuantity('1s', { current: 0, rate: { num: 30000, den: 1001 } })).toBe(30);
    expect(parseQuantity('36f', { current: 0, rate })).toBe(36);
    expect(parseQuantity('1.5s', { current: 0 })).toBeNull();
  });

  test.each(['', 'abc', '1+', '(1', '1)', '2 3', '1/0', 'px', '--', '1e9x'])('“%s” is not a number', (text) =>
    expect(parseQuantity(text, { current: 1 })).toBeNull(),
  );

  test('written sums are read as JavaScript counts them', () => {
    const whole = fc.integer({ min: 1, max: 999 });
    fc.assert(
      fc.property(whole, whole, whole, (a, b, c) => {
        expect(parseQuantity(`${a}-${b}*${c}`, { current: 0 })).toBe(a - b * c);
        expect(parseQuantity(`(${a}-${b})/${c}`, { current: 0 })).toBeCloseTo((a - b) / c, 12);
      }),
    );
  });
});

test.each([
  ['120', ['120']],
  ['120; 80', ['120', '80']],
  ['1,5; 2,5 ;3', ['1,5', '2,5', '3']],
  ['120, 80, 25%', ['120', '80', '25%']],
  ['120\t80', ['120', '80']],
  ['; 80', ['', '80']],
])('%j are several numbers: %j', (text, found) => expect(listed(text)).toEqual(found));
