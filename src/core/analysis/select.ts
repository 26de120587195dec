// Smart selection: strokes that keep and drop → a matte. Colours tell what belongs together, distances along the picture
// where it ends, and the colours on both sides of the border how much of each pixel is covered.

/** Straight 8-bit RGBA. */
export interface Pixels {
  w: number;
  h: number;
  data: Uint8Array | Uint8ClampedArray;
}
/** Places in pixels of the picture. */
export interface SelectHint {
  keep: boolean;
  radius: number;
  points: readonly (readonly [number, number])[];
}
export interface Selection {
  w: number;
  h: number;
  /** coverage 0…255 */
  matte: Uint8Array;
  /** how sure, 0…1: the mean certainty of the pixels at the border */
  confidence: number;
}

/** Longest side of the picture on which it is decided what belongs. */
const DECIDE = 360;
const BINS = 16;
/** How much more a step across an edge of probability costs than one along the picture. */
const EDGE_COST = 60;
/** Half-width of the border in which coverage is unmixed, in pixels of the small picture. */
const BAND = 3;
/** Distance to strokes of a kind of which there are none. */
const LONE = 12;
const { abs, ceil, floor, max, min, round, sqrt } = Math;

/** @param before the matte that strokes correct or that was carried here; its sure parts count as strokes */
export function select(picture: Pixels, hints: readonly SelectHint[], before?: Uint8Array): Selection {
  const small = reduced(picture, max(1, ceil(max(picture.w, picture.h) / DECIDE)));
  const seeds = seedsOf(small, hints, before && { w: picture.w, h: picture.h, values: before });
  const belongs = probability(small, seeds);
  const share = geodesic(small.w, small.h, belongs, seeds);
  return unmixed(picture, small, share, seeds);
}

interface Small {
  w: number;
  h: number;
  factor: number;
  /** three floats a pixel, opponent colours: lightness, green–red, blue–yellow (display-encoded, 0…1) */
  colour: Float32Array;
}

function reduced({ w, h, data }: Pixels, factor: number): Small {
  const [sw, sh] = [ceil(w / factor), ceil(h / factor)];
  const colour = new Float32Array(sw * sh * 3);
  for (let y = 0; y < sh; y++) {
    for (let x = 0; x < sw; x++) {
      let r = 0;
      let g = 0;
      let b = 0;
      let n = 0;
      for (let v = y * factor; v < min(h, (y + 1) * factor); v++) {
        for (let u = x * factor; u < min(w, (x + 1) * factor); u++, n++) {
          const at = (v * w + u) * 4;
          r += data[at]!;
          g += data[at + 1]!;
          b += data[at + 2]!;
        }
      }
      const at = (y * sw + x) * 3;
      const k = 1 / (255 * n);
      colour[at] = (0.299 * r + 0.587 * g + 0.114 * b) * k;
      colour[at + 1] = 0.5 + (r - g) * 0.5 * k;
      colour[at + 2] = 0.5 + (b - (r + g) / 2) * 0.5 * k;
    }
  }
  return { w: sw, h: sh, factor, colour };
}

/** 1 = a keeping stroke, 2 = a dropping one, 3 and 4 = carried over, 0 = nothing said. */
function seedsOf(
  { w, h, factor }: Small,
  hints: readonly SelectHint[],
  before?: { w: number; h: number; values: Uint8Array },
): Uint8Array {
  const seeds = new Uint8Array(w * h);
  if (before) {
    const value = (x: number, y: number) =>
      before.values[
        min(before.h - 1, floor((y + 0.5) * factor)) * before.w + min(before.w - 1, floor((x + 0.5) * factor))
      ]!;
    const around = [
      [0, 0],
      [-3, 0],
      [3, 0],
      [0, -3],
      [0, 3],
      [-2, -2],
      [2, 2],
      [-2, 2],
      [2, -2],
    ] as const;
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        const all = around.map(([dx, dy]) => value(min(w - 1, max(0, x + dx)), min(h - 1, max(0, y + dy))));
        if (all.every((v) => v > 200)) seeds[y * w + x] = 3;
        else if (all.every((v) => v < 55)) seeds[y * w + x] = 4;
      }
    }
  }
  for (const { keep, radius, points } of hints) {
    const r = max(0.7, radius / factor);
    points.forEach(([bx, by], i) => {
      const [ax, ay] = points[max(0, i - 1)]!;
      const steps = max(1, ceil(max(abs(bx - ax), abs(by - ay)) / factor));
      for (let k = 0; k <= steps; k++)
        disc(
          (ax + ((bx - ax) * k) / steps) / factor,
          (ay + ((by - ay) * k) / steps) / factor,
          r,
          w,
          h,
          (at) => (seeds[at] = keep ? 1 : 2),
        );
    });
  }
  return seeds;
}
function disc(cx: number, cy: number, r: number, w: number, h: number, visit: (at: number) => void): void {
  for (let y = max(0, floor(cy - r)); y <= min(h - 1, floor(cy + r)); y++) {
    for (let x = max(0, floor(cx - r)); x <= min(w - 1, floor(cx + r)); x++)
      if ((x + 0.5 - cx) ** 2 + (y + 0.5 - cy) ** 2 <= r * r + 0.5) visit(y * w + x);
  }
}

const binOf = (colour: Float32Array, i: number): number => {
  const bin = (v: number) => min(BINS - 1, max(0, floor(v * BINS)));
  // opponent colours fill the middle of their range only
  return (
    (bin(colour[i * 3]!) * BINS + bin((colour[i * 3 + 1]! - 0.5) * 2.2 + 0.5)) * BINS +
    bin((colour[i * 3 + 2]! - 0.5) * 2.2 + 0.5)
  );
};

/** How likely each pixel is kept, from soft colour counts under the strokes. Source: Bai and Sapiro 2007. */
function probability({ w, h, colour }: Small, seeds: Uint8Array): Float32Array {
  const counts = [new Float32Array(BINS ** 3), new Float32Array(BINS ** 3)];
  const totals = [0, 0];
  for (let i = 0; i < w * h; i++) {
    if (!seeds[i]) continue;
    const side = seeds[i]! % 2 ? 0 : 1;
    counts[side]![binOf(colour, i)]!++;
    totals[side]!++;
  }
  const [keep, drop] = counts.map((count) => softened(softened(count)));
  const out = new Float32Array(w * h);
  for (let i = 0; i < out.length; i++) {
    const bin = binOf(colour, i);
    const [k, d] = [keep![bin]! / max(1, totals[0]!) + 1e-5, drop![bin]! / max(1, totals[1]!) + 1e-5];
    out[i] = k / (k + d);
  }
  return out;
}

/** Counts spread to neighbouring bins, a quarter to each side, along all three axes. */
function softened(counts: Float32Array): Float32Array {
  let from = counts;
  for (const step of [1, BINS, BINS * BINS]) {
    const to = new Float32Array(from.length);
    for (let i = 0; i < from.length; i++) {
      const along = floor(i / step) % BINS;
      to[i] = from[i]! / 2 + (along > 0 ? from[i - step]! / 4 : 0) + (along < BINS - 1 ? from[i + step]! / 4 : 0);
    }
    from = to;
  }
  return from;
}

/** Share of keeping at each pixel, by how far it is from either kind of stroke along ways that avoid edges of probability. */
function geodesic(w: number, h: number, belongs: Float32Array, seeds: Uint8Array): Float32Array {
  const [keep, drop] = [0, 1].map((side) => {
    const far = new Float32Array(w * h).fill(1e9);
    let any = false;
    for (let i = 0; i < far.length; i++) {
      if (!seeds[i] || (seeds[i]! % 2 ? 0 : 1) !== side) continue;
      far[i] = 0;
      any = true;
    }
    return any ? swept(far, w, h, belongs, side === 0 ? 1 : 0) : null;
  });
  const out = new Float32Array(w * h);
  for (let i = 0; i < out.length; i++) {
    const p = belongs[i]!;
    // with strokes of one kind only, everything far from them is of the other
    const [k, d] = [1 / (1 + (keep ? keep[i]! : LONE)), 1 / (1 + (drop ? drop[i]! : LONE))];
    out[i] = seeds[i] === 1 ? 1 : seeds[i] === 2 ? 0 : (p * k) / (p * k + (1 - p) * d || 1);
  }
  return out;
}

/** Distances handed on in raster sweeps; a step costs more where the probability changes, and where it speaks against this side. */
function swept(far: Float32Array, w: number, h: number, belongs: Float32Array, side: 0 | 1): Float32Array {
  const offer = (at: number, from: number, long: number) => {
    const against = side ? 1 - belongs[at]! : belongs[at]!;
    const d = far[from]! + long * (0.05 + 0.6 * against + EDGE_COST * (belongs[at]! - belongs[from]!) ** 2);
    if (d < far[at]!) far[at] = d;
  };
  const diagonal = sqrt(2);
  for (let round = 0; round < 3; round++) {
    for (let y = 0, at = 0; y < h; y++) {
      for (let x = 0; x < w; x++, at++) {
        if (x > 0) offer(at, at - 1, 1);
        if (y === 0) continue;
        offer(at, at - w, 1);
        if (x > 0) offer(at, at - w - 1, diagonal);
        if (x < w - 1) offer(at, at - w + 1, diagonal);
      }
    }
    for (let y = h - 1, at = w * h - 1; y >= 0; y--) {
      for (let x = w - 1; x >= 0; x--, at--) {
        if (x < w - 1) offer(at, at + 1, 1);
        if (y === h - 1) continue;
        offer(at, at + w, 1);
        if (x < w - 1) offer(at, at + w + 1, diagonal);
        if (x > 0) offer(at, at + w - 1, diagonal);
      }
    }
  }
  return far;
}

/** Coverage at full size: sure away from the border, and at it by where a pixel's colour lies between those of both sides. */
function unmixed({ w, h, data }: Pixels, small: Small, share: Float32Array, seeds: Uint8Array): Selection {
  const { w: sw, h: sh, factor } = small;
  const side = nearness(share, sw, sh);
  const [f, b] = [meansOf({ w, h, data }, small, side, 1), meansOf({ w, h, data }, small, side, 0)];
  const matte = new Uint8Array(w * h);
  let [sure, count] = [0, 0];
  for (let y = 0, at = 0; y < h; y++) {
    const v = min(sh - 1, floor(y / factor));
    for (let x = 0; x < w; x++, at++) {
      const i = v * sw + min(sw - 1, floor(x / factor));
      const said = seeds[i] === 1 || seeds[i] === 2;
      if (said ? seeds[i] === 1 : side[i] === 1) matte[at] = 255;
      if (said || side[i] === 1 || side[i] === 0) continue;
      let [along, long] = [0, 0];
      for (let c = 0; c < 3; c++) {
        const d = f[i * 3 + c]! - b[i * 3 + c]!;
        along += (data[at * 4 + c]! - b[i * 3 + c]!) * d;
        long += d * d;
      }
      const near = bilinear(side, small, x / factor, y / factor);
      // colours that hardly differ say little, and so do those at the rim of the border; there the side decides
      const trust = min(1, long / 900) * (1 - smooth((abs(2 * near - 1) - 0.45) / 0.45));
      const colour = long > 0 ? min(1, max(0, (along / long - 0.5) * 1.3 + 0.5)) : near;
      const decided = smooth((near - 0.35) / 0.3);
      matte[at] = round(255 * (decided + (colour - decided) * trust));
      sure += min(1, long / 900) * min(1, 1.6 * abs(2 * share[i]! - 1));
      count++;
    }
  }
  return { w, h, matte, confidence: count ? sure / count : 1 };
}
const smooth = (v: number): number => {
  const t = min(1, max(0, v));
  return t * t * (3 - 2 * t);
};

/** How many of the pixels around each one are kept, 0…1: 0 and 1 away from the border, a ramp across it. */
function nearness(share: Float32Array, w: number, h: number): Float32Array {
  const sums = new Float64Array((w + 1) * (h + 1));
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      sums[(y + 1) * (w + 1) + x + 1] =
        (share[y * w + x]! >= 0.5 ? 1 : 0) +
        sums[y * (w + 1) + x + 1]! +
        sums[(y + 1) * (w + 1) + x]! -
        sums[y * (w + 1) + x]!;
  const out = new Float32Array(w * h);
  for (let y = 0, i = 0; y < h; y++) {
    const y0 = max(0, y - BAND);
    const y1 = min(h, y + BAND + 1);
    for (let x = 0; x < w; x++, i++) {
      const x0 = max(0, x - BAND);
      const x1 = min(w, x + BAND + 1);
      out[i] =
        (sums[y1 * (w + 1) + x1]! - sums[y0 * (w + 1) + x1]! - sums[y1 * (w + 1) + x0]! + sums[y0 * (w + 1) + x0]!) /
        ((x1 - x0) * (y1 - y0));
    }
  }
  return out;
}

function bilinear(share: Float32Array, { w, h }: Small, x: number, y: number): number {
  const [u, v] = [min(w - 1, max(0, x - 0.5)), min(h - 1, max(0, y - 0.5))];
  const [x0, y0] = [floor(u), floor(v)];
  const [x1, y1] = [min(w - 1, x0 + 1), min(h - 1, y0 + 1)];
  const top = share[y0 * w + x0]! + (share[y0 * w + x1]! - share[y0 * w + x0]!) * (u - x0);
  const low = share[y1 * w + x0]! + (share[y1 * w + x1]! - share[y1 * w + x0]!) * (u - x0);
  return top + (low - top) * (v - y0);
}

/** At each small pixel of the border the mean colour near it of those on one side, widening until there are some. @returns three floats a pixel, 0…255 */
function meansOf(
  { w, h, data }: Pixels,
  { w: sw, h: sh, factor }: Small,
  side: Float32Array,
  which: 0 | 1,
): Float32Array {
  const out = new Float32Array(sw * sh * 3);
  const line = (sw + 1) * 4;
  const sums = new Float64Array(line * (sh + 1));
  for (let y = 0, i = 0; y < sh; y++) {
    for (let x = 0; x < sw; x++, i++) {
      const at = (min(h - 1, y * factor + (factor >> 1)) * w + min(w - 1, x * factor + (factor >> 1))) * 4;
      const own = side[i] === which ? 1 : 0;
      const to = (y + 1) * line + (x + 1) * 4;
      for (let c = 0; c < 3; c++)
        sums[to + c] = own * data[at + c]! + sums[to - 4 + c]! + sums[to - line + c]! - sums[to - line - 4 + c]!;
      sums[to + 3] = own + sums[to - 1]! + sums[to - line + 3]! - sums[to - line - 1]!;
    }
  }
  for (let y = 0, i = 0; y < sh; y++) {
    for (let x = 0; x < sw; x++, i++) {
      if (side[i] === 0 || side[i] === 1) continue;
      for (let r = BAND + 3; ; r *= 2) {
        const left = max(0, x - r) * 4;
        const right = min(sw, x + r + 1) * 4;
        const top = max(0, y - r) * line;
        const bottom = min(sh, y + r + 1) * line;
        const n = sums[bottom + right + 3]! - sums[top + right + 3]! - sums[bottom + left + 3]! + sums[top + left + 3]!;
        if (n < 4 && r < max(sw, sh)) continue;
        for (let c = 0; c < 3 && n; c++)
          out[i * 3 + c] =
            (sums[bottom + right + c]! - sums[top + right + c]! - sums[bottom + left + c]! + sums[top + left + c]!) / n;
        break;
      }
    }
  }
  return out;
}
