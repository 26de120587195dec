// What an automatic balance and exposure go by: what should be grey in a picture, and how its light lies.
import { LIGHT_OF_BYTE, toDisplay, toLinear } from '../picture/light';
import { balanceMatrix, lightOf } from '../picture/white';

type Triple = readonly [number, number, number];
export interface AutoReading {
  /** linear BT.709 of what should be grey, as it is seen */
  grey: Triple;
  /** geometric mean of the light, linear luma */
  key: number;
  /** display-encoded luma that half a hundredth of the picture lies below and above */
  low: number;
  high: number;
  /** display-encoded lumas about the gap between what is dark and what is bright: where nearly all and most of the dark lies below, and most and nearly all of the bright above */
  gap: readonly [allDark: number, mostDark: number, mostBright: number, allBright: number];
}

/** Power of the mean that the search begins with: between the mean of all and the brightest. Source: Finlayson & Trezzi 2004. */
const POWER = 5;
/** Of the channels' spread below which a pixel counts as grey, once balanced; it narrows from round to round. */
const GREYISH = [0.3, 0.2, 0.13, 0.1, 0.08] as const;
/** Fewest pixels that may stand for grey, of those looked at. */
const FEW = 0.004;
/** Values that tell a colour: neither noise nor clipped. */
const [DARKEST, BRIGHTEST] = [12, 248];
const LOOKED = 60_000;

/** @param data straight 8-bit RGBA @returns null when nothing solid tells anything */
export function readAutomatic(data: Uint8Array | Uint8ClampedArray, w: number, h: number): AutoReading | null {
  const step = Math.max(1, Math.floor(Math.sqrt((w * h) / LOOKED)));
  const pixels: number[] = [];
  const lumas: number[] = [];
  let [sum, n] = [0, 0];
  for (let y = Math.floor(step / 2); y < h; y += step)
    for (let x = Math.floor(step / 2); x < w; x += step) {
      const i = (y * w + x) * 4;
      const [r, g, b, a] = [data[i]!, data[i + 1]!, data[i + 2]!, data[i + 3]!];
      if (a < 250) continue;
      lumas.push(0.2126 * r + 0.7152 * g + 0.0722 * b);
      sum += Math.log(1e-3 + 0.2126 * LIGHT_OF_BYTE[r]! + 0.7152 * LIGHT_OF_BYTE[g]! + 0.0722 * LIGHT_OF_BYTE[b]!);
      n++;
      if (Math.min(r, g, b) >= DARKEST && Math.max(r, g, b) <= BRIGHTEST)
        pixels.push(LIGHT_OF_BYTE[r]!, LIGHT_OF_BYTE[g]!, LIGHT_OF_BYTE[b]!);
    }
  if (n < 16) return null;
  lumas.sort((p, q) => p - q);
  const at = (share: number): number => lumas[Math.min(n - 1, Math.floor(share * n))]! / 255;
  return { grey: greyOf(pixels), key: Math.exp(sum / n), low: at(0.005), high: at(0.995), gap: gapOf(lumas) };
}

/** Of either part of a picture: nearly all of it, and most of it. */
const [NEARLY_ALL, MOST] = [0.99, 0.95];
/** Where the two parts of a picture end that differ most in brightness. Source: Otsu 1979. @param lumas ascending, 0…255 */
function gapOf(lumas: readonly number[]): AutoReading['gap'] {
  const n = lumas.length;
  const all = lumas.reduce((sum, luma) => sum + luma, 0);
  let [below, best, split] = [0, -1, n >> 1];
  lumas.forEach((luma, i) => {
    below += luma;
    const dark = i + 1;
    // between equal ones there is no gap
    if (dark === n || lumas[dark] === luma) return;
    const apart = below / dark - (all - below) / (n - dark);
    const much = dark * (n - dark) * apart * apart;
    if (much > best) [best, split] = [much, dark];
  });
  const at = (i: number): number => lumas[Math.min(n - 1, Math.max(0, Math.floor(i)))]! / 255;
  const bright = n - split;
  return [at(NEARLY_ALL * split), at(MOST * split), at(n - MOST * bright), at(n - NEARLY_ALL * bright)];
}

/** What should be grey: the mean of what is nearly grey after a first guess was balanced away, narrower each time. */
function greyOf(pixels: readonly number[]): Triple {
  const count = pixels.length / 3;
  if (count < 16) return [0.2, 0.2, 0.2];
  const power = [0, 0, 0];
  for (let i = 0; i < pixels.length; i += 3) for (let c = 0; c < 3; c++) power[c]! += pixels[i + c]! ** POWER;
  let grey = power.map((v) => (v / count) ** (1 / POWER)) as unknown as Triple;
  for (const spread of GREYISH) {
    const { kelvin, green } = lightOf(grey);
    const m = balanceMatrix(kelvin, green);
    const found = [0, 0, 0];
    let some = 0;
    for (let i = 0; i < pixels.length; i += 3) {
      const [r, g, b] = [pixels[i]!, pixels[i + 1]!, pixels[i + 2]!];
      const [x, y, z] = [
        m[0] * r + m[1] * g + m[2] * b,
        m[3] * r + m[4] * g + m[5] * b,
        m[6] * r + m[7] * g + m[8] * b,
      ];
      const most = Math.max(x, y, z);
      if (most <= 0 || (most - Math.min(x, y, z)) / most > spread) continue;
      // each counts alike, however bright
      const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      found[0]! += r / luma;
      found[1]! += g / luma;
      found[2]! += b / luma;
      some++;
    }
    if (some < count * FEW) break;
    grey = found.map((v) => (v / some) * 0.2) as unknown as Triple;
  }
  return grey;
}

/** Several frames as one, so that no single one decides. */
export function meanReading(all: readonly AutoReading[]): AutoReading {
  const mean = (of: (reading: AutoReading) => number): number =>
    all.reduce((sum, one) => sum + of(one), 0) / all.length;
  return {
    grey: [0, 1, 2].map((c) => mean(({ grey }) => grey[c]! / (grey[0] + grey[1] + grey[2]))) as unknown as Triple,
    key: Math.exp(mean(({ key }) => Math.log(key))),
    low: mean(({ low }) => low),
    high: mean(({ high }) => high),
    gap: [0, 1, 2, 3].map((i) => mean(({ gap }) => gap[i]!)) as unknown as AutoReading['gap'],
  };
}

/** Narrowest ramp of a key, so that it does not flicker. */
const NARROW = 0.04;
/** Dials of a brightness key whose ramp goes from where nearly all of what goes ends to where most of what stays begins. */
export function rampFor(
  { gap: [allDark, mostDark, mostBright, allBright] }: AutoReading,
  keep: 'bright' | 'dark',
): { threshold: number; softness: number } {
  const [gone, stays] = keep === 'bright' ? [allDark, mostBright] : [allBright, mostDark];
  const way = keep === 'bright' ? 1 : -1;
  const wide = Math.max(NARROW, way * (stays - gone));
  const round = (v: number) => Math.round(v * 1000) / 1000;
  return { threshold: round(Math.min(1, Math.max(0, gone + (way * wide) / 2))), softness: round(wide) };
}

/** Middle grey; so many stops off it are meant (snow, night), and of what is beyond them so much is taken away. */
const MIDDLE = 0.18;
const MEANT = 0.5;
const TOWARDS = 0.9;
/** Dials of Tone that put a reading's light in the middle and its ends near black and white. */
export function toneFor({ key, low, high }: AutoReading): { exposure: number; black: number; white: number } {
  const off = Math.log2(MIDDLE / key);
  const exposure = Math.min(4, TOWARDS * Math.max(0, Math.abs(off) - MEANT)) * Math.sign(off);
  const lit = (v: number) => toDisplay(toLinear(v) * 2 ** exposure);
  const round = (v: number) => Math.round(v * 1000) / 1000;
  return {
    exposure: Math.round(exposure * 100) / 100,
    black: round(Math.min(0.15, Math.max(0, lit(low) * 0.6))),
    white: round(Math.min(1.05, Math.max(0.62, lit(high) / 0.97))),
  };
}
