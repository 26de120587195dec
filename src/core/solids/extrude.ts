// Bodies of outlines. The extrusion is that of a library; what it gives is sorted into faces and sides.
import { Path } from 'three/src/extras/core/Path.js';
import { Shape } from 'three/src/extras/core/Shape.js';
import { ExtrudeGeometry } from 'three/src/geometries/ExtrudeGeometry.js';
import { Vector2 } from 'three/src/math/Vector2.js';
import type { Ring } from '../masks/path';
import { BACK, FRONT, SIDE, type Body } from './body';
import type { Plate } from './rings';

/** Parts of a bevel from the face to the side: so many pixels each, but no more than this. */
const STEP = 2;
const MOST_STEPS = 4;
/** Sides that meet at less than 40° look round, parts of a bevel at less than 50°: cosines. */
const ROUND = 0.766;
const ROUND_BEVEL = 0.643;
/** What looks further away from level than this is part of a bevel. */
const LEVEL = 0.01;

/** @param bevel how far the edges are cut off, in pixels as the outline is; the outline stays as wide as it is */
export function extruded(plates: readonly Plate[], bevel: number): Body {
  const bodies = plates.map((plate) => bodyOf(plate, bevel));
  const join = <T extends Float32Array | Uint8Array>(parts: T[], out: T): T => {
    let at = 0;
    for (const part of parts) {
      out.set(part, at);
      at += part.length;
    }
    return out;
  };
  const count = bodies.reduce((sum, { parts }) => sum + parts.length, 0);
  return {
    corners: join(
      bodies.map(({ corners }) => corners),
      new Float32Array(count * 9),
    ),
    normals: join(
      bodies.map(({ normals }) => normals),
      new Float32Array(count * 9),
    ),
    parts: join(
      bodies.map(({ parts }) => parts),
      new Uint8Array(count),
    ),
    bevel,
  };
}

const pointsOf = (ring: Ring): Vector2[] =>
  Array.from({ length: ring.length / 2 }, (_, i) => new Vector2(ring[2 * i]!, -ring[2 * i + 1]!));

function bodyOf({ outline, holes }: Plate, bevel: number): Omit<Body, 'bevel'> {
  const shape = new Shape(pointsOf(outline));
  shape.holes = holes.map((hole) => new Path(pointsOf(hole)));
  const geometry = new ExtrudeGeometry(shape, {
    depth: 1,
    steps: 1,
    bevelEnabled: bevel > 0,
    bevelThickness: bevel,
    bevelSize: bevel,
    bevelOffset: -bevel,
    bevelSegments: Math.min(MOST_STEPS, Math.max(1, Math.round(bevel / STEP))),
    UVGenerator: { generateTopUV: () => NO_PLACE, generateSideWallUV: () => NO_PLACE },
  });
  const corners = geometry.getAttribute('position').array as Float32Array;
  const normals = geometry.getAttribute('normal').array as Float32Array;
  const parts = new Uint8Array(corners.length / 9).fill(SIDE);
  for (const { start, count, materialIndex } of geometry.groups)
    if (materialIndex === 0)
      for (let i = start / 3; i < (start + count) / 3; i++) parts[i] = normals[i * 9 + 2]! > 0 ? FRONT : BACK;
  geometry.dispose();
  rounded(corners, normals, parts);
  for (let i = 1; i < corners.length; i += 3) {
    corners[i] = -corners[i]!;
    normals[i] = -normals[i]!;
  }
  return { corners, normals, parts };
}
/** Nothing is printed on a body. */
const NO_PLACE = [new Vector2(), new Vector2(), new Vector2(), new Vector2()];

/** Gives sides that go on round a bend one normal where they meet. */
function rounded(corners: Float32Array, normals: Float32Array, parts: Uint8Array): void {
  const meeting = new Map<string, number[]>();
  const keyOf = (at: number): string => `${corners[at]} ${corners[at + 1]} ${corners[at + 2]}`;
  const each = (use: (at: number) => void): void => {
    for (let i = 0; i < parts.length; i++) if (parts[i] === SIDE) for (let k = 0; k < 9; k += 3) use(i * 9 + k);
  };
  each((at) => {
    const key = keyOf(at);
    const known = meeting.get(key);
    if (known) known.push(at);
    else meeting.set(key, [at]);
  });
  const flat = normals.slice();
  each((at) => {
    const [x, y, z] = [flat[at]!, flat[at + 1]!, flat[at + 2]!];
    let [sx, sy, sz] = [0, 0, 0];
    for (const other of meeting.get(keyOf(at))!) {
      const [ox, oy, oz] = [flat[other]!, flat[other + 1]!, flat[other + 2]!];
      const bevel = Math.max(Math.abs(z), Math.abs(oz)) > LEVEL;
      if (x * ox + y * oy + z * oz < (bevel ? ROUND_BEVEL : ROUND)) continue;
      sx += ox;
      sy += oy;
      sz += oz;
    }
    const long = Math.hypot(sx, sy, sz) || 1;
    normals[at] = sx / long;
    normals[at + 1] = sy / long;
    normals[at + 2] = sz / long;
  });
}
