// Grades of the demo that the application's own automatics, match and tables make.
import sharp from 'sharp';
import { readAutomatic, toneFor } from '../src/core/analysis/automatic';
import { latticeOf } from '../src/core/formats/cube';
import { keepTable, type KeptTable } from '../src/core/params/table';
import { asDials } from '../src/core/passes/grade/balance';
import { GRADE_LOOKS } from '../src/core/passes/grade/looks';
import { toDisplay } from '../src/core/picture/light';
import { floatsOf, pictureOf, runPass, testRig } from '../src/core/testing/rig';

const pixelsOf = async (file: string) => sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });

const bench = await testRig(64e6);
const look = (title: string) => GRADE_LOOKS.find((item) => item.title === title)!.passes;

/** What a look makes of every colour. Vignettes and grain look at more than that and are left out. */
export function lookTable(title: string, size = 17): KeptTable {
  const inputs = latticeOf(size);
  const flat = Array.from({ length: inputs.length / 3 }, (_, i) => [...inputs.subarray(i * 3, i * 3 + 3), 1]).flat();
  let picture = pictureOf(bench, { x: 0, y: 0, w: size, h: size * size }, flat);
  for (const [type, values] of look(title))
    if (type !== 'vignette' && type !== 'grain') picture = runPass(bench, type, values, picture);
  const floats = floatsOf(bench, picture);
  picture.release();
  const values = Float32Array.from({ length: inputs.length }, (_, i) => floats[Math.floor(i / 3) * 4 + (i % 3)]!);
  return keepTable({ title, dimensions: 3, size, from: [0, 0, 0], to: [1, 1, 1], values });
}
export const lookPasses = look;

/** What the automatics read on a picture: its balance, and its tone once that is done. */
export async function putRight(
  file: string,
): Promise<{ balance: ReturnType<typeof asDials>; tone: ReturnType<typeof toneFor> }> {
  const { data, info } = await pixelsOf(file);
  const { width: w, height: h } = info;
  const { grey } = readAutomatic(data, w, h)!;
  const most = Math.max(...grey);
  const balance = asDials(grey.map((part) => toDisplay((0.4 * part) / most)) as never);
  const before = pictureOf(
    bench,
    { x: 0, y: 0, w, h },
    Array.from(data, (v) => v / 255),
  );
  const after = runPass(bench, 'balance', { ...balance, white: [] }, before);
  const balanced = Uint8ClampedArray.from(floatsOf(bench, after), (v) => Math.round(v * 255));
  after.release();
  return { balance, tone: toneFor(readAutomatic(balanced, w, h)!) };
}
