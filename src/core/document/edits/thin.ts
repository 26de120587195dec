import type { Key } from '../../base/value';

/** All numbers of a value in one row. */
const numbersIn = (value: unknown): number[] =>
  typeof value === 'number' ? [value] : Array.isArray(value) ? value.flatMap(numbersIn) : [];

/**
 * Keyframes without those that straight lines between the others do without. Source: Douglas & Peucker 1973.
 * @param keys linear ones, ascending @param tolerance farthest that any number may be off on any of the frames
 */
export function thinned<T>(keys: readonly Key<T>[], tolerance: number): Key<T>[] {
  const rows = keys.map((key) => numbersIn(key.value));
  const keep = new Set([0, keys.length - 1]);
  const open: [number, number][] = [[0, keys.length - 1]];
  for (let span = open.pop(); span; span = open.pop()) {
    const [from, to] = span;
    let worst = tolerance;
    let at = -1;
    for (let i = from + 1; i < to; i++) {
      const share = (keys[i]!.at - keys[from]!.at) / (keys[to]!.at - keys[from]!.at);
      rows[i]!.forEach((v, k) => {
        const off = Math.abs(v - (rows[from]![k]! + (rows[to]![k]! - rows[from]![k]!) * share));
        if (!(off <= worst)) [worst, at] = [off, i];
      });
    }
    if (at < 0) continue;
    keep.add(at);
    open.push([from, at], [at, to]);
  }
  return keys.filter((_, i) => keep.has(i));
}
