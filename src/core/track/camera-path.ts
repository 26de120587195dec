// The way a camera would have gone on a tripod, a rail or a crane: pieces that stand, go evenly, or gather speed evenly.

/** Steps below which a round takes the first, second and third differences for none: how dear it is to leave standing, even going and even gathering of speed. In rooms. */
const DEAR = [5e-3, 5e-4, 5e-2] as const;
/** Weights of the differences. */
const STENCILS = [[1], [-1, 1], [1, -2, 1], [-1, 3, -3, 1]] as const;
/** Frames above which only every so many of them are looked at, with straight lines between. */
const MOST = 600;
const ROUNDS = 300;
/** Of the room: what moves less from one round to the next is done. */
const DONE = 2e-4;

/**
 * A path with the least sums of its first three differences that stays within a room of another one: the alternating direction method for
 * these sums, with one banded factor for all rounds. Sources: Grundmann et al. 2011, Boyd et al. 2011.
 * @param room farthest from the path, > 0, in its unit
 */
export function evenPath(path: readonly number[], room: number): number[] {
  const n = path.length;
  if (n < 5) return [...path];
  const step = Math.ceil(n / MOST);
  if (step > 1) return between(evenPath(sparse(path, step), room), step, path, room);
  const first = path[0]!;
  const given = Float64Array.from(path, (v) => (v - first) / room);
  const solve = bandedFactor(n);
  const p = given.slice();
  const before = given.slice();
  // for the path itself and each of its differences: what it is held to, and how far it has been off so far
  const held = STENCILS.map((stencil) => differences(given, stencil));
  const off = held.map((list) => new Float64Array(list.length));
  for (let round = 0; round < ROUNDS; round++) {
    before.set(p);
    p.fill(0);
    STENCILS.forEach((stencil, d) => addBack(held[d]!, off[d]!, stencil, p));
    solve(p);
    STENCILS.forEach((stencil, d) => {
      const [own, gone] = [held[d]!, off[d]!];
      const least = DEAR[d - 1] ?? 0;
      for (let i = 0; i < own.length; i++) {
        let v = gone[i]!;
        for (let k = 0; k <= d; k++) v += stencil[k]! * p[i + k]!;
        own[i] =
          d === 0
            ? Math.min(given[i]! + 1, Math.max(given[i]! - 1, v))
            : Math.sign(v) * Math.max(0, Math.abs(v) - least);
        gone[i] = v - own[i]!;
      }
    });
    let moved = 0;
    for (let i = 0; i < n; i++) moved = Math.max(moved, Math.abs(p[i]! - before[i]!));
    if (moved < DONE && round > 20) break;
  }
  // what the last round left beyond the room
  return Array.from(p, (v, i) => first + room * Math.min(given[i]! + 1, Math.max(given[i]! - 1, v)));
}

/** Every so many frames, and the last. */
const sparse = (path: readonly number[], step: number): number[] =>
  Array.from({ length: Math.ceil((path.length - 1) / step) + 1 }, (_, k) => path[Math.min(path.length - 1, k * step)]!);
function between(few: readonly number[], step: number, path: readonly number[], room: number): number[] {
  return path.map((was, i) => {
    const k = Math.min(few.length - 2, Math.floor(i / step));
    const wide = Math.min(step, path.length - 1 - k * step);
    const v = few[k]! + ((few[k + 1]! - few[k]!) * (i - k * step)) / wide;
    return Math.min(was + room, Math.max(was - room, v));
  });
}

function differences(list: Float64Array, stencil: readonly number[]): Float64Array {
  return Float64Array.from({ length: list.length - stencil.length + 1 }, (_, i) =>
    stencil.reduce((sum, w, k) => sum + w * list[i + k]!, 0),
  );
}
/** Adds the transposed differences of a list less another one. */
function addBack(list: Float64Array, less: Float64Array, stencil: readonly number[], to: Float64Array): void {
  for (let i = 0; i < list.length; i++) {
    const v = list[i]! - less[i]!;
    for (let k = 0; k < stencil.length; k++) to[i + k]! += stencil[k]! * v;
  }
}

/** Solves (I + D₁ᵀD₁ + D₂ᵀD₂ + D₃ᵀD₃) x = b in place, by a Cholesky factor with three bands. */
function bandedFactor(n: number): (b: Float64Array) => void {
  // row i holds the entries (i, i−3) … (i, i)
  const a = new Float64Array(n * 4);
  for (let i = 0; i < n; i++) a[i * 4 + 3] = 1;
  for (const stencil of STENCILS.slice(1))
    for (let i = 0; i + stencil.length <= n; i++)
      stencil.forEach((v, k) => {
        for (let l = 0; l <= k; l++) a[(i + k) * 4 + 3 - (k - l)]! += v * stencil[l]!;
      });
  for (let i = 0; i < n; i++)
    for (let j = Math.max(0, i - 3); j <= i; j++) {
      let sum = a[i * 4 + 3 - (i - j)]!;
      for (let k = Math.max(0, i - 3, j - 3); k < j; k++) sum -= a[i * 4 + 3 - (i - k)]! * a[j * 4 + 3 - (j - k)]!;
      a[i * 4 + 3 - (i - j)] = i === j ? Math.sqrt(sum) : sum / a[j * 4 + 3]!;
    }
  return (b) => {
    for (let i = 0; i < n; i++) {
      for (let k = Math.max(0, i - 3); k < i; k++) b[i]! -= a[i * 4 + 3 - (i - k)]! * b[k]!;
      b[i]! /= a[i * 4 + 3]!;
    }
    for (let i = n - 1; i >= 0; i--) {
      for (let k = i + 1; k <= Math.min(n - 1, i + 3); k++) b[i]! -= a[k * 4 + 3 - (k - i)]! * b[k]!;
      b[i]! /= a[i * 4 + 3]!;
    }
  };
}
