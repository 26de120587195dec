import { z } from 'zod';
import { drawnMatteSchema } from '../masks/matte-data';
import { corner, type Vertex } from '../masks/path';
import { framesSchema, still, valueOf, type Value } from '../base/value';

export const maskIdSchema = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/)
  .brand<'mask'>();
export type MaskId = z.infer<typeof maskIdSchema>;

const finite = z.number().min(-1e6).max(1e6);
const pair = z.tuple([finite, finite]);
const share = z.number().min(0).max(1);
const stock = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/)
  .brand<'stock'>();

/** The most vertices of a path. */
export const MOST_VERTICES = 2000;
const vertexSchema = z.tuple([finite, finite, finite, finite, finite, finite, z.number().min(0).max(2000)]);

/** One stroke of a brush: x, y and pressure 0…1 of each point, in source pixels from the source's centre. */
export const strokeSchema = z
  .object({
    points: z
      .array(z.tuple([finite, finite, share]))
      .min(1)
      .max(20_000),
    size: z.number().min(0.5).max(4000),
    hardness: share,
    opacity: share,
    erase: z.boolean(),
  })
  .strict();
export type Stroke = z.infer<typeof strokeSchema>;

/** Most masks of a layer. */
export const MOST_MASKS = 200;

/** A stroke that says what belongs to a smart selection, made at a frame of layer time. */
export const hintSchema = z
  .object({
    at: framesSchema,
    keep: z.boolean(),
    size: z.number().min(1).max(1000),
    points: z.array(pair).min(1).max(20_000),
  })
  .strict();
export type Hint = z.infer<typeof hintSchema>;

const centre = valueOf(pair);
const size = valueOf(z.tuple([z.number().min(0).max(1e5), z.number().min(0).max(1e5)]));
const rotation = valueOf(finite);

/** What a mask is drawn as. Places are source pixels from the source's centre, y down; angles are degrees clockwise. */
export const shapeSchema = z.discriminatedUnion('kind', [
  z
    .object({ kind: z.literal('rectangle'), centre, size, rotation, radius: valueOf(z.number().min(0).max(1e5)) })
    .strict(),
  z.object({ kind: z.literal('ellipse'), centre, size, rotation }).strict(),
  /** everything on one side of a line through `centre`; at 0° the lower side */
  z.object({ kind: z.literal('line'), centre, rotation }).strict(),
  /** an open path is a draft and covers nothing */
  z
    .object({ kind: z.literal('path'), closed: z.boolean(), path: valueOf(z.array(vertexSchema).max(MOST_VERTICES)) })
    .strict(),
  z.object({ kind: z.literal('brush'), strokes: valueOf(z.array(strokeSchema).max(2000)) }).strict(),
  /** solid at `from`, clear at `to` */
  z.object({ kind: z.literal('linear'), from: valueOf(pair), to: valueOf(pair) }).strict(),
  /** solid within the share `core` of its radii, clear at its rim */
  z.object({ kind: z.literal('radial'), centre, size, rotation, core: valueOf(share) }).strict(),
  z.object({ kind: z.literal('picture'), stock, channel: z.enum(['brightness', 'alpha']) }).strict(),
  z
    .object({
      kind: z.literal('text'),
      text: z.string().max(500),
      centre,
      height: valueOf(z.number().min(1).max(1e4)),
      rotation,
    })
    .strict(),
  z
    .object({
      kind: z.literal('matte'),
      matte: valueOf(drawnMatteSchema),
      hints: z.array(hintSchema).max(500),
      confidence: valueOf(share),
    })
    .strict(),
]);
export type Shape = z.infer<typeof shapeSchema>;
export type ShapeKind = Shape['kind'];

export const MASK_MODES = ['add', 'subtract', 'intersect', 'exclude'] as const;
export const MASK_COLOURS = ['sand', 'moss', 'slate', 'rust', 'plum', 'chalk'] as const;
export const FEATHER_SIDES = ['both', 'inside', 'outside'] as const;
/** Farthest that a mask's edge is moved by growing, in pixels. */
export const MOST_GROW = 1000;

export const maskSchema = z
  .object({
    id: maskIdSchema,
    name: z.string().trim().min(1).max(200),
    colour: z.enum(MASK_COLOURS),
    on: z.boolean(),
    shape: shapeSchema,
    mode: z.enum(MASK_MODES),
    invert: z.boolean(),
    opacity: valueOf(share),
    /** width of the soft edge in pixels */
    feather: valueOf(z.number().min(0).max(2000)),
    featherSide: z.enum(FEATHER_SIDES),
    /** pixels by which the edge is moved outwards, or inwards when negative */
    grow: valueOf(z.number().min(-MOST_GROW).max(MOST_GROW)),
  })
  .strict();
export type Mask = z.infer<typeof maskSchema>;

export const SHAPE_TITLES: Record<ShapeKind, string> = {
  rectangle: 'Rectangle',
  ellipse: 'Ellipse',
  line: 'Line',
  path: 'Path',
  brush: 'Brush',
  linear: 'Linear gradient',
  radial: 'Radial gradient',
  picture: 'Picture',
  text: 'Text',
  matte: 'Matte',
};

const zero = (): Value<[number, number]> => still([0, 0]);
/** A shape of a kind with useful beginnings for a source of a size. Pictures and mattes need something given. */
export function newShape(kind: Exclude<ShapeKind, 'picture' | 'matte'>, { w, h }: { w: number; h: number }): Shape {
  const half = (): Value<[number, number]> => still([Math.round(w / 2), Math.round(h / 2)]);
  if (kind === 'rectangle') return { kind, centre: zero(), size: half(), rotation: still(0), radius: still(0) };
  if (kind === 'ellipse') return { kind, centre: zero(), size: half(), rotation: still(0) };
  if (kind === 'line') return { kind, centre: zero(), rotation: still(0) };
  if (kind === 'path')
    return { kind, closed: false, path: still([] as [number, number, number, number, number, number, number][]) };
  if (kind === 'brush') return { kind, strokes: still([]) };
  if (kind === 'linear') return { kind, from: still([0, Math.round(-h / 4)]), to: still([0, Math.round(h / 4)]) };
  if (kind === 'radial') return { kind, centre: zero(), size: still([w, h]), rotation: still(0), core: still(0.5) };
  return { kind, text: 'Text', centre: zero(), height: still(Math.round(h / 6)), rotation: still(0) };
}

export const newMask = (id: MaskId, name: string, shape: Shape, colour: Mask['colour'] = 'sand'): Mask => ({
  id,
  name,
  colour,
  on: true,
  shape,
  mode: 'add',
  invert: false,
  opacity: still(1),
  feather: still(0),
  featherSide: 'both',
  grow: still(0),
});

/** A closed path through corners. */
export const pathShape = (points: readonly (readonly [number, number])[]): Shape => ({
  kind: 'path',
  closed: true,
  path: still(points.map(([x, y]) => corner(x, y)) as [number, number, number, number, number, number, number][]),
});
export type { Vertex };
