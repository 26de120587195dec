import { beforeAll, describe, expect, test } from '@jest/globals';
import { firstValues } from '../params/registry';
import { testRig, wholeFloats, type TestRig } from '../testing/rig';
import type { TextLine } from '../text/fonts';
import type { DrawnSource } from './define';
import { title } from './title';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const SIZE = { w: 120, h: 60 };
const VALUES = Object.fromEntries(
  Object.entries(firstValues(title.params)).map(([name, value]) => [name, (value as { still: unknown }).still]),
);
/** Every letter is a square as tall as a capital, half as far from the next. */
const squares = (text: string): TextLine => ({
  rings: [...text].map((_, i) => Float64Array.of(1.5 * i, -1, 1.5 * i + 1, -1, 1.5 * i + 1, 0, 1.5 * i, 0)),
  ends: [...text].map((_, i) => i + 1),
  starts: [...text].map((_, i) => 1.5 * i),
  stops: [...text].map((_, i) => 1.5 * i + 1),
  width: 1.5 * text.length - 0.5,
  missing: '',
});
function drawn(values: Record<string, unknown>): { at(x: number, y: number): number[]; lines: string[] } {
  const lines: string[] = [];
  const line = (text: string) => (lines.push(text), squares(text));
  const all = { ...VALUES, text: 'ab', height: 20, colour: [0, 0, 1], startColour: [1, 0, 0], ...values };
  const picture = (title as unknown as DrawnSource).draw(all as never, {
    ...rig,
    size: SIZE,
    line,
    picture: () => null,
  });
  const floats = wholeFloats(rig, picture, SIZE);
  picture.release();
  return { lines, at: (x, y) => [...floats.subarray((y * SIZE.w + x) * 4, (y * SIZE.w + x) * 4 + 4)] };
}
// the letters lie from 35 to 55 and from 65 to 85, from 20 to 40
const HALF = { done: 0.5, overlap: 1, opacity: 1 };

describe('a title that arrives', () => {
  test('has half of the other colour half way', () => {
    expect(drawn({}).at(45, 30)).toEqual([0, 0, 1, 1]);
    expect(drawn({ ...HALF, tinted: 1 }).at(45, 30)).toEqual([0.5, 0, 0.5, 1]);
    expect(drawn({ ...HALF, tinted: 0.5 }).at(70, 30)).toEqual([0.25, 0, 0.75, 1]);
    expect(drawn({ ...HALF, tinted: 1 }).at(60, 30)).toEqual([0, 0, 0, 0]);
  });

  test('is blurred as a normal distribution is, and no light of it is lost', () => {
    const { at } = drawn({ ...HALF, text: 'a', startBlur: 8 });
    // one letter from 50 to 70, blurred by 4 pixels: what a normal distribution has of it, by small steps
    const STEPS = 2000;
    const across = (x: number, from: number, to: number): number => {
      let sum = 0;
      for (let i = 0; i < STEPS; i++) sum += Math.exp(-((from + ((to - from) * (i + 0.5)) / STEPS - x) ** 2) / 32);
      return (sum * (to - from)) / STEPS / (4 * Math.sqrt(2 * Math.PI));
    };
    for (const x of [44, 48, 50, 52, 60])
      expect(at(x, 30)[3]).toBeCloseTo(across(x + 0.5, 50, 70) * across(30.5, 20, 40), 1.5);
    let sum = 0;
    for (let y = 0; y < SIZE.h; y++) for (let x = 0; x < SIZE.w; x++) sum += at(x, y)[3]!;
    expect(sum / 400).toBeCloseTo(1, 2);
  });

  test('stands as far apart as its letters begin', () => {
    // ten pixels more between the two, five to either side
    const { at } = drawn({ ...HALF, startApart: 1 });
    expect([at(29, 30)[3], at(30, 30)[3], at(50, 30)[3], at(69, 30)[3], at(70, 30)[3]]).toEqual([0, 1, 0, 0, 1]);
  });
});

test('what it counts stands in its text', () => {
  expect(drawn({ text: 'day #\n#', counter: 'number', count: 3.2, digits: 1 }).lines).toEqual(['day 3.2', '3.2']);
});
