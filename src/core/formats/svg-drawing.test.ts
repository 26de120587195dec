import { describe, expect, test } from '@jest/globals';
import { flattened, type Vertex } from '../masks/path';
import { MOST_PIECES, piecesOf, writeDrawing, type DrawnElement } from './svg-drawing';

const RED = [1, 0, 0] as const;
const BLUE = [0, 0, 1] as const;
const element = (d: string, change: Partial<DrawnElement> = {}): DrawnElement => ({
  name: 'boat',
  d,
  transform: '',
  evenOdd: false,
  fill: RED,
  line: null,
  opacity: 1,
  ...change,
});
const box = (x: number, y: number, side: number) => `M${x} ${y}h${side}v${side}h${-side}Z`;
const backwards = (x: number, y: number, side: number) => `M${x} ${y}v${side}h${side}v${-side}Z`;
const line = { colour: BLUE, width: 3, cap: 'flat', join: 'mitre' } as const;
const left = (path: readonly Vertex[]) => Math.min(...[...flattened(path).ring].filter((_, i) => i % 2 === 0));

describe('a drawing', () => {
  test('neighbours that are painted alike are one piece, others stay in their order', () => {
    const pieces = piecesOf(
      [element(box(0, 0, 9)), element(box(20, 0, 9)), element(box(40, 0, 9), { fill: BLUE }), element(box(60, 0, 9))],
      '',
      200,
    );
    expect(pieces.map(({ fill, paths }) => [fill, paths.length])).toEqual([
      [RED, 2],
      [BLUE, 1],
      [RED, 1],
    ]);
  });

  test('what winds against the first path is a hole; with the even-odd rule all others are', () => {
    const holes = (d: string, evenOdd = false) =>
      piecesOf([element(d, { evenOdd })], '', 200)[0]!.paths.map(({ hole }) => hole);
    expect(holes(box(0, 0, 90) + backwards(20, 20, 9))).toEqual([false, true]);
    expect(holes(box(0, 0, 90) + box(20, 20, 9))).toEqual([false, false]);
    expect(holes(box(0, 0, 90) + box(20, 20, 9), true)).toEqual([false, true]);
    // a hole is not cut into what was there before
    expect(piecesOf([element(box(0, 0, 90)), element(box(9, 9, 50) + backwards(20, 20, 9))], '', 200)).toHaveLength(2);
  });

  test('transforms move paths and scale the width of lines', () => {
    const [piece] = piecesOf(
      [element(box(10, 0, 9), { line, transform: 'translate(5 0) rotate(0)' })],
      'scale(4)',
      200,
    );
    expect(left(piece!.paths[0]!.path)).toBeCloseTo(60, 6);
    expect(piece!.line!.width).toBe(12);
  });

  test('a line stays open; what is filled is closed; what has neither paint is left out', () => {
    const open = 'M0 0L10 0L10 10';
    expect(piecesOf([element(open, { fill: null, line })], '', 200)[0]!.paths[0]!.closed).toBe(false);
    expect(piecesOf([element(open)], '', 200)[0]!.paths[0]!.closed).toBe(true);
    expect(piecesOf([element(open, { fill: null })], '', 200)).toEqual([]);
  });

  test('too many parts are refused in words', () => {
    const many = Array.from({ length: MOST_PIECES + 1 }, (_, i) => element(box(i, 0, 1), { fill: i % 2 ? RED : BLUE }));
    expect(() => piecesOf(many, '', 200)).toThrow(/121 parts in different colours, more than 120/);
    expect(() => piecesOf([element(box(0, 0, 1).repeat(5))], '', 4)).toThrow(/“boat” has 5 separate paths/);
  });

  test('is written with its paints, and names cannot break out of it', () => {
    const figure = {
      name: '<a & "b">',
      d: 'M0 0L1 1',
      evenOdd: true,
      matrix: [2, 0, 0, 2, 5, 6] as const,
      opacity: 0.5,
    };
    const colours = [
      [0, RED],
      [1, BLUE],
    ] as const;
    const svg = writeDrawing({ w: 100, h: 50 }, [{ ...figure, fill: { colours, run: 90 }, line }]);
    expect(svg).toContain('viewBox="-50 -25 100 50"');
    expect(svg).toContain('<linearGradient id="ramp0" x1="0.5" y1="0" x2="0.5" y2="1">');
    expect(svg).toContain('transform="matrix(2 0 0 2 5 6)" fill="url(#ramp0)" stroke="#0000ff" stroke-width="3"');
    expect(svg).toContain('opacity="0.5" fill-rule="evenodd" d="M0 0L1 1"');
    expect(svg).toContain('<title>&#60;a &#38; &#34;b&#34;&#62;</title>');
  });
});
