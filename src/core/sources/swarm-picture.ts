// Particles as they are drawn: figures by their formulas, or pictures of layers.
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';
import { BAND, clearRows, drawSprites } from './sprites';
import { affordable, PARTICLE } from './swarm';

/** In the order of the kernel that draws them; what is not here is drawn as a picture. */
const FIGURES = ['dot', 'disc', 'scrap', 'leaf', 'flake'];

interface Tools {
  kernels: Kernels;
  arena: Arena;
  size: { w: number; h: number };
}
interface Look {
  figure: string;
  /** what each is one of by lot, where they are pictures */
  sprites: readonly Picture[];
  /** how much of their colour pictures take on, 0…1 */
  tinted: number;
  /** whether they add light instead of covering what lies below */
  shines: boolean;
}

/** @param all numbers of the particles, as of `swarmAt` @returns owned by the caller */
export function swarmPicture({ kernels, arena, size: { w, h } }: Tools, all: Float32Array, look: Look): Picture {
  const picture = Picture.make(arena, { x: 0, y: 0, w, h });
  const list = affordable(all, w, h);
  const figure = FIGURES.indexOf(look.figure);
  if (!list.length || (figure < 0 && !look.sprites.length)) clearRows({ kernels }, picture, 0, h);
  else if (figure < 0) drawSprites({ kernels, arena }, tinted(list, look.tinted), look.sprites, picture, look.shines);
  else drawFigures({ kernels, arena }, list, figure, picture, look.shines);
  return picture;
}

/** Draws figures into a new picture, band by band of rows, each with those that reach into it: all of it is too large for the processor's cache. */
function drawFigures(
  { kernels, arena }: Omit<Tools, 'size'>,
  list: Float32Array,
  figure: number,
  onto: Picture,
  shines: boolean,
): void {
  const { w, h } = onto.rect;
  const bands = inBands(list, Math.ceil(h / BAND));
  arena.scratch(Math.max(...bands.map(({ byteLength }) => byteLength)) + 16, (at) =>
    bands.forEach((own, band) => {
      arena.floats(at, own.length).set(own);
      const [from, to] = [band * BAND, Math.min(h, (band + 1) * BAND)];
      clearRows({ kernels }, onto, from, to);
      kernels.drawSwarm(at, own.length / PARTICLE, figure, onto.at, w, from, to, shines ? 1 : 0);
    }),
  );
}

/** The particles that reach into each of a number of bands, in their order. */
function inBands(list: Float32Array, count: number): Float32Array[] {
  const reaching = (use: (band: number, at: number) => void): void => {
    for (let at = 0; at < list.length; at += PARTICLE) {
      const [y, reach] = [list[at + 1]!, list[at + 2]! + list[at + 3]! + 1];
      const last = Math.min(count - 1, Math.floor((y + reach) / BAND));
      for (let band = Math.max(0, Math.floor((y - reach) / BAND)); band <= last; band++) use(band, at);
    }
  };
  const counts = new Int32Array(count);
  reaching((band) => counts[band]!++);
  const bands = Array.from(counts, (n) => new Float32Array(n * PARTICLE));
  const ends = new Int32Array(count);
  reaching((band, at) => {
    const own = bands[band]!;
    for (let i = 0; i < PARTICLE; i++) own[ends[band]! + i] = list[at + i]!;
    ends[band]! += PARTICLE;
  });
  return bands;
}

/** Particles whose colours leave pictures as they are, but for a share. */
function tinted(list: Float32Array, share: number): Float32Array {
  for (let at = 0; at < list.length; at += PARTICLE)
    for (let c = 6; c < 9; c++) list[at + c] = 1 + (list[at + c]! - 1) * share;
  return list;
}
