import { shotIn } from '../document/find';
import type { Layer, Project, Shot, ShotId } from '../document/schema';
import { hash } from '../base/hash';
import { momentOf } from '../place/moment';
import type { Moment, Reduction } from '../time/moment';
import { valueAt } from '../time/values';
import { planLayerIn, planLine } from './layer';
import { planPasses } from './passes';
import { shotSize, type Planned, type PlanOptions, type Planner } from './planned';
import type { AlonePlan, FramePlan, LayerPlan, Tables } from './types';

/** @param frame shot frame @throws JackplaneError not-found */
export function planFrame(project: Project, shotId: ShotId, frame: number, options: PlanOptions = {}): FramePlan {
  const tables: Tables = { mattes: {}, lines: {}, shots: {} };
  return {
    ...planComposite(project, shotIn(project, shotId), frame, options, { how: HOW, tables, depth: 0 }),
    ...tables,
  };
}

const planComposite: Planner['composite'] = (project, shot, frame, options, within) => {
  const reduction = options.reduction ?? 1;
  const known: Planned = {
    ...within,
    layers: new Map(),
    without: options.without,
    finer: options.finer,
    pictured: within.pictured ?? new Map(),
  };
  const shown = visibleLayers(shot, frame);
  const naming = shown.filter((layer) => namedBy(layer).length > 0);
  const layers = shown
    .filter((layer) => !naming.includes(layer))
    .map((layer) => planLayerIn(project, shot, layer, frame, reduction, known))
    .filter((plan) => plan !== null)
    .map((plan) => withAdjustments(plan, naming, (layer) => momentOf(project, shot, layer, frame, reduction)))
    .reverse();
  const size = shotSize({ shot, reduction });
  const plan = {
    width: size.w,
    height: size.h,
    reduction,
    background: shot.background,
    light: shot.light,
    layers,
  };
  return {
    ...plan,
    key: hash(
      JSON.stringify([plan.width, plan.height, plan.background, plan.light, layers.map((layer) => layer.drawn)]),
    ),
  };
};

const HOW: Planner = { composite: planComposite, layer: planLayerIn, line: planLine };

/** The layers that an adjustment layer works on by name. */
const namedBy = ({ source }: Layer): readonly string[] =>
  source.type === 'adjustment' ? (source.values as { layers: { still: string[] } }).layers.still : [];

/** A layer's plan with the passes of the adjustment layers that name it, the lowest of them first. */
function withAdjustments(plan: LayerPlan, naming: readonly Layer[], at: (layer: Layer) => Moment): LayerPlan {
  const adding = naming.filter((layer) => namedBy(layer).includes(plan.id)).reverse();
  if (!adding.length) return plan;
  const after = adding.flatMap((layer) => {
    const moment = at(layer);
    const amount = Math.min(1, Math.max(0, valueAt(layer.opacity, moment)));
    const size = shotSize(moment);
    return planPasses(moment, layer.passes, size, plan.key).map((pass) => ({ ...pass, amount }));
  });
  return { ...plan, after: [...plan.after, ...after], drawn: hash(JSON.stringify([plan.drawn, after])) };
}
/** Layers that show at a frame, top first: shown ones, or only the solo ones when there are any. */
export function visibleLayers(shot: Shot, frame: number): Layer[] {
  const solo = shot.layers.some((layer) => layer.solo);
  return shot.layers.filter((layer) => {
    const local = frame - layer.span.start;
    return layer.shown && (!solo || layer.solo) && local >= 0 && local < layer.span.length;
  });
}

/** One layer's plan by itself, or null when it has no picture of its own (sound, adjustments). */
export function planLayer(
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction,
): AlonePlan | null {
  const tables: Tables = { mattes: {}, lines: {}, shots: {} };
  const known: Planned = { how: HOW, layers: new Map(), tables, without: undefined, depth: 0, pictured: new Map() };
  const plan = planLayerIn(project, shot, layer, frame, reduction, known);
  return plan && plan.source.kind !== 'below' ? { ...plan, tables } : null;
}
