import { beforeAll, describe, expect, test } from '@jest/globals';
import { firstValues, type PlainValues } from '../../params/registry';
import { coloursThrough, testRig, type RGB, type TestRig } from '../../testing/rig';
import { passOf } from '../registry';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const graded = (type: string, values: PlainValues, colours: readonly RGB[]): RGB[] =>
  coloursThrough(rig, type, values, colours);
const worst = (got: readonly RGB[], want: readonly RGB[]): number =>
  Math.max(...got.flatMap((own, i) => own.map((v, c) => Math.abs(v - want[i]![c]!))));
const luma = ([r, g, b]: RGB): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;
const STEP = 1 / 255;

describe('colour range', () => {
  const RED: RGB = [0.75, 0.16, 0.12];
  test('keeps one picked colour while the rest goes grey', () => {
    const [red, green, blue] = graded('colour-range', { colours: [RED], outSaturation: 0, feather: 0 }, [
      RED,
      [0.2, 0.6, 0.25],
      [0.2, 0.3, 0.7],
    ]);
    expect(worst([red!], [RED])).toBeLessThan(STEP);
    for (const c of [green!, blue!]) expect(Math.max(...c) - Math.min(...c)).toBeLessThan(STEP);
    // kept bright as it was
    expect(green![0]).toBeCloseTo(luma([0.2, 0.6, 0.25]), 2);
  });
  test('belongs less and less beyond its spare room, around the circle too', () => {
    const hues = Array.from({ length: 13 }, (_, i) => (i - 6) * 6);
    const of = (degrees: number): RGB => {
      const h = (((degrees / 60) % 6) + 6) % 6;
      const x = 1 - Math.abs((h % 2) - 1);
      const [r, g, b] =
        h < 1 ? [1, x, 0] : h < 2 ? [x, 1, 0] : h < 3 ? [0, 1, x] : h < 4 ? [0, x, 1] : h < 5 ? [x, 0, 1] : [1, 0, x];
      return [0.2 + 0.4 * r!, 0.2 + 0.4 * g!, 0.2 + 0.4 * b!];
    };
    const values = {
      colours: [of(0)],
      outSaturation: 0,
      hueSpare: 12,
      hueSoft: 18,
      lumaSpare: 1,
      saturationSpare: 1,
      feather: 0,
    };
    graded('colour-range', values, hues.map(of)).forEach((c, i) => {
      const want = Math.min(1, Math.max(0, 1 - (Math.abs(hues[i]!) - 12) / 18));
      expect(Math.abs((Math.max(...c) - Math.min(...c)) / 0.4 - want)).toBeLessThan(0.03);
    });
  });
});

test('what a colour range selects is white where its colours are, black elsewhere, and solid', () => {
  const { params, selection } = passOf('colour-range')!;
  const firsts = Object.fromEntries(
    Object.entries(firstValues(params)).map(([name, value]) => [name, (value as { still: unknown }).still]),
  );
  const red: RGB = [0.8, 0.2, 0.15];
  const values = { ...firsts, feather: 0, colours: [red], ...selection };
  const got = graded('colour-range', values, [red, [0.2, 0.3, 0.8], [0.5, 0.5, 0.5], [0.75, 0.22, 0.15]]);
  got.forEach((c, i) => c.forEach((v) => expect(v).toBeCloseTo([1, 0, 0, 1][i]!, 5)));
});
