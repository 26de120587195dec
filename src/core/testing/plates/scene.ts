// Scenes before a screen that nobody drew by hand: everything about them comes from a seed, and what is true of them is known.
import { fillRings } from '../../masks/raster';
import { toDisplay, toLinear } from '../../picture/light';
import { between, cloud, diceOf, gauss, oneOf } from './dice';
import { averaged, softened, type Planes, type Size } from './planes';

export const SIZE = { w: 960, h: 540 } as const;
type RGB = readonly [number, number, number];

/** What is hard about a plate. */
export interface Traits {
  /** what stands behind; black and white only where asked for */
  screen: 'green' | 'blue' | 'black' | 'white';
  subject: string;
  /** px */
  hair: number;
  motion: number;
  defocus: number;
  /** share */
  uneven: number;
  spill: number;
  noise: number;
  holes: number;
  glass: number;
  codec: 'avc' | 'vp9' | 'av1';
  /** bits a second */
  bitrate: number;
}
export interface Frame {
  /** straight 8-bit RGBA to be encoded */
  pixels: Uint8ClampedArray;
  /** the subject without the screen's light, straight, and its matte, 8-bit */
  truth: Uint8ClampedArray;
}
export interface Scene {
  traits: Traits;
  frames: Frame[];
  /** the screen without the subject, straight 8-bit RGBA, with noise of its own */
  clean(): Uint8ClampedArray;
}

const SUBJECTS: Record<string, { base: RGB; swing: RGB; grain: number; stripes: number }> = {
  cloth: { base: [0.45, 0.2, 0.24], swing: [0.12, 0.08, 0.08], grain: 7, stripes: 0.5 },
  skin: { base: [0.8, 0.58, 0.47], swing: [0.08, 0.07, 0.06], grain: 60, stripes: 0 },
  wood: { base: [0.55, 0.38, 0.24], swing: [0.14, 0.11, 0.08], grain: 40, stripes: 1 },
  print: { base: [0.75, 0.72, 0.66], swing: [0.3, 0.3, 0.32], grain: 22, stripes: 0.2 },
  dark: { base: [0.1, 0.1, 0.12], swing: [0.05, 0.05, 0.05], grain: 18, stripes: 0.3 },
  grey: { base: [0.5, 0.5, 0.5], swing: [0.16, 0.16, 0.16], grain: 30, stripes: 0 },
  pale: { base: [0.9, 0.89, 0.86], swing: [0.07, 0.07, 0.07], grain: 26, stripes: 0.3 },
  olive: { base: [0.42, 0.46, 0.3], swing: [0.1, 0.1, 0.08], grain: 24, stripes: 0.4 },
};
const SCREENS: Record<Traits['screen'], readonly RGB[]> = {
  green: [
    [0.2, 0.66, 0.28],
    [0.32, 0.72, 0.36],
    [0.12, 0.55, 0.24],
  ],
  blue: [
    [0.14, 0.3, 0.72],
    [0.2, 0.36, 0.8],
  ],
  black: [
    [0.05, 0.05, 0.06],
    [0.1, 0.095, 0.09],
  ],
  white: [
    [0.95, 0.95, 0.93],
    [0.86, 0.86, 0.88],
  ],
};

function traitsOf(dice: () => number): Traits {
  const some = (share: number, low: number, high: number) => (dice() < share ? between(dice, low, high) : 0);
  return {
    screen: dice() < 0.75 ? 'green' : 'blue',
    subject: oneOf(dice, Object.keys(SUBJECTS)),
    hair: some(0.65, 0.5, 3),
    motion: some(0.4, 4, 30),
    defocus: some(0.35, 0.5, 6),
    uneven: between(dice, 0, 0.4),
    spill: between(dice, 0, 0.6),
    noise: between(dice, 0, 0.04),
    holes: Math.floor(between(dice, 0, 3)),
    glass: some(0.3, 0.3, 0.7),
    codec: codecOf(dice()),
    bitrate: Math.round(between(dice, 2.5e6, 9e6)),
  };
}

const codecOf = (roll: number): Traits['codec'] => (roll < 0.6 ? 'avc' : roll < 0.85 ? 'vp9' : 'av1');

/** A round with bumps about a place. @param way −1 makes a hole */
function blob(dice: () => number, [cx, cy]: readonly [number, number], radius: number, way: 1 | -1): Float64Array {
  const bumps = [2, 3, 4, 5, 7, 11].map((k) => [k, between(dice, 0, 0.32 / k), between(dice, 0, 6.3)] as const);
  const n = 360;
  return Float64Array.from({ length: 2 * n }, (_, i) => {
    const turn = (way * 2 * Math.PI * (i >> 1)) / n;
    const r = radius * (1 + bumps.reduce((sum, [k, much, from]) => sum + much * Math.cos(k * turn + from), 0));
    return i % 2 ? cy + r * Math.sin(turn) * 1.1 : cx + r * Math.cos(turn);
  });
}

/** A hair that leaves an outline and bends: a thin ring. @param start index of its root in the outline */
function hair(
  dice: () => number,
  outline: Float64Array,
  start: number,
  [cx, cy]: readonly [number, number],
  wide: number,
): Float64Array {
  const [x, y] = [outline[2 * start]!, outline[2 * start + 1]!];
  const out = Math.atan2(y - cy, x - cx) + between(dice, -0.7, 0.7);
  const [long, bend] = [between(dice, 15, 75), between(dice, -0.03, 0.03)];
  const steps = 14;
  const sides: [number, number][][] = [[], []];
  for (let i = 0, [px, py, turn] = [x - 6 * Math.cos(out), y - 6 * Math.sin(out), out]; i <= steps; i++) {
    const half = (wide / 2) * (1 - (0.8 * i) / steps);
    sides[0]!.push([px - Math.sin(turn) * half, py + Math.cos(turn) * half]);
    sides[1]!.unshift([px + Math.sin(turn) * half, py - Math.cos(turn) * half]);
    px += (Math.cos(turn) * long) / steps;
    py += (Math.sin(turn) * long) / steps;
    turn += (bend * long) / steps;
  }
  const points = sides.flat();
  const area = points.reduce((sum, [ax, ay], i) => {
    const [bx, by] = points[(i + 1) % points.length]!;
    return sum + ax * by - bx * ay;
  }, 0);
  // rings that turn the same way as the outline are one with it
  return Float64Array.from((area < 0 ? points.reverse() : points).flat());
}

/** Coverage of the subject, and colours of it in linear light, both before anything moves. */
function subjectOf(
  dice: () => number,
  traits: Traits,
  { w, h }: Size,
): { alpha: Float32Array; colour: (x: number, y: number) => RGB } {
  const middle = [w * between(dice, 0.42, 0.58), h * between(dice, 0.5, 0.6)] as const;
  const radius = h * between(dice, 0.26, 0.34);
  const outline = blob(dice, middle, radius, 1);
  const rings = [outline];
  for (let i = 0; i < traits.holes; i++) {
    const turn = between(dice, 0, 6.3);
    const far = radius * between(dice, 0.2, 0.55);
    rings.push(
      blob(dice, [middle[0] + far * Math.cos(turn), middle[1] + far * Math.sin(turn)], between(dice, 8, 30), -1),
    );
  }
  if (traits.hair) {
    const count = Math.round(between(dice, 60, 160));
    for (let i = 0; i < count; i++)
      rings.push(
        hair(dice, outline, Math.floor(between(dice, 180, 360)), middle, traits.hair * between(dice, 0.7, 1.3)),
      );
  }
  const alpha = fillRings(rings, w, h);
  if (traits.glass) {
    const pane = fillRings([blob(dice, [middle[0], middle[1] + radius * 0.4], radius * 0.3, 1)], w, h);
    pane.forEach((v, i) => (alpha[i]! *= 1 - v * (1 - traits.glass)));
  }
  const { base, swing, grain, stripes } = SUBJECTS[traits.subject]!;
  const seed = Math.floor(dice() * 1e9);
  const [soft, fine, hue] = [cloud(seed, grain, 5, 0.6), cloud(seed + 1, 3, 2, 0.7), cloud(seed + 2, 90, 3, 0.5)];
  const tilt = between(dice, -0.6, 0.6);
  const colour = (x: number, y: number): RGB => {
    const stripe = stripes * Math.sin((x * Math.cos(tilt) + y * Math.sin(tilt)) * 0.35 + 3 * soft(x, y));
    const light = 0.75 * soft(x, y) + 0.3 * stripe + 0.25 * fine(x, y);
    const tint = hue(x, y);
    return base.map((v, c) =>
      toLinear(Math.min(0.98, Math.max(0.01, v + swing[c]! * (light + (c === 0 ? 0.5 : c === 2 ? -0.5 : 0) * tint)))),
    ) as unknown as RGB;
  };
  return { alpha, colour };
}

/** Light of the screen, linear. */
function screenOf(dice: () => number, traits: Traits, { w, h }: Size): (x: number, y: number) => RGB {
  const base = oneOf(dice, SCREENS[traits.screen]).map(toLinear);
  const [turn, seed] = [between(dice, 0, 6.3), Math.floor(dice() * 1e9)];
  const wrinkles = cloud(seed, between(dice, 40, 140), 3, 0.45);
  const much = between(dice, 0, 0.12);
  const seam = dice() < 0.4 ? w * between(dice, 0.1, 0.9) : -99;
  const shadow = { x: w * between(dice, 0.2, 0.8), y: h * between(dice, 0.75, 1.1), much: between(dice, 0, 0.35) };
  const marks = dice() < 0.4 ? Array.from({ length: 6 }, () => [w * dice(), h * dice()] as const) : [];
  return (x, y) => {
    const across = (((x - w / 2) * Math.cos(turn) + (y - h / 2) * Math.sin(turn)) / (w / 2)) * traits.uneven;
    const folds = much * wrinkles(x, 2 * y);
    const line = Math.abs(x - seam) < 1.5 ? -0.15 : 0;
    const dark = -shadow.much * Math.exp(-(((x - shadow.x) / 200) ** 2) - ((y - shadow.y) / 90) ** 2);
    const cross = marks.some(
      ([u, v]) => (Math.abs(x - u) < 7 && Math.abs(y - v) < 1.5) || (Math.abs(y - v) < 7 && Math.abs(x - u) < 1.5),
    );
    const light = Math.max(0.05, 1 + across + folds + line + dark) * (cross ? 1.35 : 1);
    return base.map((v) => Math.min(1, v * light)) as unknown as RGB;
  };
}

/** @param seed names the scene @param count frames; the subject moves a little from one to the next, its noise is new each time @param fixed traits that are not left to the seed @param still the subject does not move from frame to frame */
export function sceneOf(
  seed: number,
  { count = 2, size = SIZE as Size, fixed = {} as Partial<Traits>, still = false } = {},
): Scene {
  const dice = diceOf(seed);
  const traits = { ...traitsOf(dice), ...fixed };
  const { alpha, colour } = subjectOf(dice, traits, size);
  const screen = screenOf(dice, traits, size);
  const way = between(dice, 0, 6.3);
  const step = [Math.cos(way), Math.sin(way)] as const;
  const drawn = premultiplied(alpha, colour, size);
  const frames = Array.from({ length: count }, (_, i) => {
    const far = still ? 0 : i * Math.max(1.5, traits.motion * 0.6);
    const moved = averaged(
      drawn,
      size,
      [step[0] * far, step[1] * far],
      [step[0] * traits.motion, step[1] * traits.motion],
    );
    return frameOf(dice, traits, traits.defocus ? softened(moved, size, traits.defocus) : moved, screen, size);
  });
  const nothing = () => [0, 1, 2, 3].map(() => new Float32Array(size.w * size.h)) as unknown as Planes;
  return { traits, frames, clean: () => frameOf(dice, traits, nothing(), screen, size).pixels };
}

function premultiplied(alpha: Float32Array, colour: (x: number, y: number) => RGB, { w }: Size): Planes {
  const out: Planes = [0, 1, 2, 3].map(() => new Float32Array(alpha.length)) as unknown as Planes;
  for (let i = 0; i < alpha.length; i++) {
    if (!alpha[i]) continue;
    const rgb = colour(i % w, Math.floor(i / w));
    for (let c = 0; c < 3; c++) out[c]![i] = rgb[c]! * alpha[i]!;
    out[3][i] = alpha[i]!;
  }
  return out;
}

/** How much of the screen's light a subject throws back. */
const THROWN = 0.5;

/** The subject lit by the screen, before it, in linear light; then display-encoded, with the camera's noise. */
function frameOf(
  dice: () => number,
  { spill, noise }: Traits,
  subject: Planes,
  screen: (x: number, y: number) => RGB,
  { w, h }: Size,
): Frame {
  const [pixels, truth] = [new Uint8ClampedArray(w * h * 4), new Uint8ClampedArray(w * h * 4)];
  const inner = softened([subject[3], subject[3], subject[3], subject[3]], { w, h }, 18)[3];
  for (let i = 0; i < w * h; i++) {
    const alpha = subject[3][i]!;
    const back = screen(i % w, Math.floor(i / w));
    // more at the rim, where it looks along the screen
    const rim = 0.4 + 0.6 * Math.min(1, 2 * (1 - inner[i]!));
    const [grain, ...coloured] = noise ? [gauss(dice), gauss(dice), gauss(dice)] : [0, 0, 0];
    for (let c = 0; c < 3; c++) {
      const own = subject[c]![i]!;
      const thrown = spill * THROWN * rim * back[c]! * (0.25 * alpha + 0.75 * own);
      const light = own + thrown + (1 - alpha) * back[c]!;
      const shake = noise * (grain! + (c === 0 ? 0.6 * coloured[0]! : c === 2 ? 0.6 * coloured[1]! : 0));
      pixels[i * 4 + c] = 255 * (toDisplay(light) + shake);
      truth[i * 4 + c] = alpha > 1e-4 ? 255 * toDisplay(own / alpha) : 0;
    }
    pixels[i * 4 + 3] = 255;
    truth[i * 4 + 3] = 255 * alpha;
  }
  return { pixels, truth };
}
