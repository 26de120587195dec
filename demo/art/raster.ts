// Drawing in linear light: sprites from SVG, laid over each other as light would be.
import sharp from 'sharp';
import { toDisplay, toLinear } from '../../src/core/picture/light';
import { invert, multiply, type Matrix } from '../../src/core/picture/matrix';

/** Linear-light premultiplied RGBA. */
export interface Sheet {
  w: number;
  h: number;
  data: Float32Array;
}
export interface Sprite extends Sheet {
  /** blurred coverage for contact shadows, padded by `pad` on every side */
  shadow: { w: number; h: number; pad: number; data: Float32Array };
}

const DECODE = Float32Array.from({ length: 256 }, (_, i) => toLinear(i / 255));
const ENCODE = Uint8Array.from({ length: 16385 }, (_, i) => Math.round(255 * toDisplay(i / 16384)));

export const sheet = (w: number, h: number): Sheet => ({ w, h, data: new Float32Array(w * h * 4) });

/** Seeded uniform noise 0…1 (mulberry32). */
export function random(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) >>> 0;
    let t = Math.imul(a ^ (a >>> 15), a | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Rasterises an SVG of the given size. @param soft blur of its contact shadow in pixels */
export async function sprite(svg: string, soft = 7): Promise<Sprite> {
  const image = sharp(Buffer.from(svg)).ensureAlpha();
  const { data, info } = await image.raw().toBuffer({ resolveWithObject: true });
  const { width: w, height: h } = info;
  const out = new Float32Array(w * h * 4);
  for (let i = 0; i < out.length; i += 4) {
    const a = data[i + 3]! / 255;
    out[i] = DECODE[data[i]!]! * a;
    out[i + 1] = DECODE[data[i + 1]!]! * a;
    out[i + 2] = DECODE[data[i + 2]!]! * a;
    out[i + 3] = a;
  }
  const pad = Math.ceil(soft * 3);
  const blurred = await sharp(Buffer.from(svg))
    .ensureAlpha()
    .extractChannel(3)
    .extend({ top: pad, bottom: pad, left: pad, right: pad, background: { r: 0, g: 0, b: 0, alpha: 0 } })
    .blur(Math.max(0.4, soft))
    .raw()
    .toBuffer({ resolveWithObject: true });
  const step = blurred.info.channels;
  const shade = Float32Array.from(
    { length: blurred.info.width * blurred.info.height },
    (_, i) => blurred.data[i * step]! / 255,
  );
  return { w, h, data: out, shadow: { w: blurred.info.width, h: blurred.info.height, pad, data: shade } };
}

export interface DrawOptions {
  /** contact shadow on what lies below: offset in pixels and strength 0…1 */
  shadow?: { x: number; y: number; strength: number };
  opacity?: number;
}

/** Draws a sprite through a map from sprite pixels to sheet pixels. Shadows darken what is there and never add coverage. */
export function draw(target: Sheet, top: Sprite, map: Matrix, { shadow, opacity = 1 }: DrawOptions = {}): void {
  if (shadow) {
    const { pad } = top.shadow;
    const moved = multiply([1, 0, 0, 1, shadow.x, shadow.y], multiply(map, [1, 0, 0, 1, -pad, -pad]));
    sample(target, moved, top.shadow.w, top.shadow.h, (i, p00, p10, p01, p11, fx, fy) => {
      if (target.data[i + 3] === 0) return;
      const s = top.shadow.data;
      if (s[p00]! + s[p11]! <= 0) return;
      const shade = (s[p00]! * (1 - fx) + s[p10]! * fx) * (1 - fy) + (s[p01]! * (1 - fx) + s[p11]! * fx) * fy;
      const keep = 1 - shadow.strength * opacity * shade;
      for (let c = 0; c < 3; c++) target.data[i + c]! *= keep;
    });
  }
  const s = top.data;
  sample(target, map, top.w, top.h, (i, p00, p10, p01, p11, fx, fy) => {
    const a00 = 4 * p00;
    const a10 = 4 * p10;
    const a01 = 4 * p01;
    const a11 = 4 * p11;
    if (s[a00 + 3]! + s[a10 + 3]! + s[a01 + 3]! + s[a11 + 3]! <= 0) return;
    const w00 = (1 - fx) * (1 - fy) * opacity;
    const w10 = fx * (1 - fy) * opacity;
    const w01 = (1 - fx) * fy * opacity;
    const w11 = fx * fy * opacity;
    const d = target.data;
    const keep = 1 - (s[a00 + 3]! * w00 + s[a10 + 3]! * w10 + s[a01 + 3]! * w01 + s[a11 + 3]! * w11);
    for (let c = 0; c < 4; c++)
      d[i + c] = s[a00 + c]! * w00 + s[a10 + c]! * w10 + s[a01 + c]! * w01 + s[a11 + c]! * w11 + d[i + c]! * keep;
  });
}

type Visit = (i: number, p00: number, p10: number, p01: number, p11: number, fx: number, fy: number) => void;

/** Visits the sheet's pixels that a w×h source covers, with the four source pixels around and the fractions between them. */
function sample(target: Sheet, m: Matrix, w: number, h: number, visit: Visit): void {
  const back = invert(m);
  if (!back) return;
  const xs = [0, w].flatMap((x) => [0, h].map((y) => m[0] * x + m[2] * y + m[4]));
  const ys = [0, w].flatMap((x) => [0, h].map((y) => m[1] * x + m[3] * y + m[5]));
  const left = Math.max(0, Math.floor(Math.min(...xs)));
  const right = Math.min(target.w, Math.ceil(Math.max(...xs)));
  const top = Math.max(0, Math.floor(Math.min(...ys)));
  const bottom = Math.min(target.h, Math.ceil(Math.max(...ys)));
  for (let y = top; y < bottom; y++) {
    for (let x = left; x < right; x++) {
      const u = back[0] * (x + 0.5) + back[2] * (y + 0.5) + back[4] - 0.5;
      const v = back[1] * (x + 0.5) + back[3] * (y + 0.5) + back[5] - 0.5;
      const iu = Math.floor(u);
      const iv = Math.floor(v);
      if (iu < 0 || iv < 0 || iu >= w - 1 || iv >= h - 1) continue;
      const p = iv * w + iu;
      visit((y * target.w + x) * 4, p, p + 1, p + w, p + w + 1, u - iu, v - iv);
    }
  }
}

/** Lays a premultiplied sheet over another of the same size, in place. */
export function over(under: Sheet, top: Sheet): void {
  for (let i = 0; i < under.data.length; i += 4) {
    const keep = 1 - top.data[i + 3]!;
    for (let c = 0; c < 4; c++) under.data[i + c] = top.data[i + c]! + under.data[i + c]! * keep;
  }
}

/** Multiplies light by a factor per pixel. */
export function light(target: Sheet, factor: (x: number, y: number) => readonly [number, number, number]): void {
  for (let y = 0, i = 0; y < target.h; y++) {
    for (let x = 0; x < target.w; x++, i += 4) {
      const f = factor(x, y);
      for (let c = 0; c < 3; c++) target.data[i + c]! *= f[c]!;
    }
  }
}

export const display = (v: number): number => ENCODE[Math.max(0, Math.min(16384, Math.round(v * 16384)))]!;

/** 8-bit straight display-encoded RGBA. @param noise standard deviation of camera noise, in 255ths @param dice its source */
export function bytes({ w, h, data }: Sheet, noise = 0, dice: () => number = () => 0): Uint8ClampedArray {
  const out = new Uint8ClampedArray(w * h * 4);
  for (let i = 0; i < out.length; i += 4) {
    const a = data[i + 3]!;
    for (let c = 0; c < 3; c++) {
      const grain = noise ? (dice() + dice() + dice() - 1.5) * 2 * noise : 0;
      out[i + c] = a > 0 ? display(data[i + c]! / a) + grain : 0;
    }
    out[i + 3] = Math.round(a * 255);
  }
  return out;
}
