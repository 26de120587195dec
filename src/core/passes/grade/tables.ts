// Tables that the grading kernels look values up in.
import type { PassTools } from '../define';

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
    for (let i = 0, to = channel * STEPS * 2, value = curve(0); i < STEPS; i++) {
      const next = curve((2 * (i + 1)) / STEPS);
      tables[to++] = value;
      tables[to++] = next - value;
      value = next;
    }
  });
  return { at, steps: STEPS };
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
