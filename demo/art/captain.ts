// The felt ferry captain: a fox in a navy coat, holding up a lantern.
import { multiply, rotation, translation, type Matrix } from '../../src/core/picture/matrix';
import { felt, card, piece } from './material';
import { draw, sheet, sprite, type Sheet, type Sprite } from './raster';

interface Parts {
  tail: Sprite;
  coat: Sprite;
  lapels: Sprite;
  buttons: Sprite;
  ear: Sprite;
  head: Sprite;
  muzzle: Sprite;
  face: Sprite;
  lids: Sprite;
  cap: Sprite;
  badge: Sprite;
  sleeve: Sprite;
  paw: Sprite;
  lantern: Sprite;
  flame: Sprite;
}

export async function captainParts(): Promise<Parts> {
  const f = (seed: number, strength?: number) => felt('m', seed, strength);
  const c = (seed: number) => card('m', seed);
  const all: Record<keyof Parts, Promise<Sprite>> = {
    tail: sprite(
      piece(
        260,
        240,
        f(2),
        '<path d="M30 220C70 120 120 150 140 90 155 45 200 15 232 30c-6 60-22 130-92 165-40 20-70 25-110 25z" fill="#c96a35"/><path d="M186 62c14-22 32-34 46-32-2 34-10 66-26 92-12-16-18-38-20-60z" fill="#f1e3cd"/>',
      ),
    ),
    coat: sprite(
      piece(
        400,
        380,
        f(3),
        '<path d="M200 24c60 0 104 30 122 84 24 70 40 180 46 262H32C40 280 56 178 78 108 96 54 140 24 200 24z" fill="#2c4476"/>',
      ),
    ),
    lapels: sprite(piece(220, 180, f(4), '<path d="M110 20 40 44l44 116 26-60 26 60 44-116z" fill="#3a5a94"/>'), 4),
    buttons: sprite(
      piece(
        90,
        230,
        c(5),
        [20, 88, 156]
          .map(
            (y) =>
              `<circle cx="22" cy="${y + 14}" r="11" fill="#e4b94f"/><circle cx="68" cy="${y + 14}" r="11" fill="#e4b94f"/>`,
          )
          .join(''),
      ),
      3,
    ),
    ear: sprite(
      piece(
        110,
        130,
        f(6),
        '<path d="M14 118C14 70 30 30 60 12c24 30 38 66 38 106z" fill="#c4622f"/><path d="M34 112c2-32 10-56 26-72 12 20 20 44 22 72z" fill="#4a2c22"/>',
      ),
    ),
    head: sprite(
      piece(
        300,
        270,
        f(7),
        '<path d="M150 20c74 0 126 52 126 116 0 46-34 76-66 96-22 14-40 22-60 22s-38-8-60-22c-32-20-66-50-66-96C24 72 76 20 150 20z" fill="#d2733a"/><path d="M24 140c30 4 62 30 82 66l-16 26c-36-20-66-50-66-92zM276 140c-30 4-62 30-82 66l16 26c36-20 66-50 66-92z" fill="#f1e3cd"/>',
      ),
    ),
    muzzle: sprite(
      piece(
        150,
        120,
        f(8),
        '<path d="M75 12c34 0 58 22 58 48 0 30-30 50-58 50S17 90 17 60c0-26 24-48 58-48z" fill="#f4e8d4"/>',
      ),
      4,
    ),
    face: sprite(
      piece(
        190,
        170,
        c(9),
        '<ellipse cx="38" cy="40" rx="13" ry="16" fill="#2a2226"/><ellipse cx="152" cy="40" rx="13" ry="16" fill="#2a2226"/><circle cx="42" cy="34" r="4.5" fill="#fff8ea"/><circle cx="156" cy="34" r="4.5" fill="#fff8ea"/><path d="M95 78c14 0 24 6 24 14 0 9-14 18-24 18s-24-9-24-18c0-8 10-14 24-14z" fill="#33262a"/><path d="M62 124c20 18 46 18 66 0" fill="none" stroke="#5b3a30" stroke-width="5" stroke-linecap="round"/>',
      ),
      2,
    ),
    lids: sprite(piece(190, 80, f(10), '<path d="M20 26h36v34H20zM134 26h36v34h-36z" fill="#c4622f"/>'), 1),
    cap: sprite(
      piece(
        280,
        130,
        f(11),
        '<path d="M30 70C24 30 90 8 140 8s116 22 110 62l-8 20H38z" fill="#24386a"/><path d="M34 66c64-18 148-18 212 0l2 32c-70-16-146-16-216 0z" fill="#e0b552"/><path d="M62 96c50-14 106-14 156 0-20 26-136 26-156 0z" fill="#1b2748"/>',
      ),
    ),
    badge: sprite(
      piece(60, 60, c(12), '<path d="M30 8l6 14 15 1-12 10 4 15-13-8-13 8 4-15L9 23l15-1z" fill="#fbf1da"/>'),
      2,
    ),
    sleeve: sprite(
      piece(
        250,
        130,
        f(13),
        '<path d="M20 66C20 36 44 20 76 22c60 4 106 18 146 36 14 8 14 36 0 46-50 10-104 14-150 8-32-4-52-18-52-46z" fill="#34518a"/><path d="M200 46l28 10c8 12 8 34 0 46l-30 4z" fill="#e0b552"/>',
      ),
    ),
    paw: sprite(
      piece(90, 90, f(14), '<path d="M44 14c22 0 34 14 34 32S64 78 44 78 10 64 10 46s12-32 34-32z" fill="#4a2c22"/>'),
      4,
    ),
    lantern: sprite(
      piece(
        120,
        190,
        c(15),
        '<path d="M60 8c20 0 32 14 32 30h-8c0-14-10-22-24-22s-24 8-24 22h-8C28 22 40 8 60 8z" fill="#3a3230"/><path d="M28 40h64l8 18H20zM22 158h76l6 20H16z" fill="#4a403a"/><path d="M26 58h68v100H26z" fill="#ffdf93"/><path d="M26 58h7v100h-7zM87 58h7v100h-7zM56 58h8v100h-8z" fill="#4a403a"/>',
      ),
      4,
    ),
    flame: sprite(
      piece(
        60,
        100,
        card('m', 16, 0.3),
        '<path d="M30 8c16 24 22 40 22 56 0 16-10 26-22 26S8 80 8 64c0-16 6-32 22-56z" fill="#fff4cf"/>',
      ),
      1,
    ),
  };
  const entries = await Promise.all(Object.entries(all).map(async ([name, part]) => [name, await part] as const));
  return Object.fromEntries(entries) as unknown as Parts;
}

const about = (x: number, y: number, degrees: number): Matrix =>
  multiply(translation(x, y), multiply(rotation(degrees), translation(-x, -y)));
const SOFT = { x: 4, y: 7, strength: 0.5 };

/** Where the lantern's flame is at a time, in picture pixels. */
export function lanternAt(seconds: number): [number, number] {
  const m = lanternMap(seconds);
  return [m[0] * 60 + m[2] * 108 + m[4], m[1] * 60 + m[3] * 108 + m[5]];
}

const sway = (seconds: number) => Math.sin(seconds * 1.9) * 9;
const bodyMap = (seconds: number): Matrix =>
  multiply(
    translation(640 + 26 * Math.sin(seconds * 0.9), 354 + 3 * Math.sin(seconds * 3.1)),
    about(0, 360, 1.6 * Math.sin(seconds * 0.9 + 0.6)),
  );
const armMap = (seconds: number): Matrix =>
  multiply(bodyMap(seconds), about(70, 130, -20 + 16 * Math.sin(seconds * 1.5 + 0.4)));
function lanternMap(seconds: number): Matrix {
  const arm = armMap(seconds);
  const [x, y] = [arm[0] * 288 + arm[2] * 130 + arm[4], arm[1] * 288 + arm[3] * 130 + arm[5]];
  return multiply(translation(x, y), multiply(rotation(sway(seconds)), translation(-60, -12)));
}

/** The captain alone at a time, on a clear sheet. */
export function drawCaptain(parts: Parts, w: number, h: number, seconds: number): Sheet {
  const out = sheet(w, h);
  const body = bodyMap(seconds);
  const on = (base: Matrix, x: number, y: number) => multiply(base, translation(x, y));
  const head = multiply(body, about(0, -10, 4 * Math.sin(seconds * 1.7) + 2));
  draw(out, parts.tail, multiply(on(body, -330, 90), about(40, 220, 6 * Math.sin(seconds * 2.2))));
  draw(out, parts.coat, on(body, -200, 20), { shadow: SOFT });
  draw(out, parts.lapels, on(body, -110, 30), { shadow: SOFT });
  draw(out, parts.buttons, on(body, -45, 130), { shadow: { x: 2, y: 3, strength: 0.45 } });
  const twitch = 5 * Math.max(0, Math.sin(seconds * 4.3)) ** 8;
  draw(out, parts.ear, multiply(on(head, -142, -262), about(55, 120, -14 - twitch)));
  draw(out, parts.ear, multiply(on(head, 32, -262), about(55, 120, 14)));
  draw(out, parts.head, on(head, -150, -206), { shadow: SOFT });
  draw(out, parts.muzzle, on(head, -75, -72), { shadow: { x: 2, y: 4, strength: 0.35 } });
  draw(out, parts.face, on(head, -95, -132), {});
  if (Math.sin(seconds * 2.6 + 0.3) > 0.985)
    draw(out, parts.lids, on(head, -95, -134), { shadow: { x: 0, y: 2, strength: 0.3 } });
  draw(out, parts.cap, on(head, -140, -250), { shadow: SOFT });
  draw(out, parts.badge, on(head, -30, -212), { shadow: { x: 2, y: 2, strength: 0.4 } });
  const arm = armMap(seconds);
  draw(out, parts.lantern, lanternMap(seconds), { shadow: { x: 5, y: 8, strength: 0.4 } });
  const flicker = 1 + 0.08 * Math.sin(seconds * 17) + 0.05 * Math.sin(seconds * 29);
  draw(
    out,
    parts.flame,
    multiply(
      lanternMap(seconds),
      multiply(translation(30, 62), multiply([1, 0, 0, flicker, 0, 90 * (1 - flicker)], translation(0, 0))),
    ),
  );
  draw(out, parts.sleeve, on(arm, 50, 66), { shadow: SOFT });
  draw(out, parts.paw, on(arm, 248, 92), { shadow: { x: 2, y: 4, strength: 0.4 } });
  return out;
}
