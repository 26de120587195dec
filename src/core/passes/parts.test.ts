// Facts that hold for every pass there is, made from the registry: parts of a picture computed alone, and what a crop before it changes.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { PictureCache } from '../execute/cache';
import { MaskStore } from '../execute/backends/wasm/masks';
import { layerSpace, runPasses } from '../execute/backends/wasm/passes';
import { PlateStore } from '../execute/backends/wasm/plates';
import type { CoveragePlan } from '../masks/coverage';
import { Picture } from '../picture/picture';
import type { Rect } from '../picture/rect';
import { NO_MASKS, pictureOf, testRig, type TestRig } from '../testing/rig';
import type { NumberParam } from '../params/number';
import type { Param, PlainValues } from '../params/registry';
import { latticeOf } from '../formats/cube';
import { matteId } from '../masks/matte-data';
import { keepTable } from '../params/table';
import type { PlatePlan } from '../params/plate';
import type { AnyPass } from './define';
import { trackNow } from '../testing/moving';
import { EMPTY_LINE } from '../text/fonts';
import { PASSES } from './registry';

// taken once: looking globals up is slow where tests run
const { abs, floor, max } = Math;
const SIZE = { w: 96, h: 72 };
const WHOLE: Rect = { x: 0, y: 0, ...SIZE };
/** A part that touches no border, and one in the corner. */
const PARTS: Rect[] = [
  { x: 34, y: 26, w: 24, h: 18 },
  { x: 0, y: 0, w: 30, h: 22 },
  { x: 61, y: 49, w: 35, h: 23 },
];

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
  // a plate like the screen of the picture below, with its own unevenness
  const data = Uint8ClampedArray.from({ length: SIZE.w * SIZE.h * 4 }, (_, i) =>
    i % 4 === 3 ? 255 : i % 4 === 1 ? 170 + ((i >> 2) % SIZE.w) / 3 : 70,
  );
  rig = {
    ...rig,
    plates: new PlateStore(rig, () => Promise.resolve({ data, width: SIZE.w, height: SIZE.h })),
    masks: new MaskStore(
      rig,
      () => Promise.reject(new Error('none')),
      () => Promise.resolve(EMPTY_LINE),
      // no document holds the table here
      (id) => (id === TABLE.id ? KEPT.data : undefined),
    ),
  };
});

const noise = (x: number, y: number, c: number) =>
  ((((x * 73856093) ^ (y * 19349663) ^ (c * 83492791)) >>> 8) % 1000) / 1000;
/** A textured disc before a green screen, with a soft edge, a hole and a half clear corner. */
const pixel = (x: number, y: number): number[] => (x >= 0 && x < SIZE.w && PIXELS[y * SIZE.w + x]) || pixelAt(x, y);
function pixelAt(x: number, y: number): number[] {
  const far = Math.hypot(x - 46, y - 38);
  const cover = Math.min(1, Math.max(0, (27 - far) / 5)) * (Math.hypot(x - 52, y - 30) < 3 ? 0 : 1);
  const subject = [0.75 + 0.2 * noise(x, y, 0), 0.4 + 0.2 * noise(x, y, 1), 0.3];
  const screen = [0.27, 0.67 + x / 900, 0.28];
  const alpha = x + y < 20 ? 0.5 : 1;
  return [...screen.map((v, c) => (v * (1 - cover) + subject[c]! * cover) * alpha), alpha];
}
const PIXELS = Array.from({ length: SIZE.w * SIZE.h }, (_, i) => pixelAt(i % SIZE.w, floor(i / SIZE.w)));
const cutOut = ({ x, y, w, h }: Rect, shift = { x: 0, y: 0 }): Picture =>
  pictureOf(
    rig,
    { x: x - shift.x, y: y - shift.y, w, h },
    Array.from({ length: w * h }, (_, i) => pixel(x + (i % w), y + Math.floor(i / w))).flat(),
  );

const DISC: CoveragePlan = {
  masks: [
    {
      mode: 'add',
      invert: false,
      opacity: 0.8,
      feather: 6,
      featherSide: 'both',
      grow: 1,
      shape: { kind: 'ellipse', centre: [-4, 2], size: [50, 40], rotation: 12 },
    },
  ],
  side: 'inside',
  scale: 1,
  centre: [SIZE.w / 2, SIZE.h / 2],
};
const PLATE: PlatePlan = { stock: 'clean', name: 'clean', file: 'clean', seconds: [0] };

const TRACK = trackNow(SIZE);
/** A lattice that exchanges the ends of each channel. */
const KEPT = keepTable({
  title: 'turned',
  dimensions: 3,
  size: 3,
  from: [0, 0, 0],
  to: [1, 1, 1],
  values: latticeOf(3).map((v) => 1 - v),
});
const TABLE = { ...KEPT, data: undefined, id: matteId(KEPT.data) };
/** A value for a parameter: its default, or one somewhere on its slider. */
function valueFor(
  param: Param,
  dice: (() => number) | null,
  odd: boolean,
  fitted?: readonly [number, number],
): PlainValues[string] {
  if (param.kind === 'track') return dice ? TRACK.now : { ...TRACK.now, name: '' };
  if (param.kind === 'masks') return dice && odd ? DISC : NO_MASKS;
  if (param.kind === 'plate') return odd ? PLATE : null;
  if (param.kind === 'samples') return param.default.length ? param.default : [[0.27, 0.7, 0.28]];
  if (param.kind === 'table') return dice ? TABLE : null;
  if (param.kind === 'wheel')
    return dice ? [0.6 * dice() - 0.3, 0.6 * dice() - 0.3, 0.4 * dice() - 0.2] : param.default;
  if (param.kind === 'curve')
    return dice
      ? [
          [0, 0.1 * dice()],
          [0.4, 0.3 + 0.3 * dice()],
          [1, 0.9],
        ]
      : param.default;
  if (param.kind === 'choice')
    return dice ? param.options[Math.floor(dice() * param.options.length)]!.value : param.default;
  // corners and ends of lines, each a little off where a new one begins
  if (param.kind === 'point')
    return dice && fitted ? [fitted[0] + SIZE.w / 2 + 3 * dice(), fitted[1] + SIZE.h / 2 + 4 * dice()] : param.default;
  if (param.kind !== 'number' || !dice || dice() < 0.4) return param.default;
  const [from, to] = param.slider;
  // what is measured in pixels stays small beside the picture
  return param.unit === 'px'
    ? Math.max(param.min, Math.min(6, Math.abs(to)) * dice() * Math.sign(to))
    : from + (to - from) * dice();
}
const diceOf = (seed: number) => () => (seed = (seed * 16807) % 2147483647) / 2147483647;

interface Case {
  name: string;
  pass: AnyPass;
  values: PlainValues;
}
const CASES: Case[] = PASSES.flatMap((pass, index) =>
  [0, 1, 2, 3, 4].map((seed) => {
    const dice = seed ? diceOf(1000 * index + 7919 * seed) : null;
    const values = Object.fromEntries(
      Object.entries(pass.params).map(([name, param]) => [
        name,
        valueFor(param, dice, seed % 2 === 1, pass.fitted?.(SIZE)[name] as [number, number] | undefined),
      ]),
    );
    return {
      name: `${pass.type} ${seed ? `with dials of seed ${seed}` : 'at its defaults'}`,
      pass,
      values: { ...values, ...('combine' in values ? { combine: 'multiply' } : {}) },
    };
  }),
);

/** Runs a pass over a part of the source. @returns what it gives at a place of the source */
async function run(
  { pass, values }: Case,
  picture: Picture,
  shift = { x: 0, y: 0 },
  area: CoveragePlan | null = null,
  size = SIZE,
): Promise<(x: number, y: number) => number[]> {
  const moment = 'moment' in pass && pass.moment ? pass.moment(values as never, 5, 1) : {};
  const moments = 'moments' in pass ? pass.moments!({ ...values, ...moment } as never).map(() => 'another') : [];
  const plan = { id: 'p' as never, type: pass.type, values: { ...values, ...moment }, area, moments, key: 'k' };
  // at all other moments there is an even, half clear orange
  const another = Picture.make(rig.arena, { x: -shift.x, y: -shift.y, ...size });
  rig.kernels.fill(another.at, another.pixels, 0.45, 0.2, 0.05, 0.5);
  const space = { ...layerSpace(rig, size), moment: () => another };
  await rig.plates.prepare([plan], size);
  const out = runPasses({ ...rig, cache: new PictureCache<Picture>(0) }, space, [plan], picture, 'last');
  const floats = rig.arena.floats(out.at, out.pixels * 4).slice();
  const { rect } = out;
  out.release();
  another.release();
  return (x, y) => {
    const [u, v] = [x - shift.x - rect.x, y - shift.y - rect.y];
    if (u < 0 || v < 0 || u >= rect.w || v >= rect.h) return [0, 0, 0, 0];
    const at = (v * rect.w + u) * 4;
    return [floats[at]!, floats[at + 1]!, floats[at + 2]!, floats[at + 3]!];
  };
}
const reachOf = ({ pass, values }: Case): number => ('run' in pass ? pass.reach(values as never) : 0);
const grownWithin = ({ x, y, w, h }: Rect, by: number): Rect => {
  const [x0, y0, x1, y1] = [
    Math.max(0, x - by),
    Math.max(0, y - by),
    Math.min(SIZE.w, x + w + by),
    Math.min(SIZE.h, y + h + by),
  ];
  return { x: x0, y: y0, w: x1 - x0, h: y1 - y0 };
};

describe('any part of a picture, computed with as much around it as the pass says it reads, is that part of the whole', () => {
  test.each(CASES.filter((item) => Number.isFinite(reachOf(item))))('$name', async (item) => {
    const whole = await run(item, cutOut(WHOLE));
    for (const part of PARTS) {
      const alone = await run(item, cutOut(grownWithin(part, Math.ceil(reachOf(item)))));
      for (let y = part.y; y < part.y + part.h; y++) {
        for (let x = part.x; x < part.x + part.w; x++) {
          const [want, got] = [whole(x, y), alone(x, y)];
          for (let c = 0; c < 4; c++)
            if (Math.abs(want[c]! - got[c]!) > 2e-3)
              throw new Error(
                `at ${x},${y}: ${got.map((v) => v.toFixed(4)).join(' ')} instead of ${want.map((v) => v.toFixed(4)).join(' ')}`,
              );
        }
      }
    }
  });
});

const differing = (
  a: (x: number, y: number) => number[],
  b: (x: number, y: number) => number[],
  { x: x0, y: y0, w, h }: Rect,
): number[] =>
  Array.from({ length: w * h }, (_, i) => {
    const [x, y] = [x0 + (i % w), y0 + floor(i / w)];
    const [p, q] = [a(x, y), b(x, y)];
    return max(abs(p[0]! - q[0]!), abs(p[1]! - q[1]!), abs(p[2]! - q[2]!), abs(p[3]! - q[3]!));
  }).sort((p, q) => p - q);
// the other facts hold for a pass that does nothing, too. What wraps light works where layers are mixed; what lies on a floor is behind this picture
test.each(PASSES.filter(({ type }) => !['light-wrap', 'cast-shadow'].includes(type)))(
  '$type changes the picture',
  async (pass) => {
    const same = (x: number, y: number) => pixel(x, y);
    const most: number[] = [];
    for (const item of CASES.filter((other) => other.pass === pass))
      most.push(differing(await run(item, cutOut(WHOLE)), same, WHOLE).at(-1)!);
    expect(Math.max(...most)).toBeGreaterThan(0.02);
  },
);

const CROP: Rect = { x: 10, y: 7, w: 70, h: 55 };
/** Passes that make a model of their picture when they are given no plate. */
const models = ({ pass, values }: Case): boolean =>
  reachOf({ name: '', pass, values }) === Infinity && values['plate'] === null;

describe('after a crop a pass sees the same pixels, plates and masks at the same places', () => {
  // computed from the cropped picture where it lies, and once more where only those pixels of the source are left, the rest clear
  test.each(CASES.filter((item) => !models(item)))('$name', async (item) => {
    const inside = (x: number, y: number) => x >= CROP.x && y >= CROP.y && x < CROP.x + CROP.w && y < CROP.y + CROP.h;
    const kept = pictureOf(
      rig,
      WHOLE,
      Array.from({ length: SIZE.w * SIZE.h }, (_, i) =>
        inside(i % SIZE.w, Math.floor(i / SIZE.w)) ? pixel(i % SIZE.w, Math.floor(i / SIZE.w)) : [0, 0, 0, 0],
      ).flat(),
    );
    const [cropped, padded] = [await run(item, cutOut(CROP)), await run(item, kept)];
    // away from the cut: beyond it lies a border that is repeated, or clear pixels
    const reach = reachOf(item);
    const margin = Number.isFinite(reach) ? Math.ceil(reach) : 14;
    const differences = differing(cropped, padded, {
      x: CROP.x + margin,
      y: CROP.y + margin,
      w: CROP.w - 2 * margin,
      h: CROP.h - 2 * margin,
    });
    expect(differences.length).toBeGreaterThan(100);
    expect(differences[Math.floor(differences.length * 0.99)]).toBeLessThan(Number.isFinite(reach) ? 2e-3 : 0.06);
  });

  test.each(CASES.filter(models))(
    '$name, which models its own picture, gives the same wherever that lies',
    async (item) => {
      const plain = {
        ...item,
        values: Object.fromEntries(
          Object.entries(item.values).map(([name, value]) => [
            name,
            item.pass.params[name]!.kind === 'masks' ? NO_MASKS : value,
          ]),
        ),
      };
      const shift = { x: CROP.x, y: CROP.y };
      const differences = differing(await run(plain, cutOut(CROP)), await run(plain, cutOut(CROP, shift), shift), CROP);
      expect(differences.at(-1)).toBeLessThan(1e-4);
    },
  );
});

/** Values with which a pass is idle: of its numbers those that are nothing, or its defaults. */
function neutralOf(pass: AnyPass): PlainValues | null {
  const params = Object.entries(pass.params);
  const numbers = params.filter(([, param]) => param.kind === 'number').map(([name]) => name);
  const bare = Object.fromEntries(params.map(([name, param]) => [name, valueFor(param, null, false)]));
  for (let choice = 0; choice < 2 ** numbers.length; choice++) {
    const values = { ...bare };
    numbers.forEach((name, i) => {
      const param = pass.params[name] as NumberParam;
      if (!((choice >> i) & 1)) values[name] = Math.min(param.max, Math.max(param.min, 0));
    });
    if (pass.idle?.(values as never)) return values;
  }
  return null;
}
const original = (x: number, y: number) => pixel(x, y);

describe('where the dials of a pass say nothing, and just beside that, the picture stays as it is', () => {
  // what is rolled out at one side comes in at the other
  test.each(PASSES.filter((pass) => pass.type !== 'repeat' && neutralOf(pass)))('$type', async (pass) => {
    const values = neutralOf(pass)!;
    const idle = await run({ name: '', pass, values }, cutOut(WHOLE));
    expect(differing(idle, original, WHOLE).at(-1)).toBeLessThan(1e-6);
    for (const [name, param] of Object.entries(pass.params)) {
      if (param.kind !== 'number') continue;
      const beside = (values[name] as number) + (param.slider[1] - param.slider[0]) * 1e-4;
      const item = { name: '', pass, values: { ...values, [name]: Math.min(param.max, beside) } };
      const most = differing(await run(item, cutOut(WHOLE)), original, WHOLE).at(-1)!;
      // a crop of a part of a pixel takes that part
      if (most > (pass.type === 'crop' ? beside + 0.01 : 0.02))
        throw new Error(`${name} just beside nothing changes a pixel by ${most.toFixed(3)}`);
    }
  });
});

describe('in an area a pass works as far as the area covers', () => {
  test.each(CASES.filter(({ pass }) => !pass.whole && !pass.needs))('$name', async (item) => {
    const everywhere = await run(item, cutOut(WHOLE));
    const limited = await run(item, cutOut(WHOLE), undefined, DISC);
    const cover = rig.masks.plane(DISC, WHOLE);
    for (let i = 0; i < SIZE.w * SIZE.h; i++) {
      const [x, y] = [i % SIZE.w, Math.floor(i / SIZE.w)];
      const [before, after, got] = [pixel(x, y), everywhere(x, y), limited(x, y)];
      for (let c = 0; c < 4; c++) {
        const want = before[c]! + (after[c]! - before[c]!) * cover[i]!;
        if (Math.abs(got[c]! - want) > 1e-4)
          throw new Error(`at ${x},${y}: ${got[c]!.toFixed(4)} instead of ${want.toFixed(4)}`);
      }
    }
  });
});

describe('at half size a pass shows what the reduced whole picture shows', () => {
  // a picture without detail that half the size could not hold
  const soft = (x: number, y: number) => {
    const cover = 1 / (1 + Math.exp((Math.hypot(x - 46, y - 38) - 24) / 3));
    const screen = [0.27, 0.67 + x / 900, 0.28];
    return [...screen.map((v, c) => v * (1 - cover) + [0.8, 0.45, 0.3][c]! * cover), 1];
  };
  const half = { w: SIZE.w / 2, h: SIZE.h / 2 };
  const drawn = ({ w, h }: { w: number; h: number }, at: (x: number, y: number) => number[]) =>
    pictureOf(rig, { x: 0, y: 0, w, h }, Array.from({ length: w * h }, (_, i) => at(i % w, Math.floor(i / w))).flat());
  /** the mean of two by two */
  const reduced = (at: (x: number, y: number) => number[]) => (x: number, y: number) =>
    [0, 1, 2, 3].map(
      (c) =>
        (at(2 * x, 2 * y)[c]! + at(2 * x + 1, 2 * y)[c]! + at(2 * x, 2 * y + 1)[c]! + at(2 * x + 1, 2 * y + 1)[c]!) / 4,
    );
  const halved = ({ pass, values, name }: Case): Case => ({
    name,
    pass,
    values: Object.fromEntries(
      Object.entries(values).map(([key, value]) => {
        const param = pass.params[key];
        const inPixels = param?.kind === 'number' && param.unit === 'px';
        if (param?.kind === 'masks' && value === DISC)
          return [key, { ...DISC, scale: 0.5, centre: [half.w / 2, half.h / 2] }];
        if (param?.kind === 'point') return [key, (value as [number, number]).map((v) => v / 2)];
        if (param?.kind === 'track') return [key, { ...(value as object), scale: 0.5 }];
        return [key, inPixels ? (value as number) / 2 : value];
      }),
    ),
  });
  // a plate is fitted to the size of its layer; what draws lots by the pixel is another at another size
  test.each(CASES.filter(({ pass, values }) => !values['plate'] && !pass.lots))('$name', async (item) => {
    const whole = reduced(await run(item, drawn(SIZE, soft)));
    const small = await run(halved(item), drawn(half, reduced(soft)), undefined, null, half);
    // away from the border, which is repeated by other widths
    const differences = differing(whole, small, { x: 4, y: 4, w: half.w - 8, h: half.h - 8 });
    const mean = differences.reduce((sum, v) => sum + v, 0) / differences.length;
    // a key looks at three by three pixels at any size
    expect(mean).toBeLessThan(0.025);
  });
});
