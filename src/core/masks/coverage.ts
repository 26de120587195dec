// Masks at one moment → how much of each pixel they cover.
import type { Rect } from '../picture/rect';
import { edgeDistance, halfWayLines } from './distance';
import { flattened, type Ring, type Vertex } from './path';
import { fillRings } from './raster';
import { blurPlane } from './soften';
import { paintStrokes, type PlainStroke } from './brush';
import { ellipseRing, placedRings, rectangleRing } from './outline';

type Pair = readonly [number, number];
/** A mask's shape at a moment; places in source pixels from the source's centre. Pictures and outlines of text are fetched by key. */
export type ShapePlan =
  | { kind: 'rectangle'; centre: Pair; size: Pair; rotation: number; radius: number }
  | { kind: 'ellipse'; centre: Pair; size: Pair; rotation: number }
  | { kind: 'line'; centre: Pair; rotation: number }
  | { kind: 'path'; closed: boolean; path: readonly Vertex[] }
  | { kind: 'brush'; strokes: readonly PlainStroke[] }
  | { kind: 'linear'; from: Pair; to: Pair }
  | { kind: 'radial'; centre: Pair; size: Pair; rotation: number; core: number }
  | { kind: 'picture'; stock: string; name: string; file: string; seconds: number; channel: 'brightness' | 'alpha' }
  | { kind: 'text'; text: string; centre: Pair; height: number; rotation: number }
  | { kind: 'matte'; /** of its content, see matte-data.ts */ id: string };

export interface MaskPlan {
  mode: 'add' | 'subtract' | 'intersect' | 'exclude';
  invert: boolean;
  opacity: number;
  feather: number;
  featherSide: 'both' | 'inside' | 'outside';
  grow: number;
  shape: ShapePlan;
}
/** Masks that together give a coverage. */
export interface CoveragePlan {
  masks: readonly MaskPlan[];
  side: 'inside' | 'outside';
  /** preview pixels for each source pixel */
  scale: number;
  /** middle of the source in preview pixels */
  centre: Pair;
}
/** What shapes need that is not in the plan. Planes are stretched over the whole source. */
export interface MaskAssets {
  plane(shape: Extract<ShapePlan, { kind: 'picture' | 'matte' }>): { w: number; h: number; values: Uint8Array } | null;
  /** outlines at a height of 1, centred on the origin */
  outlines(text: string): readonly Ring[];
}

/** The share of a soft edge's width that is one standard deviation of its ramp. */
const SIGMA = 1 / 4;

/**
 * Coverage of masks together, in order: add a+b−ab, subtract a(1−b), intersect ab, exclude a+b−2ab. When the first one
 * subtracts or intersects it does so from everything. @param rect preview pixels from the source's top left @returns w×h floats 0…1
 */
export function coverage(plan: CoveragePlan, rect: Rect, assets: MaskAssets): Float32Array {
  const sum = new Float32Array(rect.w * rect.h);
  if (plan.masks[0]?.mode === 'subtract' || plan.masks[0]?.mode === 'intersect') sum.fill(1);
  for (const mask of plan.masks) {
    const own = maskCoverage(mask, plan, rect, assets);
    const { opacity, invert, mode } = mask;
    for (let i = 0; i < sum.length; i++) {
      const a = sum[i]!;
      const b = (invert ? 1 - own[i]! : own[i]!) * opacity;
      // the others leave alone what the mask does not reach; an intersection takes it away, less so the weaker the mask is
      sum[i] =
        mode === 'add'
          ? a + b - a * b
          : mode === 'subtract'
            ? a * (1 - b)
            : mode === 'exclude'
              ? a + b - 2 * a * b
              : a * (b + 1 - opacity);
    }
  }
  if (plan.side === 'outside') for (let i = 0; i < sum.length; i++) sum[i] = 1 - sum[i]!;
  return sum;
}

/** One mask's coverage, before its mode, opacity and inversion. */
export function maskCoverage(
  mask: MaskPlan,
  at: Pick<CoveragePlan, 'scale' | 'centre'>,
  rect: Rect,
  assets: MaskAssets,
): Float32Array {
  const { shape } = mask;
  const feather = mask.feather * at.scale;
  const shift = mask.featherSide === 'inside' ? -feather / 2 : mask.featherSide === 'outside' ? feather / 2 : 0;
  const grow = mask.grow * at.scale + shift;
  const middle: Pair = [at.centre[0] - rect.x, at.centre[1] - rect.y];
  if (shape.kind === 'line' || shape.kind === 'linear' || shape.kind === 'radial')
    return analytic(shape, at.scale, middle, rect, grow, feather);
  const whole = { w: Math.round(2 * at.centre[0]), h: Math.round(2 * at.centre[1]) };
  const outlined = outlines(shape, at.scale, [0, 0], assets);
  const margin = Math.ceil(Math.abs(grow) + feather * SIGMA * 3.5 + 2);
  const soft = outlined?.soft;
  const most = soft ? Math.ceil(soft.reduce((a, b) => Math.max(a, b), 0)) : 0;
  const box = outlined
    ? near(outlined.rings, middle, rect, margin + most)
    : { x: -margin, y: -margin, w: rect.w + 2 * margin, h: rect.h + 2 * margin };
  if (box.w <= 0 || box.h <= 0) return new Float32Array(rect.w * rect.h);
  const origin: Pair = [middle[0] - box.x, middle[1] - box.y];
  const rings = outlined?.rings.map((ring) => shifted(ring, origin));
  let plane: Float32Array;
  if (rings) plane = fillRings(rings, box.w, box.h);
  else if (shape.kind === 'brush') plane = paintStrokes(shape.strokes, at.scale, origin, box.w, box.h);
  else
    plane = stretched(
      assets.plane(shape as Extract<ShapePlan, { kind: 'picture' | 'matte' }>),
      whole,
      origin,
      box.w,
      box.h,
    );
  if (grow !== 0 || most > 0) plane = regrown(plane, box, rings, soft, grow, feather);
  if (feather > 0 && most === 0) blurPlane(plane, box.w, box.h, feather * SIGMA);
  return cut(plane, box, rect);
}

/** The closed lines of a shape about the origin, if it has any. */
function outlines(
  shape: ShapePlan,
  scale: number,
  at: Pair,
  assets: MaskAssets,
): { rings: Ring[]; soft?: Float64Array } | null {
  if (shape.kind === 'rectangle')
    return { rings: placedRings([rectangleRing(shape.size, shape.radius)], shape, scale, at) };
  if (shape.kind === 'ellipse') return { rings: placedRings([ellipseRing(shape.size)], shape, scale, at) };
  if (shape.kind === 'text') {
    const tall = shape.height;
    return {
      rings: placedRings(
        assets.outlines(shape.text).map((ring) => ring.map((v) => v * tall)),
        shape,
        scale,
        at,
      ),
    };
  }
  if (shape.kind !== 'path') return null;
  if (!shape.closed || shape.path.length < 3) return { rings: [] };
  const { ring, feather } = flattened(shape.path);
  const soft = feather.some((v) => v > 0) ? { soft: feather.map((v) => v * scale) } : {};
  return { rings: placedRings([ring], { centre: [0, 0], rotation: 0 }, scale, at), ...soft };
}

/** The part of a grown rectangle that rings and their margin reach. In pixels from the rectangle's corner. */
function near(rings: readonly Ring[], [mx, my]: Pair, rect: Rect, margin: number): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      left = Math.min(left, ring[i]!);
      right = Math.max(right, ring[i]!);
      top = Math.min(top, ring[i + 1]!);
      bottom = Math.max(bottom, ring[i + 1]!);
    }
  }
  const x = Math.max(-margin, Math.floor(left + mx - margin));
  const y = Math.max(-margin, Math.floor(top + my - margin));
  return {
    x,
    y,
    w: Math.min(rect.w + margin, Math.ceil(right + mx + margin)) - x,
    h: Math.min(rect.h + margin, Math.ceil(bottom + my + margin)) - y,
  };
}

const shifted = (ring: Ring, [x, y]: Pair): Ring => ring.map((v, i) => v + (i % 2 ? y : x));

/** The plane with its edge moved outwards by `grow`; softer where the outline's own feather says so. */
function regrown(
  plane: Float32Array,
  { w, h }: Rect,
  rings: readonly Ring[] | undefined,
  soft: Float64Array | undefined,
  grow: number,
  feather: number,
): Float32Array {
  const edges = rings ? linesOf(rings, soft) : { lines: halfWayLines(plane, w, h) };
  if (!edges.lines.length) return plane;
  const found = edgeDistance(edges, w, h);
  const out = new Float32Array(w * h);
  for (let i = 0; i < out.length; i++) {
    const inside = (plane[i]! >= 0.5 ? found.distance[i]! : -found.distance[i]!) + grow;
    const width = soft ? feather + found.soft![i]! : 0;
    out[i] = width > 1 ? ramp(inside, width) : Math.min(1, Math.max(0, inside + 0.5));
  }
  return out;
}

function linesOf(rings: readonly Ring[], soft?: Float64Array) {
  const lines: number[] = [];
  const ends: number[] = [];
  for (const ring of rings) {
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      lines.push(ring[i]!, ring[i + 1]!, ring[j]!, ring[j + 1]!);
      if (soft) ends.push(soft[i / 2]!, soft[j / 2]!);
    }
  }
  return { lines: Float64Array.from(lines), soft: soft && Float64Array.from(ends) };
}

/** A soft edge of a width: the integral of a Gaussian of a quarter of it, by the logistic curve next to it. */
const ramp = (inside: number, width: number): number => {
  const z = inside / (width * SIGMA);
  return z > 3.5 ? 1 : z < -3.5 ? 0 : 1 / (1 + Math.exp(-1.5976 * z - 0.07056 * z * z * z));
};

/** Shapes whose coverage is a formula of the place. */
function analytic(
  shape: Extract<ShapePlan, { kind: 'line' | 'linear' | 'radial' }>,
  scale: number,
  [mx, my]: Pair,
  rect: Rect,
  grow: number,
  feather: number,
): Float32Array {
  const out = new Float32Array(rect.w * rect.h);
  const value = formula(shape, scale, grow, feather);
  for (let y = 0, i = 0; y < rect.h; y++)
    for (let x = 0; x < rect.w; x++, i++) out[i] = value(x + 0.5 - mx, y + 0.5 - my);
  return out;
}

function formula(
  shape: Extract<ShapePlan, { kind: 'line' | 'linear' | 'radial' }>,
  scale: number,
  grow: number,
  feather: number,
): (x: number, y: number) => number {
  if (shape.kind === 'linear') {
    const [x0, y0] = [shape.from[0] * scale, shape.from[1] * scale];
    const [dx, dy] = [shape.to[0] * scale - x0, shape.to[1] * scale - y0];
    const long = Math.hypot(dx, dy) || 1e-6;
    const soft = long + feather;
    return (x, y) => Math.min(1, Math.max(0, 0.5 + (long / 2 + grow - ((x - x0) * dx + (y - y0) * dy) / long) / soft));
  }
  const turn = (shape.rotation * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [cx, cy] = [shape.centre[0] * scale, shape.centre[1] * scale];
  if (shape.kind === 'line')
    return (x, y) => {
      const inside = -(x - cx) * s + (y - cy) * c + grow;
      return feather > 1 ? ramp(inside, feather) : Math.min(1, Math.max(0, inside + 0.5));
    };
  const [rx, ry] = [
    Math.max(1e-6, (shape.size[0] * scale) / 2 + grow),
    Math.max(1e-6, (shape.size[1] * scale) / 2 + grow),
  ];
  const inner = Math.min(0.9999, shape.core);
  return (x, y) => {
    const [u, v] = [((x - cx) * c + (y - cy) * s) / rx, (-(x - cx) * s + (y - cy) * c) / ry];
    const t = Math.min(1, Math.max(0, (1 - Math.hypot(u, v)) / (1 - inner)));
    return t * t * (3 - 2 * t);
  };
}

/** A plane of bytes over the whole source, as floats in a part of it. */
function stretched(
  plane: ReturnType<MaskAssets['plane']>,
  whole: { w: number; h: number },
  [ox, oy]: Pair,
  w: number,
  h: number,
): Float32Array {
  const out = new Float32Array(w * h);
  if (!plane) return out;
  const [sx, sy] = [plane.w / whole.w, plane.h / whole.h];
  const [left, top] = [ox - whole.w / 2, oy - whole.h / 2];
  const clamp = (v: number, most: number) => (v < 0 ? 0 : v > most ? most : v);
  for (let y = 0, i = 0; y < h; y++) {
    const v = clamp((y + 0.5 - top) * sy - 0.5, plane.h - 1);
    const y0 = Math.floor(v);
    const fy = v - y0;
    const down = Math.min(plane.h - 1, y0 + 1) * plane.w;
    for (let x = 0; x < w; x++, i++) {
      const u = clamp((x + 0.5 - left) * sx - 0.5, plane.w - 1);
      const x0 = Math.floor(u);
      const fx = u - x0;
      const x1 = Math.min(plane.w - 1, x0 + 1);
      const p = plane.values;
      const upper = p[y0 * plane.w + x0]! * (1 - fx) + p[y0 * plane.w + x1]! * fx;
      const lower = p[down + x0]! * (1 - fx) + p[down + x1]! * fx;
      out[i] = (upper + (lower - upper) * fy) / 255;
    }
  }
  return out;
}

function cut(plane: Float32Array, box: Rect, rect: Rect): Float32Array {
  const out = new Float32Array(rect.w * rect.h);
  const [x0, x1] = [Math.max(0, box.x), Math.min(rect.w, box.x + box.w)];
  for (let y = Math.max(0, box.y); y < Math.min(rect.h, box.y + box.h); y++) {
    const from = (y - box.y) * box.w - box.x;
    out.set(plane.subarray(from + x0, from + Math.max(x0, x1)), y * rect.w + x0);
  }
  return out;
}
