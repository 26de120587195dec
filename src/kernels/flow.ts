// Dense motion between two frames, and the frame between them.
// Source: Kroeger et al. 2016 (dense inverse search) for the flow; Jiang et al. 2018 for carrying it to a moment between.

/** Luma of premultiplied pixels. @param dst n floats */
export function lumaPlane(src: usize, n: i32, dst: usize): void {
  for (let i = 0; i < n; i++, src += 16, dst += 4) {
    store<f32>(dst, <f32>0.2126 * load<f32>(src) + <f32>0.7152 * load<f32>(src, 4) + <f32>0.0722 * load<f32>(src, 8));
  }
}

/** A plane at half size; an odd last row or column counts twice. */
export function halvePlane(src: usize, w: i32, h: i32, dst: usize): void {
  for (let y = 0; y < (h + 1) >> 1; y++) {
    const r0 = src + (<usize>(2 * y * w) << 2);
    const r1 = src + (<usize>(min(2 * y + 1, h - 1) * w) << 2);
    for (let x = 0; x < (w + 1) >> 1; x++, dst += 4) {
      const c0 = <usize>(2 * x) << 2;
      const c1 = <usize>min(2 * x + 1, w - 1) << 2;
      store<f32>(dst, <f32>0.25 * (load<f32>(r0 + c0) + load<f32>(r0 + c1) + load<f32>(r1 + c0) + load<f32>(r1 + c1)));
    }
  }
}

/** A plane between its samples; beyond the border its border goes on. */
// @ts-ignore: decorator
@inline
function read(plane: usize, w: i32, h: i32, x: f32, y: f32): f32 {
  const cx: f32 = x < 0 ? 0 : x > <f32>(w - 1) ? <f32>(w - 1) : x;
  const cy: f32 = y < 0 ? 0 : y > <f32>(h - 1) ? <f32>(h - 1) : y;
  const ix = min(<i32>cx, w - 2);
  const iy = min(<i32>cy, h - 2);
  const tx: f32 = cx - <f32>ix;
  const ty: f32 = cy - <f32>iy;
  const at = plane + (<usize>(iy * w + ix) << 2);
  const below = at + (<usize>w << 2);
  const top = load<f32>(at) + (load<f32>(at, 4) - load<f32>(at)) * tx;
  const low = load<f32>(below) + (load<f32>(below, 4) - load<f32>(below)) * tx;
  return top + (low - top) * ty;
}

const PATCH = 8;
const STRIDE = 4;
const STEPS = 10;

/** Mean absolute difference of a patch of a and the patch of b that lies (u, v) away, their means aside. */
function unlike(a: usize, b: usize, w: i32, h: i32, x0: i32, y0: i32, u: f32, v: f32): f32 {
  let mean: f32 = 0;
  for (let y = 0; y < PATCH; y += 2) {
    for (let x = 0; x < PATCH; x += 2) mean += read(b, w, h, <f32>(x0 + x) + u, <f32>(y0 + y) + v) - load<f32>(a + (<usize>((y0 + y) * w + x0 + x) << 2));
  }
  mean *= <f32>(1.0 / 16.0);
  let sum: f32 = 0;
  for (let y = 0; y < PATCH; y += 2) {
    for (let x = 0; x < PATCH; x += 2) sum += abs(read(b, w, h, <f32>(x0 + x) + u, <f32>(y0 + y) + v) - load<f32>(a + (<usize>((y0 + y) * w + x0 + x) << 2)) - mean);
  }
  return sum * <f32>(1.0 / 16.0);
}

/**
 * Motion from plane a to plane b at one level of the pyramid: patches are matched by inverse compositional steps from the
 * coarser level's and their neighbours' motion, then every pixel takes the mean of the patches over it, weighted by how well they fit it.
 * @param coarse motion of the level above, (w+1)/2 × (h+1)/2 pairs, or 0 @param flow out: w×h pairs (u, v) in pixels
 * @param patches scratch: one pair for each patch @param weights scratch: w×h floats
 */
export function flowLevel(a: usize, b: usize, w: i32, h: i32, coarse: usize, flow: usize, patches: usize, weights: usize): void {
  memory.fill(flow, 0, <usize>(w * h) << 3);
  memory.fill(weights, 0, <usize>(w * h) << 2);
  const across = (w - PATCH + STRIDE - 1) / STRIDE + 1;
  const down = (h - PATCH + STRIDE - 1) / STRIDE + 1;
  const cw = (w + 1) >> 1;
  const ch = (h + 1) >> 1;
  for (let j = 0; j < down; j++) {
    for (let i = 0; i < across; i++) {
      const x0 = min(i * STRIDE, w - PATCH);
      const y0 = min(j * STRIDE, h - PATCH);
      let u: f32 = 0;
      let v: f32 = 0;
      if (coarse) {
        const at = coarse + (<usize>(min((y0 + PATCH / 2) >> 1, ch - 1) * cw + min((x0 + PATCH / 2) >> 1, cw - 1)) << 3);
        u = load<f32>(at) * 2;
        v = load<f32>(at, 4) * 2;
      }
      let best = unlike(a, b, w, h, x0, y0, u, v);
      for (let k = 0; k < 3; k++) {
        // standing still, and the motion of the patch to the left and above
        let nu: f32 = 0;
        let nv: f32 = 0;
        if (k > 0) {
          if (k == 1 ? i == 0 : j == 0) continue;
          const at = patches + (<usize>(k == 1 ? j * across + i - 1 : (j - 1) * across + i) << 3);
          nu = load<f32>(at);
          nv = load<f32>(at, 4);
        }
        const other = unlike(a, b, w, h, x0, y0, nu, nv);
        if (other < best * <f32>0.98) {
          best = other;
          u = nu;
          v = nv;
        }
      }
      const u0 = u;
      const v0 = v;
      let sxx: f32 = 0;
      let sxy: f32 = 0;
      let syy: f32 = 0;
      let mx: f32 = 0;
      let my: f32 = 0;
      for (let y = y0; y < y0 + PATCH; y++) {
        for (let x = x0; x < x0 + PATCH; x++) {
          const gx = slopeX(a, w, x, y);
          const gy = slopeY(a, w, h, x, y);
          sxx += gx * gx;
          sxy += gx * gy;
          syy += gy * gy;
          mx += gx;
          my += gy;
        }
      }
      const share: f32 = <f32>(1.0 / 64.0);
      sxx += <f32>1e-4 - mx * mx * share;
      syy += <f32>1e-4 - my * my * share;
      sxy -= mx * my * share;
      const det = sxx * syy - sxy * sxy;
      if (det > <f32>1e-9) {
        for (let step = 0; step < STEPS; step++) {
          let bx: f32 = 0;
          let by: f32 = 0;
          let mean: f32 = 0;
          for (let y = y0; y < y0 + PATCH; y++) {
            for (let x = x0; x < x0 + PATCH; x++) {
              const r = read(b, w, h, <f32>x + u, <f32>y + v) - load<f32>(a + (<usize>(y * w + x) << 2));
              bx += r * slopeX(a, w, x, y);
              by += r * slopeY(a, w, h, x, y);
              mean += r;
            }
          }
          bx -= mean * mx * share;
          by -= mean * my * share;
          const du = (syy * bx - sxy * by) / det;
          const dv = (sxx * by - sxy * bx) / det;
          u -= du;
          v -= dv;
          if (du * du + dv * dv < <f32>1e-4) break;
        }
        const far = (u - u0) * (u - u0) + (v - v0) * (v - v0);
        if (!(far < <f32>(PATCH * PATCH)) || unlike(a, b, w, h, x0, y0, u, v) > best) {
          u = u0;
          v = v0;
        }
      }
      const own = patches + (<usize>(j * across + i) << 3);
      store<f32>(own, u);
      store<f32>(own, v, 4);
      for (let y = y0; y < y0 + PATCH; y++) {
        for (let x = x0; x < x0 + PATCH; x++) {
          const at = <usize>(y * w + x);
          const miss = abs(read(b, w, h, <f32>x + u, <f32>y + v) - load<f32>(a + (at << 2)));
          const weight: f32 = <f32>1.0 / (miss * miss + <f32>4e-4);
          store<f32>(flow + (at << 3), load<f32>(flow + (at << 3)) + weight * u);
          store<f32>(flow + (at << 3), load<f32>(flow + (at << 3), 4) + weight * v, 4);
          store<f32>(weights + (at << 2), load<f32>(weights + (at << 2)) + weight);
        }
      }
    }
  }
  for (let k = w * h; k > 0; k--, flow += 8, weights += 4) {
    const per: f32 = <f32>1.0 / max(load<f32>(weights), <f32>1e-9);
    store<f32>(flow, load<f32>(flow) * per);
    store<f32>(flow, load<f32>(flow, 4) * per, 4);
  }
}

// @ts-ignore: decorator
@inline
function slopeX(plane: usize, w: i32, x: i32, y: i32): f32 {
  const row = plane + (<usize>(y * w) << 2);
  return <f32>0.5 * (load<f32>(row + (<usize>min(x + 1, w - 1) << 2)) - load<f32>(row + (<usize>max(x - 1, 0) << 2)));
}

// @ts-ignore: decorator
@inline
function slopeY(plane: usize, w: i32, h: i32, x: i32, y: i32): f32 {
  const column = plane + (<usize>x << 2);
  return <f32>0.5 * (load<f32>(column + (<usize>(min(y + 1, h - 1) * w) << 2)) - load<f32>(column + (<usize>(max(y - 1, 0) * w) << 2)));
}

/** A pixel between its neighbours; beyond the border the border goes on. */
// @ts-ignore: decorator
@inline
function pixelAt(src: usize, w: i32, h: i32, x: f32, y: f32): v128 {
  const cx: f32 = x < 0 ? 0 : x > <f32>(w - 1) ? <f32>(w - 1) : x;
  const cy: f32 = y < 0 ? 0 : y > <f32>(h - 1) ? <f32>(h - 1) : y;
  const ix = min(<i32>cx, w - 2);
  const iy = min(<i32>cy, h - 2);
  const at = src + (<usize>(iy * w + ix) << 4);
  const below = at + (<usize>w << 4);
  const tx = f32x4.splat(cx - <f32>ix);
  const p00 = v128.load(at);
  const p01 = v128.load(below);
  const top = f32x4.add(p00, f32x4.mul(f32x4.sub(v128.load(at, 16), p00), tx));
  const low = f32x4.add(p01, f32x4.mul(f32x4.sub(v128.load(below, 16), p01), tx));
  return f32x4.add(top, f32x4.mul(f32x4.sub(low, top), f32x4.splat(cy - <f32>iy)));
}

/**
 * The picture at a moment between a and b. Where the two motions contradict each other, something is covered in one of the
 * frames, and the frame that agrees with itself counts for more.
 * @param there motion a → b, @param back motion b → a: pairs for each pixel at 1/scale of the size, fw×fh @param t 0…1
 */
export function flowBetween(a: usize, b: usize, out: usize, w: i32, h: i32, there: usize, back: usize, fw: i32, fh: i32, scale: f32, t: f32): void {
  const per: f32 = <f32>1.0 / scale;
  const s: f32 = <f32>1.0 - t;
  for (let y = 0; y < h; y++) {
    const fy = (<f32>y + <f32>0.5) * per - <f32>0.5;
    for (let x = 0; x < w; x++, out += 16) {
      const fx = (<f32>x + <f32>0.5) * per - <f32>0.5;
      // first guess of the motion through this place, then again where that came from
      let fu = pairAt(there, fw, fh, fx, fy, 0);
      let fv = pairAt(there, fw, fh, fx, fy, 4);
      let gu = pairAt(back, fw, fh, fx, fy, 0);
      let gv = pairAt(back, fw, fh, fx, fy, 4);
      for (let k = 0; k < 2; k++) {
        const u = pairAt(there, fw, fh, fx - t * fu, fy - t * fv, 0);
        const v = pairAt(there, fw, fh, fx - t * fu, fy - t * fv, 4);
        const p = pairAt(back, fw, fh, fx - s * gu, fy - s * gv, 0);
        const q = pairAt(back, fw, fh, fx - s * gu, fy - s * gv, 4);
        fu = u;
        fv = v;
        gu = p;
        gv = q;
      }
      const ax = fx - t * fu;
      const ay = fy - t * fv;
      const bx = fx - s * gu;
      const by = fy - s * gv;
      // how far going there and coming back misses the start
      const ea = missed(there, back, fw, fh, ax, ay, fu, fv);
      const eb = missed(back, there, fw, fh, bx, by, gu, gv);
      const wa = s / (ea + <f32>0.05);
      const wb = t / (eb + <f32>0.05);
      const share = wb / (wa + wb);
      const pa = pixelAt(a, w, h, <f32>x - t * fu * scale, <f32>y - t * fv * scale);
      const pb = pixelAt(b, w, h, <f32>x - s * gu * scale, <f32>y - s * gv * scale);
      v128.store(out, f32x4.add(pa, f32x4.mul(f32x4.sub(pb, pa), f32x4.splat(share))));
    }
  }
}

// @ts-ignore: decorator
@inline
function pairAt(flow: usize, w: i32, h: i32, x: f32, y: f32, part: usize): f32 {
  const cx: f32 = x < 0 ? 0 : x > <f32>(w - 1) ? <f32>(w - 1) : x;
  const cy: f32 = y < 0 ? 0 : y > <f32>(h - 1) ? <f32>(h - 1) : y;
  const ix = min(<i32>cx, w - 2);
  const iy = min(<i32>cy, h - 2);
  const tx: f32 = cx - <f32>ix;
  const at = flow + (<usize>(iy * w + ix) << 3) + part;
  const below = at + (<usize>w << 3);
  const top = load<f32>(at) + (load<f32>(at, 8) - load<f32>(at)) * tx;
  const low = load<f32>(below) + (load<f32>(below, 8) - load<f32>(below)) * tx;
  return top + (low - top) * (cy - <f32>iy);
}

// @ts-ignore: decorator
@inline
function missed(there: usize, back: usize, w: i32, h: i32, x: f32, y: f32, u: f32, v: f32): f32 {
  const du = u + pairAt(back, w, h, x + u, y + v, 0);
  const dv = v + pairAt(back, w, h, x + u, y + v, 4);
  return du * du + dv * dv;
}
