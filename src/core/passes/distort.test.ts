// What distorting and printing passes do, against what their words mean.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { testRig, type TestRig } from '../testing/rig';
import { through as takenThrough, type Paint } from '../testing/painted';
import type { PlainValues } from '../params/registry';

const [W, H] = [160, 120];
const MIDDLE = [W / 2, H / 2] as const;
let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const through = (type: string, values: PlainValues, paint: Paint) =>
  takenThrough(rig, { w: W, h: H }, type, values, paint);
const smooth: Paint = (x, y) => [
  0.5 + 0.4 * Math.sin(x / 9),
  0.5 + 0.4 * Math.cos(y / 7),
  0.5 + 0.4 * Math.sin((x + y) / 11),
];
const disc =
  (radius: number, [cx, cy]: readonly [number, number] = MIDDLE): Paint =>
  (x, y) =>
    Math.hypot(x - cx, y - cy) < radius ? [1, 1, 1] : [0, 0, 0];

describe('a lens', () => {
  test.each([-0.3, 0.25, 0.8])('of %s taken out again leaves the picture as it was', (amount) => {
    const put = through('lens', { amount, way: 'put' }, smooth);
    const back = through('lens', { amount, way: 'take' }, (x, y) => put(Math.floor(x), Math.floor(y)) as never);
    let worst = 0;
    for (let y = 40; y < 80; y++)
      for (let x = 50; x < 110; x++)
        for (let c = 0; c < 3; c++) worst = Math.max(worst, Math.abs(back(x, y)[c]! - smooth(x + 0.5, y + 0.5)[c]!));
    expect(worst).toBeLessThan(0.02);
  });

  test('bows a straight line outwards, most far from the middle', () => {
    // a line through x = 30: with bows put in its middle lies further out than its ends
    const seen = through('lens', { amount: 0.25, way: 'put' }, (x) => (x < 30 ? [1, 1, 1] : [0, 0, 0]));
    const edgeAt = (row: number): number => {
      const bright = Array.from({ length: 80 }, (_, x) => seen(x, row)).map(([r, , , a]) => a! > 0.5 && r! > 0.5);
      return bright.lastIndexOf(true);
    };
    expect(edgeAt(60)).toBeLessThan(edgeAt(20) - 1);
  });
});

test('a twirl turns its middle by its angle, and nothing from its radius on', () => {
  const at = [MIDDLE[0] + 4, MIDDLE[1]] as const;
  const seen = through('twirl', { turn: 90, radius: 50, about: MIDDLE }, disc(2, at));
  // right of the middle comes to lie below it
  expect(seen(80, 63)[0]).toBeGreaterThan(0.5);
  expect(seen(83, 60)[0]).toBeLessThan(0.2);
  const outside = through('twirl', { turn: 90, radius: 50, about: MIDDLE }, smooth);
  expect(outside(20, 20)[1]).toBeCloseTo(smooth(20.5, 20.5)[1], 5);
});

test('a bulge makes its middle up to four times as large', () => {
  const area = (amount: number) => {
    const seen = through('bulge', { amount, radius: 55, about: MIDDLE }, disc(3));
    let sum = 0;
    for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) sum += seen(x, y)[0]!;
    return sum;
  };
  expect(area(0.5) / area(0)).toBeGreaterThan(3.6);
  expect(area(0.5) / area(0)).toBeLessThan(4.2);
  expect(area(-0.5)).toBeLessThan(area(0) / 3);
});

test('a ripple leaves its middle and what lies beyond its reach, and moves outwards with time', () => {
  const values = { amount: 6, apart: 20, runs: 20, reach: 50, about: MIDDLE };
  const still = through('ripple', values, smooth);
  expect(still(5, 5)[0]).toBeCloseTo(smooth(5.5, 5.5)[0], 5);
  // after 24 frames every ring lies where the next one was
  const later = through('ripple', { ...values, beat: 1 } as never, smooth);
  let [moved, again] = [0, 0];
  for (let x = 85; x < 125; x++) {
    moved = Math.max(moved, Math.abs(still(x, 60)[0]! - smooth(x + 0.5, 60.5)[0]));
    again = Math.max(again, Math.abs(still(x, 60)[0]! - later(x, 60)[0]!));
  }
  expect(moved).toBeGreaterThan(0.05);
  expect(again).toBeLessThan(1e-4);
});

test('a kaleidoscope is the same in every slice, and each is the mirror of the next', () => {
  const seen = through('kaleidoscope', { slices: 4, turn: 0, about: MIDDLE }, smooth);
  for (const [dx, dy] of [
    [20, 7],
    [33, 12],
    [9, 3],
  ] as const) {
    const here = seen(80 + dx, 60 + dy);
    for (const [x, y] of [
      [79 - dx, 60 + dy],
      [80 + dx, 59 - dy],
      [79 - dx, 59 - dy],
    ] as const)
      expect(Math.abs(seen(x, y)[0]! - here[0]!)).toBeLessThan(1e-3);
  }
});

test('a grid shows the whole picture in each of its fields; moved by one it is the same again', () => {
  const values = { columns: 2, rows: 2, turned: 'same', across: 0, down: 0 };
  const seen = through('repeat', values, smooth);
  expect(Math.abs(seen(10, 20)[0]! - smooth(21, 41)[0])).toBeLessThan(0.01);
  expect(seen(90, 80)).toEqual(seen(10, 20));
  const rolled = through('repeat', { ...values, across: 1 }, smooth);
  expect(Math.abs(rolled(30, 30)[0]! - seen(30, 30)[0]!)).toBeLessThan(1e-4);
});

describe('every pixel is taken from where the formula of its bend says', () => {
  type Place = readonly [number, number];
  const [cx, cy] = MIDDLE;
  const far = ([x, y]: Place) => Math.hypot(x - cx, y - cy);
  /** turned clockwise by an angle and made larger, about the middle */
  const about = ([x, y]: Place, size: number, turn = 0): Place => {
    const [dx, dy] = [x - cx, y - cy];
    return [
      cx + size * (Math.cos(turn) * dx - Math.sin(turn) * dy),
      cy + size * (Math.sin(turn) * dx + Math.cos(turn) * dy),
    ];
  };
  const twirled = (at: Place): Place => {
    const share = Math.max(0, 1 - far(at) / 50);
    return about(at, 1, (-70 * Math.PI * share * share * (3 - 2 * share)) / 180);
  };
  const bulged = (at: Place): Place => {
    const ease = Math.max(0, 1 - (far(at) / 50) ** 2) ** 2;
    return about(at, 1 / (1 + (4 ** 0.6 - 1) * ease));
  };
  const rippled = (at: Place): Place => {
    const r = far(at);
    const by = 5 * Math.max(0, 1 - r / 55) ** 2 * Math.min(1, r / 5) * Math.sin((2 * Math.PI * r) / 20);
    return about(at, 1 + by / r);
  };
  const mirrored = (at: Place): Place => {
    const [wide, first] = [Math.PI / 3, Math.PI / 9];
    const off = Math.atan2(at[1] - cy, at[0] - cx) - first + wide / 2;
    const slice = Math.floor(off / wide);
    const within = off - slice * wide;
    const turned = first - wide / 2 + (slice % 2 ? wide - within : within);
    return [cx + far(at) * Math.cos(turned), cy + far(at) * Math.sin(turned)];
  };
  const folded = (v: number): number => {
    const whole = Math.floor(v);
    return whole % 2 ? 1 - (v - whole) : v - whole;
  };
  const tiled = ([x, y]: Place): Place => [folded((x / W) * 2 - 0.3) * W, folded((y / H) * 2 - 0.1) * H];
  /** of half a diagonal from the middle on: a place at r is seen at r / (1 + a r²) */
  const unbowed = (at: Place): Place => about(at, 1 / (1 + 0.4 * (far(at) / (Math.hypot(W, H) / 2)) ** 2));

  test.each([
    ['twirl', { turn: 70, radius: 50, about: MIDDLE }, twirled],
    ['bulge', { amount: 0.6, radius: 50, about: MIDDLE }, bulged],
    ['ripple', { amount: 5, apart: 20, runs: 0, reach: 55, about: MIDDLE }, rippled],
    ['kaleidoscope', { slices: 6, turn: 20, about: MIDDLE }, mirrored],
    // two pixels become one, and are softened for it
    ['repeat', { columns: 2, rows: 2, turned: 'mirrored', across: 0.3, down: 0.1 }, tiled],
    ['lens', { amount: 0.4, way: 'take', size: 1 }, unbowed],
  ] as const)('%s', (type, values, from) => {
    const gentle: Paint = (x, y) => [0.5 + 0.4 * Math.sin(x / 14), 0.5 + 0.4 * Math.cos(y / 12), x / W];
    const seen = through(type, values as unknown as PlainValues, gentle);
    for (let y = 2; y < H - 2; y += 3)
      for (let x = 2; x < W - 2; x += 3) {
        const [u, v] = from([x + 0.5, y + 0.5]);
        // at the border, and at seams, the border's own goes on
        if (u < 2 || v < 2 || u > W - 2 || v > H - 2) continue;
        const wanted = gentle(u, v);
        for (let c = 0; c < 3; c++)
          if (Math.abs(seen(x, y)[c]! - wanted[c]!) > 0.012)
            throw new Error(`${type} ${x} ${y}: ${seen(x, y)[c]} ${wanted[c]}`);
      }
  });
});

test('fringes move red one way and blue the other, half as far each', () => {
  const seen = through('fringes', { way: 'line', amount: 8, direction: 0 }, smooth);
  const [x, y] = [70, 50];
  expect(seen(x, y)[0]).toBeCloseTo(smooth(x + 0.5 - 4, y + 0.5)[0], 3);
  expect(seen(x, y)[1]).toBeCloseTo(smooth(x + 0.5, y + 0.5)[1], 3);
  expect(seen(x, y)[2]).toBeCloseTo(smooth(x + 0.5 + 4, y + 0.5)[2], 3);
});

test('squares of a mosaic have the mean colour of what lies there', () => {
  const seen = through('mosaic', { size: 20 }, smooth);
  let mean = 0;
  for (let y = 40; y < 60; y++) for (let x = 60; x < 80; x++) mean += smooth(x + 0.5, y + 0.5)[0] / 400;
  expect(seen(61, 41)[0]).toBeCloseTo(mean, 4);
  expect(seen(79, 59)).toEqual(seen(60, 40));
  expect(seen(80, 59)).not.toEqual(seen(79, 59));
});

test('a poster has no more steps than it says, from black to white', () => {
  const seen = through('posterise', { steps: 4, soft: 0 }, (x) => [x / W, x / W, x / W]);
  const steps = new Set(Array.from({ length: W }, (_, x) => seen(x, 30)[0]!.toFixed(3)));
  expect([...steps]).toEqual(['0.000', '0.333', '0.667', '1.000']);
});

test.each([0.15, 0.4, 0.6, 0.85])('dots of a halftone cover as much as a grey of %s is dark', (grey) => {
  const seen = through('halftone', { apart: 12, turn: 30, ink: [0, 0, 0], paper: [1, 1, 1] }, () => [grey, grey, grey]);
  let sum = 0;
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) sum += seen(x, y)[0]!;
  expect(Math.abs(sum / (W * H) - grey)).toBeLessThan(0.06);
});

test('scan lines take half of what they say is dark, however fine they are', () => {
  for (const apart of [1.5, 4, 10]) {
    const seen = through('scan-lines', { apart, dark: 0.6, moved: 0 }, () => [1, 1, 1]);
    const rows = Array.from({ length: H }, (_, y) => seen(5, y)[0]!);
    expect(rows.reduce((a, b) => a + b, 0) / H).toBeCloseTo(0.7, 1);
    const spread = Math.max(...rows) - Math.min(...rows);
    if (apart < 2) expect(spread).toBeLessThan(0.35);
    else expect(spread).toBeGreaterThan(0.35);
  }
});
