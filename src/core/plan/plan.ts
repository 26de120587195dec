import { placeMatrix } from '../document/place';
import { shotIn, sourceSize } from '../document/find';
import type { Layer, Pass, PassId, Project, Shot, ShotId, StockId } from '../document/schema';
import type { Value } from '../document/value';
import { passOf } from '../passes/registry';
import type { AnyPass, PlainValues } from '../passes/define';
import type { BlendMode } from '../picture/blend';
import { multiply, scaling, type Matrix } from '../picture/matrix';
import { secondsAt } from '../time/rate';
import { valueAt } from '../time/values';
import { hash } from './hash';

/** Preview scales: 1, ½ or ¼, as the whole factor by which pictures are reduced. */
export type Reduction = 1 | 2 | 4;

export type SourcePlan =
  | { kind: 'stock'; stock: StockId; name: string; seconds: number; /** tells files apart that were linked to the same stock */ file: string }
  | { kind: 'colour'; colour: readonly [number, number, number] };

export interface PassPlan {
  id: PassId;
  type: string;
  values: PlainValues;
  /** names the picture after this pass by content */
  key: string;
}

export interface LayerPlan {
  id: string;
  name: string;
  source: SourcePlan;
  /** source size in pixels at the plan's scale */
  size: { w: number; h: number };
  sourceKey: string;
  passes: PassPlan[];
  /** names the processed picture by content */
  key: string;
  /** processed picture → shot, both at the plan's scale */
  matrix: Matrix;
  opacity: number;
  blend: BlendMode;
}

/** All that is needed to compute a frame, as plain data. The same document, frame and scale give the same plan. */
export interface FramePlan {
  width: number;
  height: number;
  reduction: Reduction;
  background: readonly [number, number, number] | null;
  light: 'display' | 'linear';
  /** bottom layer first */
  layers: LayerPlan[];
  key: string;
}

export interface PlanOptions {
  reduction?: Reduction;
  /** leave out this pass, for before and after */
  without?: PassId | undefined;
}

/** @param frame shot frame @throws JackplaneError not-found */
export function planFrame(project: Project, shotId: ShotId, frame: number, options: PlanOptions = {}): FramePlan {
  const shot = shotIn(project, shotId);
  const reduction = options.reduction ?? 1;
  const layers = visibleLayers(shot, frame)
    .map((layer) => planLayer(project, shot, layer, frame, reduction, options.without))
    .filter((plan) => plan !== null)
    .reverse();
  const plan = {
    width: Math.ceil(shot.width / reduction),
    height: Math.ceil(shot.height / reduction),
    reduction,
    background: shot.background,
    light: shot.light,
    layers,
  };
  const parts = layers.map((layer) => [layer.key, layer.matrix, layer.opacity, layer.blend]);
  return { ...plan, key: hash(JSON.stringify([plan.width, plan.height, plan.background, plan.light, parts])) };
}

/** Layers that show at a frame, top first: shown ones, or only the solo ones when there are any. */
export function visibleLayers(shot: Shot, frame: number): Layer[] {
  const solo = shot.layers.some((layer) => layer.solo);
  return shot.layers.filter((layer) => {
    const local = frame - layer.span.start;
    return layer.shown && (!solo || layer.solo) && local >= 0 && local < layer.span.length;
  });
}

/** One layer's plan, or null when it has no picture (sound). */
export function planLayer(project: Project, shot: Shot, layer: Layer, frame: number, reduction: Reduction, without?: PassId): LayerPlan | null {
  const full = sourceSize(project, layer);
  if (!full) return null;
  const local = frame - layer.span.start;
  const size = { w: Math.ceil(full.w / reduction), h: Math.ceil(full.h / reduction) };
  const source = planSource(project, shot, layer, local);
  const sourceKey = hash(JSON.stringify([source.kind === 'stock' ? [source.stock, source.file, source.seconds] : source.colour, size, reduction]));
  let key = sourceKey;
  const passes = layer.passes
    .filter((pass) => pass.on && pass.id !== without)
    .map((pass) => {
      const declared = passOf(pass.type)!;
      const values = planValues(pass, declared, local, reduction);
      if (!declared.idle?.(values as never)) key = hash(`${key} ${pass.type} ${JSON.stringify(values)}`);
      return { id: pass.id, type: pass.type, values, key };
    });
  const whole = placeMatrix(layer.place, local, full, { w: shot.width, h: shot.height });
  const matrix = multiply(scaling(1 / reduction, 1 / reduction), multiply(whole, scaling(reduction, reduction)));
  const opacity = valueAt(layer.opacity, local);
  return { id: layer.id, name: layer.name, source, size, sourceKey, passes, key, matrix, opacity, blend: layer.blend };
}

/** How far into the next frame a source is looked up, in seconds: containers round time stamps to whole milliseconds. */
const STAMP_ROUNDING = 0.001;

function planSource(project: Project, shot: Shot, layer: Layer, local: number): SourcePlan {
  const { source } = layer;
  if (source.kind === 'colour') return { kind: 'colour', colour: valueAt(source.colour, local) };
  const item = project.stock.find((entry) => entry.id === source.stock)!;
  const seconds = item.kind === 'image' ? 0 : sourceSeconds(shot, layer, local) + STAMP_ROUNDING;
  return { kind: 'stock', stock: source.stock, name: item.name, seconds: Math.max(0, seconds), file: `${item.file} ${item.facts.bytes}` };
}

/** Source time in seconds at a layer frame. */
export function sourceSeconds(shot: Shot, layer: Layer, local: number): number {
  return secondsAt(layer.time.offset + local * valueAt(layer.time.speed, local), shot.rate);
}

function planValues(pass: Pass, declared: AnyPass, local: number, reduction: Reduction): PlainValues {
  const out: PlainValues = {};
  for (const [name, param] of Object.entries(declared.params)) {
    const value = valueAt(pass.values[name] as Value<number | string>, local);
    out[name] = param.kind === 'number' && param.unit === 'px' ? (value as number) / reduction : value;
  }
  return out;
}
