// How cameras write light into numbers: curves by their published formulas, and the primaries that go with them.
import { projectiveInverse, projectiveProduct as product, type Projective } from './matrix';
import { CONES, FROM_CONES, FROM_XYZ, times, TO_XYZ } from './white';

type XY = readonly [x: number, y: number];
type Triple = readonly [number, number, number];

/** A curve that footage is recorded with. */
export interface LogCurve {
  title: string;
  /** recorded value, black 0 and white 1 of its range → light, of which 0.18 is middle grey and 1 is white */
  light(v: number): number;
  /** the formula counts code values of the full range, while video files hold them in the limited one */
  fullRange: boolean;
  /** primaries that it usually comes with */
  primaries: PrimariesName;
}

const HLG_A = 0.17883277;
const HLG_B = 1 - 4 * HLG_A;
const HLG_C = 0.5 - HLG_A * Math.log(4 * HLG_A);
const hlg = (v: number): number => (v <= 0.5 ? v ** 2 / 3 : (Math.exp((v - HLG_C) / HLG_A) + HLG_B) / 12);
/** Signal of white in a picture lit as usual. Source: ITU-R BT.2408 */
const HLG_WHITE = hlg(0.75);
/** Candela a square metre of that white on a screen. Source: ITU-R BT.2408 */
const PQ_WHITE = 203;
function pq(v: number): number {
  const p = Math.max(v, 0) ** (1 / (2523 / 32));
  return 10000 * (Math.max(p - 107 / 128, 0) / (2413 / 128 - (2392 / 128) * p)) ** (1 / (1305 / 8192));
}

export const LOG_CURVES = {
  /** Source: ITU-R BT.2100 */
  hlg: { title: 'HLG', light: (v) => hlg(Math.max(v, 0)) / HLG_WHITE, fullRange: false, primaries: 'bt2020' },
  /** Source: SMPTE ST 2084, ITU-R BT.2100 */
  pq: { title: 'PQ', light: (v) => pq(v) / PQ_WHITE, fullRange: false, primaries: 'bt2020' },
  /** Source: Academy S-2016-001 */
  acescct: {
    title: 'ACEScct',
    light: (v) => (v <= 0.155251141552511 ? (v - 0.0729055341958355) / 10.5402377416545 : 2 ** (v * 17.52 - 9.72)),
    fullRange: false,
    primaries: 'ap1',
  },
  /** Source: Sony, Technical Summary for S-Gamut3.Cine/S-Log3 and S-Gamut3/S-Log3 */
  slog3: {
    title: 'S-Log3',
    light: (v) =>
      v >= 171.2102946929 / 1023
        ? 10 ** ((v * 1023 - 420) / 261.5) * (0.18 + 0.01) - 0.01
        : ((v * 1023 - 95) * 0.01125) / (171.2102946929 - 95),
    fullRange: true,
    primaries: 'sgamut3cine',
  },
  /** Source: Panasonic, V-Log/V-Gamut Reference Manual */
  vlog: {
    title: 'V-Log',
    light: (v) => (v < 0.181 ? (v - 0.125) / 5.6 : 10 ** ((v - 0.598206) / 0.241514) - 0.00873),
    fullRange: true,
    primaries: 'vgamut',
  },
} as const satisfies Record<string, LogCurve>;
export type LogCurveName = keyof typeof LOG_CURVES;

/** A value of a limited-range file, black 0 and white 1, as a code value of the full range. Source: ITU-R BT.709, 10 bits */
export const fromLimited = (v: number): number => (v * 876 + 64) / 1023;

const D65: XY = [0.3127, 0.329];
/** Chromaticities of red, green, blue and white. Sources: ITU-R BT.709 and BT.2020, Academy S-2014-004, and the makers' papers named above */
export const PRIMARIES = {
  bt709: { title: 'BT.709', at: [[0.64, 0.33], [0.3, 0.6], [0.15, 0.06], D65] },
  bt2020: { title: 'BT.2020', at: [[0.708, 0.292], [0.17, 0.797], [0.131, 0.046], D65] },
  ap1: {
    title: 'ACES AP1',
    at: [
      [0.713, 0.293],
      [0.165, 0.83],
      [0.128, 0.044],
      [0.32168, 0.33767],
    ],
  },
  sgamut3: { title: 'S-Gamut3', at: [[0.73, 0.28], [0.14, 0.855], [0.1, -0.05], D65] },
  sgamut3cine: { title: 'S-Gamut3.Cine', at: [[0.766, 0.275], [0.225, 0.8], [0.089, -0.087], D65] },
  vgamut: { title: 'V-Gamut', at: [[0.73, 0.28], [0.165, 0.84], [0.1, -0.03], D65] },
} as const satisfies Record<string, { title: string; at: readonly [XY, XY, XY, XY] }>;
export type PrimariesName = 'bt709' | 'bt2020' | 'ap1' | 'sgamut3' | 'sgamut3cine' | 'vgamut';

const xyz = ([x, y]: XY): Triple => [x / y, 1, (1 - x - y) / y];
/** Linear light of those primaries → XYZ with Y of white = 1. Source: SMPTE RP 177 */
function toXyz([r, g, b, w]: readonly [XY, XY, XY, XY]): Projective {
  const [R, G, B] = [xyz(r), xyz(g), xyz(b)];
  const columns: Projective = [R[0], G[0], B[0], R[1], G[1], B[1], R[2], G[2], B[2]];
  const [sr, sg, sb] = times(projectiveInverse(columns)!, xyz(w));
  return product(columns, [sr, 0, 0, 0, sg, 0, 0, 0, sb]);
}

/** Linear light of other primaries → of BT.709; whites are carried over by Bradford's adaptation. */
export function toBt709(name: PrimariesName): Projective {
  if (name === 'bt709') return [1, 0, 0, 0, 1, 0, 0, 0, 1];
  const { at } = PRIMARIES[name];
  // the white of our own matrix, so that grey stays exactly grey
  const white = times(TO_XYZ, [1, 1, 1]);
  const [from, to] = [times(CONES, xyz(at[3])), times(CONES, white)];
  const adapt = product(
    FROM_CONES,
    product([to[0] / from[0], 0, 0, 0, to[1] / from[1], 0, 0, 0, to[2] / from[2]], CONES),
  );
  const m = product(FROM_XYZ, product(adapt, toXyz(at)));
  const sums = times(m, [1, 1, 1]);
  return m.map((v, i) => v / sums[Math.floor(i / 3)]!) as unknown as Projective;
}
