import { problemsOf } from '../base/problems';
// Tracks as CSV and as JSON.
import { z } from 'zod';
import { JackplaneError } from '../base/errors';
import { MOST_TRACKED, TRACK_POINTS, type Sample, type Samples, type TrackKind } from '../track/samples';

export interface TrackFile {
  kind: TrackKind;
  rows: Map<number, Sample>;
  /** what the file calls it; CSV does not say */
  name: string | null;
}
const KINDS: Record<number, TrackKind> = { 1: 'point', 2: 'pair', 3: 'patch', 4: 'plane' };
/** Farthest that a point may be, in pixels. */
const FARTHEST = 1e6;
const LAST_FRAME = 1e7;

const columnsOf = (points: number): string[] => [
  'frame',
  'confidence',
  ...Array.from({ length: points }, (_, i) => [`x${i + 1}`, `y${i + 1}`]).flat(),
];
const rounded = (v: number): number => Math.round(v * 1e4) / 1e4 + 0;

/** One row a frame: `frame,confidence,x1,y1` and so on; pixels of the clip from its centre, y down. */
export function trackCsv({ kind, samples }: { kind: TrackKind; samples: Samples }): string {
  const lines = samples.rows.flatMap((row, i) =>
    row ? [[samples.first + i, rounded(row.confidence), ...row.points.flat().map(rounded)].join(',')] : [],
  );
  return `${[columnsOf(TRACK_POINTS[kind]).join(','), ...lines].join('\n')}\n`;
}

/** @param file name for messages @throws JackplaneError bad-media, with the line and the column */
export function readTrackCsv(text: string, file: string): TrackFile {
  const bad = (why: string, remedy = 'Write one row a frame: frame, confidence, x1, y1, and so on.') =>
    new JackplaneError('bad-media', `“${file}” is not a track that can be read: ${why}.`, remedy);
  const lines = text.replace(/^\uFEFF/, '').split(/\r?\n/);
  const head = (lines[0] ?? '').split(/[,;\t]/).map((name) => name.trim().toLowerCase().replaceAll('"', ''));
  const count = Object.keys(KINDS)
    .map(Number)
    .find(
      (points) =>
        columnsOf(points).every((name) => name === 'confidence' || head.includes(name)) &&
        !head.includes(`x${points + 1}`),
    );
  if (!count) {
    const lacks = columnsOf(1).find((name) => name !== 'confidence' && !head.includes(name));
    throw bad(lacks ? `line 1 has no column “${lacks}”` : 'line 1 names points without both x and y');
  }
  const names = columnsOf(count);
  const places = names.map((name) => head.indexOf(name));
  const rows = new Map<number, Sample>();
  lines.slice(1).forEach((line, i) => {
    if (!line.trim()) return;
    const cells = line.split(/[,;\t]/);
    const at = `line ${i + 2}`;
    const number = (name: string, k: number): number => {
      const place = places[k]!;
      if (place < 0) return 1;
      const cell = cells[place]?.trim() ?? '';
      const value = Number(cell);
      if (!cell) throw bad(`${at}, column “${name}” is empty`);
      if (!Number.isFinite(value)) throw bad(`${at}, column “${name}”: “${cell.slice(0, 20)}” is not a number`);
      return value;
    };
    const [frame, confidence, ...numbers] = names.map(number) as [number, number, ...number[]];
    if (!Number.isInteger(frame))
      throw bad(
        `${at}, column “frame”: ${frame} is no whole frame`,
        'If these are seconds, multiply them by the clip’s frames a second.',
      );
    if (frame < 0 || frame > LAST_FRAME) throw bad(`${at}, column “frame”: ${frame} is no frame of a clip`);
    if (rows.has(frame)) throw bad(`${at}: frame ${frame} stands twice`);
    if (!(confidence >= 0 && confidence <= 1))
      throw bad(`${at}, column “confidence”: ${confidence} is not between 0 and 1`);
    const far = numbers.findIndex((v) => Math.abs(v) > FARTHEST);
    if (far >= 0) throw bad(`${at}, column “${names[far + 2]!}”: ${numbers[far]!} is too far away`);
    if (rows.size >= MOST_TRACKED) throw bad(`it has more than ${MOST_TRACKED} frames`);
    rows.set(frame, {
      confidence,
      points: Array.from({ length: count }, (_, k) => [numbers[2 * k]!, numbers[2 * k + 1]!] as const),
    });
  });
  if (!rows.size) throw bad('it has no rows');
  return { kind: KINDS[count]!, rows, name: null };
}

const pointSchema = z.tuple([z.number().min(-FARTHEST).max(FARTHEST), z.number().min(-FARTHEST).max(FARTHEST)]);
const fileSchema = z
  .object({
    track: z.literal(1),
    name: z.string().trim().min(1).max(200),
    kind: z.enum(Object.keys(TRACK_POINTS) as [TrackKind, ...TrackKind[]]),
    samples: z
      .array(
        z
          .object({
            frame: z.int().min(0).max(LAST_FRAME),
            confidence: z.number().min(0).max(1),
            points: z.array(pointSchema).min(1).max(4),
          })
          .strict(),
      )
      .min(1)
      .max(MOST_TRACKED),
  })
  .strict()
  .refine(
    ({ kind, samples }) => samples.every(({ points }) => points.length === TRACK_POINTS[kind]),
    'points: not as many as the kind has',
  );

export function trackJson(name: string, { kind, samples }: { kind: TrackKind; samples: Samples }): string {
  const list = samples.rows.flatMap((row, i) =>
    row
      ? [
          {
            frame: samples.first + i,
            confidence: rounded(row.confidence),
            points: row.points.map((p) => p.map(rounded)),
          },
        ]
      : [],
  );
  return JSON.stringify({ track: 1, name, kind, samples: list }, null, 1);
}

/** @throws JackplaneError bad-media */
export function readTrackJson(text: string, file: string): TrackFile {
  const bad = (why: string) =>
    new JackplaneError(
      'bad-media',
      `“${file}” is not a track that can be read: ${why}.`,
      'Choose a file that Jackplane saved.',
    );
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw bad('it is not JSON');
  }
  const read = fileSchema.safeParse(raw);
  if (!read.success) throw bad(problemsOf(read.error));
  const { name, kind, samples } = read.data;
  return { name, kind, rows: new Map(samples.map(({ frame, confidence, points }) => [frame, { confidence, points }])) };
}
