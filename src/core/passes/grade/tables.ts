// Tables that the grading kernels look values up in.
import type { ChannelCurves, PassTools, RowRunner } from '../define';

const STEPS = 1024;
export type Curve = (v: number) => number;

/** Curves of the three channels over 0…2, as pairs of a value and the rise to the next, for `adjustSpan`. */
export function channelTables(
  curves: readonly [Curve, Curve, Curve],
  { arena, scratch }: Pick<PassTools, 'arena' | 'scratch'>,
): { at: number; steps: number } {
  const at = scratch(3 * STEPS * 8);
  const tables = arena.floats(at, 3 * STEPS * 2);
  curves.forEach((curve, channel) => {
    const known = curves.indexOf(curve);
    if (known < channel) {
      tables.copyWithin(channel * STEPS * 2, known * STEPS * 2, (known + 1) * STEPS * 2);
      return;
    }
    for (let i = 0, to = channel * STEPS * 2, value = curve(0); i < STEPS; i++) {
      const next = curve((2 * (i + 1)) / STEPS);
      tables[to++] = value;
      tables[to++] = next - value;
      value = next;
    }
  });
  return { at, steps: STEPS };
}

/** Values that the tables know. */
const MOST = 2;
/** Runs the curves of the channels. */
export function curveRunner({ of, saturation }: ChannelCurves, tools: PassTools): RowRunner {
  const { at, steps } = channelTables(of, tools);
  return (src, dst, n) => tools.kernels.adjustSpan(src, dst, n, at, steps, saturation);
}
/** One set of curves that does what several do one after the other; none but the last may change the saturation. */
export function chained(all: readonly ChannelCurves[]): ChannelCurves {
  const through = (channel: 0 | 1 | 2) => (v: number) =>
    all.reduce((now, { of }) => of[channel](Math.min(MOST, Math.max(0, now))), v);
  const red = through(0);
  const like = (channel: 1 | 2) => (all.every(({ of }) => of[channel] === of[0]) ? red : through(channel));
  return { of: [red, like(1), like(2)], saturation: all.at(-1)!.saturation };
}

const FINE = 512;
/** A table over 0…1. */
export function shareTable(
  of: Curve,
  { arena, scratch }: Pick<PassTools, 'arena' | 'scratch'>,
): { at: number; steps: number } {
  const at = scratch((FINE + 1) * 4);
  arena.floats(at, FINE + 1).set(Float32Array.from({ length: FINE + 1 }, (_, i) => of(i / FINE)));
  return { at, steps: FINE };
}

/** 0 before, 1 after, smooth between. */
export function smooth(from: number, to: number, v: number): number {
  const t = Math.min(1, Math.max(0, (v - from) / Math.max(1e-6, to - from)));
  return t * t * (3 - 2 * t);
}
