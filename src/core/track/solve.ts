/**
 * Linear equations by elimination with the largest pivots. @param rows n rows of n + 1, the right sides last
 * @returns the unknowns, or null when the equations do not determine them
 */
export function solve(rows: ArrayLike<number>, n: number): number[] | null {
  const m = Array.from({ length: n }, (_, i) => Array.from({ length: n + 1 }, (_, j) => rows[i * (n + 1) + j]!));
  const size = Math.max(...m.map((row, i) => Math.abs(row[i]!)), 1e-300);
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(m[i]![k]!) > Math.abs(m[pivot]![k]!)) pivot = i;
    [m[k], m[pivot]] = [m[pivot]!, m[k]!];
    const top = m[k]!;
    if (!(Math.abs(top[k]!) > size * 1e-10)) return null;
    for (let i = k + 1; i < n; i++) {
      const by = m[i]![k]! / top[k]!;
      for (let j = k; j <= n; j++) m[i]![j]! -= by * top[j]!;
    }
  }
  const out = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    let sum = m[k]![n]!;
    for (let j = k + 1; j < n; j++) sum -= m[k]![j]! * out[j]!;
    out[k] = sum / m[k]![k]!;
  }
  return out;
}
