// Particles that are pictures: each is drawn from the one of its sizes that is nearest to what is needed.
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import type { Picture } from '../picture/picture';
import { BORDER, inFocus, outOfFocus, stepFor, type Drawable } from './sprite-pictures';
import { PARTICLE } from './swarm';

interface Tools {
  kernels: Kernels;
  arena: Arena;
}

/** Rows that stay in the processor's cache while all is drawn on them. */
export const BAND = 64;
/** Makes rows clear just before something is drawn on them, so that they are at hand. */
export function clearRows({ kernels }: Pick<Tools, 'kernels'>, picture: Picture, from: number, to: number): void {
  kernels.fill(picture.row(from), (to - from) * picture.rect.w, 0, 0, 0, 0);
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
 * @param list particles: their longer side is the sprite's longer one, their colour what it is multiplied by; its numbers are changed
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
  const drawables: Drawable[] = [];
  try {
    for (const sprite of sprites) drawables.push(inFocus(tools, sprite));
    const blurred = new Map<string, number>();
    /** the number of what one is drawn from, made when it is asked for first */
    const drawableFor = (own: number, step: number): number => {
      if (step < 0) return own;
      const key = `${own} ${step}`;
      const known = blurred.get(key) ?? drawables.push(outOfFocus(tools, drawables[own]!, step)) - 1;
      blurred.set(key, known);
      return known;
    };
    const count = list.length / PARTICLE;
    const which = new Int32Array(count);
    const levels = new Int32Array(count);
    for (let i = 0; i < count; i++) {
      const at = i * PARTICLE;
      const own = Math.min(sprites.length - 1, Math.floor(list[at + 10]! * sprites.length));
      const { w, h } = sprites[own]!.rect;
      const most = Math.max(w, h);
      const [long, wide, soft] = [(list[at + 2]! * w) / most, (list[at + 3]! * h) / most, list[at + 11]!];
      which[i] = drawableFor(own, stepFor(soft, Math.max(long, wide)));
      const { sizes, laid } = drawables[which[i]!]!;
      const [halfLong, halfWide, left] = laid(long, wide, soft);
      list[at + 2] = halfLong;
      list[at + 3] = halfWide;
      list[at + 9]! *= left;
      const { w: fullW, h: fullH } = sizes[0]!.rect;
      const smaller = Math.min(
        (fullW - 2 * BORDER) / Math.max(1, 2 * halfLong),
        (fullH - 2 * BORDER) / Math.max(1, 2 * halfWide),
      );
      levels[i] = Math.min(sizes.length - 1, Math.floor(Math.log2(Math.max(1, smaller))));
    }
    const firsts = drawables.map((_, i) => drawables.slice(0, i).reduce((sum, { sizes }) => sum + sizes.length, 0));
    for (let i = 0; i < count; i++) which[i] = firsts[which[i]!]! + levels[i]!;
    const sheets = sheetsOf(
      tools,
      drawables.flatMap(({ sizes }) => sizes),
      new Set(which),
    );
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
    drawables.forEach(({ sizes }) => sizes.forEach((held) => held.release()));
  }
}
