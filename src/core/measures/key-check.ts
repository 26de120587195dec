// Judging a matte: which pixels are solid, clear or in between, and the small islands that a key leaves behind.
import { defineMeasure } from './define';

/** A small patch of another kind than what surrounds it. In pixels of the matte; the circle is drawn about it. */
export interface Island {
  x: number;
  y: number;
  radius: number;
  /** a crumb is not clear though all around it is; a gap is not solid though all around it is */
  kind: 'crumb' | 'gap';
}
export interface KeyCheck {
  /** shares of all pixels, together 1 */
  solid: number;
  clear: number;
  between: number;
  /** how many small islands of each kind there are */
  crumbs: number;
  gaps: number;
  /** the largest of them, at most forty, the largest first */
  islands: Island[];
}

/** Alpha from which a pixel counts as solid, and up to which as clear, in 255ths. */
export const SOLID_FROM = 250;
export const CLEAR_TO = 5;
/** Islands that nowhere differ by more than this from what surrounds them, in 255ths, are not seen. */
const UNSEEN = 12;
/** Islands larger than this share of the picture are part of the subject. */
const LARGEST = 0.002;
const MOST = 40;
/** What lies this close to something large belongs to its edge, pixels. */
const BESIDE = 3;

/** @param alpha w×h values 0…255 */
export function checkKey(alpha: Uint8Array, w: number, h: number): KeyCheck {
  let [solid, clear] = [0, 0];
  for (const v of alpha) {
    if (v >= SOLID_FROM) solid++;
    else if (v <= CLEAR_TO) clear++;
  }
  const n = alpha.length || 1;
  const crumbs = islandsOf(alpha, w, h, (v) => v > CLEAR_TO, 'crumb');
  const gaps = islandsOf(alpha, w, h, (v) => v < SOLID_FROM, 'gap');
  const all = [...crumbs, ...gaps].sort((a, b) => b.radius - a.radius);
  return {
    solid: solid / n,
    clear: clear / n,
    between: (n - solid - clear) / n,
    crumbs: crumbs.length,
    gaps: gaps.length,
    islands: all.slice(0, MOST),
  };
}

/** Small connected patches (by sides or corners) of pixels that belong, wholly inside the picture and apart from anything large. */
function islandsOf(
  alpha: Uint8Array,
  w: number,
  h: number,
  belongs: (v: number) => boolean,
  kind: Island['kind'],
): Island[] {
  /** each pixel's patch; 0 = none */
  const patchAt = new Uint32Array(alpha.length);
  const stack = new Int32Array(alpha.length);
  const largest = Math.max(4, w * h * LARGEST);
  const patches: { left: number; right: number; upper: number; lower: number; small: boolean; seen: boolean }[] = [];
  for (let begin = 0; begin < alpha.length; begin++) {
    if (patchAt[begin] || !belongs(alpha[begin]!)) continue;
    const own = patches.length + 1;
    let [top, count, left, right, upper, lower, most] = [0, 0, w, 0, h, 0, 0];
    stack[top++] = begin;
    patchAt[begin] = own;
    while (top > 0) {
      const at = stack[--top]!;
      const [x, y] = [at % w, (at / w) | 0];
      count++;
      most = Math.max(most, kind === 'crumb' ? alpha[at]! : 255 - alpha[at]!);
      left = Math.min(left, x);
      right = Math.max(right, x);
      upper = Math.min(upper, y);
      lower = Math.max(lower, y);
      for (let v = Math.max(0, y - 1); v <= Math.min(h - 1, y + 1); v++) {
        for (let u = Math.max(0, x - 1); u <= Math.min(w - 1, x + 1); u++) {
          const next = v * w + u;
          if (patchAt[next] || !belongs(alpha[next]!)) continue;
          patchAt[next] = own;
          stack[top++] = next;
        }
      }
    }
    patches.push({
      left,
      right,
      upper,
      lower,
      seen: most > UNSEEN,
      small: count <= largest && left > 0 && upper > 0 && right < w - 1 && lower < h - 1,
    });
  }
  const isBesideLarge = ({ left, right, upper, lower }: (typeof patches)[number]) => {
    for (let y = Math.max(0, upper - BESIDE); y <= Math.min(h - 1, lower + BESIDE); y++) {
      for (let x = Math.max(0, left - BESIDE); x <= Math.min(w - 1, right + BESIDE); x++)
        if (patches[patchAt[y * w + x]! - 1]?.small === false) return true;
    }
    return false;
  };
  return patches
    .filter((patch) => patch.seen && patch.small && !isBesideLarge(patch))
    .map(({ left, right, upper, lower }) => ({
      x: (left + right + 1) / 2,
      y: (upper + lower + 1) / 2,
      radius: Math.max(right - left, lower - upper) / 2 + 1,
      kind,
    }));
}

/** Alpha of straight RGBA. */
export function alphaIn(data: Uint8ClampedArray): Uint8Array {
  const alpha = new Uint8Array(data.length / 4);
  for (let i = 0; i < alpha.length; i++) alpha[i] = data[i * 4 + 3]!;
  return alpha;
}

export const keyCheck = defineMeasure({
  help: 'Shares of a picture that are solid, clear and between, and the small islands that a key left.',
  async run(of, _options: null): Promise<KeyCheck> {
    const { data, w, h } = await of.bytes();
    return checkKey(alphaIn(data), w, h);
  },
});
