// What scopes show of a finished picture: counts only, drawn elsewhere.
import { intersect, type Rect } from '../picture/rect';

/** Columns of a waveform, and the side of the vector's square. */
export const WAVE_COLUMNS = 256;
export const VECTOR_SIDE = 96;
const LEVELS = 256;

export interface ScopeReading {
  /** pixels looked at; none where there is nothing to look at */
  pixels: number;
  /** their mean, display-encoded 0…1 */
  mean: readonly [r: number, g: number, b: number];
  /** counts of red, green, blue and luma over 0…255 */
  histogram: readonly [Uint32Array, Uint32Array, Uint32Array, Uint32Array];
  /** of red, green, blue and luma: WAVE_COLUMNS columns of 256 counts each, the leftmost and darkest first */
  wave: readonly [Uint16Array, Uint16Array, Uint16Array, Uint16Array];
  /** counts over the colour differences of BT.709 (right red, over yellow and green against the clock), VECTOR_SIDE rows from the top */
  vector: Uint32Array;
  /** shares of the picture of which some channel is beyond the limits that were asked for */
  beyond: { limits: LimitName; low: number; high: number };
}

/** Levels at which, and below or above which, something is wrong with a channel. */
export const LIMITS = {
  clipped: { low: 0, high: 255 },
  /** what a device that expects video levels cuts off. Source: ITU-R BT.709, 8 bits: black is 16, white 235 */
  video: { low: 15, high: 236 },
} as const;
export type LimitName = keyof typeof LIMITS;

/** Where a colour lies on the vector scope, −1…1 each way. @param r, g, b 0…1 */
export function vectorOf(r: number, g: number, b: number): readonly [x: number, y: number] {
  // the two axes along which red, green and blue lie a third of a turn from each other
  return [r - (g + b) / 2, ((g - b) * Math.sqrt(3)) / 2];
}

/** What of a picture is looked at. */
export interface ScopeQuestion {
  /** which limits it is looked at for; the ends when left out */
  limits?: LimitName | undefined;
  /** stripes beyond them are asked for too */
  warn?: boolean | undefined;
  /** a part of it, in its pixels */
  part?: Rect | undefined;
  /** only where it is at least half solid, as if it were solid there; otherwise what is clear counts as over black */
  solid?: boolean | undefined;
}

/** @param data straight 8-bit RGBA, beginning at a multiple of four bytes of its memory @param w, h of it */
export function readScopes(
  data: Uint8ClampedArray | Uint8Array,
  w: number,
  h: number,
  { part, solid = false, limits = 'clipped' }: ScopeQuestion = {},
): ScopeReading {
  const columns = () => new Uint16Array(WAVE_COLUMNS * LEVELS);
  const wave = [columns(), columns(), columns(), columns()] as const;
  const vector = new Uint32Array(VECTOR_SIDE * VECTOR_SIDE);
  let [low, high] = [0, 0];
  const half = (VECTOR_SIDE - 1) / 2;
  const per = half / 255;
  const tall = Math.sqrt(3) / 2;
  const least = LIMITS[limits].low;
  const most = LIMITS[limits].high;
  const [w0, w1, w2, w3] = wave;
  const seen = part ? intersect(whole(part), { x: 0, y: 0, w, h }) : { x: 0, y: 0, w, h };
  const starts = Int32Array.from({ length: seen.w }, (_, x) => Math.floor((x * WAVE_COLUMNS) / seen.w) * LEVELS);
  // a pixel is read at once, red in its lowest byte as on every machine that browsers run on
  const words = new Int32Array(data.buffer, data.byteOffset, w * h);
  const wide = seen.w;
  for (let y = 0; y < seen.h; y++) {
    let i = (seen.y + y) * w + seen.x;
    for (let x = 0; x < wide; x++, i++) {
      const rgba = words[i]!;
      let r = rgba & 255;
      let g = (rgba >> 8) & 255;
      let b = (rgba >> 16) & 255;
      const a = rgba >>> 24;
      if (solid) {
        if (a < 128) continue;
      } else if (a < 255) {
        r = Math.round((r * a) / 255);
        g = Math.round((g * a) / 255);
        b = Math.round((b * a) / 255);
      }
      const l = (0.2126 * r + 0.7152 * g + 0.0722 * b + 0.5) | 0;
      const column = starts[x]!;
      w0[column + r]!++;
      w1[column + g]!++;
      w2[column + b]!++;
      w3[column + l]!++;
      const u = (half + (r - (g + b) / 2) * per + 0.5) | 0;
      const v = (half - (g - b) * tall * per + 0.5) | 0;
      vector[v * VECTOR_SIDE + u]!++;
      if (r <= least || g <= least || b <= least) low++;
      if (r >= most || g >= most || b >= most) high++;
    }
  }
  const histogram = wave.map(sumOfColumns) as unknown as ScopeReading['histogram'];
  const pixels = histogram[3].reduce((sum, count) => sum + count, 0);
  const share = 1 / Math.max(1, pixels);
  const meanOf = (counts: Uint32Array) => (counts.reduce((sum, count, level) => sum + level * count, 0) * share) / 255;
  const mean = [meanOf(histogram[0]), meanOf(histogram[1]), meanOf(histogram[2])] as const;
  return { pixels, mean, histogram, wave, vector, beyond: { limits, low: low * share, high: high * share } };
}
/** How often there is each level in all columns of a waveform. */
function sumOfColumns(wave: Uint16Array): Uint32Array {
  const counts = new Uint32Array(LEVELS);
  for (let i = 0; i < wave.length;) for (let level = 0; level < LEVELS; level++, i++) counts[level]! += wave[i]!;
  return counts;
}
/** Whole pixels, one at least. */
const whole = ({ x, y, w, h }: Rect): Rect => {
  const [left, top] = [Math.floor(x), Math.floor(y)];
  return { x: left, y: top, w: Math.max(1, Math.ceil(x + w) - left), h: Math.max(1, Math.ceil(y + h) - top) };
};

/** Light where a count is, 0…1: dim for few, bright for many. */
export const glow = (count: number, most: number): number =>
  count ? 0.18 + 0.82 * Math.min(1, count / most) ** 0.45 : 0;
