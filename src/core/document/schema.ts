import { z } from 'zod';
import { BLEND_MODES } from '../picture/blend';
import { valuesSchema, type Params } from '../params/registry';
import { passOf } from '../passes/registry';
import { sourceOf } from '../sources/registry';
import { transitionOf } from '../transitions/registry';
import { maskIdSchema, maskSchema, MOST_MASKS } from './mask';
import { trackSchema } from './track';
import { easeSchema, framesSchema, valueOf, type Value } from '../base/value';

/** The version of the document format that this code writes. */
export const FORMAT_VERSION = 2;

const id = <B extends string>(_brand: B) =>
  z
    .string()
    .regex(/^[A-Za-z0-9_-]{1,64}$/)
    .brand<B>();
export const projectIdSchema = id('project');
export const stockIdSchema = id('stock');
export const shotIdSchema = id('shot');
export const layerIdSchema = id('layer');
export const passIdSchema = id('pass');
export type ProjectId = z.infer<typeof projectIdSchema>;
export type StockId = z.infer<typeof stockIdSchema>;
export type ShotId = z.infer<typeof shotIdSchema>;
export type LayerId = z.infer<typeof layerIdSchema>;
export type PassId = z.infer<typeof passIdSchema>;

const name = z.string().trim().min(1).max(200);
const finite = z.number().min(-1e6).max(1e6);
const pixels = z.int().min(1).max(16384);
const colour = z.tuple([z.number().min(0).max(1), z.number().min(0).max(1), z.number().min(0).max(1)]);
export const rateSchema = z.object({ num: z.int().min(1).max(1_000_000), den: z.int().min(1).max(100_000) }).strict();

/** What was read from a media file. Lengths in seconds, sizes in pixels as shown upright. */
export const factsSchema = z
  .object({
    width: pixels.optional(),
    height: pixels.optional(),
    rate: z.union([rateSchema, z.literal('variable')]).optional(),
    seconds: z.number().min(0).max(1e6).optional(),
    codec: z.string().max(60),
    alpha: z.boolean(),
    sound: z
      .object({
        channels: z.int().min(1).max(64),
        sampleRate: z.int().min(1).max(1_000_000),
        codec: z.string().max(60),
      })
      .strict()
      .optional(),
    bytes: z.int().min(0),
  })
  .strict();
export type MediaFacts = z.infer<typeof factsSchema>;

/** Declared things name their type; one that this version does not know is kept as it is. */
const type = z.string().regex(/^[a-z][a-z0-9-]{0,63}$/);
const values = z.record(z.string(), z.unknown());
type Values = Record<string, Value<unknown>>;
/** Values checked against what is declared for their type. */
function checkedValues(
  declared: { params: Params } | undefined,
  raw: Record<string, unknown>,
  context: z.RefinementCtx,
): Values {
  if (!declared) return raw as Values;
  const parsed = valuesSchema(declared.params).safeParse(raw);
  if (parsed.success) return parsed.data as Values;
  for (const issue of parsed.error.issues)
    context.addIssue({ code: 'custom', path: ['values', ...issue.path], message: issue.message });
  return z.NEVER;
}

export const passSchema = z
  .object({
    id: passIdSchema,
    type,
    on: z.boolean(),
    /** whether it works before Place, in the source's pixels, or after it, in the shot's */
    space: z.enum(['layer', 'shot']),
    values,
    /** groups of its dials that are left out: their values are those of a new one */
    out: z.array(z.string().max(60)).max(20).optional(),
    /** works only inside or outside of these masks of its layer */
    area: z
      .object({ masks: z.array(maskIdSchema).max(64), side: z.enum(['inside', 'outside']) })
      .strict()
      .optional(),
  })
  .strict()
  .transform((pass, context) => ({ ...pass, values: checkedValues(passOf(pass.type), pass.values, context) }));
export type Pass = z.infer<typeof passSchema>;

export const stockSchema = z
  .object({
    id: stockIdSchema,
    name,
    file: z.string().min(1).max(255),
    kind: z.enum(['video', 'image', 'sound', 'font']),
    facts: factsSchema,
    /** passes of its own, seen wherever it is used */
    line: z.array(passSchema).max(50),
    /** a frame of a shot that was pinned, to compare others with; the shot's name then */
    still: z.object({ shot: name, frame: framesSchema }).strict().optional(),
  })
  .strict();
export type Stock = z.infer<typeof stockSchema>;
/** It has a picture, still or moving. */
export const isSeen = ({ kind }: Pick<Stock, 'kind'>): boolean => kind === 'video' || kind === 'image';

/** Where a layer's picture comes from. */
export const sourceSchema = z
  .object({ type, values })
  .strict()
  .transform((source, context) => ({
    ...source,
    values: checkedValues(sourceOf(source.type), source.values, context),
  }));

/** Things that are declared by name and values, and kept as they are. */
const declared = z.object({ type, values }).strict();
const transition = declared.transform((own, context) => ({
  ...own,
  values: checkedValues(transitionOf(own.type), own.values, context),
}));

const pair = z.tuple([finite, finite]);
const stopSchema = z
  .object({ at: framesSchema, x: finite, y: finite, width: z.number().min(1).max(1e6), ease: easeSchema })
  .strict();
const ascending = (list: readonly { at: number }[]): boolean =>
  list.every((entry, i) => i === 0 || list[i - 1]!.at < entry.at);

export const SIDES = ['both', 'front', 'back'] as const;
export const placeSchema = z
  .object({
    /** what of the source fills the shot, and when; where it is set, position and scale follow from it */
    framing: z.array(stopSchema).min(1).max(24).refine(ascending, 'stops must be in ascending order').optional(),
    /** of the anchor, in shot pixels from the shot's centre, y down */
    position: valueOf(pair),
    /** 1 = 100 %; negative values are written as flips instead */
    scale: valueOf(z.tuple([z.number().min(0).max(1000), z.number().min(0).max(1000)])),
    /** degrees clockwise */
    rotation: valueOf(finite),
    /** in source pixels from the source's centre */
    anchor: valueOf(pair),
    /** degrees about the horizontal and the vertical axis through the anchor */
    tilt: valueOf(z.tuple([z.number().min(-3600).max(3600), z.number().min(-3600).max(3600)])),
    /** how strongly a tilted layer narrows with distance, 0…1 */
    perspective: valueOf(z.number().min(0).max(1)),
    /** shot pixels that the anchor lies behind the picture plane; negative before it, 0 when left out */
    depth: valueOf(finite).optional(),
    /** from which side it is seen; both when left out */
    side: z.enum(SIDES).optional(),
    flipX: z.boolean(),
    flipY: z.boolean(),
  })
  .strict();
export type Place = z.infer<typeof placeSchema>;

/** Fastest a layer can run, either way. */
export const MOST_SPEED = 100;

export const layerSchema = z
  .object({
    id: layerIdSchema,
    name,
    source: sourceSchema,
    /** shot frames */
    span: z.object({ start: framesSchema, length: z.int().min(1).max(10_000_000) }).strict(),
    /** source time at layer frame 0, in frames at the shot's rate, and how fast it runs from there */
    time: z
      .object({
        offset: z.number().min(-1e7).max(1e7),
        /** 1 = as recorded, 0 = standing still, negative = backwards */
        speed: valueOf(z.number().min(-MOST_SPEED).max(MOST_SPEED)),
        /** what is shown between two frames of the source */
        between: z.enum(['nearest', 'blend', 'flow']),
        keepPitch: z.boolean(),
      })
      .strict(),
    /** first one first; each works on what those before it cover */
    masks: z.array(maskSchema).max(MOST_MASKS).default([]),
    passes: z.array(passSchema).max(200),
    place: placeSchema,
    opacity: valueOf(z.number().min(0).max(1)),
    blend: z.enum(BLEND_MODES),
    sound: z
      .object({ gain: valueOf(z.number().min(0).max(8)), muted: z.boolean(), effects: z.array(declared).max(50) })
      .strict(),
    /** what its start and its end are gone through with */
    ends: z.object({ start: transition.optional(), end: transition.optional() }).strict(),
    shown: z.boolean(),
    /** goes along with another layer's place */
    parent: z.object({ layer: layerIdSchema, rotation: z.boolean(), scale: z.boolean() }).strict().nullable(),
    /** smear of the layer's own movement: how long the shutter is open as a share of a frame, and how many samples it takes */
    motionBlur: z
      .object({ shutter: z.number().min(0).max(2), samples: z.int().min(2).max(64) })
      .strict()
      .nullable(),
    /** takes its coverage from another layer of the shot, hidden or not */
    matte: z
      .object({ layer: layerIdSchema, by: z.enum(['alpha', 'brightness']), invert: z.boolean() })
      .strict()
      .nullable()
      .default(null),
    solo: z.boolean(),
    locked: z.boolean(),
  })
  .strict();
export type Layer = z.infer<typeof layerSchema>;
export type Source = Layer['source'];

/** Most guides of a direction. */
export const MOST_GUIDES = 100;
const pixel = z.number().min(-20_000).max(20_000);

export const MARKER_COLOURS = ['sand', 'moss', 'slate', 'rust'] as const;
export const markerSchema = z
  .object({ at: framesSchema, name: z.string().max(200), colour: z.enum(MARKER_COLOURS) })
  .strict();
export type Marker = z.infer<typeof markerSchema>;

export const shotSchema = z
  .object({
    id: shotIdSchema,
    name,
    width: z.int().min(16).max(8192),
    height: z.int().min(16).max(8192),
    rate: rateSchema,
    length: z.int().min(1).max(1_000_000),
    /** colour behind all layers, or null for a clear shot */
    background: colour.nullable(),
    light: z.enum(['display', 'linear']),
    /** in ascending order */
    markers: z.array(markerSchema).max(10_000),
    /** first frame and the one after the last that plays and renders; null = all */
    range: z.object({ from: framesSchema, to: framesSchema }).strict().nullable(),
    /** the point, from the shot's centre, that what lies in depth runs towards for all layers; left out when each has its own */
    vanishing: pair.optional(),
    /** lines to put things on, by their places from the shot's centre; left out when there are none */
    guides: z
      .object({ upright: z.array(pixel).max(MOST_GUIDES), level: z.array(pixel).max(MOST_GUIDES) })
      .strict()
      .optional(),
    /** top layer first */
    layers: z.array(layerSchema).max(1000),
    /** a group belongs to the shot that it was made in */
    within: shotIdSchema.nullable(),
  })
  .strict();
export type Shot = z.infer<typeof shotSchema>;

/** The stock that a layer shows, if it is made of stock. */
export const stockOf = ({ source }: Pick<Layer, 'source'>): StockId | null =>
  source.type === 'stock' ? (source.values['stock'] as { still: StockId }).still : null;

/** The shot that a layer shows, if it is a group. */
export const groupOf = ({ source }: Pick<Layer, 'source'>): ShotId | null =>
  source.type === 'group' ? (source.values['shot'] as { still: ShotId }).still : null;

/** Names of shots that show each other in a circle; or null. */
export function groupLoop(shots: readonly Shot[]): string[] | null {
  const byId = new Map(shots.map((shot) => [shot.id, shot]));
  const free = new Set<Shot>();
  const along = (shot: Shot, way: readonly Shot[]): string[] | null => {
    if (way.includes(shot)) return way.slice(way.indexOf(shot)).map((item) => item.name);
    if (free.has(shot)) return null;
    for (const layer of shot.layers) {
      const inner = byId.get(groupOf(layer) as ShotId);
      const loop = inner && along(inner, [...way, shot]);
      if (loop) return loop;
    }
    free.add(shot);
    return null;
  };
  for (const shot of shots) {
    const loop = along(shot, []);
    if (loop) return loop;
  }
  return null;
}

/** Names of layers that follow each other, or take their mattes from each other, in a circle; or null. */
export const followLoop = (layers: readonly Pick<Layer, 'id' | 'name' | 'parent' | 'place'>[]): string[] | null =>
  loopAlong(layers, ({ parent, place }) => [...(parent ? [parent.layer] : []), ...carriersOfPlace(place)]);
/** The layers through which a place follows tracks. */
const carriersOfPlace = (place: Place): string[] =>
  Object.values(place).flatMap((value) =>
    typeof value === 'object' && value !== null && 'drivers' in value
      ? (value.drivers ?? []).flatMap((driver) => (driver.type === 'follow' ? [String(driver['layer'])] : []))
      : [],
  );
export const matteLoop = (layers: readonly Pick<Layer, 'id' | 'name' | 'matte'>[]): string[] | null =>
  loopAlong(layers, ({ matte }) => (matte ? [matte.layer] : []));

/** Every layer is walked over once, however long the chains are. */
function loopAlong<T extends { id: LayerId; name: string }>(
  layers: readonly T[],
  leads: (layer: T) => readonly string[],
): string[] | null {
  const byId = new Map<string, T>(layers.map((layer) => [layer.id, layer]));
  const done = new Set<T>();
  for (const start of layers) {
    // the way to where it is looked now, each with the leads not yet gone along
    const way = done.has(start) ? [] : [{ layer: start, left: [...leads(start)] }];
    for (let last = way.at(-1); last; last = way.at(-1)) {
      const next = byId.get(last.left.pop() ?? '');
      if (next) {
        const met = way.findIndex(({ layer }) => layer === next);
        if (met >= 0) return way.slice(met).map(({ layer }) => layer.name);
        if (!done.has(next)) way.push({ layer: next, left: [...leads(next)] });
      } else if (!last.left.length) {
        done.add(last.layer);
        way.pop();
      }
    }
  }
  return null;
}

/** A grade to be used again: passes that grade, without masks of any layer. */
export const gradeJigSchema = z
  .object({
    id: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/),
    kind: z.literal('grade'),
    name,
    passes: z.array(passSchema).min(1).max(60),
  })
  .strict();
export type GradeJig = z.infer<typeof gradeJigSchema>;

/** Most layers of a jig. */
export const MOST_IN_JIG = 200;
/** Most dials that a jig is turned by before it is put in. */
export const MOST_JIG_DIALS = 12;
/** A value of the source of one of its layers. */
const jigDialSchema = z.object({ layer: layerIdSchema, value: z.string().min(1).max(60) }).strict();
export type JigDial = z.infer<typeof jigDialSchema>;
/** Made layers to be used again, that begin together on frame 0 of a shot of some size. */
export const layerJigSchema = z
  .object({
    id: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/),
    kind: z.literal('layers'),
    name,
    width: z.int().min(1).max(16384),
    height: z.int().min(1).max(16384),
    layers: z.array(layerSchema).min(1).max(MOST_IN_JIG),
    /** left out for the usual ones: texts and colours */
    dials: z.array(jigDialSchema).max(MOST_JIG_DIALS).optional(),
  })
  .strict();
export type LayerJig = z.infer<typeof layerJigSchema>;

/** Things of a project that other code reads; here they only have to have an id. */
const kept = z.looseObject({ id: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/) });

/** A project without what holds its parts together; `crossProblems` looks at that. */
export const projectShape = z
  .object({
    format: z.literal(FORMAT_VERSION),
    id: projectIdSchema,
    name,
    /** ISO 8601 */
    created: z.iso.datetime(),
    modified: z.iso.datetime(),
    stock: z.array(stockSchema).max(5000),
    shots: z.array(shotSchema).max(1000),
    tracks: z.array(trackSchema).max(1000),
    /** pinned pictures, and things saved to be used again */
    stills: z.array(kept).max(1000),
    jigs: z
      .array(
        z.union([gradeJigSchema, layerJigSchema, kept.refine(({ kind }) => kind !== 'layers', 'is no jig of layers')]),
      )
      .max(1000),
  })
  .strict();

export const projectSchema = projectShape.superRefine((project, context) => {
  for (const message of crossProblems(project)) context.addIssue({ code: 'custom', message });
});
export type Project = z.infer<typeof projectShape>;

/** What is wrong between the parts of a project: things that stand twice, circles, stock that is not there. */
export function crossProblems(project: Project): string[] {
  const problems: string[] = [];
  const stock = new Map(project.stock.map((item) => [item.id, item]));
  const seen = new Set<string>();
  const once = (value: string, what: string) => {
    if (seen.has(value)) problems.push(`${what} “${value}” stands twice`);
    seen.add(value);
  };
  for (const item of project.stock) {
    once(item.id, 'stock');
    item.line.forEach((pass) => once(pass.id, 'pass'));
  }
  project.tracks.forEach((item) => once(item.id, 'track'));
  const known = new Set(project.shots.map((shot) => shot.id));
  const circle = groupLoop(project.shots);
  if (circle) problems.push(`groups show each other in a circle: ${circle.join(', ')}`);
  for (const shot of project.shots) {
    once(shot.id, 'shot');
    const loop = followLoop(shot.layers);
    if (loop) problems.push(`layers follow each other in a circle: ${loop.join(', ')}`);
    const matted = matteLoop(shot.layers);
    if (matted) problems.push(`layers take their mattes from each other in a circle: ${matted.join(', ')}`);
    for (const layer of shot.layers) {
      once(layer.id, 'layer');
      layer.passes.forEach((pass) => once(pass.id, 'pass'));
      layer.masks.forEach((mask) => once(mask.id, 'mask'));
      const inner = groupOf(layer);
      if (inner && !known.has(inner)) problems.push(`layer “${layer.name}” shows a group that is not in the project`);
      const of = stockOf(layer);
      if (of && !stock.has(of)) problems.push(`layer “${layer.name}” uses stock that is not in the project`);
      if (of && stock.get(of)?.kind === 'font') problems.push(`layer “${layer.name}” shows a font`);
    }
  }
  return problems;
}

/** The first few problems of a parse, each as place and reason. */
export function problemsOf(error: z.ZodError, most = 3): string {
  const lines = error.issues
    .slice(0, most)
    .map((issue) => (issue.path.length ? `${issue.path.join('.')}: ${issue.message}` : issue.message));
  if (error.issues.length > most) lines.push(`and ${error.issues.length - most} more`);
  return lines.join('; ');
}
