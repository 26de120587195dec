import { describe, expect, test } from '@jest/globals';
import { still } from '../base/value';
import { decibels, gainOf, levelText, louder } from './level';

describe('levels in decibels', () => {
  test('twice the amplitude is 6.02 dB, a tenth −20 dB; as recorded is 0', () => {
    expect(decibels(1)).toBe(0);
    expect(decibels(2)).toBeCloseTo(6.0206, 4);
    expect(gainOf(-20)).toBeCloseTo(0.1, 12);
    for (const db of [-59, -12.5, 0, 17.9]) expect(decibels(gainOf(db))).toBeCloseTo(db, 9);
  });

  test('the ends: silence from −60 dB down, eightfold at most', () => {
    expect(gainOf(-60)).toBe(0);
    expect(gainOf(40)).toBe(8);
    expect(levelText(0)).toBe('silent');
    expect([levelText(1), levelText(0.5), levelText(2)]).toEqual(['0.0 dB', '−6.0 dB', '+6.0 dB']);
  });

  test('a level is lifted with all its keyframes, and comes out of silence', () => {
    expect(louder(still(0.5), 6.0206)).toEqual({ still: expect.closeTo(1, 4) });
    const keys = [
      { at: 0, value: 1, ease: 'linear' as const },
      { at: 9, value: 0.1, ease: 'hold' as const },
    ];
    expect(louder({ keys }, -20)).toEqual({
      keys: [
        { ...keys[0], value: expect.closeTo(0.1, 9) },
        { ...keys[1], value: expect.closeTo(0.01, 9) },
      ],
    });
    expect(louder(still(0), 40)).toEqual({ still: expect.closeTo(0.1, 9) });
  });
});
