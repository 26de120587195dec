// What a font file is, and what its letters look like.
import { fontKind, plainFont } from '../../core/formats/font-file';
import { fillRings } from '../../core/masks/raster';
import { setLines } from '../../core/text/layout';
import type { Probe } from '../types';
import { posterOf } from './images';

export const isFont = async (file: Blob): Promise<boolean> =>
  fontKind(new Uint8Array(await file.slice(0, 4).arrayBuffer())) !== undefined;

/** Size of the sample, in pixels, and what it says. */
const [W, H] = [240, 136];
const SAMPLES = ['Harbour', 'ميناء', 'Λιμάνι', 'נמל', '港'];

/** @throws JackplaneError bad-media, naming the file */
export async function probeFont(file: File): Promise<Probe> {
  const data = new Uint8Array(await file.arrayBuffer());
  const { lineOf, readFont } = await import('../../core/text/line');
  const font = readFont(await plainFont(data, file.name), file.name);
  const facts = { codec: fontKind(data)!, alpha: false, bytes: file.size };
  const text = SAMPLES.find((one) => !lineOf([font], one).missing) ?? SAMPLES[0]!;
  const line = lineOf([font], text);
  const height = Math.min(H / 3, (0.85 * W) / Math.max(1, line.width));
  const letters = setLines([line], [text], { height, leading: 1, align: 'centre', shown: 1, middle: [W / 2, H / 2] });
  const plane = fillRings(
    letters.flatMap(({ rings }) => [...rings]),
    W,
    H,
  );
  // paper letters on ink
  const pixels = new Uint8ClampedArray(W * H * 4);
  plane.forEach((share, i) => pixels.set([25 + 217 * share, 31 + 206 * share, 43 + 179 * share, 255], i * 4));
  return { kind: 'font', facts, poster: await posterOf({ data: pixels, width: W, height: H }), peaks: null };
}
