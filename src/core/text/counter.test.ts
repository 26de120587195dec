import { describe, expect, test } from '@jest/globals';
import { countedText, dayOf, type Counting } from './counter';

const PLAIN: Counting = { counter: 'number', count: 0, digits: 0, least: 1, day: '2026-01-31' };
const said = (change: Partial<Counting>, text = '#') => countedText(text, { ...PLAIN, ...change });

describe('what is counted in a text', () => {
  test('a number stands wherever its sign does, and nowhere when nothing is counted', () => {
    expect(said({ count: 7 }, '# of # boats')).toBe('7 of 7 boats');
    expect(said({ counter: 'none', count: 7 }, 'berth #')).toBe('berth #');
  });

  test('numbers are rounded, filled up and grouped by thousands', () => {
    expect(said({ count: 41.96 })).toBe('42');
    expect(said({ count: 41.96, digits: 1 })).toBe('42.0');
    expect(said({ count: 7, least: 3 })).toBe('007');
    expect(said({ count: 1234567.5, digits: 2 })).toBe('1\u2009234\u2009567.50');
    expect(said({ count: -3.2, digits: 1 })).toBe('\u22123.2');
    expect(said({ count: -0.2 })).toBe('0');
  });

  test('seconds become minutes and hours', () => {
    const time = (count: number, digits = 0) => said({ counter: 'time', count, digits });
    expect([time(0), time(9.6), time(59.4), time(61)]).toEqual(['0:00', '0:10', '0:59', '1:01']);
    expect(time(59.96, 1)).toBe('1:00.0');
    expect(time(3 * 3600 + 4 * 60 + 5)).toBe('3:04:05');
    expect(time(-5, 2)).toBe('\u22120:05.00');
  });

  test('days go on over months and leap years', () => {
    const date = (count: number, day: string) => said({ counter: 'date', count, day });
    expect(date(1, '2026-01-31')).toBe('1 February 2026');
    expect(date(28, '2024-02-01')).toBe('29 February 2024');
    expect(date(0.9, '1899-12-31')).toBe('31 December 1899');
    expect(date(-1, '2026-01-01')).toBe('31 December 2025');
    // what is no day is left as it is written
    expect(date(3, 'soon')).toBe('soon');
    expect(dayOf('2026-02-30')).toBeNaN();
  });
});
