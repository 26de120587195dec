import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { WasmExecutor } from '../execute/backends/wasm/executor';
import { planFrame } from '../plan/plan';
import { newPass } from '../document/edits/passes';
import { newMask } from '../document/mask';
import type { PassId } from '../document/schema';
import { still } from '../base/value';
import { toDisplay, toLinear } from '../picture/light';
import { medianOf } from '../execute/backends/wasm/plates';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';
import { colourSource, layerOf, projectOf, SHOT } from '../testing/documents';
import type { PlainValues } from '../params/registry';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});
const [W, H] = [64, 48];
const rect = { x: 0, y: 0, w: W, h: H };
type Pixel = readonly [number, number, number, number];
const from = (at: (x: number, y: number) => Pixel) =>
  pictureOf(rig, rect, Array.from({ length: W * H }, (_, i) => at(i % W, Math.floor(i / W))).flat());
function run(type: string, values: PlainValues, at: (x: number, y: number) => Pixel) {
  const out = runPass(rig, type, values, from(at));
  const floats = floatsOf(rig, out);
  const own = out.rect;
  out.release();
  return (x: number, y: number) => [...floats.subarray(((y - own.y) * own.w + x - own.x) * 4).subarray(0, 4)];
}
/** A disc of a colour, with a soft rim six pixels wide whose colour is another one. */
const disc =
  (solid: readonly number[], rim: readonly number[]) =>
  (x: number, y: number): Pixel => {
    const alpha = Math.min(1, Math.max(0, (18 - Math.hypot(x - 32, y - 24)) / 6));
    const colour = alpha >= 0.97 ? solid : rim;
    return [colour[0]! * alpha, colour[1]! * alpha, colour[2]! * alpha, alpha];
  };

describe('edge work', () => {
  test('edge colour gives the soft rim the colour of the solid part, and leaves its coverage', () => {
    const at = run('refine-edge', { edgeColour: 10 }, disc([0.8, 0.3, 0.2], [0.2, 0.9, 0.3]));
    const [r, g, b, a] = at(32 + 15, 24);
    expect(a).toBeCloseTo(0.5, 5);
    [0.8, 0.3, 0.2].forEach((v, c) => expect(Math.abs([r!, g!, b!][c]! / a! - v)).toBeLessThan(0.03));
  });

  test('pixels are sorted by their coverage: clear, borrowing, lending, and lending beside the edge', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.integer({ min: 0, max: 999 }), { minLength: 480, maxLength: 480 }),
        fc.constantFrom(0, 10, 700),
        fc.constantFrom([1, 0], [-1, 0], [0, 1], [0, -1], [0, 0]),
        (w, h, chances, filled, [right, down]) => {
          // nothing, specks or much of it solid, and half of the picture on one side; some of the others partly clear
          const half = (i: number) => ((i % w) - w / 2) * right! + (Math.floor(i / w) - h / 2) * down! > 0;
          const alphas = chances.map((v, i) =>
            half(i) || v < filled ? (v < 500 ? 1 : 0.97) : v < filled * 1.3 ? 0.969 : 0,
          );
          const picture = pictureOf(
            rig,
            { x: 0, y: 0, w, h },
            Array.from({ length: w * h }, (_, i) => [0, 0, 0, alphas[i]!]).flat(),
          );
          const marks = rig.arena.scratch(w * h + 32, (at) => {
            rig.kernels.edgeMarks(picture.at, w * h, at);
            rig.kernels.besideMarks(at, w, h);
            return [...rig.arena.bytes(at, w * h)];
          });
          picture.release();
          const solid = (x: number, y: number) => x >= 0 && y >= 0 && x < w && y < h && alphas[y * w + x]! >= 0.97;
          // an edge is a pixel that is not solid with a solid one at one of its sides; solid ones up to two away are beside it
          const edge = (x: number, y: number) =>
            x >= 0 &&
            y >= 0 &&
            x < w &&
            y < h &&
            !solid(x, y) &&
            (solid(x - 1, y) || solid(x + 1, y) || solid(x, y - 1) || solid(x, y + 1));
          const near = [-2, -1, 0, 1, 2];
          const wanted = Array.from({ length: w * h }, (_, i) => {
            const [x, y] = [i % w, Math.floor(i / w)];
            if (solid(x, y)) return near.some((dy) => near.some((dx) => edge(x + dx, y + dy))) ? 3 : 1;
            return alphas[i]! > 0 ? 2 : 0;
          });
          expect(marks).toEqual(wanted);
        },
      ),
    );
  });

  test('refining shrinks what was cut out, whatever made it', () => {
    const at = run('refine-edge', { shrink: 4 }, disc([0.5, 0.5, 0.5], [0.5, 0.5, 0.5]));
    expect(at(32 + 15, 24)[3]).toBeLessThan(0.02);
    expect(at(32, 24)).toEqual([0.5, 0.5, 0.5, 1]);
  });

  test.each([
    ['outside', 18, 14],
    ['inside', 12, 17],
  ])('an outline %s lies there', (side, on, off) => {
    const hard = (x: number, y: number): Pixel =>
      Math.hypot(x + 0.5 - 32, y + 0.5 - 24) < 16 ? [0.2, 0.2, 0.2, 1] : [0, 0, 0, 0];
    const at = run('outline', { width: 5, side, feather: 1, colour: [[1, 0.5, 0]] }, hard);
    expect(at(32 + on, 24).slice(0, 3)).toEqual([1, 0.5, 0]);
    expect(at(32 + off, 24)[1]).not.toBe(0.5);
    const alone = run('outline', { width: 5, side, alone: 'line' }, hard);
    expect(alone(32, 24)).toEqual([0, 0, 0, 0]);
  });

  const round = (x: number, y: number): Pixel =>
    Math.hypot(x + 0.5 - 32, y + 0.5 - 24) < 12 ? [0.2, 0.2, 0.2, 1] : [0, 0, 0, 0];
  const LINE = { width: 4, feather: 1, alone: 'line', colour: [[1, 0.5, 0]] };

  test('an outline is moved off the edge: a gap is left, and it is as wide as before', () => {
    const at = run('outline', { ...LINE, off: 3 }, round);
    const along = Array.from({ length: 20 }, (_, i) => at(32 + i, 24)[3]!);
    // the edge is 12 away; the line from 15 to 19
    expect(along.slice(0, 14).every((alpha) => alpha === 0)).toBe(true);
    expect(along.slice(16, 18)).toEqual([1, 1]);
    expect(along.reduce((sum, alpha) => sum + alpha, 0)).toBeCloseTo(4, 0);
  });

  test('its outer rim alone fades', () => {
    const at = run('outline', { ...LINE, fade: 8 }, round);
    const along = Array.from({ length: 24 }, (_, i) => at(32 + i, 24)[3]!);
    expect(along[11]!).toBeLessThan(0.6);
    expect(along[13]!).toBeGreaterThan(0.7);
    // half of it where the line ends without fading
    expect(along[16]!).toBeLessThan(0.5);
    expect(along[14]!).toBeGreaterThan(along[17]!);
    expect(along[17]!).toBeGreaterThan(along[19]!);
    expect(along[22]).toBe(0);
  });

  test('colours go across it from the inner edge to the outer one', () => {
    const colours = [
      [0, [1, 0, 0]],
      [1, [0, 0, 1]],
    ];
    const at = run('outline', { width: 8, feather: 1, filled: 'colours', colours }, round);
    const [near, far] = [at(32 + 13, 24), at(32 + 18, 24)];
    // 1.5 and 6.5 of 8 pixels out
    expect(near[0]!).toBeCloseTo(1 - 1.5 / 8, 1);
    expect(far[2]!).toBeCloseTo(6.5 / 8, 1);
    expect(at(32, 24).slice(0, 3)).toEqual([0.2, 0.2, 0.2].map((v) => expect.closeTo(v, 5)));
  });

  test('it runs around what is brighter than said, in a picture without an edge', () => {
    const lamp = (x: number, y: number): Pixel => (round(x, y)[3] ? [0.8, 0.8, 0.8, 1] : [0.3, 0.3, 0.3, 1]);
    const at = (bright: number) => run('outline', { ...LINE, edge: 'bright', bright }, lamp);
    expect(at(0.5)(32 + 14, 24)[3]).toBe(1);
    expect(at(0.5)(32, 24)[3]).toBe(0);
    expect(at(0.9)(32 + 14, 24)[3]).toBe(0);
  });
});

describe('spill', () => {
  const green = [0.3, 0.66, 0.35] as const;
  /** A grey card with green light on it, in front of a green screen. */
  const spilled = [0.5, 0.53, 0.5] as const;
  const scene = (x: number, y: number): Pixel =>
    [...(x > 16 && x < 48 && y > 12 && y < 36 ? spilled : green), 1] as unknown as Pixel;
  const luminance = ([r, g, b]: number[]) => 0.2126 * toLinear(r!) + 0.7152 * toLinear(g!) + 0.0722 * toLinear(b!);

  test('goes down to the larger of the others, or to their mean', () => {
    expect(run('colour-key', { screen: [green] }, scene)(32, 24)[1]).toBeCloseTo(0.5, 2);
    const warm = (x: number, y: number): Pixel => (scene(x, y)[0] === spilled[0] ? [0.6, 0.62, 0.3, 1] : scene(x, y));
    expect(run('colour-key', { screen: [green] }, warm)(32, 24)[1]).toBeCloseTo(0.6, 2);
    const mean = toDisplay((toLinear(0.6) + toLinear(0.3)) / 2);
    expect(run('colour-key', { screen: [green], limit: 'average' }, warm)(32, 24)[1]).toBeCloseTo(mean, 2);
  });

  test('what replaces it is as bright as it was', () => {
    const choices: PlainValues[] = [{ replace: 'grey' }, { replace: 'colour', replacement: [[0.2, 0.3, 0.7]] }];
    for (const replace of choices) {
      const [r, g, b] = run('colour-key', { screen: [green], ...replace }, scene)(32, 24);
      expect(Math.abs(luminance([r!, g!, b!]) - luminance([...spilled]))).toBeLessThan(0.01);
      if (replace['replace'] === 'colour') expect(b).toBeGreaterThan(r! + 0.01);
      else expect(Math.abs(b! - r!)).toBeLessThan(0.005);
    }
  });
});

describe('keys with others', () => {
  const at = { card: 'card' as never, shot: SHOT };
  const key = (id: string, type: string, values: Record<string, unknown>) => {
    const made = newPass(id as PassId, type);
    return {
      ...made,
      values: {
        ...made.values,
        ...Object.fromEntries(Object.entries(values).map(([name, value]) => [name, still(value)])),
      },
    };
  };
  async function alpha(
    passes: ReturnType<typeof key>[],
    colour: [number, number, number],
    masks: ReturnType<typeof newMask>[] = [],
  ) {
    const project = projectOf([layerOf('card', colourSource(colour), { passes, masks })], { background: null });
    const executor = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no stock')));
    // twice, the second time from what is kept
    for (let i = 0; i < 2; i++) {
      const picture = await executor.frame(planFrame(project, at.shot, 0));
      const floats = floatsOf(rig, picture);
      picture.release();
      if (i === 1) return floats[3]!;
    }
    return NaN;
  }

  test('keep masks are solid and drop masks are clear, whatever a key says', async () => {
    const all = newMask('all' as never, 'all', {
      kind: 'rectangle',
      centre: still([0, 0] as [number, number]),
      size: still([200, 200] as [number, number]),
      rotation: still(0),
      radius: still(0),
    });
    const green: [number, number, number] = [0.3, 0.66, 0.35];
    expect(await alpha([key('a', 'colour-key', { screen: [green] })], green)).toBe(0);
    expect(await alpha([key('a', 'colour-key', { screen: [green], keep: ['all'] })], green, [all])).toBe(1);
    expect(await alpha([key('a', 'colour-key', { screen: [green], drop: ['all'] })], [0.5, 0.5, 0.5], [all])).toBe(0);
  });

  test.each([
    ['brightness-key', { keep: 'dark' }, [0.9, 0.9, 0.9], [0.1, 0.1, 0.1]],
    ['hue-key', { hue: 0, softness: 5 }, [0.2, 0.3, 0.9], [0.9, 0.2, 0.2]],
  ] as const)('masks overrule a %s too, outside of them it is as it was', async (type, values, goes, stays) => {
    const left = newMask('left' as never, 'left', {
      kind: 'rectangle',
      centre: still([-16, 0] as [number, number]),
      size: still([32, 40] as [number, number]),
      rotation: still(0),
      radius: still(0),
    });
    const seen = async (colour: readonly [number, number, number], more: Record<string, unknown>) => {
      const project = projectOf(
        [
          layerOf('card', colourSource([...colour]), {
            passes: [key('a', type, { ...values, ...more })],
            masks: [left],
          }),
        ],
        { background: null },
      );
      const picture = await new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no stock'))).frame(
        planFrame(project, at.shot, 0),
      );
      const floats = floatsOf(rig, picture);
      picture.release();
      return [floats[(18 * 64 + 8) * 4 + 3], floats[(18 * 64 + 56) * 4 + 3]];
    };
    expect(await seen(goes, {})).toEqual([0, 0]);
    expect(await seen(goes, { solid: ['left'] })).toEqual([1, 0]);
    expect(await seen(stays, { clear: ['left'] })).toEqual([0, 1]);
  });

  test('a key that keeps what either keeps sees the picture before the first one', async () => {
    const green: [number, number, number] = [0.3, 0.66, 0.35];
    const second = { screen: [[0.2, 0.3, 0.8]] };
    // the second key finds the green solid
    for (const [combine, want] of [
      ['multiply', 0],
      ['max', 1],
      ['min', 0],
    ] as const) {
      expect(
        await alpha(
          [key('a', 'colour-key', { screen: [green] }), key('b', 'colour-key', { ...second, combine })],
          green,
        ),
      ).toBe(want);
    }
  });

  test('keys of every kind go together', async () => {
    const bright: [number, number, number] = [0.9, 0.85, 0.8];
    // a hue key that drops nothing here, and a brightness key that drops what is bright
    const [hue, dark] = [key('a', 'hue-key', { hue: 120 }), { keep: 'dark', threshold: 0.5 }];
    expect(await alpha([hue, key('b', 'brightness-key', dark)], bright)).toBe(0);
    const alone = await alpha([hue], bright);
    for (const [combine, want] of [
      ['max', Math.max(alone, 0)],
      ['min', 0],
    ] as const)
      expect(await alpha([hue, key('b', 'brightness-key', { ...dark, combine })], bright)).toBe(want);
    expect(
      await alpha([key('a', 'brightness-key', dark), key('b', 'brightness-key', { combine: 'max' })], bright),
    ).toBe(1);
  });
});

describe('light wrap', () => {
  const wrapped = async (strength: number) => {
    const pass = newPass('wrap' as PassId, 'light-wrap');
    const card = layerOf('card', colourSource([0.2, 0.2, 0.2], 32, 36), {
      passes: [{ ...pass, values: { reach: still(8), strength: still(strength) } }],
    });
    const project = projectOf([card, layerOf('sky', colourSource([0.3, 0.5, 0.9]))], { background: null });
    const executor = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no stock')));
    const picture = await executor.frame(planFrame(project, SHOT, 0));
    const floats = floatsOf(rig, picture);
    picture.release();
    return (x: number, y: number) => [...floats.subarray((y * 64 + x) * 4, (y * 64 + x) * 4 + 3)];
  };

  test('nothing without strength; with it, the light below comes in over the edge and fades', async () => {
    const [off, on] = [await wrapped(0), await wrapped(1)];
    expect(off(16, 18)[2]).toBeCloseTo(0.2, 3);
    expect(on(5, 18)).toEqual(off(5, 18));
    expect(on(17, 18)[2]).toBeGreaterThanOrEqual(on(22, 18)[2]!);
  });
});

test('a median over frames is the one that shows most', () => {
  const frames = [10, 10, 200, 10, 30].map((v) => Uint8Array.of(v, 255 - v));
  expect([...medianOf(rig, frames)]).toEqual([10, 245]);
});

describe('difference key', () => {
  test('without a plate it changes nothing', () => {
    expect(run('difference-key', {}, () => [0.4, 0.5, 0.6, 1])(5, 5).map((v) => Math.round(v * 100) / 100)).toEqual([
      0.4, 0.5, 0.6, 1,
    ]);
  });
});
