import { expect, test } from '@jest/globals';
import { spreadColours } from './spread';

/** Cells of a 9×7 grid, of which some are known. */
const grid = (known: (x: number, y: number) => readonly number[] | null) => {
  const cells = new Float32Array(9 * 7 * 4);
  for (let i = 0; i < 9 * 7; i++) {
    const colour = known(i % 9, Math.floor(i / 9));
    if (colour) cells.set([...colour.map((v) => v * 16), 16], i * 4);
  }
  return spreadColours(cells, 9, 7);
};
const at = (colours: Float32Array, x: number, y: number) => [...colours.subarray((y * 9 + x) * 3, (y * 9 + x) * 3 + 3)];

test('nothing known is nothing; one colour known anywhere is that colour everywhere', () => {
  expect(grid(() => null)).toBeNull();
  const one = grid((x, y) => (x === 8 && y === 0 ? [0.2, 0.4, 0.6] : null))!;
  for (const [x, y] of [
    [0, 0],
    [8, 0],
    [4, 6],
    [0, 6],
  ] as const)
    at(one, x, y).forEach((v, c) => expect(v).toBeCloseTo([0.2, 0.4, 0.6][c]!, 5));
});

test('what is known stays, and between two sides the nearer one counts more', () => {
  const two = grid((x) => (x === 0 ? [1, 0, 0] : x === 8 ? [0, 0, 1] : null))!;
  expect(at(two, 0, 3)).toEqual([1, 0, 0]);
  expect(at(two, 8, 3)).toEqual([0, 0, 1]);
  expect(at(two, 2, 3)[0]).toBeGreaterThan(at(two, 6, 3)[0]!);
  for (let x = 0; x < 9; x++) expect(at(two, x, 3)[0]! + at(two, x, 3)[2]!).toBeCloseTo(1, 5);
});
