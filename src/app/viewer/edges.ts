import { pulledToEdges } from '../../core/analysis/edge-pull';
import type { Vertex } from '../../core/masks/path';
import { sourcePlan } from '../../core/plan/looks';
import { useEngine } from '../../engine/client';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { tenths } from './frame';

/** Gives a function that pulls vertices to strong edges of the chosen layer's source at the playhead. */
export function usePullToEdges(): (path: readonly Vertex[], chosen: ReadonlySet<number>) => Promise<Vertex[] | null> {
  const bench = useBench();
  const playhead = usePlayhead();
  const store = useProject();
  const notices = useNotices();
  return async (path, chosen) => {
    const plan =
      store.project &&
      bench.shot &&
      bench.layer &&
      sourcePlan(store.project, bench.shot, bench.layer, playhead.frame, 1);
    if (!plan) return null;
    const luma = await (
      await useEngine()
    )
      .measure(plan, 'luma', null)
      .catch((error: unknown) => notices.problem(error));
    if (!luma) return null;
    return pulledToEdges(path, chosen, luma).map(
      (v) => v.map((part, i) => (i < 2 ? tenths(part) : part)) as unknown as Vertex,
    );
  };
}
