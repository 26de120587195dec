// How strong the noise of a picture is, and how large its grains are.
import { blurred, medianWhereFlat, type SeenPlane } from './seen-plane';

/** Standard deviations 0…1 of what is fine of it and of all of it, and the deviation in pixels of the Gaussian that makes such noise of white noise. */
export interface Grains {
  fine: number;
  grain: number;
  grainSize: number;
}

/** The Gaussian that noise is told apart from the picture by, and the largest grains that are. */
const [PICTURE, LARGEST] = [1.5, 1.6];
/** Share of the tiles that are taken to be flat, and the median of a normal number without its sign, in deviations. */
const [EVEN, WITHOUT_SIGN] = [0.2, 0.6745];
/** What a Laplacian leaves of noise of deviation 1 whose grains are so soft: all six of what it leaves of white noise, or less. */
function leftByLaplacian(size: number): number {
  const like = (d: number): number => (size ? Math.exp(-(d * d) / (4 * size * size)) : 0);
  return 6 - 8 * like(1) + 2 * like(2);
}
/** What taking away its own Gaussian leaves of such noise. */
function leftOfItself(size: number): number {
  const [own, blur] = [size * size, PICTURE * PICTURE];
  // white noise has the weight of one pixel
  const mean = size ? (2 * own) / (2 * own + blur) : 1 / (2 * Math.PI * blur);
  const twice = size ? own / (own + blur) : 1 / (4 * Math.PI * blur);
  return Math.sqrt(1 - 2 * mean + twice);
}
/**
 * Noise by what is left of it in the flattest tiles once the picture is taken away, in two ways of which coarse grains leave differently much:
 * by a Laplacian (Immerkær 1996), and by a Gaussian.
 */
export function grainsOf(seen: SeenPlane): Grains {
  const { luma, w, h } = seen;
  const laplacian =
    medianWhereFlat(seen, EVEN, (i) => {
      const at = (d: number) => luma[i + d]!;
      const corners = at(-w - 1) + at(-w + 1) + at(w - 1) + at(w + 1);
      return corners - 2 * (at(-w) + at(-1) + at(1) + at(w)) + 4 * at(0);
    }) / WITHOUT_SIGN;
  const soft = blurred(luma, w, h, PICTURE);
  const whole = medianWhereFlat(seen, EVEN, (i) => luma[i]! - soft[i]!) / WITHOUT_SIGN;
  const fine = laplacian / 6;
  if (!fine || !whole) return { fine, grain: fine, grainSize: 0 };
  let [small, large] = [0, LARGEST];
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (small + large) / 2;
    if (leftByLaplacian(middle) / leftOfItself(middle) > laplacian / whole) small = middle;
    else large = middle;
  }
  return { fine, grain: whole / leftOfItself(small), grainSize: small };
}
/** By which the size is found. */
const HALVINGS = 20;
