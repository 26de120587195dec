// The model signal tower by day, and the aurora that is to hang behind it.
import { multiply, rotation, translation } from '../../src/core/picture/matrix';
import { card, piece } from './material';
import { draw, light, sheet, sprite, type Sheet, type Sprite } from './raster';
import { hill } from './ferry';

const W = 1280;
const H = 720;

export interface TowerParts {
  sky: Sprite;
  far: Sprite;
  near: Sprite;
  tower: Sprite;
  arm: Sprite;
  flag: Sprite;
}

export async function towerParts(): Promise<TowerParts> {
  const c = (seed: number, grain?: number) => card('m', seed, grain);
  const lattice = Array.from(
    { length: 6 },
    (_, i) =>
      `<path d="M${66 - i * 5} ${150 + i * 60}L${174 + i * 5} ${210 + i * 60}M${174 + i * 5} ${150 + i * 60}L${66 - i * 5} ${210 + i * 60}" stroke="#8a4b3a" stroke-width="9"/>`,
  ).join('');
  return {
    sky: await sprite(
      piece(
        W + 80,
        H + 80,
        c(71, 0.35),
        `<rect width="${W + 80}" height="${H + 80}" fill="url(#g)"/>`,
        '<linearGradient id="g" x2="0" y2="1"><stop offset="0" stop-color="#b9d3e6"/><stop offset="1" stop-color="#e4ecec"/></linearGradient>',
      ),
    ),
    far: await sprite(piece(W + 80, H + 160, c(72), hill(15, 560, 130, '#7f9a8f')), 9),
    near: await sprite(
      piece(W + 80, H + 160, c(73), '<path d="M0 640C200 560 420 600 640 590s420-60 720-10v290H0z" fill="#5d7a5e"/>'),
      9,
    ),
    tower: await sprite(
      piece(
        240,
        540,
        c(74),
        `<path d="M84 120h72l46 400h-24L140 140h-40L62 520H38z" fill="#a85a45"/>${lattice}<path d="M50 70h140v56H50z" fill="#e6d8bb"/><path d="M36 58h168l-24-40H60z" fill="#7a3a33"/><rect x="76" y="82" width="30" height="30" fill="#46586a"/><rect x="134" y="82" width="30" height="30" fill="#46586a"/>`,
      ),
      8,
    ),
    arm: await sprite(
      piece(
        220,
        70,
        c(75),
        '<path d="M14 22h170l22 14-22 14H14z" fill="#c1483a"/><path d="M140 22h22v28h-22z" fill="#f1e7d2"/><circle cx="26" cy="36" r="12" fill="#3c3a3a"/>',
      ),
      4,
    ),
    flag: await sprite(
      piece(
        150,
        110,
        c(76),
        '<path d="M10 8h8v96h-8z" fill="#4b4a48"/><path d="M18 14c40-14 70 14 116 0v46c-46 14-76-14-116 0z" fill="#e4b94f"/>',
      ),
      4,
    ),
  };
}

/** @param sky false leaves it clear, so that the coverage of the rest is the truth of a cut-out sky */
export function drawTower(parts: TowerParts, seconds: number, sky = true): Sheet {
  const out = sheet(W, H);
  if (sky) draw(out, parts.sky, translation(-40, -40));
  draw(out, parts.far, translation(-30, 0), { shadow: { x: 3, y: -4, strength: 0.25 } });
  draw(out, parts.near, translation(-40, 0), { shadow: { x: 3, y: -5, strength: 0.3 } });
  draw(
    out,
    parts.flag,
    multiply(translation(838, 60), multiply(rotation(3 * Math.sin(seconds * 5)), translation(-14, 0))),
    { shadow: { x: 4, y: 6, strength: 0.2 } },
  );
  draw(out, parts.tower, translation(722, 120), { shadow: { x: 9, y: 9, strength: 0.35 } });
  const swing = 30 * Math.min(1, Math.max(-1, 2.2 * Math.sin(seconds * 1.4)));
  draw(out, parts.arm, multiply(translation(842, 290), multiply(rotation(180 + swing), translation(-26, -36))), {
    shadow: { x: 5, y: 7, strength: 0.4 },
  });
  light(out, (x, y) => {
    const v = 1.03 - 0.14 * Math.min(1, Math.hypot(x - 640, y - 330) / 780) ** 2;
    return [v, v, v];
  });
  return out;
}

/** Ribbons of light over a night sky: sums of soft curtains, all in linear light. */
export function drawAurora(seconds: number): Sheet {
  const out = sheet(W, H);
  const curtain = (x: number, k: number) =>
    250 + 70 * k + 60 * Math.sin(x / 210 + seconds * 0.5 + k * 1.9) + 26 * Math.sin(x / 83 - seconds * 0.8 + k);
  for (let x = 0; x < W; x++) {
    const rays = [0, 1, 2].map(
      (k) => 0.62 + 0.38 * Math.sin(x / 17 + 3 * Math.sin(x / 140 + seconds * 0.6 + k) + seconds * (1.1 - 0.3 * k)),
    );
    const feet = [0, 1, 2].map((k) => curtain(x, k));
    for (let y = 0; y < H; y++) {
      const i = (y * W + x) * 4;
      const depth = y / H;
      let [r, g, b] = [0.006 + 0.012 * depth, 0.012 + 0.03 * depth, 0.035 + 0.05 * depth];
      for (let k = 0; k < 3; k++) {
        const above = feet[k]! - y;
        const body = above > 0 ? Math.exp(-above / (95 + 30 * k)) : Math.exp(-(above * above) / 260);
        const glow = body * rays[k]! * 0.42;
        const top = Math.min(1, Math.max(0, above / 220));
        r += glow * (0.08 + 0.62 * top);
        g += glow * (0.95 - 0.6 * top);
        b += glow * (0.42 + 0.42 * top);
      }
      out.data.set([r, g, b, 1], i);
    }
  }
  return out;
}
