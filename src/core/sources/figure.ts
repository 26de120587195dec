// What the outline of a shape runs along, and what its line covers.
import { arrowRing, cornersRing } from '../masks/forms';
import type { CoveragePlan, MaskPlan } from '../masks/coverage';
import { ellipseRing, placedRings, rectangleRing } from '../masks/outline';
import { flattened, type Ring } from '../masks/path';
import { fillRings } from '../masks/raster';
import { strokeRings, type Stroke } from '../masks/stroke';

/** A line that a pen could follow. Pixels about the middle of the picture. */
export interface Way {
  ring: Ring;
  /** whether it comes back to its beginning */
  closed: boolean;
}

export interface Form {
  form: string;
  width: number;
  height: number;
  radius: number;
  corners: number;
  inner: number;
  head: number;
  shaft: number;
  /** what a free path is drawn by */
  paths: CoveragePlan;
}
/** The ways that a shape consists of. */
export function waysOf(v: Form): Way[] {
  if (v.form === 'path') return v.paths.masks.flatMap(({ shape }) => drawnWay(shape, v.paths.scale) ?? []);
  const box: [number, number] = [v.width, v.height];
  if (v.form === 'line') return [{ ring: Float64Array.of(-v.width / 2, 0, v.width / 2, 0), closed: false }];
  const ring =
    v.form === 'ellipse'
      ? ellipseRing(box)
      : v.form === 'polygon'
        ? cornersRing(box, v.corners)
        : v.form === 'star'
          ? cornersRing(box, v.corners, v.inner)
          : v.form === 'arrow'
            ? arrowRing(box, v.head, v.shaft)
            : rectangleRing(box, v.radius);
  return [{ ring, closed: true }];
}

/** The way along what a mask is drawn as, if that has one. */
function drawnWay(shape: MaskPlan['shape'], scale: number): Way | null {
  if (shape.kind === 'path') {
    if (shape.path.length < 2) return null;
    const closed = shape.closed && shape.path.length > 2;
    return { ring: flattened(shape.path, closed).ring.map((v) => v * scale), closed };
  }
  if (shape.kind !== 'rectangle' && shape.kind !== 'ellipse') return null;
  const ring = shape.kind === 'ellipse' ? ellipseRing(shape.size) : rectangleRing(shape.size, shape.radius);
  return { ring: placedRings([ring], shape, scale, [0, 0])[0]!, closed: true };
}

const FETCHED = ['picture', 'matte', 'text'];
/** The masks that fill a free path: all that enclose something by themselves. */
export const filling = (paths: CoveragePlan): CoveragePlan => ({
  ...paths,
  masks: paths.masks.filter(
    ({ shape }) => !FETCHED.includes(shape.kind) && (shape.kind !== 'path' || (shape.closed && shape.path.length > 2)),
  ),
});

export interface DrawnLine extends Omit<Stroke, 'lies'> {
  lies: 'inside' | 'on' | 'outside';
  /** share of what is there over which each end fades, 0…0.5 */
  fade: number;
  /** whether several ways are drawn one after another */
  together: boolean;
}

/** Pixels for each step of a fading end, and the most steps. */
const FADE_STEP = 2;
const MOST_STEPS = 24;

/** @returns w×h floats 0…1: what a line along ways covers. A fading end is many lines, each a little shorter */
export function linePlane(ways: readonly Way[], line: DrawnLine, w: number, h: number): Float32Array {
  const out = new Float32Array(w * h);
  const [from, to] = [Math.min(line.from, line.to), Math.max(line.from, line.to)];
  const there = (to - from) * ways.reduce((sum, way) => sum + lengthOf(way), 0);
  const steps = Math.max(1, Math.min(MOST_STEPS, Math.ceil((line.fade * there) / FADE_STEP)));
  for (let k = 0; k < steps; k++) {
    const in_ = steps > 1 ? (line.fade * (to - from) * (k + 0.5)) / steps : 0;
    const rings = lineRings(ways, { ...line, from: from + in_, to: to - in_ });
    const placed = rings.map((ring) => ring.map((v, i) => v + (i % 2 ? h : w) / 2));
    const plane = fillRings(placed, w, h);
    if (steps === 1) return plane;
    for (let i = 0; i < out.length; i++) out[i]! += plane[i]! / steps;
  }
  return out;
}

function lineRings(ways: readonly Way[], line: DrawnLine): Ring[] {
  const lengths = ways.map(lengthOf);
  const whole = lengths.reduce((a, b) => a + b, 0);
  let before = 0;
  return ways.flatMap((way, i) => {
    const long = lengths[i]!;
    const share = (v: number): number => (line.together ? v : Math.min(1, Math.max(0, (v * whole - before) / long)));
    const [from, to] = [share(line.from), share(line.to)];
    before += long;
    return strokeRings(way.ring, way.closed, { ...line, from, to, lies: sideOf(way, line.lies) });
  });
}

/** Which side of a way is meant, −1 left of it to 1 right. */
function sideOf({ ring, closed }: Way, lies: DrawnLine['lies']): number {
  if (!closed || lies === 'on') return 0;
  let area = 0;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2)
    area += ring[j]! * ring[i + 1]! - ring[i]! * ring[j + 1]!;
  return (lies === 'inside' ? 1 : -1) * (area < 0 ? -1 : 1);
}

function lengthOf({ ring, closed }: Way): number {
  let long = 0;
  for (let i = closed ? 0 : 2, j = closed ? ring.length - 2 : 0; i < ring.length; j = i, i += 2)
    long += Math.hypot(ring[i]! - ring[j]!, ring[i + 1]! - ring[j + 1]!);
  return long;
}
