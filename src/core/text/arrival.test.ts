import { describe, expect, test } from '@jest/globals';
import { arriving, turns, type Arrival, type Letter } from './arrival';

const square = (x: number): Float64Array => Float64Array.of(x, 0, x + 10, 0, x + 10, 10, x, 10);
/** “ab c”: two words of three letters. */
const TEXT: Letter[] = [
  { rings: [square(0)], letter: 0, word: 0, line: 0 },
  { rings: [square(20)], letter: 1, word: 0, line: 0 },
  { rings: [], letter: 2, word: 1, line: 0 },
  { rings: [square(60)], letter: 3, word: 1, line: 0 },
];
const PLAIN: Arrival = {
  by: 'letter',
  order: 'forwards',
  seed: 1,
  done: 0.5,
  overlap: 0.5,
  x: 0,
  y: 40,
  size: 1,
  turn: 0,
  opacity: 0,
};
const come = (change: Partial<Arrival>) => arriving(TEXT, { ...PLAIN, ...change });
/** The opacity of each of the three letters, by where they stand; 0 where one is not there. */
const strengths = (change: Partial<Arrival>): number[] =>
  [0, 20, 60].map(
    (x) => come({ ...change, x: 0 }).find(({ rings }) => rings.some((ring) => ring[0] === x))?.opacity ?? 0,
  );

describe('a text that arrives', () => {
  test('at the end every letter stands in its place; at the beginning nothing is there', () => {
    expect(come({ done: 1 })).toEqual([{ rings: TEXT.flatMap(({ rings }) => rings), opacity: 1, come: 1, blur: 0 }]);
    expect(come({ done: 0 })).toEqual([]);
  });

  test('letters come in their order, each as long as said', () => {
    // with half of the time each, the first is there when the last begins
    expect(strengths({ done: 0.5 })).toEqual([1, 0.5, 0]);
    expect(strengths({ done: 0.5, order: 'backwards' })).toEqual([0, 0.5, 1]);
    expect(strengths({ done: 0.5, overlap: 1 })).toEqual([0.5, 0.5, 0.5]);
    const [first, middle, last] = strengths({ done: 0.25, order: 'middle' });
    expect(middle).toBeGreaterThan(first!);
    expect(middle).toBeGreaterThan(last!);
  });

  test('words come as one, and spaces take no turn', () => {
    expect(strengths({ done: 0.5, by: 'word' })).toEqual([1, 1, 0]);
    const [a, b, c] = strengths({ done: 0.75, by: 'word' });
    expect([a, b]).toEqual([1, 1]);
    expect(c).toBeCloseTo(0.5, 9);
  });

  test('half way each has gone half of its way, about its own middle', () => {
    const [piece] = come({ done: 0.5, overlap: 1, y: 40, size: 3, turn: 180 });
    const ring = piece!.rings[0]!;
    // twice as large, turned by a right angle, 20 pixels below its place
    const xs = ring.filter((_, i) => !(i % 2));
    const ys = ring.filter((_, i) => i % 2);
    expect([Math.min(...xs), Math.max(...xs)].map(Math.round)).toEqual([-5, 15]);
    expect([Math.min(...ys), Math.max(...ys)].map(Math.round)).toEqual([15, 35]);
    expect([ring[0], ring[1]].map((v) => Math.round(v!))).toEqual([15, 15]);
  });

  test('what begins to be seen is seen from the beginning', () => {
    expect(strengths({ done: 0, opacity: 0.3, y: 0 })).toEqual([0.3, 0.3, 0.3]);
  });

  test('a lot gives every part its own turn, another seed another order', () => {
    const first = turns(12, 'lot', 1);
    expect([...first].sort((a, b) => a - b)).toEqual(turns(12, 'forwards', 1));
    expect(turns(12, 'lot', 2)).not.toEqual(first);
    expect(turns(12, 'lot', 1)).toEqual(first);
  });

  test('is drawn apart about the middle of its row at first', () => {
    // four places, so that a step of 10 pixels puts them 15 and 5 before the middle, and 15 behind it
    const [piece] = come({ done: 0, opacity: 1, y: 0, apart: 10 });
    expect(piece!.rings.map((ring) => ring[0])).toEqual([0 - 15, 20 - 5, 60 + 15]);
    const [half] = come({ done: 0.5, overlap: 1, opacity: 1, y: 0, apart: 10 });
    expect(half!.rings.map((ring) => ring[0])).toEqual([-7.5, 17.5, 67.5]);
  });

  test('is less and less blurred', () => {
    const blurs = (done: number) => come({ done, overlap: 1, blur: 8 }).map(({ blur }) => blur);
    expect([blurs(0.5), blurs(1)]).toEqual([[4], [0]]);
    expect(come({ done: 0.5, blur: 8 }).map(({ come, blur }) => [come, blur])).toEqual([
      [1, 0],
      [0.5, 4],
    ]);
  });
});
