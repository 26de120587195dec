// Coverage as a shape: grown, coloured.

/** Most of `length` floats at `line` in windows of 2r + 1, in place; beyond the ends there is nothing. @param room length + 2r floats */
function mostOf(line: usize, length: i32, r: i32, room: usize): void {
  const padded = length + 2 * r;
  memory.fill(room, 0, <usize>padded << 2);
  memory.copy(room + (<usize>r << 2), line, <usize>length << 2);
  // windows of a power of two, each out of two half as long
  const window = 2 * r + 1;
  let span = 1;
  while (span * 2 <= window) {
    for (let i = 0; i + span < padded; i++) {
      const at = room + (<usize>i << 2);
      store<f32>(at, max(load<f32>(at), load<f32>(at + (<usize>span << 2))));
    }
    span *= 2;
  }
  for (let i = 0; i < length; i++) store<f32>(line + (<usize>i << 2), max(load<f32>(room + (<usize>i << 2)), load<f32>(room + (<usize>(i + window - span) << 2))));
}

/** A w×h plane grown by r places to all sides, in place: the most of what lies around. @param scratch 2·max(w, h) + 2r floats */
export function growPlane(plane: usize, w: i32, h: i32, r: i32, scratch: usize): void {
  const room = scratch + (<usize>max(w, h) << 2);
  for (let y = 0; y < h; y++) mostOf(plane + (<usize>(y * w) << 2), w, r, room);
  for (let x = 0; x < w; x++) {
    for (let y = 0; y < h; y++) store<f32>(scratch + (<usize>y << 2), load<f32>(plane + (<usize>(y * w + x) << 2)));
    mostOf(scratch, h, r, room);
    for (let y = 0; y < h; y++) store<f32>(plane + (<usize>(y * w + x) << 2), load<f32>(scratch + (<usize>y << 2)));
  }
}

/** n pixels become one colour, as strong as they cover times `opacity`. */
export function colourByAlpha(at: usize, n: i32, r: f32, g: f32, b: f32, opacity: f32): void {
  const colour = f32x4(r * opacity, g * opacity, b * opacity, opacity);
  for (let end = at + (<usize>n << 4); at < end; at += 16) v128.store(at, f32x4.mul(colour, v128.load32_splat(at, 12)));
}

// @ts-ignore: decorator
@inline
/** A number of a pixel's own between -½ and ½. */
function lot(pixel: u32): f32 {
  let n = pixel * 0x9e3779b1;
  n = (n ^ (n >> 15)) * 0x85ebca6b;
  n = (n ^ (n >> 13)) * 0xc2b2ae35;
  return <f32>((n ^ (n >> 16)) >> 8) / 16777216 - 0.5;
}

/**
 * w×h opaque pixels of a ramp along a line (round = 0) or about its first point (round = 1). @param ramp `steps` colours of four floats
 * at even places from the line's first point to its second. Each pixel is off by up to half a step of eight bits, by lot, so that slow ramps
 * show no bands; a colour that eight bits hold stays what it is.
 */
export function rampFill(dst: usize, w: i32, h: i32, round: i32, ax: f32, ay: f32, bx: f32, by: f32, ramp: usize, steps: i32): void {
  const step = f32x4(1 / 255, 1 / 255, 1 / 255, 0);
  const dx = bx - ax;
  const dy = by - ay;
  const long: f32 = max<f32>(dx * dx + dy * dy, 1e-9);
  const top = <f32>(steps - 1);
  for (let y = 0; y < h; y++) {
    const v = <f32>y + 0.5 - ay;
    for (let x = 0; x < w; x++, dst += 16) {
      const u = <f32>x + 0.5 - ax;
      const t: f32 = round ? Mathf.sqrt((u * u + v * v) / long) : (u * dx + v * dy) / long;
      const place = min(max(t, <f32>0), <f32>1) * top;
      const index = min(<i32>place, steps - 2);
      const from = v128.load(ramp + (<usize>index << 4));
      const colour = f32x4.add(from, f32x4.mul(f32x4.sub(v128.load(ramp + (<usize>index << 4), 16), from), f32x4.splat(place - <f32>index)));
      v128.store(dst, f32x4.max(f32x4.splat(0), f32x4.add(colour, f32x4.mul(f32x4.splat(lot(<u32>(y * w + x))), step))));
    }
  }
}

/** A colour laid over n pixels in place, as much as a plane of floats says. @param alone nothing of the pixels stays, also where the colour is not */
export function overPlane(at: usize, plane: usize, n: i32, r: f32, g: f32, b: f32, alone: i32): void {
  const colour = f32x4(r, g, b, 1);
  for (let end = at + (<usize>n << 4); at < end; at += 16, plane += 4) {
    const c = v128.load32_splat(plane);
    const under = alone ? f32x4.splat(0) : f32x4.mul(v128.load(at), f32x4.sub(f32x4.splat(1), c));
    v128.store(at, f32x4.add(under, f32x4.mul(colour, c)));
  }
}
