import { describe, expect, test } from '@jest/globals';
import { ellipseRing } from '../masks/outline';
import type { Ring } from '../masks/path';
import { BACK, FRONT, SIDE, type Body } from './body';
import { extruded } from './extrude';

const SQUARE: Ring = Float64Array.of(-50, -50, 50, -50, 50, 50, -50, 50);
const HOLE: Ring = Float64Array.of(-20, -20, -20, 20, 20, 20, 20, -20);
type Vector = [number, number, number];
const corner = ({ corners }: Body, at: number): Vector => [corners[at]!, corners[at + 1]!, corners[at + 2]!];
const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const minus = (a: Vector, b: Vector): Vector => a.map((v, i) => v - b[i]!) as Vector;
const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** Each triangle with its area as a vector; y down turns corners round, so that it points out of the body. */
const facets = (body: Body) =>
  Array.from(body.parts, (part, i) => {
    const [a, b, c] = [0, 3, 6].map((k) => corner(body, i * 9 + k)) as [Vector, Vector, Vector];
    const area = cross(minus(c, a), minus(b, a)).map((v) => v / 2) as Vector;
    return {
      part,
      a,
      area,
      normals: [0, 3, 6].map((k) => [...body.normals.subarray(i * 9 + k, i * 9 + k + 3)] as Vector),
    };
  });
/** By the divergence theorem. */
const volume = (body: Body): number => facets(body).reduce((sum, { a, area }) => sum + dot(a, area) / 3, 0);

describe('bodies of outlines', () => {
  test('without a bevel: the area times the depth, and no way in', () => {
    const body = extruded([{ outline: SQUARE, holes: [HOLE] }], 0);
    expect(volume(body)).toBeCloseTo(100 * 100 - 40 * 40, 0);
    const open = facets(body).reduce<Vector>((sum, { area }) => sum.map((v, i) => v + area[i]!) as Vector, [0, 0, 0]);
    open.forEach((v) => expect(v).toBeCloseTo(0, 2));
  });

  test('front and back are even; sides look level and away from the middle', () => {
    const body = extruded([{ outline: ellipseRing([80, 80]), holes: [] }], 0);
    for (const { part, normals, a } of facets(body))
      for (const normal of normals) {
        if (part === SIDE) {
          expect(normal[2]).toBeCloseTo(0, 5);
          expect(normal[0] * a[0] + normal[1] * a[1]).toBeGreaterThan(0);
        } else expect(normal).toEqual([0, 0, part === FRONT ? 1 : -1].map((v) => expect.closeTo(v, 5)));
      }
    expect(new Set(body.parts)).toEqual(new Set([FRONT, SIDE, BACK]));
  });

  test('what is round looks round: normals of a disc point from its middle; a square keeps its edges', () => {
    const disc = extruded([{ outline: ellipseRing([80, 80]), holes: [] }], 0);
    facets(disc).forEach(({ part }, i) => {
      if (part !== SIDE) return;
      for (let k = i * 9; k < i * 9 + 9; k += 3) {
        const [x, y] = corner(disc, k);
        expect(disc.normals[k]).toBeCloseTo(x / 40, 1);
        expect(disc.normals[k + 1]).toBeCloseTo(y / 40, 1);
      }
    });
    const square = facets(extruded([{ outline: SQUARE, holes: [] }], 0)).filter(({ part }) => part === SIDE);
    for (const { normals } of square)
      for (const [x, y] of normals) expect(Math.max(Math.abs(x), Math.abs(y))).toBeCloseTo(1, 5);
  });

  test('a bevel cuts edges off and leaves the outline as wide as it is', () => {
    const body = extruded([{ outline: SQUARE, holes: [] }], 6);
    const reach = (part: number) =>
      facets(body).reduce((most, item) => (item.part === part ? Math.max(most, Math.abs(item.a[0])) : most), 0);
    expect(reach(SIDE)).toBeCloseTo(50, 3);
    expect(reach(FRONT)).toBeCloseTo(44, 3);
    const z = Array.from({ length: body.corners.length / 3 }, (_, i) => body.corners[3 * i + 2]!);
    expect([Math.min(...z), Math.max(...z)]).toEqual([-6, 7].map((v) => expect.closeTo(v, 4)));
  });
});
