// What can be done with measured tracks.
import { middleOf, type Point } from './motion';
import { pointsAt, type Sample, type Samples } from './samples';

type Rows = Map<number, Sample>;
const entries = ({ first, rows }: Samples): [number, Sample][] =>
  rows.flatMap((row, i): [number, Sample][] => (row ? [[first + i, row]] : []));

/** Confidence of what was not measured but put between. */
const FILLED = 0.3;

/** The frames between known ones, in straight lines. */
export function filled(samples: Samples): Rows {
  return new Map(
    samples.rows.map((row, i): [number, Sample] => [
      samples.first + i,
      row ?? { confidence: FILLED, points: pointsAt(samples, samples.first + i)! },
    ]),
  );
}

/** Each frame the mean of those around it that are known; gaps stay. @param frames over how many, odd */
export function smoothedSamples(samples: Samples, frames: number): Rows {
  const half = Math.floor(frames / 2);
  return new Map(
    entries(samples).map(([frame, { confidence, points }]) => {
      // fewer towards the ends, so that both sides weigh alike
      const reach = Math.min(half, frame - samples.first, samples.first + samples.rows.length - 1 - frame);
      const near = Array.from({ length: 2 * reach + 1 }, (_, i) => pointsAt(samples, frame + i - reach)!);
      return [frame, { confidence, points: points.map((_, k) => middleOf(near.map((list) => list[k]!))) }];
    }),
  );
}
/** As if the clip ran backwards. @param frames of the clip */
export const reversedSamples = (samples: Samples, frames: number): Rows =>
  new Map(
    entries(samples)
      .map(([frame, row]): [number, Sample] => [frames - 1 - frame, row])
      .filter(([frame]) => frame >= 0)
      .reverse(),
  );

/** Several tracks of one kind as one: on each frame the mean of those that know it, weighed by how sure they are. */
export function averaged(all: readonly Samples[]): Rows {
  const frames = new Map<number, Sample[]>();
  for (const samples of all)
    for (const [frame, row] of entries(samples)) frames.set(frame, [...(frames.get(frame) ?? []), row]);
  return new Map(
    [...frames]
      .sort(([a], [b]) => a - b)
      .map(([frame, rows]) => {
        const weights = rows.map((row) => row.confidence + 1e-6);
        const whole = weights.reduce((sum, w) => sum + w, 0);
        const mean = (k: number, part: 0 | 1) =>
          rows.reduce((sum, row, i) => sum + weights[i]! * row.points[k]![part], 0) / whole;
        return [
          frame,
          {
            confidence: Math.max(...rows.map((row) => row.confidence)),
            points: rows[0]!.points.map((_, k): Point => [mean(k, 0), mean(k, 1)]),
          },
        ];
      }),
  );
}

/** The first track's frames, and where it knows none those of the others, moved so that they meet where both know one. */
export function joined([first, ...others]: readonly [Samples, ...Samples[]]): Rows {
  const out: Rows = new Map(entries(first));
  for (const other of others) {
    const own = entries(other);
    const shared = own.filter(([frame]) => out.has(frame));
    const shift = (k: number): Point =>
      shared.length
        ? middleOf(
            shared.map(([frame, row]): Point => {
              const [x, y] = out.get(frame)!.points[k]!;
              return [x - row.points[k]![0], y - row.points[k]![1]];
            }),
          )
        : [0, 0];
    const shifts = own[0]?.[1].points.map((_, k) => shift(k)) ?? [];
    for (const [frame, { confidence, points }] of own) {
      if (out.has(frame)) continue;
      out.set(frame, {
        confidence,
        points: points.map(([x, y], k): Point => [x + shifts[k]![0], y + shifts[k]![1]]),
      });
    }
  }
  return new Map([...out].sort(([a], [b]) => a - b));
}
