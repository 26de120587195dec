// White light by its temperature, and colours carried from one white to another.

import { projectiveProduct as product, type Projective } from './matrix';

type Triple = readonly [number, number, number];

/** Linear BT.709 → CIE XYZ, and back. Source: IEC 61966-2-1. */
export const TO_XYZ: Projective = [
  0.4123908, 0.35758434, 0.18048079, 0.21263901, 0.71516868, 0.07219232, 0.01933082, 0.11919478, 0.95053215,
];
export const FROM_XYZ: Projective = [
  3.24096994, -1.53738318, -0.49861076, -0.96924364, 1.8759675, 0.04155506, 0.05563008, -0.20397696, 1.05697151,
];
/** XYZ → cone responses, and back. Source: Lam 1985 (Bradford). */
export const CONES: Projective = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296];
export const FROM_CONES: Projective = [
  0.9869929, -0.1470543, 0.1599627, 0.4323053, 0.5183603, 0.0492912, -0.0085287, 0.0400428, 0.9684867,
];

export const times = (m: Projective, [a, b, c]: Triple): Triple => [
  m[0] * a + m[1] * b + m[2] * c,
  m[3] * a + m[4] * b + m[5] * c,
  m[6] * a + m[7] * b + m[8] * c,
];
/** The temperature that changes nothing, in kelvin. */
export const NEUTRAL_KELVIN = 6504;
export const KELVIN = { min: 1700, max: 25000 } as const;

/** Chromaticity of daylight, 4000 to 25000 K. Source: CIE 15. */
function daylight(kelvin: number): readonly [x: number, y: number] {
  const t = 1000 / kelvin;
  const x =
    kelvin <= 7000
      ? -4.607 * t ** 3 + 2.9678 * t ** 2 + 0.09911 * t + 0.244063
      : -2.0064 * t ** 3 + 1.9018 * t ** 2 + 0.24748 * t + 0.23704;
  return [x, -3 * x * x + 2.87 * x - 0.275];
}
/** Chromaticity of a black body, 1667 to 25000 K. Source: Kim et al. 2002. */
function blackBody(kelvin: number): readonly [x: number, y: number] {
  const t = 1000 / kelvin;
  const x =
    kelvin <= 4000
      ? -0.2661239 * t ** 3 - 0.234358 * t ** 2 + 0.8776956 * t + 0.17991
      : -3.0258469 * t ** 3 + 2.1070379 * t ** 2 + 0.2226347 * t + 0.24039;
  const [a, b, c, d] =
    kelvin < 2222
      ? [-1.1063814, -1.3481102, 2.18555832, -0.20219683]
      : kelvin <= 4000
        ? [-0.9549476, -1.37418593, 2.09137015, -0.16748867]
        : [3.081758, -5.8733867, 3.75112997, -0.37001483];
  return [x, a! * x ** 3 + b! * x ** 2 + c! * x + d!];
}
/** White light by its temperature: a black body up to 4000 K, daylight from 5000 K on, between them one goes over into the other. */
function onLocus(kelvin: number): readonly [x: number, y: number] {
  if (kelvin <= 4000) return blackBody(kelvin);
  if (kelvin >= 5000) return daylight(kelvin);
  const [[x0, y0], [x1, y1]] = [blackBody(kelvin), daylight(kelvin)];
  const t = (kelvin - 4000) / 1000;
  return [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t];
}
const toUv = ([x, y]: readonly [number, number]): [number, number] => {
  const d = -2 * x + 12 * y + 3;
  return [(4 * x) / d, (6 * y) / d];
};
const fromUv = ([u, v]: readonly [number, number]): [number, number] => {
  const d = 2 * u - 8 * v + 4;
  return [(3 * u) / d, (2 * v) / d];
};
/** Away from the locus, towards green, by one unit of the CIE 1960 diagram. */
function greenward(kelvin: number): [number, number] {
  const [a, b] = [toUv(onLocus(kelvin * 0.995)), toUv(onLocus(kelvin * 1.005))];
  const [du, dv] = [b[0] - a[0], b[1] - a[1]];
  const long = Math.hypot(du, dv);
  const [u, v] = [-dv / long, du / long];
  return v > 0 ? [u, v] : [-u, -v];
}

/** White light as XYZ with Y = 1. @param green off the locus towards green, in the CIE 1960 diagram */
export function whiteOf(kelvin: number, green = 0): Triple {
  const [u, v] = toUv(onLocus(kelvin));
  const [gu, gv] = greenward(kelvin);
  const [x, y] = fromUv([u + gu * green, v + gv * green]);
  return [x / y, 1, (1 - x - y) / y];
}

/** Linear BT.709 as it was lit by a white → the same lit by the neutral one. Source: Bradford, as ICC.1 has it. */
export function balanceMatrix(kelvin: number, green: number): Projective {
  if (kelvin === NEUTRAL_KELVIN && green === 0) return [1, 0, 0, 0, 1, 0, 0, 0, 1];
  const from = times(CONES, whiteOf(kelvin, green));
  const to = times(CONES, whiteOf(NEUTRAL_KELVIN));
  const scale: Projective = [to[0] / from[0], 0, 0, 0, to[1] / from[1], 0, 0, 0, to[2] / from[2]];
  const adapted = product(FROM_CONES, product(scale, CONES));
  const m = product(FROM_XYZ, product(adapted, TO_XYZ));
  // the locus does not go through the white of BT.709 exactly: what is neutral without balance stays so
  const base = neutralError();
  return product(m, base);
}
let kept: Projective | null = null;
/** What rounding in the published matrices would do to neutral grey; its opposite. */
function neutralError(): Projective {
  if (kept) return kept;
  const m = product(FROM_XYZ, product(product(FROM_CONES, CONES), TO_XYZ));
  const [r, g, b] = times(m, [1, 1, 1]);
  return (kept = [1 / r, 0, 0, 0, 1 / g, 0, 0, 0, 1 / b]);
}

/** The white light in which something grey looks like this. @param rgb linear BT.709, all > 0 @returns kelvin, and how far towards green */
export function lightOf(rgb: Triple): { kelvin: number; green: number } {
  const [x, y, z] = times(TO_XYZ, rgb);
  // seen against the white of BT.709, which stands for the neutral light
  const white = times(TO_XYZ, [1, 1, 1]);
  const reference = whiteOf(NEUTRAL_KELVIN);
  const cones = times(CONES, [x, y, z]);
  const [own, ref] = [times(CONES, white), times(CONES, reference)];
  const seen = times(FROM_CONES, [
    (cones[0] / own[0]) * ref[0],
    (cones[1] / own[1]) * ref[1],
    (cones[2] / own[2]) * ref[2],
  ]);
  const sum = seen[0] + seen[1] + seen[2];
  const [u, v] = toUv([seen[0] / sum, seen[1] / sum]);
  const off = (mired: number): number => {
    const [p, q] = toUv(onLocus(1e6 / mired));
    return Math.hypot(u - p, v - q);
  };
  let [low, high] = [1e6 / KELVIN.max, 1e6 / KELVIN.min];
  // the nearest place of the locus: a coarse look along it, then thirds
  const steps = 60;
  let best = 0;
  for (let i = 1; i <= steps; i++)
    if (off(low + ((high - low) * i) / steps) < off(low + ((high - low) * best) / steps)) best = i;
  const wide = (high - low) / steps;
  [low, high] = [Math.max(low, low + wide * (best - 1)), Math.min(high, low + wide * (best + 1))];
  for (let i = 0; i < 60; i++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3];
    if (off(a) < off(b)) high = b;
    else low = a;
  }
  const kelvin = 2e6 / (low + high);
  const [p, q] = toUv(onLocus(kelvin));
  const [gu, gv] = greenward(kelvin);
  return { kelvin, green: (u - p) * gu + (v - q) * gv };
}
