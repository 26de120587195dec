// A card boat with a clockwork key, crossing the paper harbour by day.
import { multiply, rotation, translation } from '../../src/core/picture/matrix';
import { hill } from './ferry';
import { card, piece } from './material';
import { draw, light, sheet, sprite, type Sheet, type Sprite } from './raster';

const W = 1280;
const H = 720;

export interface BoatParts {
  sky: Sprite;
  shore: Sprite;
  waves: Sprite[];
  boat: Sprite;
  key: Sprite;
}

/** A strip of paper sea with a scalloped edge, wider than the picture. */
const wave = (seed: number, colour: string, pitch: number) => {
  const scallops = Array.from({ length: Math.ceil((W + 400) / pitch) }, () => `q${pitch / 2} -34 ${pitch} 0`).join('');
  return piece(W + 400, 260, card('m', seed), `<path d="M0 60${scallops}V260H0z" fill="${colour}"/>`);
};

export async function boatParts(): Promise<BoatParts> {
  const c = (seed: number, grain?: number) => card('m', seed, grain);
  return {
    sky: await sprite(
      piece(
        W + 80,
        H + 80,
        c(91, 0.35),
        `<rect width="${W + 80}" height="${H + 80}" fill="url(#g)"/>`,
        '<linearGradient id="g" x2="0" y2="1"><stop offset="0" stop-color="#c6d7e0"/><stop offset="1" stop-color="#f1e6d0"/></linearGradient>',
      ),
    ),
    shore: await sprite(piece(W + 80, H + 160, c(92), hill(9, 430, 90, '#93a58c')), 8),
    waves: await Promise.all(
      [wave(93, '#7fa9ae', 128), wave(94, '#5b8e99', 160), wave(95, '#3f7482', 200)].map((svg) => sprite(svg, 7)),
    ),
    boat: await sprite(
      piece(
        300,
        260,
        c(96),
        '<path d="M18 150h250l-34 74H58z" fill="#c1483a"/><path d="M18 150h250l-8 18H26z" fill="#f1e7d2"/><path d="M92 92h96v58H92z" fill="#e6d8bb"/><path d="M82 78h116v18H82z" fill="#7a3a33"/><circle cx="120" cy="122" r="13" fill="#46586a"/><circle cx="160" cy="122" r="13" fill="#46586a"/><path d="M130 22h30v56h-30z" fill="#e4b94f"/><path d="M126 18h38v14h-38z" fill="#3c3a3a"/>',
      ),
      7,
    ),
    key: await sprite(
      piece(
        96,
        96,
        c(97),
        '<path d="M44 44h8v8h-8z" fill="#6b5a2a"/><path d="M48 40a16 16 0 1 0-30 8 16 16 0 0 0 30 0 16 16 0 1 0 30 0 16 16 0 0 0-30-8z" fill="#c9a23f"/>',
      ),
      4,
    ),
  };
}

export function drawBoat(parts: BoatParts, seconds: number): Sheet {
  const out = sheet(W, H);
  draw(out, parts.sky, translation(-40, -40));
  draw(out, parts.shore, translation(-40, 0), { shadow: { x: 3, y: -4, strength: 0.25 } });
  const sway = (k: number) => -150 + 46 * Math.sin(seconds * (0.9 + 0.25 * k) + k * 2.1);
  draw(out, parts.waves[0]!, translation(sway(0), 400), { shadow: { x: 2, y: -5, strength: 0.3 } });
  const x = -120 + 232 * seconds;
  const tilt = 4 * Math.sin(seconds * 3.1);
  const hull = multiply(
    translation(x, 470 + 9 * Math.sin(seconds * 3.1 + 0.8)),
    multiply(rotation(tilt), translation(-150, -190)),
  );
  draw(
    out,
    parts.key,
    multiply(hull, multiply(translation(6, 150), multiply(rotation(seconds * 150), translation(-48, -48)))),
    { shadow: { x: 4, y: 5, strength: 0.3 } },
  );
  draw(out, parts.boat, hull, { shadow: { x: 8, y: 9, strength: 0.35 } });
  draw(out, parts.waves[1]!, translation(sway(1), 462), { shadow: { x: 2, y: -6, strength: 0.32 } });
  draw(out, parts.waves[2]!, translation(sway(2), 552), { shadow: { x: 2, y: -7, strength: 0.35 } });
  light(out, (px, py) => {
    const v = 1.04 - 0.2 * Math.min(1, Math.hypot(px - 560, py - 300) / 800) ** 2;
    return [v * 1.02, v, v * 0.97];
  });
  return out;
}
