import { coveragesOf, tablesOf } from '../core/plan/asked';
import type { CoveragePlan } from '../core/masks/coverage';
import type { Value } from '../core/base/value';
import type { Project } from '../core/document/schema';
import { paramsOf } from '../core/passes/registry';
import type { KeptTable } from '../core/params/table';
import { matteById, matteId, type DrawnMatte } from '../core/masks/matte-data';
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

/** Names all that plans of a project may find by a name, whether it has been planned here or not. */
export function nameBigData(project: Project): void {
  for (const layer of project.shots.flatMap((shot) => shot.layers)) {
    for (const { shape } of layer.masks)
      if (shape.kind === 'matte') for (const matte of everyOf(shape.matte)) if (matte.data) matteId(matte);
    for (const pass of layer.passes)
      for (const [name, param] of Object.entries(paramsOf(pass.type))) {
        const value = pass.values[name];
        if (param.kind === 'table' && value)
          for (const kept of everyOf(value as Value<KeptTable | null>)) if (kept) matteId(kept.data);
      }
  }
}
const everyOf = <T>(value: Value<T>): T[] => ('still' in value ? [value.still] : value.keys.map((key) => key.value));

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
