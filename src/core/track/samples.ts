// What was measured of a track, frame by frame: as a document keeps it, and to reckon with.
import type { Point } from './motion';

/** Kinds of tracks, and by how many points each says where its subject is. */
export const TRACK_POINTS = { point: 1, pair: 2, patch: 3, plane: 4, sway: 2 } as const;
export type TrackKind = keyof typeof TRACK_POINTS;

/** Where the subject is on one frame, in source pixels from the source's centre, y down. */
export interface Sample {
  /** 0…1 */
  confidence: number;
  points: readonly Point[];
}
/** Rows of 32-bit floats in base64, least byte first: confidence, then x and y of each point. Not a number where nothing is known. */
export interface PackedSamples {
  /** frame of the first row */
  first: number;
  rows: string;
}
/** Frames of the clip without holes in counting; null where nothing is known. */
export interface Samples {
  first: number;
  rows: readonly (Sample | null)[];
}
export const NOTHING: PackedSamples = { first: 0, rows: '' };

/** Most frames of a track. */
export const MOST_TRACKED = 200_000;
/** Farthest that a point may be, in pixels. */
const FARTHEST = 1e6;

export function packSamples(samples: Samples, kind: TrackKind): PackedSamples {
  const wide = 1 + 2 * TRACK_POINTS[kind];
  const floats = new Float32Array(samples.rows.length * wide).fill(NaN);
  samples.rows.forEach((row, i) => {
    if (row) floats.set([row.confidence, ...row.points.flat()], i * wide);
  });
  const bytes = new Uint8Array(floats.buffer);
  let text = '';
  for (let i = 0; i < bytes.length; i += 0x8000) text += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return { first: samples.first, rows: btoa(text) };
}

/** @returns null when the rows are none of this kind's, or say what cannot be */
export function unpackSamples({ first, rows }: PackedSamples, kind: TrackKind): Samples | null {
  const count = TRACK_POINTS[kind];
  const wide = 1 + 2 * count;
  let bytes: Uint8Array;
  try {
    bytes = Uint8Array.from(atob(rows), (c) => c.charCodeAt(0));
  } catch {
    return null;
  }
  if (bytes.length % (4 * wide) || bytes.length > MOST_TRACKED * 4 * wide) return null;
  const floats = new Float32Array(bytes.buffer);
  const out: (Sample | null)[] = [];
  for (let at = 0; at < floats.length; at += wide) {
    const [confidence, ...numbers] = floats.subarray(at, at + wide);
    if (Number.isNaN(confidence)) {
      out.push(null);
      continue;
    }
    if (!(confidence! >= 0 && confidence! <= 1) || !numbers.every((v) => Math.abs(v) <= FARTHEST)) return null;
    out.push({
      confidence: confidence!,
      points: Array.from({ length: count }, (_, i): Point => [numbers[2 * i]!, numbers[2 * i + 1]!]),
    });
  }
  return { first, rows: out };
}

interface Tracked {
  kind: TrackKind;
  samples: PackedSamples;
}
const known = new WeakMap<PackedSamples, Samples>();
/** The samples of a track of a document. */
export function samplesOf({ kind, samples }: Tracked): Samples {
  const before = known.get(samples);
  if (before) return before;
  const read = unpackSamples(samples, kind) ?? { first: 0, rows: [] };
  known.set(samples, read);
  return read;
}

export const sampleAt = ({ first, rows }: Samples, frame: number): Sample | null => rows[frame - first] ?? null;

/**
 * The points at a frame, which may lie between two: in a straight line from one known frame to the next, and before the
 * first and after the last where those are. @returns null when nothing was measured
 */
export function pointsAt({ first, rows }: Samples, frame: number): readonly Point[] | null {
  const at = frame - first;
  let low = Math.min(rows.length - 1, Math.floor(at));
  while (low >= 0 && !rows[low]) low--;
  let high = Math.max(0, Math.ceil(at));
  while (high < rows.length && !rows[high]) high++;
  const [before, after] = [rows[low]?.points, rows[high]?.points];
  if (!before || !after || low === high) return before ?? after ?? null;
  const share = (at - low) / (high - low);
  return before.map(([x, y], i) => [x + (after[i]![0] - x) * share, y + (after[i]![1] - y) * share]);
}

/** Samples with those of some frames put in, or taken out. */
export function withSamples(samples: Samples, changes: ReadonlyMap<number, Sample | null>): Samples {
  const frames = new Map<number, Sample>();
  samples.rows.forEach((row, i) => row && frames.set(samples.first + i, row));
  for (const [frame, row] of changes) {
    if (row) frames.set(frame, row);
    else frames.delete(frame);
  }
  if (!frames.size) return { first: 0, rows: [] };
  let [first, last] = [Infinity, -Infinity];
  for (const frame of frames.keys()) {
    first = Math.min(first, frame);
    last = Math.max(last, frame);
  }
  return { first, rows: Array.from({ length: last - first + 1 }, (_, i) => frames.get(first + i) ?? null) };
}
