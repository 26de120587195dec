import { describe, expect, test } from '@jest/globals';
import { caretNear, caretsOf, chosenOf } from './carets';
import type { TextLine } from './fonts';

/** A font whose letters are all half a capital wide. */
const line = (text: string): TextLine => ({
  rings: [],
  width: [...text].length / 2,
  ends: [...text].map(() => 0),
  starts: [...text].map((_, i) => i / 2),
  stops: [...text].map((_, i) => (i + 1) / 2),
  missing: '',
});
const set = (text: string, wrap = 0, align: 'left' | 'centre' | 'right' = 'left') =>
  caretsOf(text.split('\n').map(line), text, { height: 20, leading: 2, align, wrap });

describe('carets', () => {
  test('stand before every letter and at the end of each line, a letter apart', () => {
    const carets = set('ab\ncde');
    expect(carets.map(({ index, row, x }) => [index, row, x])).toEqual([
      [0, 0, -15],
      [1, 0, -5],
      [2, 0, 5],
      [3, 1, -15],
      [4, 1, -5],
      [5, 1, 5],
      [6, 1, 15],
    ]);
    // rows are 40 apart, and the block of capitals (20 + 40) is centred: the first stands on −10
    expect(carets[0]).toMatchObject({ top: -10 - 25, bottom: -10 + 6 });
    expect(carets[3]!.top - carets[0]!.top).toBe(40);
  });

  test('of an empty line there is one, and rows are aligned as the letters are', () => {
    expect(set('abcd\n\nef', 0, 'right').map(({ x }) => x)).toEqual([-20, -10, 0, 10, 20, 20, 0, 10, 20]);
    expect(set('abcd\n\nef', 0, 'centre').map(({ x }) => x)).toEqual([-20, -10, 0, 10, 20, 0, -10, 0, 10]);
  });

  test('a row that goes on after a space begins with the letter after it', () => {
    // 45 px hold four letters: “ab cd” breaks at its space
    expect(set('ab cd', 45).map(({ x }) => x)).toEqual([-22.5, -12.5, -2.5, -22.5, -12.5, -2.5]);
    expect(set('ab cd', 45).map(({ index, row }) => [index, row])).toEqual([
      [0, 0],
      [1, 0],
      [2, 0],
      [3, 1],
      [4, 1],
      [5, 1],
    ]);
  });

  test('letters of two units count as two', () => {
    expect(set('a𝄞b').map(({ index }) => index)).toEqual([0, 1, 3, 4]);
  });

  test('the nearest is of the row that is nearest; what is chosen is a rectangle a row', () => {
    const carets = set('ab\ncde');
    expect(caretNear(carets, [-100, -500])?.index).toBe(0);
    expect(caretNear(carets, [7, 40])?.index).toBe(5);
    expect(caretNear([], [0, 0])).toBeUndefined();
    expect(chosenOf(carets, 1, 4).map(({ left, right }) => [left, right])).toEqual([
      [-5, 5],
      [-15, -5],
    ]);
    expect(chosenOf(carets, 2, 2)).toEqual([]);
  });
});
