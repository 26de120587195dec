// Cubics through points that never leave the range of their neighbours.

/** Places and values of n points, the places ascending. */
export interface Points {
  n: number;
  at(k: number): number;
  value(k: number): number;
}

/**
 * Slope at a point. Source: Fritsch and Carlson 1980, with the weighted harmonic mean of Fritsch and Butland 1984.
 * @param i of the point, 0…n−1
 */
export function slopeAt({ n, at, value }: Points, i: number): number {
  const long = (k: number) => at(k + 1) - at(k);
  const secant = (k: number) => (value(k + 1) - value(k)) / long(k);
  if (n === 2) return secant(0);
  const end = (near: number, far: number, d0: number, d1: number) => {
    const m = ((2 * near + far) * d0 - near * d1) / (near + far);
    if (m * d0 <= 0) return 0;
    return d0 * d1 <= 0 && Math.abs(m) > 3 * Math.abs(d0) ? 3 * d0 : m;
  };
  if (i === 0) return end(long(0), long(1), secant(0), secant(1));
  if (i === n - 1) return end(long(n - 2), long(n - 3), secant(n - 2), secant(n - 3));
  const [d0, d1] = [secant(i - 1), secant(i)];
  if (d0 * d1 <= 0) return 0;
  const [h0, h1] = [long(i - 1), long(i)];
  return (3 * (h0 + h1)) / ((2 * h1 + h0) / d0 + (h1 + 2 * h0) / d1);
}

/** Between two values whose slopes, for the whole way from one to the other, are known. @param t 0…1 of the way */
export function hermite(a: number, b: number, slopeA: number, slopeB: number, t: number): number {
  const t2 = t * t;
  const t3 = t2 * t;
  return (2 * t3 - 3 * t2 + 1) * a + (t3 - 2 * t2 + t) * slopeA + (3 * t2 - 2 * t3) * b + (t3 - t2) * slopeB;
}
