import { z } from 'zod';
import { framesSchema } from '../base/value';
import { followLoop, groupLoop, matteLoop } from './circles';
import { nameSchema as name, projectIdSchema, shotIdSchema, stockIdSchema } from './ids';
import { jigSchema, keptSchema } from './jig';
import { groupOf, layerSchema, pairSchema, passSchema, stockOf } from './layer';
import { trackSchema } from './track';

export * from './ids';
export * from './jig';
export * from './layer';

/** The version of the document format that this code writes. */
export const FORMAT_VERSION = 2;

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
    vanishing: pairSchema.optional(),
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
    /** kept by earlier versions; nothing reads them */
    stills: z.array(keptSchema).max(1000),
    jigs: z.array(jigSchema).max(1000),
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
