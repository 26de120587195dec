import { planAlone } from '../../core/plan/looks';
import { useEngine } from '../../engine/client';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** How many places along the edge are gone through before it begins again. */
const PLACES = 8;

/** Places at the half-clear edge of the chosen layer, one after the other round it. */
export function useEdges() {
  const bench = useBench();
  const playhead = usePlayhead();
  const store = useProject();
  let turn = 0;

  /** @returns shot pixels, or null when the layer has no such edge */
  async function next(): Promise<{ x: number; y: number } | null> {
    const { shot, layer } = bench;
    if (!shot || !layer || !store.project) return null;
    const reduction = 4;
    const plan = planAlone(store.project, shot, { ...layer, opacity: { still: 1 } }, playhead.frame, reduction);
    const pixels = await (await useEngine()).pixels(plan);
    const found: { x: number; y: number }[] = [];
    for (let y = 1; y < plan.height - 1; y++) {
      for (let x = 1; x < plan.width - 1; x++) {
        const alpha = pixels[(y * plan.width + x) * 4 + 3]!;
        if (alpha > 60 && alpha < 195) found.push({ x: (x + 0.5) * reduction, y: (y + 0.5) * reduction });
      }
    }
    if (!found.length) return null;
    const [cx, cy] = ['x', 'y'].map(
      (axis) => found.reduce((sum, spot) => sum + spot[axis as 'x'], 0) / found.length,
    ) as [number, number];
    const round = found.sort((a, b) => Math.atan2(a.y - cy, a.x - cx) - Math.atan2(b.y - cy, b.x - cx));
    return round[Math.floor(((turn++ % PLACES) / PLACES) * round.length)]!;
  }
  return { next };
}
