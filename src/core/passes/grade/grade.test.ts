// Each grading pass against its published formula, and facts that hold for all of them.
import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { toDisplay, toLinear } from '../../picture/light';
import { coloursThrough, floatsOf, pictureOf, runPass, testRig, type RGB, type TestRig } from '../../testing/rig';
import type { PlainValues } from '../../params/registry';
import { passOf } from '../registry';
import { asDials } from './balance';
import { sharesOf } from './tone';
import { firstValues } from '../../params/registry';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const colourOf = fc.tuple(
  ...([0, 1, 2] as const).map(() => fc.double({ min: 0, max: 1, noNaN: true })),
) as fc.Arbitrary<RGB>;
const numbersOf = (n: number, min: number, max: number) =>
  fc.array(fc.double({ min, max, noNaN: true }), { minLength: n, maxLength: n });

const graded = (type: string, values: PlainValues, colours: readonly RGB[], alpha = 1): RGB[] =>
  coloursThrough(rig, type, values, colours, alpha);
const worst = (got: readonly RGB[], want: readonly RGB[]): number =>
  Math.max(...got.flatMap((own, i) => own.map((v, c) => Math.abs(v - want[i]![c]!))));
const luma = ([r, g, b]: RGB): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;
const STEP = 1 / 255;
const GREYS: RGB[] = Array.from({ length: 33 }, (_, i) => [i / 32, i / 32, i / 32]);
const SOME: RGB[] = [
  [0.1, 0.5, 0.9],
  [0.8, 0.3, 0.2],
  [0.35, 0.6, 0.25],
  [0.02, 0.02, 0.05],
  [0.9, 0.85, 0.7],
  [1, 0, 0],
];

describe.each(['balance', 'tone', 'wheels', 'colour', 'hue-curves', 'colour-range', 'cdl'])('%s', (type) => {
  test('changes nothing as a new one', () => {
    const values = Object.fromEntries(
      Object.entries(firstValues(passOf(type)!.params)).map(([name, value]) => [
        name,
        (value as { still: unknown }).still,
      ]),
    );
    const exact = [...GREYS, ...SOME].map((c) => c.map(Math.fround) as RGB);
    expect(worst(graded(type, values, exact), exact)).toBe(0);
  });
});
test('dark, middle and bright parts are the whole picture together, each at its end of it', () => {
  const unit = fc.double({ min: 0, max: 1, noNaN: true });
  fc.assert(
    fc.property(unit, unit, fc.double({ min: 0.02, max: 1, noNaN: true }), unit, (a, b, soft, luma) => {
      const shares = sharesOf({ darkTo: Math.min(a, b), brightFrom: Math.max(a, b), soft }, luma);
      expect(shares[0] + shares[1] + shares[2]).toBeCloseTo(1, 9);
      shares.forEach((share) => expect(share).toBeGreaterThanOrEqual(0));
    }),
  );
  expect(sharesOf({ darkTo: 0.35, brightFrom: 0.65, soft: 0.4 }, 0)).toEqual([1, 0, 0]);
  expect(sharesOf({ darkTo: 0.35, brightFrom: 0.65, soft: 0.4 }, 1)).toEqual([0, 0, 1]);
  expect(sharesOf({ darkTo: 0.2, brightFrom: 0.8, soft: 0.1 }, 0.5)).toEqual([0, 1, 0]);
});

describe.each<[string, PlainValues]>([
  ['balance', { temperature: 4200, tint: 0.2 }],
  ['tone', { exposure: 0.6, contrast: 0.2, dark: 0.5, bright: -0.4, brightColour: 0.6 }],
  ['wheels', { lift: [0.1, -0.2, 0.05], gain: [-0.1, 0.2, 0.1] }],
  ['colour', { saturation: 1.3, hue: 20, vibrance: 0.4 }],
  [
    'hue-curves',
    {
      turn: [
        [0, 0.6],
        [0.5, 0.4],
        [1, 0.6],
      ],
    },
  ],
  ['tint', { strength: 0.6 }],
  ['cdl', { slopeR: 1.2, offsetG: 0.05, powerB: 0.8, saturation: 0.8 }],
])('%s', (type, values) => {
  test('grades half clear pixels like solid ones', () => {
    expect(worst(graded(type, values, SOME, 0.4), graded(type, values, SOME))).toBeLessThan(2e-4);
  });
});

describe('balance', () => {
  // chromaticities of light as tables have them: CIE illuminant A, D50, D55, D75
  const LIGHTS: [string, number, number][] = [
    ['A', 0.44757, 0.40745],
    ['D50', 0.34567, 0.3585],
    ['D55', 0.33242, 0.34743],
    ['D75', 0.29902, 0.31485],
  ];
  /** Linear BT.709 of a grey card that reflects as much, lit by a chromaticity. Source: the primaries of BT.709 solved for XYZ. */
  const card = (x: number, y: number, reflects: number): RGB => {
    const [X, Y, Z] = [(x / y) * reflects, reflects, ((1 - x - y) / y) * reflects];
    return [
      3.2406 * X - 1.5372 * Y - 0.4986 * Z,
      -0.9689 * X + 1.8758 * Y + 0.0415 * Z,
      0.0557 * X - 0.204 * Y + 1.057 * Z,
    ];
  };
  test.each(LIGHTS)('makes a card grey that was lit by %s, once it is picked', (_, x, y) => {
    const seen = card(x, y, 0.3).map(toDisplay) as RGB;
    const dials = asDials(seen);
    const [got] = graded('balance', dials, [seen]);
    expect(Math.max(...got!) - Math.min(...got!)).toBeLessThan(2 * STEP);
    // and no brighter or darker than it reflects
    expect(Math.abs(got![1] - toDisplay(0.3))).toBeLessThan(0.02);
  });
  test('names the temperature of known lights', () => {
    expect(asDials(card(0.34567, 0.3585, 0.4).map(toDisplay) as RGB).temperature).toBeCloseTo(5003, -2);
    expect(asDials(card(0.29902, 0.31485, 0.4).map(toDisplay) as RGB).temperature).toBeCloseTo(7504, -2);
    const lamp = asDials(card(0.44757, 0.40745, 0.2).map(toDisplay) as RGB).temperature;
    expect(Math.abs(lamp - 2856)).toBeLessThan(40);
  });
  test('any grey with a cast comes out grey by its own pick', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 2500, max: 11000, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        (temperature, tint) => {
          // what undoes the opposite: a grey taken through some other balance
          const [seen] = graded('balance', { temperature, tint }, [[0.45, 0.45, 0.45]]);
          if (seen!.some((v) => v < 0.05 || v > 0.95)) return;
          const dials = asDials(seen!);
          if (dials.temperature < 2000 || dials.temperature > 20000 || Math.abs(dials.tint) > 0.99) return;
          const [got] = graded('balance', dials, [seen!]);
          expect(Math.max(...got!) - Math.min(...got!)).toBeLessThan(2 * STEP);
        },
      ),
      { numRuns: 60 },
    );
  });
  test('says so when what is picked is clipped or black', () => {
    const { picks } = passOf('balance')!.params['white'] as { picks: { warns(c: RGB): string | null } };
    expect(picks.warns([1, 0.98, 0.9])).toMatch(/clipped/);
    expect(picks.warns([0.01, 0.02, 0.01])).toMatch(/too dark/);
    expect(picks.warns([0.5, 0.45, 0.4])).toBeNull();
  });
});

describe('slope, offset, power', () => {
  test('is ASC CDL 1.2', () => {
    fc.assert(
      fc.property(
        colourOf,
        numbersOf(3, 0, 2),
        numbersOf(3, -0.3, 0.3),
        numbersOf(3, 0.4, 2.5),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (c, s, o, p, saturation) => {
          const values = Object.fromEntries(
            ['R', 'G', 'B'].flatMap((name, i) => [
              [`slope${name}`, s[i]],
              [`offset${name}`, o[i]],
              [`power${name}`, p[i]],
            ]),
          );
          const so = c.map((v, i) => Math.min(1, Math.max(0, v * s[i]! + o[i]!)));
          const sop = so.map((v, i) => v ** p[i]!) as unknown as RGB;
          const want = sop.map((v) => Math.max(0, luma(sop) + saturation * (v - luma(sop)))) as RGB;
          const [got] = graded('cdl', { ...values, saturation }, [c]);
          // a power below 1 is infinitely steep at black: half a step of 8 bits on, it is held
          if (so.every((v) => v > 0.002 || v === 0)) expect(worst([got!], [want])).toBeLessThan(STEP);
        },
      ),
      { numRuns: 150 },
    );
  });
});

describe('tone', () => {
  test('a stop doubles the light; black and white points go where they are put; gamma bends the middle', () => {
    GREYS.forEach(([v], i) => {
      const at = (values: PlainValues) => graded('tone', values, GREYS)[i]![0];
      expect(Math.abs(at({ exposure: 1 }) - toDisplay(2 * toLinear(v)))).toBeLessThan(STEP);
      expect(Math.abs(at({ black: 0.1, white: 0.8 }) - Math.max(0, (v - 0.1) / 0.7))).toBeLessThan(STEP);
      if (v > 0.03) expect(Math.abs(at({ gamma: 2 }) - v ** 0.5)).toBeLessThan(STEP);
      expect(Math.abs(at({ contrast: 0.5, pivot: 0.3 }) - Math.max(0, (v - 0.3) * 2 + 0.3))).toBeLessThan(STEP);
    });
  });
  test('dark, middle and bright parts move by themselves', () => {
    const change = (values: PlainValues) => graded('tone', values, GREYS).map(([v], i) => v - GREYS[i]![0]);
    const dark = change({ dark: 1 });
    expect(dark[4]!).toBeGreaterThan(0.03);
    dark.slice(20).forEach((by) => expect(Math.abs(by)).toBeLessThan(STEP));
    const bright = change({ bright: -1 });
    bright.slice(0, 12).forEach((by) => expect(Math.abs(by)).toBeLessThan(STEP));
    expect(bright[30]!).toBeLessThan(-0.1);
    const middle = change({ middle: 0.5 });
    expect(Math.abs(middle[1]!)).toBeLessThan(0.01);
    expect(Math.abs(middle[32]!)).toBeLessThan(0.01);
    expect(middle[16]!).toBeGreaterThan(0.05);
    // a colour in the dark alone fades
    const [deep, pale] = graded('tone', { darkColour: 0 }, [
      [0.2, 0.1, 0.05],
      [0.9, 0.8, 0.75],
    ]);
    expect(Math.max(...deep!) - Math.min(...deep!)).toBeLessThan(0.01);
    expect(worst([pale!], [[0.9, 0.8, 0.75]])).toBeLessThan(STEP);
  });
  test('a part that is drawn is lit by its stops where it is whole, by half of them half-way up, and nowhere else', () => {
    const part = [
      [0, 0],
      [0.25, 0],
      [0.3125, 1],
      [0.375, 1],
      [0.4375, 0],
      [0.75, 0],
      [0.875, 1],
      [1, 0],
    ];
    const lit = graded('tone', { part, partLight: 0.5 }, GREYS);
    const by = ([v]: RGB, stops: number) => toDisplay(toLinear(v) * 2 ** stops);
    for (const i of [0, 4, 8, 14, 18, 24, 32]) expect(worst([lit[i]!], [GREYS[i]!])).toBeLessThan(STEP);
    for (const i of [10, 11, 12, 28]) expect(Math.abs(lit[i]![0] - by(GREYS[i]!, 0.5))).toBeLessThan(STEP);
    for (const i of [9, 13, 26]) expect(Math.abs(lit[i]![0] - by(GREYS[i]!, 0.25))).toBeLessThan(STEP);
    // its colours fade by themselves too: this one's luma is 0.33, the other's 0.6
    const [inside, outside] = graded('tone', { part, partColour: 0 }, [
      [0.5, 0.3, 0.1],
      [0.7, 0.6, 0.3],
    ]);
    expect(Math.max(...inside!) - Math.min(...inside!)).toBeLessThan(0.01);
    expect(worst([outside!], [[0.7, 0.6, 0.3]])).toBeLessThan(STEP);
  });
  test('soft ends never turn back, keep black, and bring over-bright light back below white', () => {
    for (const values of [{ fill: 1 }, { shoulder: 1 }, { fill: 0.5, shoulder: 0.5 }]) {
      const ramp = Array.from({ length: 129 }, (_, i): RGB => [i / 64, i / 64, i / 64]);
      const got = graded('tone', values, ramp).map(([v]) => v);
      got.forEach((v, i) => i && expect(v).toBeGreaterThanOrEqual(got[i - 1]! - 1e-4));
      expect(got[0]).toBeCloseTo(0, 4);
      if ('shoulder' in values && values.shoulder === 1) expect(got.at(-1)!).toBeLessThan(1);
    }
  });
});

describe('wheels', () => {
  test('lift holds white, gain holds black, gamma holds both, offset shifts all', () => {
    const at = (values: PlainValues, v: number) => graded('wheels', values, [[v, v, v]])[0]!;
    const warm = [0.4, 0, 0.1];
    expect(worst([at({ lift: warm }, 1)], [[1, 1, 1]])).toBeLessThan(STEP);
    expect(at({ lift: warm }, 0)[0]).toBeGreaterThan(0.1);
    expect(worst([at({ gain: warm }, 0)], [[0, 0, 0]])).toBeLessThan(STEP);
    expect(at({ gain: warm }, 0.8)[0]).toBeGreaterThan(0.9);
    for (const end of [0, 1]) expect(worst([at({ gamma: warm }, end)], [[end, end, end]])).toBeLessThan(STEP);
    expect(at({ gamma: warm }, 0.5)[0]).toBeGreaterThan(at({ gamma: warm }, 0.5)[2]);
    const shifted = at({ offset: [0, 0, 0.2] }, 0.5);
    expect(worst([shifted], [[0.6, 0.6, 0.6]])).toBeLessThan(STEP);
  });
  test('a colour goes towards its hue and takes nothing from the mean', () => {
    for (const [turn, most] of [
      [0, 0],
      [120, 1],
      [240, 2],
    ] as const) {
      const a = (turn * Math.PI) / 180;
      const [got] = graded('wheels', { offset: [0.3 * Math.cos(a), 0.3 * Math.sin(a), 0] }, [[0.5, 0.5, 0.5]]);
      expect(got!.indexOf(Math.max(...got!))).toBe(most);
      expect(got!.reduce((sum, v) => sum + v) / 3).toBeCloseTo(0.5, 3);
    }
  });
  test('limits keep lift from the bright and gain from the dark', () => {
    const lifted = graded('wheels', { lift: [0, 0, 0.4], liftTo: 0.5 }, GREYS);
    lifted.slice(17).forEach((c, i) => expect(worst([c], [GREYS[i + 17]!])).toBeLessThan(STEP));
    const gained = graded('wheels', { gain: [0, 0, 0.4], gainFrom: 0.5 }, GREYS);
    gained.slice(0, 16).forEach((c, i) => expect(worst([c], [GREYS[i]!])).toBeLessThan(STEP));
  });
});

describe('colour', () => {
  test('turning hues leaves luma, and a whole turn leaves everything', () => {
    fc.assert(
      fc.property(colourOf, fc.double({ min: -180, max: 180, noNaN: true }), (c, hue) => {
        const soft = c.map((v) => 0.35 + 0.3 * v) as RGB;
        const [got] = graded('colour', { hue }, [soft]);
        expect(luma(got!)).toBeCloseTo(luma(soft), 3);
        const [round] = graded('colour', { hue: 360 }, [soft]);
        expect(worst([round!], [soft])).toBeLessThan(1e-4);
      }),
      { numRuns: 40 },
    );
  });
  test('no saturation is the luma; the mixer exchanges channels', () => {
    graded('colour', { saturation: 0 }, SOME).forEach((c, i) =>
      c.forEach((v) => expect(v).toBeCloseTo(luma(SOME[i]!), 4)),
    );
    const swapped = { redRed: 0, redBlue: 1, blueBlue: 0, blueRed: 1 };
    expect(
      worst(
        graded('colour', swapped, SOME),
        SOME.map(([r, g, b]): RGB => [b, g, r]),
      ),
    ).toBeLessThan(1e-4);
  });
  test('vibrance strengthens pale colours more than strong ones', () => {
    const spread = (c: RGB) => Math.max(...c) - Math.min(...c);
    const [pale, strong]: [RGB, RGB] = [
      [0.5, 0.45, 0.42],
      [0.5, 0.1, 0.05],
    ];
    const [a, b] = graded('colour', { vibrance: 0.8 }, [pale, strong]);
    expect(spread(a!) / spread(pale)).toBeGreaterThan(1.5);
    expect(spread(b!) / spread(strong)).toBeLessThan(1.1);
  });
});

describe('hue curves', () => {
  test('move the hue they are bent at and leave the opposite one and greys', () => {
    const turn = [
      [0, 0.5],
      [0.33, 0.75],
      [0.66, 0.5],
    ];
    const [green, blue, grey] = graded('hue-curves', { turn }, [
      [0.2, 0.6, 0.2],
      [0.2, 0.2, 0.6],
      [0.4, 0.4, 0.4],
    ]);
    expect(green![2]).toBeGreaterThan(green![0] + 0.1);
    expect(luma(green!)).toBeCloseTo(luma([0.2, 0.6, 0.2]), 2);
    expect(
      worst(
        [blue!, grey!],
        [
          [0.2, 0.2, 0.6],
          [0.4, 0.4, 0.4],
        ],
      ),
    ).toBeLessThan(3 * STEP);
  });
  test('fade one hue to grey', () => {
    const strength = [
      [0, 0],
      [0.2, 0.5],
      [0.8, 0.5],
    ];
    const [red, blue] = graded('hue-curves', { strength }, [
      [0.7, 0.2, 0.2],
      [0.2, 0.3, 0.7],
    ]);
    expect(Math.max(...red!) - Math.min(...red!)).toBeLessThan(0.02);
    expect(worst([blue!], [[0.2, 0.3, 0.7]])).toBeLessThan(STEP);
  });
});

describe('tint by brightness', () => {
  test('wholly taken and not kept as bright, it is the ramp', () => {
    const colours = [
      [0, [0.1, 0, 0.3]],
      [1, [1, 0.9, 0.5]],
    ];
    const got = graded('tint', { colours, strength: 1, keep: false }, GREYS);
    expect(
      worst(
        got,
        GREYS.map(([v]): RGB => [0.1 + 0.9 * v, 0.9 * v, 0.3 + 0.2 * v]),
      ),
    ).toBeLessThan(STEP);
    graded('tint', { strength: 1 }, SOME.slice(0, 3)).forEach((c, i) => expect(luma(c)).toBeCloseTo(luma(SOME[i]!), 2));
  });
});

describe('vignette', () => {
  test('leaves its middle, darkens the far end by its stops, and is round about where it is put', () => {
    const [w, h] = [101, 81];
    const flat = Array.from({ length: w * h }, () => [0.5, 0.5, 0.5, 1]).flat();
    const values = { amount: -2, middle: [60.5, 30.5], width: 0.5, height: 0.5 * (w / h), soft: 0.5 };
    const out = runPass(rig, 'vignette', values, pictureOf(rig, { x: 0, y: 0, w, h }, flat));
    const floats = floatsOf(rig, out);
    out.release();
    const at = (x: number, y: number) => floats[(y * w + x) * 4]!;
    expect(at(60, 30)).toBeCloseTo(0.5, 3);
    expect(Math.abs(at(0, 80) - toDisplay(toLinear(0.5) / 4))).toBeLessThan(STEP);
    for (const r of [10, 20, 28]) expect(at(60 + r, 30)).toBeCloseTo(at(60, 30 + r), 2);
    expect(at(60 + 20, 30)).toBeGreaterThan(at(60 + 28, 30));
  });
});
