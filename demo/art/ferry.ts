// The cardboard ferry at night: sky, moon, hills and waves as layered cut-outs, the deck in front.
import { multiply, rotation, scaling, translation } from '../../src/core/picture/matrix';
import { card, piece, svg } from './material';
import { draw, light, random, sheet, sprite, type Sheet, type Sprite } from './raster';

const W = 1280;
const H = 720;

export interface FerryParts {
  sky: Sprite;
  stars: Sprite;
  moon: Sprite;
  hills: Sprite[];
  waves: Sprite[];
  deck: Sprite;
  cabin: Sprite;
}

export function hill(seed: number, base: number, tall: number, colour: string): string {
  const dice = random(seed);
  const points = Array.from(
    { length: 13 },
    (_, i) => `${i * 128 - 64},${Math.round(base - tall * (i % 2 ? 0.35 + 0.65 * dice() : 0.25 * dice()))}`,
  );
  return `<path d="M-80 ${base + 200} L${points.join(' L')} L1500 ${base + 200}z" fill="${colour}"/>`;
}

function wave(colour: string, step: number): string {
  let d = `M-20 140 L-20 30`;
  for (let x = -20; x < 1640; x += step) d += ` q${step / 4} -26 ${step / 2} 0 t${step / 2} 0`;
  return `<path d="${d} L1640 140z" fill="${colour}"/>`;
}

export async function ferryParts(): Promise<FerryParts> {
  const c = (seed: number, grain?: number) => card('m', seed, grain);
  const dice = random(41);
  const stars = Array.from(
    { length: 46 },
    () => `<circle cx="${dice() * W}" cy="${dice() * 330}" r="${1 + dice() * 1.8}" fill="#fff3d6"/>`,
  ).join('');
  const planks = Array.from(
    { length: 6 },
    (_, i) => `<path d="M-20 ${20 + i * 30}H1400v26H-20z" fill="${['#5a4032', '#614636', '#553b2e'][i % 3]}"/>`,
  ).join('');
  return {
    sky: await sprite(
      piece(
        W + 60,
        H + 60,
        c(21, 0.6),
        `<rect width="${W + 60}" height="${H + 60}" fill="url(#g)"/>`,
        '<linearGradient id="g" x2="0" y2="1"><stop offset="0" stop-color="#16224a"/><stop offset=".55" stop-color="#2f4f84"/><stop offset="1" stop-color="#5d83ab"/></linearGradient>',
      ),
    ),
    stars: await sprite(svg(W, H, stars), 1),
    moon: await sprite(
      piece(
        180,
        180,
        c(22),
        '<circle cx="90" cy="90" r="72" fill="#f3e6c6"/><circle cx="66" cy="74" r="13" fill="#e5d5b0"/><circle cx="112" cy="112" r="18" fill="#e5d5b0"/><circle cx="110" cy="62" r="8" fill="#e8d9b6"/>',
      ),
      10,
    ),
    hills: await Promise.all(
      [hill(5, 420, 200, '#34507f'), hill(6, 450, 150, '#294069'), hill(9, 470, 90, '#1f3257')].map((body, i) =>
        sprite(piece(W + 80, H, c(30 + i), body), 9),
      ),
    ),
    waves: await Promise.all(
      ['#2f6f82', '#28607a', '#1f4e6a'].map((colour, i) =>
        sprite(piece(1640, 140, c(40 + i), wave(colour, 170 + 30 * i)), 8),
      ),
    ),
    deck: await sprite(piece(W + 80, 260, c(50), `<path d="M0 24H${W + 80}v236H0z" fill="#2b1f1b"/>${planks}`), 10),
    cabin: await sprite(
      piece(
        300,
        520,
        c(51),
        '<path d="M10 40h230l30 36H10z" fill="#7d3b33"/><path d="M10 76h220v430H10z" fill="#b7a68a"/><path d="M10 300h220v16H10z" fill="#8a5a44"/><rect x="60" y="120" width="110" height="110" rx="55" fill="#3b2f2b"/><rect x="72" y="132" width="86" height="86" rx="43" fill="#ffd98a"/><path d="M112 132h6v86h-6zM72 172h86v6H72z" fill="#3b2f2b"/>',
      ),
      12,
    ),
  };
}

/** The plate at a time. The whole world behind the deck heaves a little, as from a boat. */
export function drawFerry(parts: FerryParts, seconds: number): Sheet {
  const out = sheet(W, H);
  const heave = 5 * Math.sin(seconds * 1.3);
  const roll = 0.35 * Math.sin(seconds * 1.05);
  const world = multiply(translation(640, 360 + heave), multiply(rotation(roll), translation(-640, -360)));
  draw(out, parts.sky, multiply(world, translation(-30, -30)));
  draw(out, parts.stars, world, { opacity: 0.72 + 0.28 * Math.sin(seconds * 3) });
  draw(out, parts.moon, multiply(world, translation(905, 60)), { shadow: { x: 7, y: 11, strength: 0.45 } });
  parts.hills.forEach((part, i) =>
    draw(out, part, multiply(world, multiply(translation(-20 * i - 6, 12 * i - 6), scaling(1.03, 1))), {
      shadow: { x: 4, y: -5, strength: 0.5 },
    }),
  );
  parts.waves.forEach((part, i) => {
    const drift = ((seconds * (26 + 13 * i)) % (170 + 30 * i)) - 190;
    draw(
      out,
      part,
      multiply(world, translation(i % 2 ? drift : -drift - 240, 448 + 42 * i + 6 * Math.sin(seconds * 1.8 + i))),
      { shadow: { x: 3, y: -6, strength: 0.5 } },
    );
  });
  draw(out, parts.cabin, translation(0, 92), { shadow: { x: 12, y: 12, strength: 0.55 } });
  draw(out, parts.deck, translation(-40, 548), { shadow: { x: 0, y: -8, strength: 0.55 } });
  // warm window light falling on the deck and the cabin, dusk elsewhere
  light(out, (x, y) => {
    const d = Math.hypot(x - 190, (y - 350) * 1.25) / 420;
    const warm = Math.exp(-d * d * 2.2);
    const edge = 1 - 0.25 * Math.min(1, Math.hypot(x - 640, y - 360) / 800) ** 2;
    return [edge * (0.82 + 0.62 * warm), edge * (0.86 + 0.36 * warm), edge * (0.98 + 0.04 * warm)];
  });
  return out;
}

/** The rail that stands in front of everything: foreground with alpha, lit by a lantern from the right. */
export async function drawRail(): Promise<Sheet> {
  const posts = [120, 460, 800, 1140].map((x) => `<path d="M${x} 34h38v190H${x}z" fill="#8a5836"/>`).join('');
  const rail = await sprite(
    piece(
      W + 40,
      230,
      card('m', 60),
      `${posts}<path d="M0 16H1320v40H0z" fill="#a4683e"/><path d="M0 112H1320v22H0z" fill="#8f5b37"/>`,
    ),
    6,
  );
  const ring = await sprite(
    piece(
      170,
      170,
      card('m', 61),
      '<path fill-rule="evenodd" d="M85 12a73 73 0 1 1 0 146 73 73 0 0 1 0-146zm0 40a33 33 0 1 0 0 66 33 33 0 0 0 0-66z" fill="#e9dcc2"/><path d="M60 17h50l-10 36H70zM60 153h50l-10-36H70zM17 60v50l36-10V70zM153 60v50l-36-10V70z" fill="#c1483a"/>',
    ),
    6,
  );
  const out = sheet(W, H);
  draw(out, rail, translation(-20, 520));
  draw(out, ring, translation(250, 536), { shadow: { x: 6, y: 9, strength: 0.55 } });
  light(out, (x, y) => {
    const d = Math.hypot(x - 900, y - 520) / 330;
    const warm = Math.exp(-d * d);
    return [0.5 + 1.0 * warm, 0.47 + 0.62 * warm, 0.55 + 0.2 * warm];
  });
  return out;
}
