// Grades in files: colour tables and colour decision lists, out, in, and against an interpolation of its own.
import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { WasmExecutor } from '../execute/backends/wasm/executor';
import { MaskStore } from '../execute/backends/wasm/masks';
import { measure } from '../execute/backends/wasm/measure';
import { keepTable, tableKind, type TablePlan } from '../params/table';
import { matteById } from '../masks/matte-data';
import { floatsOf, pictureOf, planned, runPass, testRig, type TestRig } from '../testing/rig';
import { readCdl, writeCdl } from './cdl-file';
import { EMPTY_LINE } from '../text/fonts';
import { latticeOf, readCube, writeCube, type ColourTable } from './cube';

let rig: TestRig;
beforeAll(async () => {
  const own = await testRig(64e6);
  const none = () => Promise.reject(new Error('none'));
  rig = { ...own, masks: new MaskStore(own, none, () => Promise.resolve(EMPTY_LINE), matteById) };
});
type RGB = [number, number, number];
const numbers = (n: number, min: number, max: number) =>
  fc.array(fc.double({ min, max, noNaN: true }), { minLength: n, maxLength: n });
const table = (change: Partial<ColourTable> & Pick<ColourTable, 'size' | 'values'>): ColourTable => ({
  title: 'test',
  dimensions: 3,
  from: [0, 0, 0],
  to: [1, 1, 1],
  ...change,
});
/** A bent look with crossed channels on a lattice. */
const look = ([r, g, b]: RGB): RGB => [r ** 1.2 * 0.9 + 0.05 * b, 0.1 + 0.8 * g, (b * 0.7 + r * 0.2) ** 0.9];
const bent = (size: number): ColourTable => {
  const inputs = latticeOf(size);
  const values = new Float32Array(inputs.length);
  for (let i = 0; i < inputs.length; i += 3) values.set(look([inputs[i]!, inputs[i + 1]!, inputs[i + 2]!]), i);
  return table({ size, values });
};
/** Tetrahedra by sorting the three fractions: another way than the kernel's. */
function between({ size, values, from, to }: ColourTable, colour: RGB): RGB {
  const at = colour.map((v, c) => Math.min(1, Math.max(0, (v - from[c]!) / (to[c]! - from[c]!))) * (size - 1));
  const base = at.map((v) => Math.min(size - 2, Math.floor(v)));
  const parts = at.map((v, c) => v - base[c]!);
  const order = [0, 1, 2].sort((a, b) => parts[b]! - parts[a]!);
  const read = (place: readonly number[]) => {
    const i = 3 * (place[0]! + size * (place[1]! + size * place[2]!));
    return [values[i]!, values[i + 1]!, values[i + 2]!];
  };
  const place = [...base];
  let low = read(place);
  const out = [...low];
  for (const axis of order) {
    place[axis]!++;
    const high = read(place);
    for (let c = 0; c < 3; c++) out[c]! += (high[c]! - low[c]!) * parts[axis]!;
    low = high;
  }
  return out as RGB;
}
function shown(own: ColourTable, colours: readonly RGB[], strength = 1): RGB[] {
  const plan = tableKind.resolve!({} as never, keepTable(own), {} as never, () => null) as TablePlan;
  // the plan finds its values by the name of what is kept
  keptAlive.push(plan);
  const picture = pictureOf(
    rig,
    { x: 0, y: 0, w: colours.length, h: 1 },
    colours.flatMap((c) => [...c, 1]),
  );
  const out = runPass(rig, 'table', { table: plan, strength }, picture);
  const floats = floatsOf(rig, out);
  out.release();
  return colours.map((_, i) => [0, 1, 2].map((c) => floats[i * 4 + c]!) as RGB);
}
const keptAlive: unknown[] = [];
const worst = (a: readonly RGB[], b: readonly RGB[]): number =>
  Math.max(...a.flatMap((own, i) => own.map((v, c) => Math.abs(v - b[i]![c]!))));

describe('a table', () => {
  test('between its points is what tetrahedra make of it', () => {
    const own = bent(9);
    fc.assert(
      fc.property(fc.array(numbers(3, -0.1, 1.1), { minLength: 20, maxLength: 20 }), (colours) => {
        expect(
          worst(
            shown(own, colours as RGB[]),
            colours.map((c) => between(own, c as RGB)),
          ),
        ).toBeLessThan(2e-4);
      }),
      { numRuns: 15 },
    );
  });
  test('of 33 points shows a look to a 255th; half of it is half way', () => {
    const own = bent(33);
    const colours = Array.from({ length: 200 }, (_, i): RGB => [(i % 7) / 6.5, (i % 11) / 10.5, (i % 13) / 12.5]);
    expect(worst(shown(own, colours), colours.map(look))).toBeLessThan(1 / 255);
    const half = shown(own, colours, 0.5);
    expect(
      worst(
        half,
        colours.map((c) => look(c).map((v, k) => (v + c[k]!) / 2) as RGB),
      ),
    ).toBeLessThan(1 / 255);
  });
  test('with other ends of its domain, and with one dimension, is looked up where it says', () => {
    const values = Float32Array.from({ length: 5 * 3 }, (_, i) => [0, 0.1, 0.3, 0.6, 1][Math.floor(i / 3)]!);
    const one = table({ dimensions: 1, size: 5, values, from: [0, 0, 0], to: [0.5, 0.5, 0.5] });
    const [got] = shown(one, [[0.25, 0.125, 0.6]]);
    expect(worst([got!], [[0.3, 0.1, 1]])).toBeLessThan(2e-3);
  });
});

describe('a grade', () => {
  test.each([
    [33, 1],
    [65, 1],
  ])('saved as a table of %d points and put on again is the grade, to %d 255ths', async (size, steps) => {
    const own = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no pictures here')));
    const plans = [
      { type: 'tone', values: { exposure: 0.3, contrast: 0.1, shoulder: 0.4, darkColour: 0.7 } },
      { type: 'wheels', values: { lift: [-0.1, 0.1, 0.12], gain: [0.2, 0, 0.05] } },
      { type: 'colour', values: { saturation: 0.85, hue: 6 } },
    ].map(({ type, values }, i) => ({
      id: `p${i}` as never,
      type,
      values: planned(type, values),
      area: null,
      key: `k${i}`,
    }));
    const saved = await measure(own, null, 'gradeTable', { passes: plans, size, title: 'mine' });
    const colours = Array.from({ length: 300 }, (_, i): RGB => [
      0.1 + (i % 17) / 21,
      0.1 + (i % 19) / 24,
      0.1 + (i % 23) / 28,
    ]);
    let direct = pictureOf(
      rig,
      { x: 0, y: 0, w: colours.length, h: 1 },
      colours.flatMap((c) => [...c, 1]),
    );
    for (const { type, values } of plans) direct = runPass(rig, type, values, direct);
    const floats = floatsOf(rig, direct);
    direct.release();
    const want = colours.map((_, i) => [0, 1, 2].map((c) => floats[i * 4 + c]!) as RGB);
    const back = readCube(writeCube(saved), 'mine.cube');
    expect(worst(shown(back, colours), want)).toBeLessThan(steps / 255);
    expect(back.title).toBe('mine');
  });
});

describe('.cube files', () => {
  test('what is written is read again', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 6 }),
        fc.constantFrom<1 | 3>(1, 3),
        fc.integer(),
        (size, dimensions, seed) => {
          let state = seed;
          const values = Float32Array.from(
            { length: 3 * (dimensions === 1 ? size : size ** 3) },
            () => ((state = (Math.imul(state, 1664525) + 1013904223) | 0) >>> 8) / 16777216,
          );
          const own = table({ size, dimensions, values, from: [-0.1, 0, 0], to: [1, 1, 1.5] });
          const back = readCube(writeCube(own), 'own.cube');
          expect({ ...back, values: 0 }).toEqual({ ...own, values: 0 });
          back.values.forEach((v, i) => expect(Math.abs(v - values[i]!)).toBeLessThan(1e-6));
        },
      ),
      { numRuns: 30 },
    );
  });
  test.each([
    ['LUT_3D_SIZE 2\n0 0 0\n1 x 1\n', /line 3: “x” is not a number/],
    ['LUT_3D_SIZE 2\n0 0 0\nNaN 0 0\n', /line 3: “NaN” is not a number/],
    ['LUT_3D_SIZE 2\n0 0\n', /line 2: three numbers are wanted, and there are 2/],
    ['LUT_3D_SIZE 2\n0 0 0\n', /there are 1 values, and its size asks for 8/],
    ['LUT_1D_SIZE 2\n0 0 0\n1 1 1\n1 1 1\n', /line 4: there are more values than the 2/],
    ['LUT_3D_SIZE 4096\n', /line 1: its size “4096” is not a whole number of 2 to 129/],
    [
      'LUT_3D_SIZE 2\nDOMAIN_MIN 1 0 0\n0 0 0\n1 0 0\n0 1 0\n1 1 0\n0 0 1\n1 0 1\n0 1 1\n1 1 1\n',
      /its domain is empty/,
    ],
    ['hello\n', /line 1: “hello” is neither a known word nor values/],
    ['# nothing\n', /no LUT_1D_SIZE or LUT_3D_SIZE/],
    ['0 0 0\n', /line 1: values come before/],
  ])('a bad one says where: %j', (text, says) => {
    expect(() => readCube(text, 'bad.cube')).toThrow(says);
  });
});

describe('colour decision lists', () => {
  test.each(['cc', 'ccc', 'cdl'] as const)('%s files keep every number', (kind) => {
    fc.assert(
      fc.property(
        numbers(3, 0, 4),
        numbers(3, -1, 1),
        numbers(3, 0.1, 4),
        fc.double({ min: 0, max: 4, noNaN: true }),
        fc.string(),
        (slope, offset, power, saturation, id) => {
          // nothing below nothing is nothing
          const cdl = { slope, offset: offset.map((v) => v + 0), power, saturation } as never;
          const [read, more] = readCdl(writeCdl(kind, id.replaceAll(/[<>&"]/g, ''), cdl), 'own.cdl');
          expect(read!.cdl).toEqual(cdl);
          expect(more).toBeUndefined();
        },
      ),
      { numRuns: 30 },
    );
  });
  test('are refused with what is wrong', () => {
    expect(() => readCdl('<a/>', 'x.cdl')).toThrow(/holds no ColorCorrection/);
    const cc = writeCdl('cc', 'scene', { slope: [1, 1, 1], offset: [0, 0, 0], power: [1, 1, 1], saturation: 1 });
    expect(() => readCdl(cc.replace('1 1 1', '1 1'), 'x.cc')).toThrow(/Slope of correction “scene” is not 3 numbers/);
    expect(() => readCdl(cc.replace('<Power>1 1 1', '<Power>0 1 1'), 'x.cc')).toThrow(/power that is not above 0/);
  });
});
