// Clips whose motion is known: a waving banner, a buoy among waves, a kite in the wind, a tower filmed by hand.
import {
  multiply,
  project,
  projectiveInverse,
  rotation,
  scaling,
  translation,
  type Matrix,
  type Projective,
} from '../../src/core/picture/matrix';
import { mapBetween, type Point } from '../../src/core/track/motion';
import { hill } from './ferry';
import { card, felt, piece } from './material';
import { kite } from './plates';
import { draw, light, sheet, sprite, type Sheet, type Sprite } from './raster';
import { drawTower, towerParts } from './tower';

const W = 1280;
const H = 720;
/** Frames of each of these clips. */
export const MOVING_FRAMES = 96;

const c = (seed: number, grain?: number) => card('m', seed, grain);
const sky = (seed: number, top: string, bottom: string) =>
  piece(
    W + 80,
    H + 80,
    c(seed, 0.35),
    `<rect width="${W + 80}" height="${H + 80}" fill="url(#g)"/>`,
    `<linearGradient id="g" x2="0" y2="1"><stop offset="0" stop-color="${top}"/><stop offset="1" stop-color="${bottom}"/></linearGradient>`,
  );
const vignette = (out: Sheet): Sheet => {
  light(out, (x, y) => {
    const v = 1.03 - 0.16 * Math.min(1, Math.hypot(x - 640, y - 340) / 780) ** 2;
    return [v, v, v];
  });
  return out;
};

/** Draws a sprite in perspective. */
function drawIn(target: Sheet, top: Sprite, map: Projective): void {
  const back = projectiveInverse(map);
  if (!back) return;
  const corners = [
    [0, 0],
    [top.w, 0],
    [top.w, top.h],
    [0, top.h],
  ].map(([x, y]) => project(map, x!, y!));
  const within = (k: 0 | 1, most: number) =>
    [
      Math.max(0, Math.floor(Math.min(...corners.map((p) => p[k])))),
      Math.min(most, Math.ceil(Math.max(...corners.map((p) => p[k])))),
    ] as const;
  const [left, right] = within(0, target.w);
  const [upper, lower] = within(1, target.h);
  const at = (x: number, y: number, k: number) =>
    x < 0 || y < 0 || x >= top.w || y >= top.h ? 0 : top.data[(y * top.w + x) * 4 + k]!;
  for (let y = upper; y < lower; y++) {
    for (let x = left; x < right; x++) {
      const [u, v] = project(back, x + 0.5, y + 0.5);
      const [iu, iv] = [Math.floor(u - 0.5), Math.floor(v - 0.5)];
      const [fu, fv] = [u - 0.5 - iu, v - 0.5 - iv];
      const mixed = [0, 1, 2, 3].map(
        (k) =>
          (at(iu, iv, k) * (1 - fu) + at(iu + 1, iv, k) * fu) * (1 - fv) +
          (at(iu, iv + 1, k) * (1 - fu) + at(iu + 1, iv + 1, k) * fu) * fv,
      );
      const i = (y * target.w + x) * 4;
      for (let k = 0; k < 4; k++) target.data[i + k] = mixed[k]! + target.data[i + k]! * (1 - mixed[3]!);
    }
  }
}

const BANNER = { w: 420, h: 260 };
/** Corners of the banner's cloth, clockwise from its upper left, in pixels of the picture. */
export function bannerCorners(seconds: number): Point[] {
  const wind = Math.sin(seconds * 1.7);
  const near = 1 + 0.24 * Math.sin(seconds * 1.1 + 0.6);
  const [x, y] = [500 + 26 * Math.sin(seconds * 0.9), 200 + 16 * Math.sin(seconds * 1.3)];
  const far = 400 + 24 * wind;
  return [
    [x, y],
    [x + far, y + 44 * wind + 34 * (near - 1)],
    [x + far + 14 * wind, y + 250 + 40 * wind - 60 * (near - 1)],
    [x - 8 * wind, y + 252],
  ];
}
export async function bannerClip(): Promise<(seconds: number) => Sheet> {
  const back = await sprite(sky(111, '#aecbdc', '#f0e4cf'));
  const shore = await sprite(piece(W + 80, H + 160, c(112), hill(21, 520, 120, '#7c9680')), 9);
  const pole = await sprite(piece(40, 620, c(113), '<path d="M12 4h16v612H12z" fill="#6b4a34"/>'), 5);
  const blots = Array.from({ length: 26 }, (_, i) => {
    const [x, y] = [20 + ((i * 149) % 380), 18 + ((i * 97) % 222)];
    return `<circle cx="${x}" cy="${y}" r="${5 + (i % 4) * 3}" fill="${['#8b2f2a', '#f1e7d2', '#274c60', '#e4b94f'][i % 4]}"/>`;
  }).join('');
  const cloth = await sprite(
    piece(
      BANNER.w,
      BANNER.h,
      felt('m', 114, 1.2),
      `<rect width="${BANNER.w}" height="${BANNER.h}" fill="#c8543f"/><path d="M0 0h420v26H0zM0 234h420v26H0z" fill="#f1e7d2"/>${blots}`,
    ),
    6,
  );
  const flat: Point[] = [
    [0, 0],
    [BANNER.w, 0],
    [BANNER.w, BANNER.h],
    [0, BANNER.h],
  ];
  return (seconds) => {
    const out = sheet(W, H);
    draw(out, back, translation(-40, -40));
    draw(out, shore, translation(-40, 14), { shadow: { x: 3, y: -4, strength: 0.25 } });
    const corners = bannerCorners(seconds);
    draw(out, pole, translation(corners[0]![0] - 26, 120), { shadow: { x: 8, y: 6, strength: 0.3 } });
    drawIn(out, cloth, mapBetween(flat, corners)!);
    return vignette(out);
  };
}

/** Where the middle of the buoy's body is, in pixels, and how it leans, in degrees clockwise. */
export const buoyAt = (seconds: number): { x: number; y: number; turn: number } => ({
  x: 640 + 90 * Math.sin(seconds * 0.8) + 30 * Math.sin(seconds * 2.1),
  y: 360 + 34 * Math.sin(seconds * 2.4 + 0.5),
  turn: 13 * Math.sin(seconds * 2.1 + 1.1),
});
export async function buoyClip(): Promise<(seconds: number) => Sheet> {
  const back = await sprite(sky(121, '#e8b98a', '#f4e2c2'));
  const waves = await Promise.all(
    (
      [
        [122, '#6f9aa0', 120],
        [123, '#4f8590', 150],
        [124, '#386a78', 190],
        [125, '#2b5563', 230],
      ] as const
    ).map(([seed, colour, pitch]) => {
      const scallops = Array.from({ length: Math.ceil((W + 500) / pitch) }, () => `q${pitch / 2} -38 ${pitch} 0`).join(
        '',
      );
      const foam = Array.from(
        { length: 60 },
        (_, i) =>
          `<circle cx="${(i * 311) % (W + 480)}" cy="${70 + ((i * 83) % 180)}" r="${2 + (i % 3)}" fill="#e8f0ea"/>`,
      ).join('');
      return sprite(piece(W + 500, 300, c(seed), `<path d="M0 60${scallops}V300H0z" fill="${colour}"/>${foam}`), 7);
    }),
  );
  const buoy = await sprite(
    piece(
      180,
      300,
      c(126),
      '<path d="M84 6h12v58H84z" fill="#3c3a3a"/><circle cx="90" cy="18" r="15" fill="#e4b94f"/><path d="M50 64h80l18 120H32z" fill="#c1483a"/><path d="M44 104h92l5 34H39z" fill="#f1e7d2"/><path d="M70 74h40v20H70z" fill="#274c60"/><path d="M24 184h132l-16 74H40z" fill="#7a3a33"/><circle cx="66" cy="160" r="7" fill="#f1e7d2"/><circle cx="112" cy="154" r="5" fill="#e4b94f"/>',
    ),
    8,
  );
  return (seconds) => {
    const out = sheet(W, H);
    draw(out, back, translation(-40, -40));
    const sway = (k: number) => -220 + 52 * Math.sin(seconds * (0.9 + 0.2 * k) + k * 1.9);
    const wave = (k: number) =>
      draw(out, waves[k]!, translation(sway(k), 300 + k * 84 + 8 * Math.sin(seconds * 2 + k)), {
        shadow: { x: 2, y: -6, strength: 0.3 },
      });
    wave(0);
    wave(1);
    const { x, y, turn } = buoyAt(seconds);
    draw(out, buoy, multiply(translation(x, y), multiply(rotation(turn), translation(-90, -124))), {
      shadow: { x: 7, y: 8, strength: 0.35 },
    });
    wave(2);
    wave(3);
    return vignette(out);
  };
}

/** Where the middle of the flying kite is, in pixels, how it is turned and how large it is. */
export const kiteAt = (seconds: number): { x: number; y: number; turn: number; size: number } => ({
  x: 640 + 330 * Math.sin(seconds * 1.35) + 40 * Math.sin(seconds * 3.2),
  y: 330 + 190 * Math.sin(seconds * 2.7 + 0.4),
  turn: 24 * Math.cos(seconds * 1.35 + 0.3),
  size: 0.34 + 0.07 * Math.sin(seconds * 1.35),
});
export async function kiteClip(): Promise<(seconds: number) => Sheet> {
  const back = await sprite(sky(131, '#8fb6d6', '#e9eee6'));
  const shore = await sprite(piece(W + 80, H + 160, c(132), hill(27, 600, 110, '#6f8d70')), 9);
  const clouds = await Promise.all(
    [133, 134].map((seed) =>
      sprite(
        piece(
          420,
          180,
          c(seed, 0.5),
          '<path d="M60 150c-50 0-60-66-8-72 0-50 70-60 90-22 26-40 96-24 96 22 60-18 96 72 32 72z" fill="#f3efe4"/>',
        ),
        9,
      ),
    ),
  );
  const paper = await sprite(kite(), 6);
  return (seconds) => {
    const out = sheet(W, H);
    draw(out, back, translation(-40, -40));
    draw(out, clouds[0]!, translation(150 + 6 * seconds, 90), { shadow: { x: 5, y: 7, strength: 0.15 } });
    draw(out, clouds[1]!, translation(800 + 9 * seconds, 210), { shadow: { x: 5, y: 7, strength: 0.15 } });
    draw(out, shore, translation(-40, 14), { shadow: { x: 3, y: -4, strength: 0.25 } });
    const { x, y, turn, size } = kiteAt(seconds);
    draw(
      out,
      paper,
      multiply(
        translation(x, y),
        multiply(rotation(turn), multiply(scaling(size, size), translation(-paper.w / 2, -paper.h / 2))),
      ),
      { shadow: { x: 10, y: 14, strength: 0.2 } },
    );
    return vignette(out);
  };
}

const tremble = (seconds: number, k: number): number =>
  Math.sin(seconds * 2.1 + k * 1.7) * 0.5 +
  Math.sin(seconds * 5.3 + k * 2.9) * 0.32 +
  Math.sin(seconds * 9.7 + k * 0.8) * 0.18;
/** How the camera that films the tower by hand has moved the picture: pixels of the steady picture → pixels of the filmed one. */
export function handHeld(seconds: number): Matrix {
  const size = 1.16 * (1 + 0.012 * tremble(seconds, 3));
  return multiply(
    translation(W / 2 + 20 * tremble(seconds, 0), H / 2 + 15 * tremble(seconds, 1)),
    multiply(rotation(-3 + 0.9 * tremble(seconds, 2)), multiply(scaling(size, size), translation(-W / 2, -H / 2))),
  );
}
export async function handHeldClip(): Promise<(seconds: number) => Sheet> {
  const parts = await towerParts();
  const none = { w: 1, h: 1, pad: 0, data: new Float32Array(1) };
  return (seconds) => {
    const out = sheet(W, H);
    draw(out, { ...drawTower(parts, seconds), shadow: none }, handHeld(seconds));
    return out;
  };
}
