// How soft and grainy a part of a picture is, and how bright: what something drawn needs in order to lie in it.
import { LIGHT_OF_BYTE } from '../picture/light';
import type { Rect } from '../picture/rect';
import type { Point } from '../track/motion';

export interface Surface {
  /** standard deviation in pixels of the Gaussian that its sharpest edges are soft by; null when it has none */
  softness: number | null;
  /** standard deviation of its finest noise, 0…1 of display-encoded luma */
  grain: number;
  /** mean luma in linear light */
  light: number;
  /** display-encoded luma of its darkest parts, 0…1 */
  black: number;
}

/** What something lacks to be as soft, as grainy and as black as something else. */
export interface Lack {
  /** standard deviation of the Gaussian that makes it as soft; 0 when it is as soft already, or nothing tells */
  blur: number;
  /** deviation of the noise that makes it as grainy, 0…1 */
  grain: number;
  /** the tone of it that becomes black, or less than 0 so that black is raised, as Tone has it; 0 leaves it */
  black: number;
}
/** Edges of what shows none are taken to be this soft. */
const CRISP = 0.5;
/** What is less than this is not worth a pass: pixels, shares of white. */
const LEAST = { blur: 0.25, grain: 0.002, black: 0.004 };
/** Up to so many times as much is the same: neither is measured more exactly. */
const ALIKE = 1.1;
const worth = (v: number, least: number): number => (Math.abs(v) < least ? 0 : v);

/** @param scale pixels of `own` for one of `goal` @param ownScale pixels in which its blur is wanted, for one of its own */
export function lackOf(own: Surface, goal: Surface, scale: number, ownScale = 1): Lack {
  const sharp = (own.softness ?? CRISP) * ownScale;
  const soft = goal.softness === null ? 0 : goal.softness * scale;
  const rest = (to: number, from: number) => (to < ALIKE * from ? 0 : Math.sqrt(to ** 2 - from ** 2));
  return {
    blur: worth(rest(soft, sharp), LEAST.blur),
    grain: worth(rest(goal.grain, own.grain), LEAST.grain),
    black: goal.black < 1 ? worth((own.black - goal.black) / (1 - goal.black), LEAST.black) : 0,
  };
}

/**
 * Blurs, in pixels, that take noise away before edges tell how soft they are, and by which they are blurred again then. The first that is enough
 * is taken: the less is taken away, the less has to be reckoned back.
 */
const LOOKS = [
  { first: 0, again: 1 },
  { first: 1, again: 1.5 },
  { first: 2, again: 3 },
  { first: 4, again: 6 },
];
/** Edges that are so many times as steep as noise is tell; and those that are softer than so many times the further blur hardly change by it. */
const [CLEAR, FAR] = [30, 2];
/** Share of the pixels that count as its darkest. */
const DARKEST = 0.005;
/** Pixels of edges without which there are none. */
const FEW = 40;
/** Variance of the blur that half the difference of the neighbours on both sides is. */
const DIFFERENCE = 1 / 3;
/** Side of the tiles in which noise is looked at; the flattest of them tell. */
const TILE = 8;
/** A change of light 0…1 by the pixel below which nothing counts as an edge. */
const FAINT = 0.01;

const quantile = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;

/** Whole pixels about a shape, within the picture. */
function boxOf(quad: readonly Point[], w: number, h: number): Rect {
  const span = (values: readonly number[], most: number) => {
    const [from, to] = [Math.max(0, Math.floor(Math.min(...values))), Math.min(most, Math.ceil(Math.max(...values)))];
    return [from, Math.max(0, to - from)] as const;
  };
  const [x, wide] = span(
    quad.map(([u]) => u),
    w,
  );
  const [y, tall] = span(
    quad.map(([, v]) => v),
    h,
  );
  return { x, y, w: wide, h: tall };
}

/** Whether a place lies within a convex shape. */
function within(quad: readonly Point[], x: number, y: number): boolean {
  let side = 0;
  return quad.every(([ax, ay], i) => {
    const [bx, by] = quad[(i + 1) % quad.length]!;
    const turn = Math.sign((bx - ax) * (y - ay) - (by - ay) * (x - ax));
    side ||= turn;
    return turn === 0 || turn === side;
  });
}

/**
 * Reads a convex part of a picture. Softness by how much a further blur takes from the steepest edges (Zhuo & Sim 2011), noise by the median of
 * what a Laplacian leaves in the flattest tiles (Immerkær 1996).
 * @param data straight 8-bit RGBA @param quad in pixels from the upper left corner
 * @returns null when nothing solid lies in it
 */
export function readSurface(
  data: Uint8Array | Uint8ClampedArray,
  w: number,
  h: number,
  quad: readonly Point[],
): Surface | null {
  const box = boxOf(quad, w, h);
  const luma = new Float32Array(box.w * box.h);
  const inside = new Uint8Array(box.w * box.h);
  const levels = new Uint32Array(256);
  let [light, count] = [0, 0];
  for (let y = 0, i = 0; y < box.h; y++) {
    for (let x = 0; x < box.w; x++, i++) {
      const from = ((box.y + y) * w + box.x + x) * 4;
      const [r, g, b, a] = [data[from]!, data[from + 1]!, data[from + 2]!, data[from + 3]!];
      luma[i] = (0.2126 * r + 0.7152 * g + 0.0722 * b) / 255;
      if (a < 250 || !within(quad, box.x + x + 0.5, box.y + y + 0.5)) continue;
      inside[i] = 1;
      count++;
      levels[Math.round(luma[i]! * 255)]!++;
      light += 0.2126 * LIGHT_OF_BYTE[r]! + 0.7152 * LIGHT_OF_BYTE[g]! + 0.0722 * LIGHT_OF_BYTE[b]!;
    }
  }
  if (!count) return null;
  const grain = grainOf(luma, inside, box.w, box.h);
  let darker = 0;
  const black = levels.findIndex((n) => (darker += n) >= DARKEST * count) / 255;
  return { softness: softnessOf(luma, inside, box.w, box.h, grain), grain, light: light / count, black };
}

function grainOf(luma: Float32Array, inside: Uint8Array, w: number, h: number): number {
  const tiles: number[] = [];
  eachTile(w, h, (left, top) => {
    const remains: number[] = [];
    for (let y = top; y < top + TILE; y++) {
      for (let x = left; x < left + TILE; x++) {
        const i = y * w + x;
        if (!inside[i] || !inside[i - w - 1] || !inside[i + w + 1]) continue;
        const at = (dx: number, dy: number) => luma[i + dx + dy * w]!;
        const corners = at(-1, -1) + at(1, -1) + at(-1, 1) + at(1, 1);
        remains.push(Math.abs(corners - 2 * (at(0, -1) + at(-1, 0) + at(1, 0) + at(0, 1)) + 4 * at(0, 0)));
      }
    }
    if (remains.length < (TILE * TILE) / 2) return;
    remains.sort((a, b) => a - b);
    // what clips has no noise to see
    const mid = quantile(remains, 0.5);
    if (mid > 0) tiles.push(mid);
  });
  if (!tiles.length) return 0;
  tiles.sort((a, b) => a - b);
  // the median of a normal number without its sign is 0.6745 deviations; the Laplacian's are six of the noise's
  return quantile(tiles, 0.35) / (0.6745 * 6);
}

/** How steep a plane is at a place, by the pixel. */
const steepAt = (of: Float32Array, i: number, w: number): number =>
  Math.hypot(of[i + 1]! - of[i - 1]!, of[i + w]! - of[i - w]!) / 2;
/** Share of the tiles that are taken to be flat, and the median steepness of normal noise in them, in deviations of it each way (Rayleigh). */
const [FLAT, MEDIAN] = [0.2, 1.1774];
/** At most so many times as steep as fine noise is coarse noise, of which a Laplacian sees little. */
const COARSE = 6;
/**
 * How steep noise is each way after a Gaussian, whether it is fine or coarse: by what is seen of it in the flattest tiles, where these are no edges.
 * @param grain deviation of what is fine of it, before the Gaussian
 */
function steepnessOfNoise(
  plane: Float32Array,
  inside: Uint8Array,
  w: number,
  h: number,
  grain: number,
  sigma: number,
): number {
  const fine = sigma ? grain / (Math.sqrt(8 * Math.PI) * sigma * sigma) : grain / Math.SQRT2;
  const tiles: number[] = [];
  eachTile(w, h, (left, top) => {
    const steep: number[] = [];
    for (let y = top; y < top + TILE; y++)
      for (let x = left; x < left + TILE; x++) if (inside[y * w + x]) steep.push(steepAt(plane, y * w + x, w));
    if (steep.length >= (TILE * TILE) / 2)
      tiles.push(
        quantile(
          steep.sort((a, b) => a - b),
          0.5,
        ),
      );
  });
  tiles.sort((a, b) => a - b);
  const seen = tiles.length ? quantile(tiles, FLAT) / MEDIAN : 0;
  return Math.min(COARSE * fine, Math.max(fine, seen));
}
function eachTile(w: number, h: number, look: (left: number, top: number) => void): void {
  for (let top = 1; top + TILE < h; top += TILE) for (let left = 1; left + TILE < w; left += TILE) look(left, top);
}

function softnessOf(luma: Float32Array, inside: Uint8Array, w: number, h: number, grain: number): number | null {
  let told: number | null = null;
  for (const { first, again } of LOOKS) {
    const plane = first ? blurred(luma, w, h, first) : luma;
    const noise = steepnessOfNoise(plane, inside, w, h, grain, first);
    const seen = edgesOf(plane, blurred(plane, w, h, again), again, inside, w, h, noise);
    if (!seen) continue;
    told = Math.sqrt(Math.max(0.05, seen.softness ** 2 - first ** 2));
    if (seen.steep >= CLEAR * noise && seen.softness < FAR * again) break;
  }
  return told;
}

/** How soft edges are, and how steep. @param soft the plane, blurred again by so many pixels @param noise how steep that is */
function edgesOf(
  plane: Float32Array,
  soft: Float32Array,
  again: number,
  inside: Uint8Array,
  w: number,
  h: number,
  noise: number,
): { softness: number; steep: number } | null {
  const edges: { steep: number; ratio: number }[] = [];
  for (let y = 3; y < h - 3; y++) {
    for (let x = 3; x < w - 3; x++) {
      const i = y * w + x;
      if (!inside[i]) continue;
      const steep = steepAt(plane, i, w);
      if (steep < Math.max(FAINT, 7 * noise)) continue;
      edges.push({ steep, ratio: steep / Math.max(1e-6, steepAt(soft, i, w)) });
    }
  }
  if (edges.length < FEW) return null;
  edges.sort((a, b) => b.steep - a.steep);
  // the steepest lie in the middle of edges, where the ratio is that of the Gaussians
  const steepest = edges.slice(0, Math.max(FEW, Math.floor(edges.length * 0.2)));
  const ratios = steepest.map(({ ratio }) => ratio).sort((a, b) => a - b);
  const ratio = Math.max(1.02, quantile(ratios, 0.6));
  const whole = again / Math.sqrt(ratio * ratio - 1);
  return {
    softness: Math.sqrt(Math.max(0.05, whole * whole - DIFFERENCE)),
    steep: steepest[steepest.length >> 1]!.steep,
  };
}

/** A plane blurred by a Gaussian, border repeated. */
function blurred(plane: Float32Array, w: number, h: number, sigma: number): Float32Array {
  const reach = Math.ceil(3 * sigma);
  const weights = Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma)));
  const whole = weights.reduce((sum, v) => sum + v);
  const held = (v: number, n: number) => Math.min(n - 1, Math.max(0, v));
  const along = (from: Float32Array, at: (x: number, y: number, k: number) => number) => {
    const out = new Float32Array(w * h);
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        let sum = 0;
        for (let k = -reach; k <= reach; k++) sum += weights[k + reach]! * from[at(x, y, k)]!;
        out[y * w + x] = sum / whole;
      }
    return out;
  };
  const rows = along(plane, (x, y, k) => y * w + held(x + k, w));
  return along(rows, (x, y, k) => held(y + k, h) * w + x);
}
