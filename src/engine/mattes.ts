import type { DrawnMatte } from '../core/document/mask';
import { coveragesOf } from '../core/execute/masks';
import type { CoveragePlan } from '../core/masks/coverage';
import { matteById } from '../core/masks/matte-data';
import type { LayerPlan } from '../core/plan/plan';

/** Coverages that layers ask for, those of layers that give them their mattes too. */
function coveragesIn(layers: readonly LayerPlan[]): CoveragePlan[] {
  const all = new Set<LayerPlan>();
  const add = (layer: LayerPlan | undefined): void => {
    for (let next = layer; next && !all.has(next); next = next.matte?.layer) all.add(next);
  };
  layers.forEach(add);
  return [...all].flatMap((layer) => layer.passes.flatMap(coveragesOf));
}

/** Sends a worker the drawn mattes that plans name and it has not got yet. */
export class MatteSender {
  private readonly sent = new Set<string>();

  constructor(private readonly keep: (mattes: [string, DrawnMatte][]) => Promise<void>) {}

  forLayers = (layers: readonly LayerPlan[]): Promise<void> => this.forCoverages(coveragesIn(layers));

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
