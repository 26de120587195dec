import { coveragesOf, tablesOf } from '../core/execute/masks';
import type { CoveragePlan } from '../core/masks/coverage';
import { matteById, type DrawnMatte } from '../core/masks/matte-data';
import type { AlonePlan, FramePlan, LayerPlan, Tables } from '../core/plan/types';

const within = ({ mattes, lines, shots }: Tables): LayerPlan[] => [
  ...Object.values(mattes),
  ...Object.values(lines),
  ...Object.values(shots).flatMap((shot) => shot.layers),
];
const coverages = (layer: LayerPlan): CoveragePlan[] => [
  ...[...layer.passes, ...layer.after].flatMap(coveragesOf),
  ...layer.cover,
];

const drawnIn = ({ masks }: CoveragePlan): string[] =>
  masks.flatMap(({ shape }) => (shape.kind === 'matte' ? [shape.id] : []));
const tables = (layer: LayerPlan): string[] => [...layer.passes, ...layer.after].flatMap(tablesOf);

/** Sends a worker the drawn mattes and colour tables that plans name and it has not got yet. */
export class MatteSender {
  private readonly sent = new Set<string>();

  constructor(private readonly keep: (mattes: [string, DrawnMatte][]) => Promise<void>) {}

  forFrame = (plan: FramePlan): Promise<void> => this.forPlans([...plan.layers, ...within(plan)]);

  /** Layers by themselves, with those that they take from others or show. */
  forLayers = (layers: readonly (LayerPlan | AlonePlan)[]): Promise<void> =>
    this.forPlans(layers.flatMap((layer) => [layer, ...('tables' in layer ? within(layer.tables) : [])]));

  private forPlans = (layers: readonly LayerPlan[]): Promise<void> =>
    this.send([...layers.flatMap(coverages).flatMap(drawnIn), ...layers.flatMap(tables)]);
  forCoverages = (plans: readonly CoveragePlan[]): Promise<void> => this.send(plans.flatMap(drawnIn));

  private async send(wanted: readonly string[]): Promise<void> {
    const ids = wanted.filter((id) => !this.sent.has(id));
    const mattes = [...new Set(ids)].flatMap((id) => {
      const matte = matteById(id);
      return matte ? [[id, matte] as [string, DrawnMatte]] : [];
    });
    if (!mattes.length) return;
    mattes.forEach(([id]) => this.sent.add(id));
    await this.keep(mattes);
  }
}
