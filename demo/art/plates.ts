// What a camera would have recorded: captain and felt screen mixed in linear light, with light, spill, motion blur and noise.
import { translation } from '../../src/core/picture/matrix';
import { captainParts, drawCaptain } from './captain';
import { felt, piece, card, svg } from './material';
import { draw, over, random, sheet, sprite, type Sheet, type Sprite } from './raster';

const W = 1280;
const H = 720;
export const RATE = 24;
export const FRAMES = 120;
export const TRUTH_FRAMES = Array.from({ length: 12 }, (_, i) => 5 + 10 * i);

export type Lighting = 'even' | 'uneven' | 'noisy';

export async function feltScreen(): Promise<Sprite> {
  return sprite(
    piece(W + 40, H + 40, felt('m', 80, 0.55), `<rect width="${W + 40}" height="${H + 40}" fill="#4ca85a"/>`),
  );
}

/** Light on the screen: 1 everywhere, or ±35 % with a bright patch on the right and a dark corner. */
function lamp(lighting: Lighting, x: number, y: number): number {
  if (lighting === 'even') return 1;
  const spot = Math.exp(-(((x - 980) / 430) ** 2) - ((y - 260) / 400) ** 2);
  const fall = Math.max(-1, Math.min(1, 1.7 * spot - 0.75 - 0.25 * Math.sin(x / 330) - 0.2 * (y / H)));
  return 1 + 0.35 * fall;
}

export interface Plate {
  frame: Sheet;
  /** the captain alone, premultiplied: colour and true matte */
  truth: Sheet;
}

/** The screen as it is lit, without the captain. */
export async function litScreen(lighting: Lighting): Promise<Sheet> {
  const screen = sheet(W, H);
  draw(screen, await feltScreen(), translation(-20, -20));
  for (let y = 0, i = 0; y < H; y++) {
    for (let x = 0; x < W; x++, i += 4) {
      const lit = lamp(lighting, x, y);
      for (let c = 0; c < 3; c++) screen.data[i + c]! *= lit;
      screen.data[i + 3] = 1;
    }
  }
  return screen;
}

export async function plateMaker(lighting: Lighting): Promise<(index: number) => Plate> {
  const [parts, screen] = await Promise.all([captainParts(), litScreen(lighting)]);
  return (index) => {
    const truth = lighting === 'noisy' ? blurredInMotion(parts, index) : drawCaptain(parts, W, H, index / RATE);
    const frame = { ...screen, data: screen.data.slice() };
    over(frame, truth);
    if (lighting === 'noisy') addSpill(frame, truth, screen);
    return { frame, truth };
  };
}

/** Mean of five moments while the shutter is open (half of each frame), at almost double speed. */
function blurredInMotion(parts: Awaited<ReturnType<typeof captainParts>>, index: number): Sheet {
  const out = sheet(W, H);
  for (let k = 0; k < 5; k++) {
    const moment = drawCaptain(parts, W, H, ((index + (k / 5) * 0.5) / RATE) * 1.8);
    for (let i = 0; i < out.data.length; i++) out.data[i]! += moment.data[i]! / 5;
  }
  return out;
}

/** Screen light reflected onto the captain, strongest near his outline. */
function addSpill(frame: Sheet, truth: Sheet, screen: Sheet): void {
  const coverage = Float32Array.from({ length: W * H }, (_, i) => truth.data[4 * i + 3]!);
  const soft = boxBlur(boxBlur(coverage, 14), 14);
  for (let i = 0, p = 0; p < W * H; p++, i += 4) {
    const rim = coverage[p]! * Math.min(1, 1.6 * (1 - soft[p]!));
    for (let c = 0; c < 3; c++) frame.data[i + c]! += 0.14 * rim * screen.data[i + c]!;
  }
}

function boxBlur(data: Float32Array, r: number): Float32Array {
  const pass = (from: Float32Array, lines: number, length: number, line: number, step: number) => {
    const to = new Float32Array(from.length);
    for (let l = 0; l < lines; l++) {
      const at = (i: number) => from[l * line + Math.max(0, Math.min(length - 1, i)) * step]!;
      let sum = 0;
      for (let i = -r; i <= r; i++) sum += at(i);
      for (let i = 0; i < length; i++) {
        to[l * line + i * step] = sum / (2 * r + 1);
        sum += at(i + r + 1) - at(i - r);
      }
    }
    return to;
  };
  return pass(pass(data, H, W, W, 1), W, H, 1, W);
}

/** A paper kite, still with alpha, for the stock catalogue. */
export const kite = (): string =>
  piece(
    420,
    560,
    card('m', 95),
    '<path d="M210 20 380 190 210 430 40 190z" fill="#d1503f"/><path d="M210 20 380 190H40z" fill="#e8c15a"/><path d="M204 20h12v410h-12z" fill="#5b3d30"/><path d="M40 184h340v12H40z" fill="#5b3d30"/><path d="M210 430c30 30-30 50 0 80s-10 30 0 40" fill="none" stroke="#5b3d30" stroke-width="5"/>',
  );

/** A soft warm disc of lantern light, still with alpha. */
export const glow = (): string =>
  svg(
    640,
    640,
    '<defs><radialGradient id="g"><stop offset="0" stop-color="#fff0c4" stop-opacity=".95"/><stop offset=".25" stop-color="#ffce73" stop-opacity=".6"/><stop offset=".6" stop-color="#f59a3c" stop-opacity=".18"/><stop offset="1" stop-color="#d9691e" stop-opacity="0"/></radialGradient></defs><circle cx="320" cy="320" r="320" fill="url(#g)"/>',
  );

/** Scraps of paper drifting down, for a clip with alpha. */
export async function scraps(): Promise<(index: number) => Sheet> {
  const dice = random(99);
  const bits = await Promise.all(
    ['#f3ead6', '#e7d7b4', '#d8e2ea'].map((colour, i) =>
      sprite(piece(60, 60, card('m', 100 + i), `<path d="M12 16 46 10 50 44 18 50z" fill="${colour}"/>`), 3),
    ),
  );
  const pieces = Array.from({ length: 26 }, () => ({
    x: dice() * 640,
    y: dice() * 420,
    fall: 40 + dice() * 70,
    turn: dice() * 200 - 100,
    bit: Math.floor(dice() * 3),
    size: 0.4 + dice() * 0.5,
  }));
  return (index) => {
    const t = index / RATE;
    const out = sheet(640, 360);
    for (const p of pieces) {
      const y = ((p.y + p.fall * t) % 440) - 40;
      const r = (p.turn * t * Math.PI) / 180;
      const [c, s] = [Math.cos(r) * p.size, Math.sin(r) * p.size];
      draw(out, bits[p.bit]!, [c, s, -s, c, p.x + 20 * Math.sin(t + p.fall), y]);
    }
    return out;
  };
}
