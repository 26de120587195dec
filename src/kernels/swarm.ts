// Many small figures, each drawn by its formula.
import { within } from './lanes';

/** Numbers of a figure: middle, half length and half width, cosine and sine of its turn, colour and opacity, its lot, and how far it is out of focus. */
export const PARTS: usize = 12 * 4;
const DOT: i32 = 0;
const DISC: i32 = 1;
const SCRAP: i32 = 2;
const LEAF: i32 = 3;

/** How much of a place a figure covers. @param u, v along and across it, 1 at its ends @param px pixels from its middle to its nearest side */
// @ts-ignore: decorator
@inline
function covering(form: i32, u: f32, v: f32, px: f32): f32 {
  if (form == DOT) {
    const left: f32 = <f32>1 - u * u - v * v;
    return left > 0 ? left * left : <f32>0;
  }
  if (form == DISC) return (<f32>1 - sqrt(u * u + v * v)) * px + <f32>0.5;
  // choosing is quicker than min and max, which look after what is no number
  if (form == SCRAP) {
    const au = abs(u);
    const av = abs(v);
    return (<f32>1 - (au > av ? au : av)) * px + <f32>0.5;
  }
  if (form == LEAF) return (<f32>1 - u * u - abs(v)) * px + <f32>0.5;
  // a flake: three lines through the middle
  const far = u * u + v * v;
  if (far > <f32>1) return 0;
  const one = abs(v);
  const two = abs(<f32>0.8660254 * u - <f32>0.5 * v);
  const three = abs(<f32>0.8660254 * u + <f32>0.5 * v);
  return (<f32>0.13 - min(one, min(two, three))) * px + <f32>0.5;
}

/** Slopes along a row that are as good as none, and a stretch of a row that has no end. */
export const LEVEL: f32 = 1e-9;
export const ENDLESS: f32 = 1e6;

/**
 * Draws figures over rows from..to of a picture w wide of premultiplied pixels, the first of them lowest.
 * @param list numbers of n figures @param light 1 = they add light instead of covering what lies below
 */
export function drawSwarm(list: usize, n: i32, form: i32, dst: usize, w: i32, from: i32, to: i32, light: i32): void {
  for (let i = 0; i < n; i++, list += PARTS) {
    const x = load<f32>(list);
    const y = load<f32>(list, 4);
    const long = load<f32>(list, 8);
    const wide = load<f32>(list, 12);
    const c = load<f32>(list, 16);
    const s = load<f32>(list, 20);
    const opacity = load<f32>(list, 36);
    if (!(long > 0) || !(wide > 0) || !(opacity > 0)) continue;
    const colour = f32x4.mul(f32x4.replace_lane(v128.load(list, 24), 3, 1), f32x4.splat(opacity));
    // the box about it as it is turned, with room for a soft edge
    const across = abs(c) * long + abs(s) * wide + <f32>1;
    const down = abs(s) * long + abs(c) * wide + <f32>1;
    const y0 = within(floor(y - down), from, to);
    const y1 = within(ceil(y + down), from, to);
    const x0 = within(floor(x - across), 0, w);
    const x1 = within(ceil(x + across), 0, w);
    if (y0 >= y1 || x0 >= x1) continue;
    const px = min(long, wide);
    // what is thinner than a pixel is as faint as it is thin
    const thin: f32 = min(<f32>1, <f32>2 * px);
    const ul = c / long;
    const vl = -s / wide;
    const ur = s / long;
    const vr = c / wide;
    const room = max(px, <f32>0.5);
    const most: f32 = <f32>1 + <f32>0.5 / room;
    const solid = opacity >= 1 && !light;
    // how far along a row it reaches to either side of where it is widest, by either of its directions
    const levelU = abs(ul) < LEVEL;
    const levelV = abs(vl) < LEVEL;
    const iu: f32 = levelU ? 0 : <f32>1 / ul;
    const iv: f32 = levelV ? 0 : <f32>1 / vl;
    const reachU: f32 = levelU ? ENDLESS : abs(iu) * most;
    const reachV: f32 = levelV ? ENDLESS : abs(iv) * most;
    for (let row = y0; row < y1; row++) {
      const dy = <f32>row + <f32>0.5 - y;
      const midU = -ur * dy * iu;
      const midV = -vr * dy * iv;
      if ((levelU && abs(ur * dy) > most) || (levelV && abs(vr * dy) > most)) continue;
      const low = (midU - reachU > midV - reachV ? midU - reachU : midV - reachV) + x - <f32>0.5;
      const high = (midU + reachU < midV + reachV ? midU + reachU : midV + reachV) + x - <f32>0.5;
      const first = within(ceil(low), x0, x1);
      const end = within(floor(high) + <f32>1, x0, x1);
      let at = dst + (<usize>(row * w + first) << 4);
      const dx = <f32>first + <f32>0.5 - x;
      let u = ul * dx + ur * dy;
      let v = vl * dx + vr * dy;
      for (let column = first; column < end; column++, at += 16, u += ul, v += vl) {
        const much = covering(form, u, v, room);
        if (!(much > 0)) continue;
        const cover: f32 = (much < 1 ? much : <f32>1) * thin;
        if (solid && cover >= 1) {
          v128.store(at, colour);
          continue;
        }
        const over = f32x4.mul(colour, f32x4.splat(cover));
        const below = v128.load(at);
        const left: f32 = <f32>1 - f32x4.extract_lane(over, 3);
        const sum = f32x4.add(over, f32x4.mul(below, f32x4.splat(light ? <f32>1 : left)));
        v128.store(at, f32x4.replace_lane(sum, 3, f32x4.extract_lane(over, 3) + f32x4.extract_lane(below, 3) * left));
      }
    }
  }
}
