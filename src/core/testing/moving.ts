// Frames of a patch of print that moves as it is told over a ground that moves otherwise: the truth for trackers.
import type { FetchedPicture } from '../picture/fetched';
import type { TrackNow } from '../params/track';
import { trackName } from '../track/known';
import { packSamples } from '../track/samples';
import { project, projectiveInverse, type Projective } from '../picture/matrix';

/** What a frame shows. Places in pixels from the frame's middle. */
export interface MovingFrame {
  /** the print's own pixels, from its middle → the frame's */
  map: Projective;
  /** of the light: times, and added, 0…1 */
  gain?: number;
  lift?: number;
  /** left side of an upright bar that hides what it is before, and how wide it is */
  bar?: { x: number; wide: number };
}
export interface MovingScene {
  seed: number;
  w: number;
  h: number;
  /** standard deviation of camera noise, 0…1 */
  noise: number;
  /** half the sides of the print, a rectangle */
  half: { w: number; h: number };
  at(frame: number): MovingFrame;
}

const SIDE = 128;
/** Smooth seeded noise 0…1, one value a pixel of its own. */
function smoothNoise(seed: number): (x: number, y: number) => number {
  let state = seed * 7919 + 17;
  const table = Float32Array.from({ length: SIDE * SIDE }, () => {
    state = (Math.imul(state, 1664525) + 1013904223) | 0;
    return ((state >>> 8) & 0xffff) / 65535;
  });
  const eased = (t: number) => t * t * t * (t * (6 * t - 15) + 10);
  return (x, y) => {
    const [ix, iy] = [Math.floor(x), Math.floor(y)];
    const [tx, ty] = [eased(x - ix), eased(y - iy)];
    const row = (j: number) => {
      const start = ((iy + j) & (SIDE - 1)) * SIDE;
      const [a, b] = [table[start + (ix & (SIDE - 1))]!, table[start + ((ix + 1) & (SIDE - 1))]!];
      return a + (b - a) * tx;
    };
    const top = row(0);
    return top + (row(1) - top) * ty;
  };
}

/** Where in a pixel its light is looked at. */
const PLACES = [
  [0.17, 0.5],
  [0.67, 0.17],
  [0.66, 0.83],
] as const;

/** Light of each frame as a decoder gives it: Y′ of limited range, each pixel the mean of three places. */
export function movingFrames({ seed, w, h, noise, half, at }: MovingScene): (frame: number) => FetchedPicture {
  const [coarse, fine, ground, bar] = [seed, seed + 7, seed + 13, seed + 29].map(smoothNoise) as [
    (x: number, y: number) => number,
    (x: number, y: number) => number,
    (x: number, y: number) => number,
    (x: number, y: number) => number,
  ];
  return (frame) => {
    const now = at(frame);
    const { gain = 1, lift = 0 } = now;
    const back = projectiveInverse(now.map)!;
    let state = seed * 7919 + frame * 104729 + 1;
    const dice = () => {
      state = (Math.imul(state, 1664525) + 1013904223) | 0;
      return (state >>> 0) / 4294967296;
    };
    const light = (x: number, y: number): number => {
      if (now.bar && x >= now.bar.x && x < now.bar.x + now.bar.wide) return 0.3 + 0.4 * bar((x - now.bar.x) / 5, y / 9);
      const [u, v] = project(back, x, y);
      const own = Math.abs(u) < half.w && Math.abs(v) < half.h;
      return own ? 0.15 + 0.45 * coarse(u / 9, v / 9) + 0.3 * fine(u / 4, v / 4) : 0.35 + 0.3 * ground(x / 17, y / 17);
    };
    const data = new Uint8Array(w * h);
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        let sum = 0;
        for (const [i, j] of PLACES) sum += light(x + i - w / 2, y + j - h / 2) / PLACES.length;
        const grain = noise && (dice() + dice() + dice() - 1.5) * 2 * noise;
        data[y * w + x] = Math.max(16, Math.min(235, Math.round(16 + 219 * (sum * gain + lift + grain))));
      }
    }
    return { data, width: w, height: h, planes: { u: 0, v: 0, step: 1, a: 0, matrix: 'bt709', full: false } };
  };
}

/** A track of a picture of a size, that goes and turns a little, as passes get it on its sixth frame. Hold on to `of` as long as it is used. */
export function trackNow(size: { w: number; h: number }): { now: TrackNow; of: unknown } {
  const rows = Array.from({ length: 12 }, (_, f) => ({
    confidence: 1,
    points: [
      [-size.w / 4 + f, f / 2],
      [size.w / 4 + f, f],
    ] as const,
  }));
  const of = { kind: 'pair' as const, start: 0, samples: packSamples({ first: 0, rows }, 'pair') };
  return { now: { name: trackName(of), frame: 5, size, scale: 1 }, of };
}

/** Shift, clockwise degrees and size as a map. */
export function moving(x: number, y: number, degrees = 0, size = 1): Projective {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180) * size, Math.sin((degrees * Math.PI) / 180) * size];
  return [c, -s, x, s, c, y, 0, 0, 1];
}
