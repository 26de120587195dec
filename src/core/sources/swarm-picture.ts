// Particles as they are drawn: figures by their formulas, or pictures of layers.
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';
import { BAND, clearRows, drawSprites } from './sprites';
import { affordable, PARTICLE } from './swarm';

/** In the order of the kernel that draws them; what is not here is drawn as a picture. */
const FIGURES = ['dot', 'disc', 'scrap', 'leaf', 'flake'];
const DOT = 0;

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
  const tools = { kernels, arena };
  const figure = FIGURES.indexOf(look.figure);
  if (!list.length || (figure < 0 && !look.sprites.length)) clearRows(tools, picture, 0, h);
  else if (figure < 0) drawSprites(tools, tinted(list, look.tinted), look.sprites, picture, look.shines);
  else if (figure === DOT || !isSoft(list)) drawFigures(tools, widened(list), figure, picture, look.shines);
  else {
    const drawn = drawnFigure(tools, list, figure);
    drawSprites(tools, list, [drawn], picture, look.shines);
    drawn.release();
  }
  return picture;
}

function isSoft(list: Float32Array): boolean {
  for (let at = 0; at < list.length; at += PARTICLE) if (list[at + 11]! > 0) return true;
  return false;
}
/** Dots that are out of focus are larger and fainter ones: as far about their middles as dot and aperture are together. */
function widened(list: Float32Array): Float32Array {
  for (let at = 0; at < list.length; at += PARTICLE) {
    const soft = list[at + 11]!;
    if (!(soft > 0)) continue;
    const [long, wide] = [list[at + 2]!, list[at + 3]!];
    // the mean square of the distances from a dot's middle is a quarter of its radius squared, that of an aperture half
    list[at + 2] = Math.sqrt(long ** 2 + 2 * soft ** 2);
    list[at + 3] = Math.sqrt(wide ** 2 + 2 * soft ** 2);
    list[at + 9]! *= (long * wide) / (list[at + 2]! * list[at + 3]!);
  }
  return list;
}
/** Side of a picture of a figure at least and at most, in pixels. */
const [SMALL, LARGE] = [16, 256];
/** A white figure as large as the largest of a list, that others can be drawn from. */
function drawnFigure(
  { kernels, arena }: Pick<Tools, 'kernels' | 'arena'>,
  list: Float32Array,
  figure: number,
): Picture {
  let most = 0;
  for (let at = 0; at < list.length; at += PARTICLE) most = Math.max(most, list[at + 2]!, list[at + 3]!);
  const side = Math.min(LARGE, Math.max(SMALL, Math.ceil(2 * most)));
  const half = side / 2;
  const drawn = Picture.make(arena, { x: 0, y: 0, w: side, h: side });
  drawFigures(
    { kernels, arena },
    Float32Array.of(half, half, half, half, 1, 0, 1, 1, 1, 1, 0, 0),
    figure,
    drawn,
    false,
  );
  return drawn;
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
