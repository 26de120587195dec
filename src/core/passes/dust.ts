import { lotOf, seedAt } from '../base/lot';
import { choice } from '../params/choice';
import { number } from '../params/number';
import { seed } from '../params/seed';
import type { Ring } from '../masks/path';
import { fillOnto } from '../masks/raster';
import { strokeRings } from '../masks/stroke';
import { Picture } from '../picture/picture';
import { definePass } from './define';

/** Frames that a scratch stays for. */
const LASTING = 12;
const LINE = { lies: 0, cap: 'round', join: 'round', dash: 0, gap: 0, from: 0, to: 1, shift: 0, taper: 0.4 } as const;

/** Dust and scratches: specks and hairs that are new on every frame, and lines that stay for a while. */
export const dust = definePass({
  type: 'dust',
  title: 'Dust and scratches',
  group: 'texture',
  lots: true,
  words: ['old film', 'dirt', 'hair in the gate', 'specks', 'damaged', 'projector', 'silent film', 'vintage'],
  help: 'Puts specks and hairs on every frame and scratches along the film, as on an old print. Relatives: Grain, Flicker, Tape wear.',
  params: {
    specks: number({
      label: 'Specks',
      unit: '',
      default: 12,
      min: 0,
      max: 400,
      slider: [0, 80],
      help: 'How many specks a frame has, about.',
    }),
    hairs: number({
      label: 'Hairs',
      unit: '',
      default: 1,
      min: 0,
      max: 60,
      slider: [0, 12],
      help: 'How many hairs a frame has, about.',
    }),
    scratches: number({
      label: 'Scratches',
      unit: '',
      default: 2,
      min: 0,
      max: 60,
      slider: [0, 12],
      help: 'How many lines run along the film.',
    }),
    size: number({
      label: 'Size',
      unit: 'px',
      default: 4,
      min: 0.5,
      max: 200,
      slider: [1, 20],
      help: 'How large the largest specks are.',
    }),
    opacity: number({
      label: 'Opacity',
      unit: '%',
      default: 0.75,
      min: 0,
      max: 1,
      slider: [0, 1],
      help: 'How solid they are.',
    }),
    colour: choice({
      label: 'They are',
      default: 'both',
      options: [
        { value: 'both', label: 'bright and dark' },
        { value: 'bright', label: 'bright' },
        { value: 'dark', label: 'dark' },
      ],
      help: 'Dirt on the negative is bright, on the print dark.',
    }),
    seed: seed({ label: 'Seed', default: 1, help: 'Another number is other dirt.' }),
  },
  idle: (v) => v.opacity === 0 || v.specks + v.hairs + v.scratches === 0,
  reach: () => 0,
  moment: (_, frame, by) => ({ at: Math.floor(frame), by }),
  run(picture, v, tools) {
    const { kernels, arena, size } = tools;
    const { at = 0, by = 1 } = v as unknown as { at?: number; by?: number };
    const out = Picture.make(arena, picture.rect);
    kernels.copy(picture.at, out.at, out.pixels);
    const shades: Record<'bright' | 'dark', Ring[]> = { bright: [], dark: [] };
    const shadeOf = (lot: number): 'bright' | 'dark' =>
      (v.colour === 'both' ? lot < 0.5 : v.colour === 'bright') ? 'bright' : 'dark';
    const each = (
      kind: number,
      count: number,
      turn: number,
      draw: (lots: (question: number) => number) => Ring[],
    ): void => {
      for (let k = 0; k < Math.round(count); k++) {
        const lots = (question: number) => lotOf(16 * k + question, seedAt(v.seed, turn) + kind);
        shades[shadeOf(lots(0))].push(...draw(lots));
      }
    };
    each(1, v.specks, at, (lot) => [speck(lot, size, v.size)]);
    each(2, v.hairs, at, (lot) => hair(lot, size, v.size));
    // scratches stay for a while, each from another frame on, and tremble
    each(3, v.scratches, 0, (lot) => {
      const turn = Math.floor((at + lot(9) * LASTING) / LASTING);
      return scratch(
        (question) => lotOf(question, seedAt(v.seed, 0) + Math.imul(turn, 7919) + Math.round(1e6 * lot(1))),
        size,
        at,
        by,
      );
    });
    arena.scratch(out.pixels * 8 + 32, (cover) => {
      const plane = cover + out.pixels * 4;
      kernels.coveragePlane(picture.at, out.pixels, 0, 0, cover);
      for (const [shade, rings] of Object.entries(shades)) {
        if (!rings.length) continue;
        const { x, y, w, h } = out.rect;
        const floats = arena.floats(plane, out.pixels).fill(0);
        const moved = rings.map((ring) => ring.map((c, i) => c - (i % 2 ? y : x)));
        fillOnto(floats, moved, w, h, v.opacity);
        // dirt lies on the film: only where there is picture
        kernels.timesPlane(plane, cover, out.pixels);
        const grey = shade === 'bright' ? 0.93 : 0.06;
        kernels.overPlane(out.at, plane, out.pixels, grey, grey, grey, 0);
      }
    });
    return out;
  },
});
type Lots = (question: number) => number;
type Size = { w: number; h: number };

/** A spot with an uneven edge. */
function speck(lot: Lots, { w, h }: Size, most: number): Ring {
  const [cx, cy, r] = [lot(1) * w, lot(2) * h, (0.2 + 0.8 * lot(3) ** 3) * (most / 2)];
  const CORNERS = 7;
  return Float64Array.from({ length: 2 * CORNERS }, (_, i) => {
    const turn = (2 * Math.PI * (i >> 1)) / CORNERS;
    const far = r * (0.6 + 0.6 * lot(4 + (i >> 1)));
    return i % 2 ? cy + far * Math.sin(turn) : cx + far * Math.cos(turn);
  });
}
function hair(lot: Lots, { w, h }: Size, most: number): Ring[] {
  const [cx, cy, long, turn] = [lot(1) * w, lot(2) * h, most * (6 + 14 * lot(3)), 2 * Math.PI * lot(4)];
  const bow = (lot(5) - 0.5) * 4;
  const POINTS = 12;
  const way = Float64Array.from({ length: 2 * POINTS }, (_, i) => {
    const t = (i >> 1) / (POINTS - 1) - 0.5;
    const at = turn + bow * t;
    return i % 2 ? cy + long * t * Math.sin(at) : cx + long * t * Math.cos(at);
  });
  return strokeRings(way, false, { ...LINE, width: Math.max(0.5, most / 4) });
}
function scratch(lot: Lots, { w, h }: Size, at: number, by: number): Ring[] {
  const x = lot(1) * w + ((lotOf(at, Math.round(1e6 * lot(2))) - 0.5) * 2) / by;
  const [from, long] = [(lot(3) - 0.3) * h, (0.3 + lot(4)) * h];
  const way = Float64Array.of(x, from, x + (lot(5) - 0.5) * 6, from + long);
  return strokeRings(way, false, { ...LINE, width: (0.6 + lot(6)) / by });
}
