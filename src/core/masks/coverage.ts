// Masks at one moment → how much of each pixel they cover.
import type { Rect } from '../picture/rect';
import type { Arena } from '../picture/arena';
import { halfWayLines, planeBytes, withDistance, type PlaneTools } from './distance';
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

const JOINED = ['add', 'subtract', 'intersect', 'exclude'] as const satisfies readonly MaskPlan['mode'][];

/**
 * Coverage of masks together, in order: add a+b−ab, subtract a(1−b), intersect ab, exclude a+b−2ab. When the first one
 * subtracts or intersects it does so from everything; an intersection takes away what the mask does not reach, less so the
 * weaker the mask is. @param rect preview pixels from the source's top left @returns w×h floats 0…1
 */
export function coverage(plan: CoveragePlan, rect: Rect, assets: MaskAssets, tools: PlaneTools): Float32Array {
  const { kernels, arena } = tools;
  const n = rect.w * rect.h;
  const bytes = planeBytes(rect.w, rect.h);
  return arena.guarded(() =>
    arena.scratch(2 * bytes, (sum) => {
      const own = sum + bytes;
      const first = plan.masks[0]?.mode;
      kernels.fillPlane(sum, n, first === 'subtract' || first === 'intersect' ? 1 : 0);
      for (const mask of plan.masks) {
        drawMask(own, mask, plan, rect, assets, tools);
        kernels.joinMask(sum, own, n, JOINED.indexOf(mask.mode), mask.invert ? 1 : 0, mask.opacity);
      }
      const out = arena.floats(sum, n).slice();
      if (plan.side === 'outside') for (let i = 0; i < n; i++) out[i] = 1 - out[i]!;
      return out;
    }),
  );
}

/** One mask's coverage, before its mode, opacity and inversion. @param own address of the floats of a rectangle */
function drawMask(
  own: number,
  mask: MaskPlan,
  at: CoveragePlan,
  rect: Rect,
  assets: MaskAssets,
  tools: PlaneTools,
): void {
  const { kernels, arena } = tools;
  const { shape } = mask;
  const feather = mask.feather * at.scale;
  const shift = mask.featherSide === 'inside' ? -feather / 2 : mask.featherSide === 'outside' ? feather / 2 : 0;
  const grow = mask.grow * at.scale + shift;
  const middle: Pair = [at.centre[0] - rect.x, at.centre[1] - rect.y];
  if (shape.kind === 'line' || shape.kind === 'linear' || shape.kind === 'radial')
    return formula(own, shape, at.scale, middle, rect, grow, feather, tools);
  kernels.fillPlane(own, rect.w * rect.h, 0);
  const outlined = outlines(shape, at.scale, [0, 0], assets);
  const margin = Math.ceil(Math.abs(grow) + feather * SIGMA * 3.5 + 2);
  const soft = outlined?.soft;
  const most = soft ? Math.ceil(soft.reduce((a, b) => Math.max(a, b), 0)) : 0;
  const box = outlined
    ? near(outlined.rings, middle, rect, margin + most)
    : { x: -margin, y: -margin, w: rect.w + 2 * margin, h: rect.h + 2 * margin };
  if (box.w <= 0 || box.h <= 0) return;
  const origin: Pair = [middle[0] - box.x, middle[1] - box.y];
  const rings = outlined?.rings.map((ring) => shifted(ring, origin));
  arena.scratch(planeBytes(box.w, box.h), (plane) => {
    if (rings) arena.floats(plane, box.w * box.h).set(fillRings(rings, box.w, box.h));
    else if (shape.kind === 'brush') {
      kernels.fillPlane(plane, box.w * box.h, 0);
      paintStrokes(tools, plane, shape.strokes, at.scale, origin, box.w, box.h);
    } else {
      const whole = { w: Math.round(2 * at.centre[0]), h: Math.round(2 * at.centre[1]) };
      const bytes = assets.plane(shape as Extract<ShapePlan, { kind: 'picture' | 'matte' }>);
      stretched(tools, plane, bytes, whole, origin, box.w, box.h);
    }
    if (grow !== 0 || most > 0) regrow(tools, plane, box, rings, soft, grow, feather, most);
    if (feather > 0 && most === 0) blurPlane(tools, plane, box.w, box.h, feather * SIGMA);
    copyRows(arena, plane, box, own, rect);
  });
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

/** The plane's edge moved outwards by `grow`, in place; softer where the outline's own feather says so. @param softest of that */
function regrow(
  tools: PlaneTools,
  plane: number,
  { w, h }: Rect,
  rings: readonly Ring[] | undefined,
  soft: Float64Array | undefined,
  grow: number,
  feather: number,
  softest: number,
): void {
  const edges = rings ? linesOf(rings, soft) : { lines: halfWayLines(tools, plane, w, h) };
  if (!edges.lines.length) return;
  const limit = Math.abs(grow) + feather + softest + 1;
  withDistance(tools, edges, w, h, limit, (distance, carried) =>
    tools.kernels.movedEdge(plane, distance, w * h, grow, feather, carried),
  );
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
  return { lines: Float64Array.from(lines), soft: soft && Float32Array.from(ends) };
}

/** Shapes whose coverage is a formula of the place. */
function formula(
  own: number,
  shape: Extract<ShapePlan, { kind: 'line' | 'linear' | 'radial' }>,
  scale: number,
  [mx, my]: Pair,
  { w, h }: Rect,
  grow: number,
  feather: number,
  { kernels }: PlaneTools,
): void {
  if (shape.kind === 'linear') {
    const [x0, y0] = [shape.from[0] * scale, shape.from[1] * scale];
    const [dx, dy] = [shape.to[0] * scale - x0, shape.to[1] * scale - y0];
    return kernels.linearPlane(own, w, h, -mx - x0, -my - y0, dx, dy, grow, feather);
  }
  const turn = (shape.rotation * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const [x, y] = [-mx - shape.centre[0] * scale, -my - shape.centre[1] * scale];
  if (shape.kind === 'line') return kernels.linePlane(own, w, h, x, y, c, s, grow, feather);
  const radius = (size: number) => Math.max(1e-6, (size * scale) / 2 + grow);
  const core = Math.min(0.9999, shape.core);
  kernels.radialPlane(own, w, h, x, y, c, s, radius(shape.size[0]), radius(shape.size[1]), core);
}

/** A picture's bytes over the whole source, as floats in a part of it. */
function stretched(
  { kernels, arena }: PlaneTools,
  plane: number,
  picture: ReturnType<MaskAssets['plane']>,
  whole: { w: number; h: number },
  [ox, oy]: Pair,
  w: number,
  h: number,
): void {
  if (!picture) return kernels.fillPlane(plane, w * h, 0);
  const [sx, sy] = [picture.w / whole.w, picture.h / whole.h];
  const [left, top] = [ox - whole.w / 2, oy - whole.h / 2];
  arena.scratch(picture.values.length, (at) => {
    arena.bytes(at, picture.values.length).set(picture.values);
    kernels.stretchedPlane(at, picture.w, picture.h, plane, w, h, -left * sx, -top * sy, sx, sy);
  });
}

/** The part of a plane that lies in a rectangle, into its place there. @param box in pixels from the rectangle's corner */
function copyRows({ memory }: Arena, plane: number, box: Rect, own: number, rect: Rect): void {
  const floats = new Float32Array(memory.buffer);
  const [x0, x1] = [Math.max(0, box.x), Math.min(rect.w, box.x + box.w)];
  if (x1 <= x0) return;
  for (let y = Math.max(0, box.y); y < Math.min(rect.h, box.y + box.h); y++) {
    const from = plane / 4 + (y - box.y) * box.w - box.x;
    floats.copyWithin(own / 4 + y * rect.w + x0, from + x0, from + x1);
  }
}
