// Particles that are pictures: each is drawn from the one of its sizes that is nearest to what is needed.
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { Picture } from '../picture/picture';
import { copyInto } from '../picture/rows';
import { PARTICLE } from './swarm';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}
/** Clear pixels around a sprite, into which its border goes over. */
const BORDER = 1;

/** Rows that stay in the processor's cache while all is drawn on them. */
export const BAND = 64;
/** Makes rows clear just before something is drawn on them, so that they are at hand. */
export function clearRows({ kernels }: Pick<Tools, 'kernels'>, picture: Picture, from: number, to: number): void {
  kernels.fill(picture.row(from), (to - from) * picture.rect.w, 0, 0, 0, 0);
}

/** A picture and smaller ones of it, each with a clear border. @returns held by the caller, the largest first */
function sizesOf(tools: Tools, picture: Picture): Picture[] {
  const { kernels, arena } = tools;
  const sizes: Picture[] = [];
  let now = picture.retain();
  for (;;) {
    const { x, y, w, h } = now.rect;
    const bordered = Picture.make(arena, { x: x - BORDER, y: y - BORDER, w: w + 2 * BORDER, h: h + 2 * BORDER });
    kernels.fill(bordered.at, bordered.pixels, 0, 0, 0, 0);
    copyInto(tools, now, bordered);
    sizes.push(bordered);
    if (Math.max(w, h) <= 2) break;
    const half = Picture.make(arena, { x: 0, y: 0, w: Math.ceil(w / 2), h: Math.ceil(h / 2) });
    kernels.halve(now.at, w, h, half.at);
    now.release();
    now = half;
  }
  now.release();
  return sizes;
}

/** Numbers of a sheet: address, width and height, and what a whole one stands for. */
const SHEET = 4;
/**
 * Turns pictures that are drawn from into sheets, in their own memory.
 * @param used which of them are @returns what the kernel reads of them
 */
function sheetsOf({ kernels }: Tools, pictures: readonly Picture[], used: ReadonlySet<number>): Uint8Array {
  const numbers = new DataView(new ArrayBuffer(pictures.length * SHEET * 4));
  pictures.forEach(({ at, rect: { w, h } }, i) => {
    [at, w, h].forEach((number, k) => numbers.setInt32((i * SHEET + k) * 4, number, true));
    if (used.has(i)) numbers.setFloat32((i * SHEET + 3) * 4, kernels.sheetOf(at, w, h, at), true);
  });
  return new Uint8Array(numbers.buffer);
}

/**
 * Draws sprites into a new picture, the first of them lowest.
 * @param list particles: their longer side is the sprite's longer one, their colour what it is multiplied by
 * @param sprites pictures, of which each particle has one by lot
 */
export function drawSprites(
  tools: Tools,
  list: Float32Array,
  sprites: readonly Picture[],
  onto: Picture,
  shines: boolean,
): void {
  const { kernels, arena } = tools;
  const sets: Picture[][] = [];
  try {
    for (const sprite of sprites) sets.push(sizesOf(tools, sprite));
    const firsts = sets.map((_, i) => sets.slice(0, i).reduce((sum, sizes) => sum + sizes.length, 0));
    const count = list.length / PARTICLE;
    const which = new Int32Array(count);
    for (let i = 0; i < count; i++) {
      const at = i * PARTICLE;
      const own = Math.min(sprites.length - 1, Math.floor(list[at + PARTICLE - 1]! * sprites.length));
      const { w, h } = sprites[own]!.rect;
      const most = Math.max(w, h);
      const wanted = 2 * Math.max(list[at + 2]!, list[at + 3]!);
      list[at + 2]! *= w / most;
      list[at + 3]! *= h / most;
      const level = Math.floor(Math.log2(Math.max(1, most / Math.max(1, wanted))));
      which[i] = firsts[own]! + Math.min(sets[own]!.length - 1, level);
    }
    const sheets = sheetsOf(tools, sets.flat(), new Set(which));
    arena.lending((scratch) => {
      const lent = (bytes: Uint8Array): number => {
        const at = scratch(bytes.byteLength + 16);
        arena.bytes(at, bytes.byteLength).set(bytes);
        return at;
      };
      const bytesOf = ({ buffer, byteOffset, byteLength }: Float32Array | Int32Array) =>
        new Uint8Array(buffer as ArrayBuffer, byteOffset, byteLength);
      const [own, sheet, from] = [lent(bytesOf(which)), lent(sheets), lent(bytesOf(list))];
      const { w, h } = onto.rect;
      for (let top = 0; top < h; top += BAND) {
        const bottom = Math.min(h, top + BAND);
        clearRows(tools, onto, top, bottom);
        kernels.drawSprites(from, count, own, sheet, onto.at, w, top, bottom, shines ? 1 : 0);
      }
    });
  } finally {
    sets.flat().forEach((held) => held.release());
  }
}
