// How far colours lie apart for people.
import { toLinear } from './light';
import { TO_XYZ } from './white';

/** CIE L*a*b* under D65: L* 0…100. */
export type Lab = readonly [L: number, a: number, b: number];
type Triple = readonly [number, number, number];

/** @param rgb display-encoded BT.709 with the curve of sRGB, 0…1. Source: CIE 15 */
export function labOf(rgb: Triple): Lab {
  const [r, g, b] = rgb.map(toLinear) as unknown as Triple;
  // against the white of the same matrix, so that greys are exactly grey
  const [x, y, z] = [0, 3, 6].map((row) => {
    const [p, q, s] = [TO_XYZ[row]!, TO_XYZ[row + 1]!, TO_XYZ[row + 2]!];
    return root((p * r + q * g + s * b) / (p + q + s));
  }) as unknown as Triple;
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}
const root = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : ((24389 / 27) * t + 16) / 116);

const RADIAN = Math.PI / 180;
const turned = (a: number, b: number): number => (a || b ? (Math.atan2(b, a) / RADIAN + 360) % 360 : 0);
/** c⁷ against 25⁷: how much a colour counts as strong. */
const strong = (c: number): number => Math.sqrt(c ** 7 / (c ** 7 + 25 ** 7));

/** ΔE00: about 1 is just seen side by side. Source: CIE 142, after Sharma, Wu and Dalal 2005. */
export function differenceOf([L1, a1, b1]: Lab, [L2, a2, b2]: Lab): number {
  const G = 0.5 * (1 - strong((Math.hypot(a1, b1) + Math.hypot(a2, b2)) / 2));
  const [p1, p2] = [a1 * (1 + G), a2 * (1 + G)];
  const [C1, C2] = [Math.hypot(p1, b1), Math.hypot(p2, b2)];
  const [h1, h2] = [turned(p1, b1), turned(p2, b2)];
  const grey = C1 * C2 === 0;
  const apart = grey ? 0 : ((h2 - h1 + 540) % 360) - 180;
  const C = (C1 + C2) / 2;
  const L = (L1 + L2) / 2;
  const h = grey ? h1 + h2 : (h1 + apart / 2 + 360) % 360;
  const cosine = (times: number, by: number): number => Math.cos((times * h + by) * RADIAN);
  const T = 1 - 0.17 * cosine(1, -30) + 0.24 * cosine(2, 0) + 0.32 * cosine(3, 6) - 0.2 * cosine(4, -63);
  const l = (L2 - L1) / (1 + (0.015 * (L - 50) ** 2) / Math.sqrt(20 + (L - 50) ** 2));
  const c = (C2 - C1) / (1 + 0.045 * C);
  const hue = (2 * Math.sqrt(C1 * C2) * Math.sin((apart / 2) * RADIAN)) / (1 + 0.015 * C * T);
  const turn = -Math.sin(60 * Math.exp(-(((h - 275) / 25) ** 2)) * RADIAN) * 2 * strong(C);
  return Math.sqrt(l ** 2 + c ** 2 + hue ** 2 + turn * c * hue);
}
