// Particles as they are drawn: figures by their formulas, or pictures of layers.
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';
import { drawSprites, inBands } from './sprites';
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
  kernels.fill(picture.at, picture.pixels, 0, 0, 0, 0);
  const list = affordable(all, w, h);
  const figure = FIGURES.indexOf(look.figure);
  if (!list.length || (figure < 0 && !look.sprites.length)) return picture;
  if (figure < 0) drawSprites({ kernels, arena }, tinted(list, look.tinted), look.sprites, picture, look.shines);
  else
    arena.scratch(list.byteLength + 16, (at) => {
      arena.floats(at, list.length).set(list);
      inBands(picture, list, (top, bottom) =>
        kernels.drawSwarm(at, list.length / PARTICLE, figure, picture.at, w, top, bottom, look.shines ? 1 : 0),
      );
    });
  return picture;
}

/** Particles whose colours leave pictures as they are, but for a share. */
function tinted(list: Float32Array, share: number): Float32Array {
  for (let at = 0; at < list.length; at += PARTICLE)
    for (let c = 6; c < 9; c++) list[at + c] = 1 + (list[at + c]! - 1) * share;
  return list;
}
