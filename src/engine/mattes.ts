import { coveragesOf } from '../core/execute/masks';
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

/** Sends a worker the drawn mattes that plans name and it has not got yet. */
export class MatteSender {
  private readonly sent = new Set<string>();

  constructor(private readonly keep: (mattes: [string, DrawnMatte][]) => Promise<void>) {}

  forFrame = (plan: FramePlan): Promise<void> =>
    this.forCoverages([...plan.layers, ...within(plan)].flatMap(coverages));

  /** Layers by themselves, with those that they take from others or show. */
  forLayers = (layers: readonly (LayerPlan | AlonePlan)[]): Promise<void> =>
    this.forCoverages(
      layers.flatMap((layer) => [layer, ...('tables' in layer ? within(layer.tables) : [])]).flatMap(coverages),
    );

  async forCoverages(plans: readonly CoveragePlan[]): Promise<void> {
    const ids = plans.flatMap((plan) =>
      plan.masks.flatMap(({ shape }) => (shape.kind === 'matte' && !this.sent.has(shape.id) ? [shape.id] : [])),
    );
    const mattes = [...new Set(ids)].flatMap((id) => {
      const matte = matteById(id);
      return matte ? [[id, matte] as [string, DrawnMatte]] : [];
    });
    if (!mattes.length) return;
    mattes.forEach(([id]) => this.sent.add(id));
    await this.keep(mattes);
  }
}
