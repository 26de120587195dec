import { z } from 'zod';
import {
  multiply,
  project,
  projective,
  projectiveInverse,
  projectiveProduct,
  rotation,
  scaling,
  translation,
  type Projective,
} from '../../picture/matrix';
import { growthAt, mapBetween, middleOf, turnAt, type Point } from '../../track/motion';
import { pointsAt, samplesOf, type Samples } from '../../track/samples';
import { onLayer, type Moment } from '../moment';
import { trackFrameAt } from '../track-frame';
import { defineDriver } from './define';

const id = z.string().regex(/^[A-Za-z0-9_-]{1,64}$/);
const entry = z.number().min(-1e9).max(1e9);

/** What a followed value is: a place in the shot, a place in the layer's own pixels, an angle, something that has a size, a path. */
export const FOLLOWED = ['position', 'point', 'turn', 'size', 'path'] as const;

/** A value that goes along with a track. */
export const followSchema = z
  .object({
    type: z.literal('follow'),
    track: id,
    /** the layer that shows the track's clip */
    layer: id,
    as: z.enum(FOLLOWED),
    /** frame of the track at which they were linked: there the value is as it is without this */
    at: z.number().min(0).max(1e7),
    /** where the value's places lay in the clip when they were linked: nine numbers of a projective map, row by row */
    anchor: z.tuple([entry, entry, entry, entry, entry, entry, entry, entry, entry]),
    parts: z
      .object({ position: z.boolean(), rotation: z.boolean(), scale: z.boolean(), perspective: z.boolean() })
      .strict(),
    strength: z.number().min(0).max(2),
    /** frames of the shot by which it lags behind */
    delay: z.number().min(-10_000).max(10_000),
    /** frames of the clip over which it is averaged */
    smooth: z.number().min(0).max(1000),
    /** frames of the clip between which it follows; it holds before and after */
    range: z
      .object({ from: z.number().min(0).max(1e7), to: z.number().min(0).max(1e7) })
      .strict()
      .nullable(),
  })
  .strict();
export type Follow = z.infer<typeof followSchema>;
type Parts = Follow['parts'];

/** The middle of a track's points, smoothed. */
function smoothedAt(samples: Samples, frame: number, over: number): readonly Point[] | null {
  if (over < 1) return pointsAt(samples, frame);
  const half = Math.floor(over / 2);
  const list = Array.from({ length: 2 * half + 1 }, (_, i) => pointsAt(samples, frame + i - half));
  if (list.some((points) => !points)) return null;
  const mean = (k: number, part: 0 | 1) => list.reduce((sum, points) => sum + points![k]![part], 0) / list.length;
  return list[0]!.map((_, k): Point => [mean(k, 0), mean(k, 1)]);
}

/** How a track moved from some points to others, of which only some parts are wanted. */
export function partOf(from: readonly Point[], to: readonly Point[], parts: Parts): Projective | null {
  const whole = mapBetween(from, to);
  if (!whole || Object.values(parts).every(Boolean)) return whole;
  const [[x0, y0], [x1, y1]] = [middleOf(from), middleOf(to)];
  const [turn, size] = [turnAt(whole, x0, y0), growthAt(whole, x0, y0)];
  let m = parts.position ? translation(x1, y1) : translation(x0, y0);
  if (parts.rotation) m = multiply(m, rotation(turn));
  if (parts.scale) m = multiply(m, scaling(size, size));
  return projective(multiply(m, translation(-x0, -y0)));
}

/**
 * Where a value's places are carried to: a map of the space that the value counts in, the shot's or its layer's pixels
 * from the middle. @returns null when there is nothing to follow
 */
export function carriedBy(follow: Follow, moment: Moment): Projective | null {
  const { project: document, shot, layer, following = [] } = moment;
  const track = document.tracks.find((item) => item.id === follow.track);
  const shows = shot.layers.find((item) => item.id === follow.layer);
  if (!track || !shows || following.includes(layer.id)) return null;
  const way = { ...moment, following: [...following, layer.id] };
  const there = onLayer({ ...way, frame: moment.frame - follow.delay }, shows);
  const { from, to } = follow.range ?? { from: 0, to: Infinity };
  const frame = Math.min(to, Math.max(from, trackFrameAt(there, track.rate)));
  const samples = samplesOf(track);
  const [first, plain] = [pointsAt(samples, follow.at), smoothedAt(samples, frame, follow.smooth)];
  if (!first || !plain) return null;
  const now = plain.map(([x, y], k): Point => {
    const [x0, y0] = first[k]!;
    return [x0 + (x - x0) * follow.strength, y0 + (y - y0) * follow.strength];
  });
  const moved = partOf(first, now, follow.parts);
  const inClip = moved && projectiveProduct(moved, follow.anchor);
  if (!inClip) return null;
  const intoShot = moment.lookup.projection({ ...there, frame: there.frame + follow.delay });
  const out = intoShot && projectiveProduct(intoShot, inClip);
  if (!out || follow.as === 'position') return out;
  // the layer's own pixels; what it shows itself is where it was measured
  const own = moment.lookup.projection(way);
  const back = own && projectiveInverse(own);
  return back && projectiveProduct(back, out);
}

type Vertex = readonly [number, number, number, number, number, number, number];
/** A vertex with its handles, which are counted from it. */
function carriedVertex(m: Projective, [x, y, ix, iy, ox, oy, soft]: Vertex): Vertex {
  const [u, v] = project(m, x, y);
  const [a, b] = project(m, x + ix, y + iy);
  const [c, d] = project(m, x + ox, y + oy);
  return [u, v, a - u, b - v, c - u, d - v, soft];
}

export const follow = defineDriver<Follow>({
  type: 'follow',
  title: 'Follows a track',
  schema: followSchema,
  drive: (plain, link, moment) => carried(plain, link, moment, 1),
  undo: (wanted, link, moment) => carried(wanted, link, moment, -1),
});

/** @param way 1 as the track went, −1 back to where it came from */
function carried(value: unknown, link: Follow, moment: Moment, way: 1 | -1): unknown {
  const there = carriedBy(link, moment);
  const m = there && (way > 0 ? there : projectiveInverse(there));
  if (!there || !m) return value;
  if (link.as === 'position' || link.as === 'point') {
    const [x, y] = project(m, ...(value as [number, number]));
    return [x, y];
  }
  if (link.as === 'path') return (value as Vertex[]).map((vertex) => carriedVertex(m, vertex));
  // turns and sizes are looked at where the track's middle was
  const seen = projectiveInverse(link.anchor);
  const track = moment.project.tracks.find((item) => item.id === link.track)!;
  const [x, y] = seen ? project(seen, ...middleOf(pointsAt(samplesOf(track), link.at)!)) : [0, 0];
  if (link.as === 'turn') return (value as number) + way * turnAt(there, x, y);
  const by = growthAt(there, x, y) ** way;
  return typeof value === 'number' ? value * by : (value as number[]).map((part) => part * by);
}
