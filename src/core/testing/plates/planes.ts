// Premultiplied planes of floats: moved, averaged along a way, softened.
export type Planes = [Float32Array, Float32Array, Float32Array, Float32Array];
export interface Size {
  w: number;
  h: number;
}

/** The mean over a way of places, as an open shutter sees it. @param at middle of the way @param along from its one end to the other */
export function averaged(
  planes: Planes,
  { w, h }: Size,
  at: readonly [number, number],
  along: readonly [number, number],
): Planes {
  const samples = Math.max(1, Math.ceil(Math.hypot(...along)));
  return planes.map((plane) => {
    const out = new Float32Array(plane.length);
    for (let s = 0; s < samples; s++) {
      const part = samples === 1 ? 0 : (s + 0.5) / samples - 0.5;
      const [dx, dy] = [at[0] + along[0] * part, at[1] + along[1] * part];
      const [ix, iy] = [Math.floor(dx), Math.floor(dy)];
      const [fx, fy] = [dx - ix, dy - iy];
      const weights = [(1 - fx) * (1 - fy), fx * (1 - fy), (1 - fx) * fy, fx * fy].map((v) => v / samples);
      for (let y = 0; y < h; y++) {
        for (let x = 0; x < w; x++) {
          const [u, v] = [x - ix, y - iy];
          if (u < 1 || v < 1 || u >= w || v >= h) continue;
          const p = v * w + u;
          out[y * w + x]! +=
            plane[p]! * weights[0]! +
            plane[p - 1]! * weights[1]! +
            plane[p - w]! * weights[2]! +
            plane[p - w - 1]! * weights[3]!;
        }
      }
    }
    return out;
  }) as Planes;
}

/** Three boxes each way: nearly a Gaussian. */
export function softened(planes: Planes, { w, h }: Size, sigma: number): Planes {
  const r = Math.max(1, Math.round((Math.sqrt(4 * sigma * sigma + 1) - 1) / 2));
  const box = (from: Float32Array, lines: number, n: number, line: number, step: number): Float32Array => {
    const to = new Float32Array(from.length);
    for (let l = 0; l < lines; l++) {
      const value = (i: number) => from[l * line + Math.min(n - 1, Math.max(0, i)) * step]!;
      let sum = 0;
      for (let i = -r; i <= r; i++) sum += value(i);
      for (let i = 0; i < n; i++) {
        to[l * line + i * step] = sum / (2 * r + 1);
        sum += value(i + r + 1) - value(i - r);
      }
    }
    return to;
  };
  const done = new Map<Float32Array, Float32Array>();
  return planes.map((plane) => {
    let soft = done.get(plane);
    if (!soft) {
      soft = plane;
      for (let k = 0; k < 3; k++) soft = box(box(soft, h, w, w, 1), w, h, 1, w);
      done.set(plane, soft);
    }
    return soft;
  }) as Planes;
}
