import { still } from '../../core/base/value';
import { JackplaneError } from '../../core/base/errors';
import { planThrough } from '../../core/plan/looks';
import { passOf, titleOf } from '../../core/passes/registry';
import { useEngine } from '../../engine/client';
import { usePlayhead } from './playhead';
import { useBench } from './bench';
import { useMasking } from './masking';
import { useNotices } from './notices';
import { useProject } from './project';

/** What the chosen pass selects at the playhead becomes a mask of its layer. */
export async function maskOfRange(): Promise<void> {
  const bench = useBench();
  const playhead = usePlayhead();
  const { shot, layer, pass } = bench;
  const selection = pass && passOf(pass.type)?.selection;
  if (!shot || !layer || !selection) return;
  try {
    const shows = Object.fromEntries(Object.entries(selection).map(([name, value]) => [name, still(value)]));
    const { area: _, ...free } = pass;
    const showing = { ...free, on: true, values: { ...pass.values, ...shows } };
    const plan = planThrough(useProject().current(), shot, layer, showing, playhead.frame);
    const found = await (await useEngine()).measure(plan, 'matte', null);
    if (!found || found.covered === 1)
      throw new JackplaneError(
        'bad-value',
        found ? 'The whole picture is inside.' : 'Nothing of the picture is inside.',
        'Pick colours, and set their range first.',
      );
    useMasking().addMatte(found.matte, titleOf(pass.type).toLowerCase(), 'Feather it a little, or drop its crumbs.');
    useNotices().say(`What is inside on frame ${playhead.frame} is a mask of ${layer.name} now. It stands still.`);
  } catch (error) {
    useNotices().problem(error);
  }
}
