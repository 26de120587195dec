// Distance to straight lines, and what is made of it. Lines are four doubles each: x0 y0 x1 y1.

const FAR: f32 = 1e9;

/** How far along a line, 0…1, the place nearest to a pixel's middle is. */
// @ts-ignore: decorator
@inline
function along(line: usize, px: f64, py: f64): f64 {
  const x0 = load<f64>(line);
  const y0 = load<f64>(line, 8);
  const dx = load<f64>(line, 16) - x0;
  const dy = load<f64>(line, 24) - y0;
  const long = dx * dx + dy * dy;
  return long > 0 ? min(max(((px - x0) * dx + (py - y0) * dy) / long, 0), 1) : 0;
}

/** Squared distance of a place to a line. */
// @ts-ignore: decorator
@inline
function gap(line: usize, px: f64, py: f64): f32 {
  const t = along(line, px, py);
  const x0 = load<f64>(line);
  const y0 = load<f64>(line, 8);
  const ex = x0 + t * (load<f64>(line, 16) - x0) - px;
  const ey = y0 + t * (load<f64>(line, 24) - y0) - py;
  return <f32>(ex * ex + ey * ey);
}

/** Line k becomes the nearest of a pixel when it is nearer than the one it has, and no further than the limit. */
// @ts-ignore: decorator
@inline
function offer(lines: usize, k: i32, distance: usize, nearest: usize, at: i32, px: i32, py: i32): void {
  const slot = <usize>at << 2;
  if (k < 0 || load<i32>(nearest + slot) == k) return;
  const d = gap(lines + (<usize>k << 5), <f64>px + 0.5, <f64>py + 0.5);
  if (d >= load<f32>(distance + slot)) return;
  store<f32>(distance + slot, d);
  store<i32>(nearest + slot, k);
}

/** Offers a line to the pixels on and beside it; one outside the plane to the nearest pixels on its border. */
function seed(lines: usize, k: i32, w: i32, h: i32, distance: usize, nearest: usize): void {
  const line = lines + (<usize>k << 5);
  const x0 = load<f64>(line);
  const y0 = load<f64>(line, 8);
  const dx = load<f64>(line, 16) - x0;
  const dy = load<f64>(line, 24) - y0;
  const steps = <i32>min(<f64>(4 * (w + h)), max(1, ceil(2 * max(abs(dx), abs(dy)))));
  for (let i = 0; i <= steps; i++) {
    const x = <i32>min(<f64>(w - 1), max(0, floor(x0 + (dx * i) / steps)));
    const y = <i32>min(<f64>(h - 1), max(0, floor(y0 + (dy * i) / steps)));
    for (let v = max(0, y - 1); v <= min(h - 1, y + 1); v++) {
      for (let u = max(0, x - 1); u <= min(w - 1, x + 1); u++) offer(lines, k, distance, nearest, v * w + u, u, v);
    }
  }
}

/** Hands the nearest lines of a row on to it, from the row before it in the direction of the sweep. */
function sweep(lines: usize, y: i32, step: i32, w: i32, h: i32, distance: usize, nearest: usize): void {
  const from = y - step;
  const other = from >= 0 && from < h;
  for (let x = 0; x < w; x++) {
    const at = y * w + x;
    if (x > 0) offer(lines, load<i32>(nearest + (<usize>(at - 1) << 2)), distance, nearest, at, x, y);
    if (!other) continue;
    const above = nearest + (<usize>(from * w + x) << 2);
    offer(lines, load<i32>(above), distance, nearest, at, x, y);
    if (x > 0) offer(lines, load<i32>(above - 4), distance, nearest, at, x, y);
    if (x < w - 1) offer(lines, load<i32>(above + 4), distance, nearest, at, x, y);
  }
  for (let x = w - 2; x >= 0; x--) offer(lines, load<i32>(nearest + (<usize>(y * w + x + 1) << 2)), distance, nearest, y * w + x, x, y);
}

/**
 * Distance of each pixel's middle to the nearest of the lines, by handing on the nearest line from pixel to pixel in two sweeps.
 * Source: Danielsson 1980, with lines instead of points. @param count of lines @param limit what lies further off is said to be that far
 * @param distance w·h floats @param nearest w·h numbers of lines, −1 beyond the limit
 */
export function lineDistance(lines: usize, count: i32, w: i32, h: i32, limit: f32, distance: usize, nearest: usize): void {
  const n = w * h;
  const most: f32 = limit < 30000 ? limit * limit : FAR;
  for (let i = 0; i < n; i++) {
    store<f32>(distance + (<usize>i << 2), most);
    store<i32>(nearest + (<usize>i << 2), -1);
  }
  for (let k = 0; k < count; k++) seed(lines, k, w, h, distance, nearest);
  for (let y = 0; y < h; y++) sweep(lines, y, 1, w, h, distance, nearest);
  for (let y = h - 1; y >= 0; y--) sweep(lines, y, -1, w, h, distance, nearest);
  for (let at = distance, end = distance + (<usize>n << 2); at < end; at += 4) store<f32>(at, sqrt(load<f32>(at)));
}

/** What both ends of each line hold, two floats a line, carried to each pixel from the place of its line that is nearest. @param out w·h floats */
export function carryAlong(lines: usize, ends: usize, nearest: usize, w: i32, h: i32, out: usize): void {
  for (let y = 0, at = 0; y < h; y++) {
    for (let x = 0; x < w; x++, at++) {
      const k = load<i32>(nearest + (<usize>at << 2));
      let v: f32 = 0;
      if (k >= 0) {
        const t = <f32>along(lines + (<usize>k << 5), <f64>x + 0.5, <f64>y + 0.5);
        const a = load<f32>(ends + (<usize>k << 3));
        v = a + (load<f32>(ends + (<usize>k << 3), 4) - a) * t;
      }
      store<f32>(out + (<usize>at << 2), v);
    }
  }
}

/** Writes a place as two doubles. */
// @ts-ignore: decorator
@inline
function put(at: usize, x: f64, y: f64): usize {
  store<f64>(at, x);
  store<f64>(at, y, 8);
  return at + 16;
}
// @ts-ignore: decorator
@inline
function half(a: f32, b: f32): f64 {
  return <f64>((<f32>0.5 - a) / (b - a));
}

/**
 * The line along which a plane passes one half, as straight pieces between the middles of its pixels.
 * @param out the lines; 0 = they are only counted @returns how many
 */
export function halfWayLines(plane: usize, w: i32, h: i32, out: usize): i32 {
  let count = 0;
  for (let y = 0; y + 1 < h; y++) {
    for (let x = 0; x + 1 < w; x++) {
      const at = plane + (<usize>(y * w + x) << 2);
      const below = at + (<usize>w << 2);
      const a = load<f32>(at);
      const b = load<f32>(at, 4);
      const c = load<f32>(below, 4);
      const d = load<f32>(below);
      const kind = i32(a >= 0.5) | (i32(b >= 0.5) << 1) | (i32(c >= 0.5) << 2) | (i32(d >= 0.5) << 3);
      if (kind == 0 || kind == 15) continue;
      // opposite corners alike: two pieces
      const pieces = kind == 5 || kind == 10 ? 2 : 1;
      if (out) {
        const fx = <f64>x;
        const fy = <f64>y;
        if (a >= 0.5 != b >= 0.5) out = put(out, fx + 0.5 + half(a, b), fy + 0.5);
        if (b >= 0.5 != c >= 0.5) out = put(out, fx + 1.5, fy + 0.5 + half(b, c));
        if (d >= 0.5 != c >= 0.5) out = put(out, fx + 0.5 + half(d, c), fy + 1.5);
        if (a >= 0.5 != d >= 0.5) out = put(out, fx + 0.5, fy + 0.5 + half(a, d));
      }
      count += pieces;
    }
  }
  return count;
}

/** How much an edge of a width is covered at a distance inside it: the integral of a Gaussian of a quarter of it, by the logistic curve next to it. */
export function softEdge(inside: f32, width: f32): f32 {
  if (width <= 1) return min(max(inside + <f32>0.5, <f32>0), <f32>1);
  const z: f32 = (inside * <f32>4) / width;
  if (z > 3.5) return 1;
  if (z < -3.5) return 0;
  return <f32>1 / (<f32>1 + Mathf.exp(<f32>-1.5976 * z - <f32>0.07056 * z * z * z));
}

/** A plane with its edge moved outwards, in place, n floats. @param soft width of the edge beside `feather` for each pixel; 0 = a hard edge */
export function movedEdge(plane: usize, distance: usize, n: i32, grow: f32, feather: f32, soft: usize): void {
  for (let i = 0; i < n; i++, plane += 4, distance += 4) {
    const d = load<f32>(distance);
    const inside = (load<f32>(plane) >= 0.5 ? d : -d) + grow;
    store<f32>(plane, softEdge(inside, soft ? feather + load<f32>(soft + (<usize>i << 2)) : 0));
  }
}

/** How far n places lie inside the edge of a matte, in pixels; less than 0 outside. */
export function insidePlane(matte: usize, distance: usize, n: i32, out: usize): void {
  for (let i = 0; i < n; i++, matte += 4, distance += 4, out += 4) {
    const d = load<f32>(distance);
    store<f32>(out, load<f32>(matte) >= 0.5 ? d : -d);
  }
}

/** Coverage of a line along the edge of a matte, n floats. @param inside see insidePlane @param from where it begins, pixels inside the edge @param outer, inner width of its rims on either side */
export function ringPlane(inside: usize, n: i32, from: f32, width: f32, outer: f32, inner: f32, opacity: f32, out: usize): void {
  const perOuter: f32 = <f32>1 / outer;
  const perInner: f32 = <f32>1 / inner;
  for (let i = 0; i < n; i++, inside += 4, out += 4) {
    const place = load<f32>(inside);
    const rims = min((place - from) * perOuter, (from + width - place) * perInner) + <f32>0.5;
    store<f32>(out, min(max(rims, <f32>0), <f32>1) * opacity);
  }
}
