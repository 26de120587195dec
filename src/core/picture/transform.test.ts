import { placeMoment } from '../testing/documents';
import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { tiltMatrix, wholePlace } from '../place/place';
import { still } from '../base/value';
import { floatsOf, pictureOf, testRig, type TestRig } from '../testing/rig';
import { backdrop, placed } from '../execute/backends/wasm/composite';
import { blendRows } from './rows';
import type { LayerPlan } from '../plan/types';
import {
  multiply,
  project,
  projective,
  projectiveInverse,
  projectiveProduct,
  rotation,
  scaling,
  translation,
  type Projective,
} from './matrix';
import { placedBounds } from './bounds';
import { place } from './transform';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(64e6);
});
const W = 24;
const H = 18;
const within = { x: 0, y: 0, w: 60, h: 60 };
const noise = () => Float32Array.from({ length: W * H * 4 }, (_, i) => (i % 4 === 3 ? 1 : ((i * 7919) % 97) / 97));
const sum = (data: Float32Array, channel = 3) => data.reduce((total, v, i) => total + (i % 4 === channel ? v : 0), 0);

describe('projective maps', () => {
  test('inverse and product are what they say', () => {
    const entry = fc.double({ min: -2, max: 2, noNaN: true });
    fc.assert(
      fc.property(fc.tuple(...Array.from({ length: 9 }, () => entry)), entry, entry, (values, x, y) => {
        const m = values.map((v, i) =>
          i === 6 || i === 7 ? v / 50 : v + (i % 4 === 0 ? 5 : 0),
        ) as unknown as Projective;
        const back = projectiveInverse(m)!;
        const [u, v, w] = project(m, x, y);
        if (Math.abs(w) < 0.1) return;
        const [a, b] = project(back, u, v);
        expect(a).toBeCloseTo(x, 4);
        expect(b).toBeCloseTo(y, 4);
        const [p, q] = project(projectiveProduct(back, m), x, y);
        expect(p).toBeCloseTo(x, 4);
        expect(q).toBeCloseTo(y, 4);
      }),
    );
  });

  test('a picture drawn by the projective kernel is the one drawn by the affine kernel when nothing is tilted', () => {
    const flat = multiply(translation(14, 9), multiply(rotation(20), scaling(1.3, 0.9)));
    const almost = projective(flat).map((v, i) => (i === 6 ? 1e-12 : v)) as unknown as Projective;
    const picture = pictureOf(rig, { x: 0, y: 0, w: W, h: H }, noise());
    const [a, b] = [place(rig, picture, flat, 0.8, within)!, place(rig, picture, almost, 0.8, within)!];
    expect(b.rect).toEqual(a.rect);
    const [x, y] = [floatsOf(rig, a), floatsOf(rig, b)];
    x.forEach((v, i) => expect(y[i]).toBeCloseTo(v, 3));
    [a, b, picture].forEach((item) => item.release());
  });
});

describe('tilt', () => {
  const size = { w: W, h: H };
  const shot = { w: 60, h: 60 };
  const tilted = (x: number, y: number, perspective: number) =>
    tiltMatrix(
      placeMoment(
        { ...wholePlace(), tilt: still([x, y] as [number, number]), perspective: still(perspective) },
        0,
        shot,
      ),
      size,
    )!;

  test('without perspective it narrows by the cosine; a quarter turn shows nothing', () => {
    const picture = pictureOf(rig, { x: 0, y: 0, w: W, h: H }, noise());
    const drawn = place(rig, picture, tilted(0, 60, 0), 1, within)!;
    expect(sum(floatsOf(rig, drawn))).toBeCloseTo((W * H) / 2, 0);
    drawn.release();
    const edgeOn = place(rig, picture, tilted(0, 90, 0), 1, within);
    expect(edgeOn ? sum(floatsOf(rig, edgeOn)) : 0).toBeLessThan(W * H * 0.06);
    edgeOn?.release();
    picture.release();
  });

  test('with perspective the near side is larger than the far side, by the pinhole’s rule', () => {
    const m = tilted(0, 45, 1);
    const eye = Math.hypot(60, 60) / 2;
    // turned by 45° the right edge comes nearer by sin 45° of its distance from the axis
    for (const [x, y] of [
      [0, 0],
      [W, 0],
      [W, H],
      [5, 11],
    ] as const) {
      const [dx, dy] = [x - W / 2, y - H / 2];
      const depth = 1 - (dx * Math.SQRT1_2) / eye;
      const [u, v] = project(m, x, y);
      expect(u - 30).toBeCloseTo((dx * Math.SQRT1_2) / depth, 6);
      expect(v - 30).toBeCloseTo(dy / depth, 6);
    }
  });

  test('what comes behind the eye takes the whole picture into account, and nothing is drawn twice', () => {
    expect(
      placedBounds(tilted(0, 45, 1).map((v, i) => (i === 6 ? v * 40 : v)) as unknown as Projective, {
        x: 0,
        y: 0,
        w: W,
        h: H,
      }).w,
    ).toBeGreaterThan(1e5);
  });
});

describe('motion blur', () => {
  const plan = (moves: number[]): LayerPlan =>
    ({
      matrix: translation(10, 10),
      tilt: null,
      trail: moves.map((dx) => projective(translation(10 + dx, 10))),
      opacity: 1,
      blend: 'normal',
    }) as unknown as LayerPlan;
  const white = () => new Float32Array(W * H * 4).fill(1);
  const drawn = (moves: number[]) => {
    const [under, picture] = [
      backdrop(rig, { x: 0, y: 0, w: 60, h: 60 }, null),
      pictureOf(rig, { x: 0, y: 0, w: W, h: H }, white()),
    ];
    const lying = placed(rig, plan(moves), picture, under.rect)!;
    blendRows(rig, under, lying, lying.rect, 0);
    lying.release();
    const data = floatsOf(rig, under);
    [under, picture].forEach((item) => item.release());
    return data;
  };

  test('keeps all of the coverage, and ramps over as far as the layer moves', () => {
    const moves = [-6, -4, -2, 0, 2, 4, 6];
    const data = drawn(moves);
    expect(sum(data)).toBeCloseTo(W * H, 1);
    const row = (x: number) => data[(20 * 60 + x) * 4 + 3]!;
    expect(row(10 + W / 2)).toBeCloseTo(1, 4);
    // three pixels in from the leftmost place two of seven samples cover
    expect(row(7)).toBeCloseTo(2 / 7, 4);
    expect(row(3)).toBe(0);
  });
});
