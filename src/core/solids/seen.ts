// Bodies as the eye sees them: placed, turned, cut off in front of the eye, in perspective.
import { SIDE, type Body } from './body';

/** Three rows of four: what becomes of x, y, z and 1. */
export type Pose = readonly number[];
const UNMOVED: Pose = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0];

/** First one pose, then another. */
export function then(first: Pose, second: Pose): Pose {
  const out: number[] = [];
  for (let r = 0; r < 12; r += 4)
    for (let c = 0; c < 4; c++) {
      let sum = c === 3 ? second[r + 3]! : 0;
      for (let k = 0; k < 3; k++) sum += second[r + k]! * first[4 * k + c]!;
      out.push(sum);
    }
  return out;
}
export const movedBy = (x: number, y: number, z: number): Pose => [1, 0, 0, x, 0, 1, 0, y, 0, 0, 1, z];
export const sized = (s: number): Pose => [s, 0, 0, 0, 0, s, 0, 0, 0, 0, s, 0];
/** Turned in degrees: first in the picture, clockwise; then about the level axis, the top away from the eye; then about the upright one, the right side away. */
export function turned(roll: number, tip: number, turn: number): Pose {
  const [cr, sr] = cosSin(roll);
  const [cx, sx] = cosSin(tip);
  const [cy, sy] = cosSin(turn);
  const rolled: Pose = [cr, -sr, 0, 0, sr, cr, 0, 0, 0, 0, 1, 0];
  const tipped: Pose = [1, 0, 0, 0, 0, cx, -sx, 0, 0, sx, cx, 0];
  const swung: Pose = [cy, 0, sy, 0, 0, 1, 0, 0, -sy, 0, cy, 0];
  return [rolled, tipped, swung].reduce(then, UNMOVED);
}
const cosSin = (degrees: number): readonly [number, number] => {
  const angle = (degrees * Math.PI) / 180;
  return [Math.cos(angle), Math.sin(angle)];
};

export interface PosedBody {
  body: Body;
  pose: Pose;
  /** how deep it is, in pixels, its bevels included */
  depth: number;
}
export interface Eye {
  /** of the picture, in front of which the eye is */
  middle: readonly [number, number];
  /** from the plane in which things have their own size, in pixels */
  distance: number;
}

/** Numbers of a triangle, as the kernel that draws them takes them. */
export const TRIANGLE = 21;
const [PART, FACET] = [18, 19];
/** What is nearer to the eye than this share of its distance is cut off. */
const NEAREST = 0.02;
/** Numbers of a corner: x, y, z and its normal. */
const CORNER = 6;

/** Writes the triangles that face the eye. @returns their numbers */
export function seenTriangles(bodies: readonly PosedBody[], eye: Eye): Float32Array {
  const count = bodies.reduce((sum, { body }) => sum + body.parts.length, 0);
  // one that is cut may become two
  const front = eye.distance * (1 - NEAREST);
  const cut = bodies.some((body) => nearestOf(body) > front);
  const list = new Float32Array((cut ? 2 : 1) * count * TRIANGLE);
  const corners = new Float64Array(3 * CORNER);
  let at = 0;
  for (const posed of bodies) {
    const { parts } = posed.body;
    // a face is one, a side is of facets of two triangles each
    const facets: [of: number, triangle: number][] = [];
    let sides = 0;
    const write = (from: Float64Array, part: number): void => {
      if (!writeTriangle(list, at, from, eye)) return;
      const own = at / TRIANGLE;
      const of = part === SIDE ? sides >> 1 : 0;
      if (facets[part]?.[0] !== of) facets[part] = [of, own];
      list[at + PART] = part;
      list[at + FACET] = facets[part]![1];
      at += TRIANGLE;
    };
    for (let i = 0; i < parts.length; i++) {
      pose(corners, posed, i);
      const [a, b, c] = [corners[2]!, corners[CORNER + 2]!, corners[2 * CORNER + 2]!];
      if (a <= front && b <= front && c <= front) write(corners, parts[i]!);
      else for (const left of cutOff(corners, front)) write(left, parts[i]!);
      if (parts[i] === SIDE) sides++;
    }
  }
  return list.subarray(0, at);
}

/** No part of a body is nearer to the eye than this z. */
function nearestOf({ body: { corners }, pose: m, depth }: PosedBody): number {
  let far = 0;
  for (let i = 0; i < corners.length; i += 3) far = Math.max(far, Math.abs(corners[i]!), Math.abs(corners[i + 1]!));
  return m[11]! + (Math.abs(m[8]!) + Math.abs(m[9]!)) * far + Math.max(0, m[10]!) * depth;
}

/** A triangle where it stands. The bevels of a body keep their size, unless it is less deep than they are. */
function pose(out: Float64Array, { body, pose: m, depth }: PosedBody, triangle: number): void {
  const { corners, normals, bevel } = body;
  const share = bevel > 0 ? Math.min(1, depth / (2 * bevel)) : 1;
  for (let k = 0, at = triangle * 9, to = 0; k < 3; k++, at += 3, to += CORNER) {
    const z = corners[at + 2]!;
    const [x, y, deep] = [
      corners[at]!,
      corners[at + 1]!,
      z < 0.5 ? (z + bevel) * share : depth - (1 + bevel - z) * share,
    ];
    const [nx, ny, nz] = [normals[at]!, normals[at + 1]!, normals[at + 2]!];
    for (let r = 0; r < 3; r++) {
      const [p, q, s] = [m[4 * r]!, m[4 * r + 1]!, m[4 * r + 2]!];
      out[to + r] = p * x + q * y + s * deep + m[4 * r + 3]!;
      out[to + r + 3] = p * nx + q * ny + s * nz;
    }
  }
}

/** The part of a triangle that lies behind a plane of z, as triangles. Source: Sutherland & Hodgman 1974. */
function cutOff(corners: Float64Array, front: number): Float64Array[] {
  const left: number[][] = [];
  const all = [0, 1, 2].map((k) => [...corners.subarray(k * CORNER, (k + 1) * CORNER)]);
  all.forEach((corner, i) => {
    const last = all.at(i - 1)!;
    if (last[2]! <= front !== corner[2]! <= front) {
      const share = (front - last[2]!) / (corner[2]! - last[2]!);
      left.push(last.map((v, k) => v + (corner[k]! - v) * share));
    }
    if (corner[2]! <= front) left.push(corner);
  });
  return left.slice(2).map((corner, k) => Float64Array.from([...left[0]!, ...left[k + 1]!, ...corner]));
}

/** @returns whether it faces the eye */
function writeTriangle(list: Float32Array, at: number, corners: Float64Array, { middle, distance }: Eye): boolean {
  for (let k = 0; k < 3; k++) {
    const from = k * CORNER;
    const near = 1 / (distance - corners[from + 2]!);
    list[at + 3 * k] = middle[0] + corners[from]! * distance * near;
    list[at + 3 * k + 1] = middle[1] + corners[from + 1]! * distance * near;
    list[at + 3 * k + 2] = near;
    for (let axis = 0; axis < 3; axis++) list[at + 9 + 3 * k + axis] = corners[from + 3 + axis]!;
  }
  const [x0, y0] = [list[at]!, list[at + 1]!];
  return (list[at + 3]! - x0) * (list[at + 7]! - y0) - (list[at + 6]! - x0) * (list[at + 4]! - y0) < 0;
}

/** The box of triangles: left, top, right, bottom; null for none. */
export function boundsOfTriangles(list: Float32Array): [number, number, number, number] | null {
  if (!list.length) return null;
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let at = 0; at < list.length; at += TRIANGLE)
    for (let k = 0; k < 9; k += 3) {
      const [x, y] = [list[at + k]!, list[at + k + 1]!];
      box[0] = Math.min(box[0], x);
      box[1] = Math.min(box[1], y);
      box[2] = Math.max(box[2], x);
      box[3] = Math.max(box[3], y);
    }
  return box;
}
