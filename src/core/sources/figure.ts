// What the outline of a shape runs along, and what its fill and its line cover.
import { arrowRing, cornersRing } from '../masks/forms';
import { coverage, type CoveragePlan, type MaskAssets, type MaskPlan } from '../masks/coverage';
import { ellipseRing, placedRings, rectangleRing } from '../masks/outline';
import { boundsOf, flattened, shifted, type Ring } from '../masks/path';
import { fillRings } from '../masks/raster';
import { strokeRings, type Stroke } from '../masks/stroke';
import type { PlaneTools } from '../masks/distance';
import type { Rect } from '../picture/rect';

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
/** For what is drawn by masks that need nothing from elsewhere. */
export const NOTHING_FETCHED: MaskAssets = { plane: () => null, outlines: () => [] };
/** The masks that cover something by what is drawn of them alone; null for none. */
export function drawnMasks(paths: CoveragePlan): CoveragePlan | null {
  const masks = paths.masks.filter(
    ({ shape }) => !FETCHED.includes(shape.kind) && (shape.kind !== 'path' || (shape.closed && shape.path.length > 2)),
  );
  return masks.length ? { ...paths, masks } : null;
}
/** Where a part of a shape's picture lies, in pixels from its top left, in a picture of some size. */
export interface Field {
  rect: Rect;
  size: { w: number; h: number };
}
/** Rings about the middle of the picture, from the corner of a part of it. */
const within = (rings: readonly Ring[], { rect, size }: Field): Ring[] =>
  shifted(rings, size.w / 2 - rect.x, size.h / 2 - rect.y);

/** @returns w×h floats 0…1 of the field: what a shape's fill covers; null when it encloses nothing */
export function fillPlane(v: Form, ways: readonly Way[], field: Field, tools: PlaneTools): Float32Array | null {
  const { rect } = field;
  const rings = ways.map(({ ring }) => ring);
  if (v.form !== 'path') return fillRings(within(rings, field), rect.w, rect.h);
  const plan = drawnMasks(v.paths);
  return plan && coverage(plan, rect, NOTHING_FETCHED, tools);
}

/** The longest mitre, and a line that lies beside its way, as widths of the line. */
const LINE_REACH = 4;
/** The box of what may be drawn, from the picture's top left: left, top, right, bottom. Null for nothing; 'all' where masks with soft edges fill it. */
export function drawnBox(
  v: Form & { fill: string; line: number },
  ways: readonly Way[],
  { w, h }: Field['size'],
): [number, number, number, number] | 'all' | null {
  if (v.form === 'path' && v.fill !== 'none') return 'all';
  if (!ways.length) return null;
  const reach = LINE_REACH * v.line;
  const [left, top, right, bottom] = boundsOf(ways.map(({ ring }) => ring));
  return [w / 2 + left - reach, h / 2 + top - reach, w / 2 + right + reach, h / 2 + bottom + reach];
}

export interface DrawnLine extends Omit<Stroke, 'lies'> {
  lies: 'inside' | 'on' | 'outside';
  /** share of what is there over which each end fades, 0…0.5 */
  fade: number;
  /** whether several ways are drawn one after another */
  together: boolean;
}

/** Pixels for each step of a fading end, and the most steps. */
const FADE_STEP = 2;
const MOST_STEPS = 48;
/** A part of the whole length, and how solid it is there. */
interface Part {
  from: number;
  to: number;
  strength: number;
}
/** The drawn part of a line in pieces that lie end to end: a solid one, and steps of the fading ends. @param long of all of it, pixels */
function partsOf({ from, to, fade }: { from: number; to: number; fade: number }, long: number): Part[] {
  const end = fade * (to - from);
  const steps = Math.min(MOST_STEPS, Math.ceil((end * long) / FADE_STEP));
  if (steps < 1) return [{ from, to, strength: 1 }];
  const parts = Array.from({ length: steps }, (_, k) => {
    const [near, far, strength] = [(k * end) / steps, ((k + 1) * end) / steps, (k + 0.5) / steps];
    return [
      { from: from + near, to: from + far, strength },
      { from: to - far, to: to - near, strength },
    ];
  }).flat();
  return [...parts, { from: from + end, to: to - end, strength: 1 }].filter((part) => part.to > part.from);
}

/** @returns w×h floats 0…1 of the field: what a line along ways covers */
export function linePlane(ways: readonly Way[], line: DrawnLine, field: Field): Float32Array {
  const { w, h } = field.rect;
  const out = new Float32Array(w * h);
  const [from, to] = [Math.min(line.from, line.to), Math.max(line.from, line.to)];
  const lengths = ways.map(lengthOf);
  const whole = lengths.reduce((a, b) => a + b, 0);
  const parts = partsOf({ from, to, fade: line.fade }, whole);
  for (const { strength, ...part } of parts) {
    // pieces meet where they are cut off straight
    const cut = parts.length > 1 ? { cap: 'flat' as const, thinned: { from, to } } : {};
    const rings = lineRings(ways, lengths, { ...line, ...part, ...cut });
    addRings(out, within(rings, field), strength, w, h);
  }
  return out;
}

/** Adds what rings cover to a plane, looking at nothing but their box. */
function addRings(out: Float32Array, rings: readonly Ring[], strength: number, w: number, h: number): void {
  if (!rings.length) return;
  const [left, top, right, bottom] = boundsOf(rings);
  const [x0, y0] = [Math.max(0, Math.floor(left)), Math.max(0, Math.floor(top))];
  const [wide, high] = [Math.min(w, Math.ceil(right)) - x0, Math.min(h, Math.ceil(bottom)) - y0];
  if (wide <= 0 || high <= 0) return;
  const near = fillRings(shifted(rings, -x0, -y0), wide, high);
  for (let y = 0, from = 0; y < high; y++)
    for (let x = 0, to = (y0 + y) * w + x0; x < wide; x++, to++, from++)
      out[to] = Math.min(1, out[to]! + strength * near[from]!);
}

/** So near to an end is the end: a closed way that is drawn all round has none. */
const END = 1e-9;
/** @param lengths of the ways */
function lineRings(ways: readonly Way[], lengths: readonly number[], line: DrawnLine): Ring[] {
  const whole = lengths.reduce((a, b) => a + b, 0);
  let passed = 0;
  return ways.flatMap((way, i) => {
    const [before, long] = [passed, lengths[i]!];
    passed += long;
    const share = (v: number): number => {
      if (line.together) return v;
      const own = (v * whole - before) / long;
      return own < END ? 0 : own > 1 - END ? 1 : own;
    };
    const part = ({ from, to }: { from: number; to: number }) => ({ from: share(from), to: share(to) });
    const own = part(line);
    if (own.to <= own.from) return [];
    const thinned = line.thinned && { thinned: part(line.thinned) };
    return strokeRings(way.ring, way.closed, {
      ...line,
      ...own,
      ...thinned,
      lies: sideOf(way, line.lies),
    });
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
