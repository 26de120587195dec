import { z } from 'zod';
import { MOST_TRACKED, TRACK_POINTS, unpackSamples, type TrackKind } from '../track/samples';

export const trackIdSchema = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,64}$/)
  .brand<'track'>();
export type TrackId = z.infer<typeof trackIdSchema>;

const coordinate = z.number().min(-1e6).max(1e6);
const point = z.tuple([coordinate, coordinate]);
/** A frame of the clip, counted from its beginning at the track's rate. */
const frame = z.int().min(0).max(1e7);

/** Most frames that were mended by hand. */
const MOST_FIXED = MOST_TRACKED;

/** How something moves in a clip. It belongs to the clip's own time and pixels, wherever and however fast layers show it. */
export const trackSchema = z
  .object({
    id: trackIdSchema,
    name: z.string().trim().min(1).max(200),
    stock: z
      .string()
      .regex(/^[A-Za-z0-9_-]{1,64}$/)
      .brand<'stock'>(),
    kind: z.enum(Object.keys(TRACK_POINTS) as [TrackKind, ...TrackKind[]]),
    /** at which its frames are counted */
    rate: z.object({ num: z.int().min(1).max(1_000_000), den: z.int().min(1).max(100_000) }).strict(),
    /** the frame on which the patterns were drawn */
    start: frame,
    /** corners of each pattern clockwise from its upper left, in source pixels from the source's centre, y down */
    patterns: z
      .array(z.tuple([point, point, point, point]))
      .min(1)
      .max(2),
    /** how far a pattern is looked for from one frame to the next, in source pixels */
    reach: z.number().min(1).max(2000),
    /** looks only within these masks of the layer that shows it, or not within them */
    looks: z
      .object({
        masks: z
          .array(
            z
              .string()
              .regex(/^[A-Za-z0-9_-]{1,64}$/)
              .brand<'mask'>(),
          )
          .max(64),
        side: z.enum(['inside', 'outside']),
      })
      .strict()
      .optional(),
    samples: z.object({ first: frame, rows: z.string().max(12_000_000) }).strict(),
    /** frames mended by hand, ascending: no run changes them */
    fixed: z.array(frame).max(MOST_FIXED),
  })
  .strict()
  .superRefine((track, context) => {
    if (!unpackSamples(track.samples, track.kind))
      context.addIssue({ code: 'custom', path: ['samples'], message: 'rows are damaged' });
    if (track.patterns.length !== (track.kind === 'pair' ? 2 : 1))
      context.addIssue({ code: 'custom', path: ['patterns'], message: 'not as many as the kind has' });
  });
export type Track = z.infer<typeof trackSchema>;
export type Quad = Track['patterns'][number];

/** A pattern about a place. @param rx, ry half of its sides */
export const quadAbout = ([x, y]: readonly [number, number], rx: number, ry: number): Quad => [
  [x - rx, y - ry],
  [x + rx, y - ry],
  [x + rx, y + ry],
  [x - rx, y + ry],
];

export const TRACK_TITLES: Record<TrackKind, string> = {
  point: 'Point',
  pair: 'Pair',
  patch: 'Patch',
  plane: 'Plane',
  sway: 'Sway',
};
