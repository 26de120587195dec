// How soft the edges of a picture are.
import { blurred, medianWhereFlat, quantile, type SeenPlane } from './seen-plane';

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
/** Pixels of edges without which there are none. */
const FEW = 40;
/** Variance of the blur that half the difference of the neighbours on both sides is. */
const DIFFERENCE = 1 / 3;
/** A change of light 0…1 by the pixel below which nothing counts as an edge. */
const FAINT = 0.01;

/** How steep a plane is at a place, by the pixel. */
const steepAt = (of: Float32Array, i: number, w: number): number =>
  Math.hypot(of[i + 1]! - of[i - 1]!, of[i + w]! - of[i - w]!) / 2;
/** Share of the tiles that are taken to be flat, and the median steepness of normal noise in them, in deviations of it each way (Rayleigh). */
const [FLAT, MEDIAN] = [0.2, 1.1774];
/** At most so many times as steep as fine noise is coarse noise, of which a Laplacian sees little. */
const COARSE = 6;
/**
 * How steep noise is each way after a Gaussian, whether it is fine or coarse: by what is seen of it in the flattest tiles, where these are no edges.
 * @param fine deviation of what is fine of it, before the Gaussian
 */
function steepnessOfNoise(seen: SeenPlane, fine: number, sigma: number): number {
  const least = sigma ? fine / (Math.sqrt(8 * Math.PI) * sigma * sigma) : fine / Math.SQRT2;
  const most = medianWhereFlat(seen, FLAT, (i) => steepAt(seen.luma, i, seen.w)) / MEDIAN;
  return Math.min(COARSE * least, Math.max(least, most));
}

/**
 * By how much a further blur takes from the steepest edges (Zhuo & Sim 2011). @param fine deviation of the finest noise
 * @returns the deviation in pixels of the Gaussian that they are soft by; null when there are none
 */
export function softnessOf(seen: SeenPlane, fine: number): number | null {
  const { luma, w, h } = seen;
  let told: number | null = null;
  for (const { first, again } of LOOKS) {
    const plane = first ? blurred(luma, w, h, first) : luma;
    const now = { ...seen, luma: plane };
    const noise = steepnessOfNoise(now, fine, first);
    const edges = edgesOf(now, blurred(plane, w, h, again), again, noise);
    if (!edges) continue;
    told = Math.sqrt(Math.max(0.05, edges.softness ** 2 - first ** 2));
    if (edges.steep >= CLEAR * noise && edges.softness < FAR * again) break;
  }
  return told;
}

/** How soft edges are, and how steep. @param soft the plane, blurred again by so many pixels @param noise how steep that is */
function edgesOf(
  { luma, inside, w, h }: SeenPlane,
  soft: Float32Array,
  again: number,
  noise: number,
): { softness: number; steep: number } | null {
  const edges: { steep: number; ratio: number }[] = [];
  for (let y = 3; y < h - 3; y++) {
    for (let x = 3; x < w - 3; x++) {
      const i = y * w + x;
      if (!inside[i]) continue;
      const steep = steepAt(luma, i, w);
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
