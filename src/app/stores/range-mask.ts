import { still } from '../../core/base/value';
import { MOST_MATTE_DATA, packMatte } from '../../core/masks/matte-data';
import { JackplaneError } from '../../core/base/errors';
import { planThrough } from '../../core/plan/looks';
import { passOf, titleOf } from '../../core/passes/registry';
import { useEngine } from '../../engine/client';
import { useBench } from './bench';
import { useMasking } from './masking';
import { useNotices } from './notices';
import { useProject } from './project';

/** What the chosen pass selects at the playhead becomes a mask of its layer. */
export async function maskOfRange(): Promise<void> {
  const bench = useBench();
  const { shot, layer, pass } = bench;
  const selection = pass && passOf(pass.type)?.selection;
  if (!shot || !layer || !selection) return;
  try {
    const shows = Object.fromEntries(Object.entries(selection).map(([name, value]) => [name, still(value)]));
    const { area: _, ...free } = pass;
    const showing = { ...free, on: true, values: { ...pass.values, ...shows } };
    const plan = planThrough(useProject().current(), shot, layer, showing, bench.frame);
    const { w, h, values } = await (await useEngine()).measure(plan, 'luma', null);
    const covered = values.filter((v) => v > 127).length / values.length;
    if (!values.some((v) => v > 0) || covered === 1)
      throw new JackplaneError(
        'bad-value',
        covered ? 'The whole picture is inside.' : 'Nothing of the picture is inside.',
        'Pick colours, and set their range first.',
      );
    const matte = packMatte(values as Uint8Array<ArrayBuffer>, w, h);
    if (matte.data.length > MOST_MATTE_DATA)
      throw new JackplaneError(
        'unsupported',
        'What is inside has more detail than a mask in a project can hold.',
        'Feather it a little, or drop its crumbs.',
      );
    useMasking().add(
      { kind: 'matte', matte: still(matte), hints: [], confidence: still(1) },
      titleOf(pass.type).toLowerCase(),
      'edit',
    );
    useNotices().say(`What is inside on frame ${bench.frame} is a mask of ${layer.name} now. It stands still.`);
  } catch (error) {
    useNotices().problem(error);
  }
}
