import { setPassValues } from '../../core/document/edits/passes';
import type { PassId } from '../../core/document/schema';
import type { Colour } from '../../core/params/define';
import { readValues, type ReadingParam } from '../../core/params/reading';
import { paramsOf } from '../../core/passes/registry';
import { planBefore } from '../../core/plan/looks';
import { steadyAt } from '../../core/time/values';
import { useEngine } from '../../engine/client';
import { usePlayhead } from './playhead';
import { useBench } from './bench';
import { useNotices } from './notices';
import { useProject } from './project';

/**
 * Takes colours for the screen of the chosen layer's pass and reads the plate for them, in one step. The values that follow the reading are set
 * when that is asked for, or when they still stand on the footing that it is meant with; an older key keeps its own.
 * @param name of the parameter that keeps the reading
 */
export async function readInto(id: PassId, name: string, screen: readonly Colour[], asked: boolean): Promise<void> {
  const [bench, store, notices] = [useBench(), useProject(), useNotices()];
  const playhead = usePlayhead();
  const { shot, layer } = bench;
  const { frame, at } = playhead;
  const pass = bench.line.find((item) => item.id === id);
  const param = pass && (paramsOf(pass.type)[name] as ReadingParam | undefined);
  if (!shot || !layer || layer.locked || !pass || !param || !at) return;
  const now = (of: string) => steadyAt(pass.values[of]!, playhead.moment.frame);
  const follows = asked || Object.entries(param.along).every(([own, value]) => now(own) === value);
  const keep = (values: Record<string, unknown>) =>
    store.edit(setPassValues(store.current(), at, id, { [param.of]: screen, ...values }, 'screen'));
  if (!follows || !screen.length) return keep({});
  try {
    const plan = planBefore(store.current(), shot, layer, id, frame);
    const balance = now(param.balance) as number;
    const found = plan && (await (await useEngine()).measure(plan, 'keyPlate', { screen, balance }));
    keep(found ? readValues(name, param, found.reading) : {});
  } catch (error) {
    keep({});
    notices.problem(error);
  }
}

/** Samples for the screen from the picture that comes into a key of the chosen layer; null, and said, when there is none. */
export async function screenBefore(id: PassId): Promise<Colour[] | null> {
  const [bench, store] = [useBench(), useProject()];
  const playhead = usePlayhead();
  const layer = bench.layer!;
  const plan = planBefore(store.current(), bench.shot!, layer, id, playhead.frame);
  const found = plan && (await (await useEngine()).measure(plan, 'findScreen', null));
  if (!found)
    useNotices().say(
      `No screen was found in ${layer.name}: nothing in it is saturated enough. Pick it by hand, or use a difference key.`,
      'problem',
    );
  return found && found.samples;
}
