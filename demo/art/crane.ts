// A cardboard harbour crane at dusk, whose arm swings through the picture.
import { apply, multiply, rotation, translation, type Matrix } from '../../src/core/picture/matrix';
import { hill } from './ferry';
import { card, piece } from './material';
import { draw, light, sheet, sprite, type Sheet, type Sprite } from './raster';

const W = 1280;
const H = 720;
/** The arm's outline in its own pixels, and the pin it turns about. */
const ARM: readonly (readonly [number, number])[] = [
  [24, 46],
  [150, 30],
  [640, 52],
  [726, 64],
  [726, 86],
  [640, 98],
  [150, 120],
  [24, 104],
];
const PIN = [84, 75] as const;

export interface CraneParts {
  sky: Sprite;
  hills: Sprite[];
  quay: Sprite;
  mast: Sprite;
  arm: Sprite;
}

const path = (points: readonly (readonly [number, number])[]) => `M${points.map((p) => p.join(' ')).join('L')}z`;

export async function craneParts(): Promise<CraneParts> {
  const c = (seed: number, grain?: number) => card('m', seed, grain);
  const braces = Array.from(
    { length: 8 },
    (_, i) =>
      `<path d="M${170 + i * 62} ${40 + i * 2.6}l31 ${68 - i * 4}l31 ${-66 + i * 4}" fill="none" stroke="#8d6a2c" stroke-width="7"/>`,
  ).join('');
  return {
    sky: await sprite(
      piece(
        W + 80,
        H + 80,
        c(111, 0.35),
        `<rect width="${W + 80}" height="${H + 80}" fill="url(#g)"/>`,
        '<linearGradient id="g" x2="0" y2="1"><stop offset="0" stop-color="#5b6f97"/><stop offset=".6" stop-color="#d79a7c"/><stop offset="1" stop-color="#f0c893"/></linearGradient>',
      ),
    ),
    hills: await Promise.all(
      [hill(21, 520, 150, '#7b6f8c'), hill(22, 560, 90, '#5d5a78')].map((body, i) =>
        sprite(piece(W + 80, H, c(112 + i), body), 9),
      ),
    ),
    quay: await sprite(
      piece(
        W + 80,
        150,
        c(115),
        `<path d="M0 20H${W + 80}V150H0z" fill="#4a4650"/><path d="M0 20H${W + 80}v12H0z" fill="#6a6470"/>`,
      ),
      9,
    ),
    mast: await sprite(
      piece(
        170,
        340,
        c(116),
        '<path d="M52 20h66l34 320H18z" fill="#3f5b66"/><path d="M40 96h90v64H40z" fill="#d9c9a8"/><rect x="56" y="108" width="26" height="34" fill="#46586a"/><rect x="92" y="108" width="26" height="34" fill="#46586a"/>',
      ),
      9,
    ),
    arm: await sprite(
      piece(
        760,
        150,
        c(117),
        `<path d="${path(ARM)}" fill="#d9a441"/>${braces}<circle cx="${PIN[0]}" cy="${PIN[1]}" r="17" fill="#3c3a3a"/>`,
      ),
      7,
    ),
  };
}

/** Arm pixels → picture pixels. It rises across the picture, rests, and sinks a little. */
function armPlace(seconds: number): Matrix {
  const t = Math.min(1, seconds / 3.4);
  const degrees = 176 + 44 * (t * t * (3 - 2 * t)) - 3 * Math.max(0, seconds - 3.4);
  return multiply(translation(1085, 430), multiply(rotation(degrees), translation(-PIN[0], -PIN[1])));
}

/** The arm's true outline at a time, in pixels from the picture's centre. */
export const armOutline = (seconds: number): [number, number][] =>
  ARM.map(([x, y]) => apply(armPlace(seconds), x, y)).map(([x, y]) => [x - W / 2, y - H / 2]);

export function drawCrane(parts: CraneParts, seconds: number): Sheet {
  const out = sheet(W, H);
  draw(out, parts.sky, translation(-40, -40));
  parts.hills.forEach((part, i) =>
    draw(out, part, translation(-30 - 6 * i, 10), { shadow: { x: 3, y: -4, strength: 0.3 } }),
  );
  draw(out, parts.quay, translation(-40, 590), { shadow: { x: 3, y: -6, strength: 0.35 } });
  draw(out, parts.mast, translation(1000, 380), { shadow: { x: 8, y: 8, strength: 0.35 } });
  draw(out, parts.arm, armPlace(seconds), { shadow: { x: 9, y: 11, strength: 0.35 } });
  light(out, (x, y) => {
    const v = 1.04 - 0.16 * Math.min(1, Math.hypot(x - 560, y - 330) / 800) ** 2;
    return [v * 1.03, v, v * 0.96];
  });
  return out;
}
