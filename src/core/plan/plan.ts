import type { MaskId } from '../document/mask';
import type { CoveragePlan } from '../masks/coverage';
import { carriedBy, placeMatrix, tiltMatrix } from '../document/place';
import { shotIn, sourceSize, stockIn } from '../document/find';
import {
  stockOf,
  type Layer,
  type PassId,
  type Project,
  type Shot,
  type ShotId,
  type Stock,
  type StockId,
} from '../document/schema';
import type { Value } from '../document/value';
import type { ResolveTools } from '../params/define';
import { resolved, type Params, type PlainValues } from '../params/registry';
import { passOf } from '../passes/registry';
import { sourceOf } from '../sources/registry';
import type { BlendMode } from '../picture/blend';
import {
  multiply,
  projective,
  projectiveInverse,
  projectiveProduct,
  scaling,
  type Matrix,
  type Projective,
} from '../picture/matrix';
import { momentOf, type Moment, type Reduction } from '../time/moment';
import { frameAt, secondsAt, STAMP_ROUNDING } from '../time/rate';
import { sourceFrameAt } from '../time/speed';
import { valueAt } from '../time/values';
import { hash } from './hash';
import { planCoverage } from './masks';

export type { Reduction };
interface Size {
  w: number;
  h: number;
}

export type SourcePlan =
  | {
      kind: 'stock';
      stock: StockId;
      name: string;
      seconds: number;
      /** tells files apart that were linked to the same stock */
      file: string;
      /** the frame after it, and how far on the way to it this moment is */
      next?: { seconds: number; share: number; how: 'blend' | 'flow' };
    }
  /** computed from its values by its declaration */
  | { kind: 'drawn'; type: string; values: PlainValues }
  /** of a type that this version does not know */
  | { kind: 'unknown'; type: string };

export interface PassPlan {
  id: PassId;
  type: string;
  values: PlainValues;
  /** the pass works only here */
  area: CoveragePlan | null;
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
  /** the same in perspective, when the layer is tilted out of the picture plane */
  tilt: Projective | null;
  /** where it is at moments while the shutter is open, when it has motion blur and moves */
  trail: readonly Projective[];
  opacity: number;
  blend: BlendMode;
  /** light of the layers below over its edge, pixels at the plan's scale; only within an area, if it has one */
  wrap: { reach: number; strength: number; area: CoveragePlan | null } | null;
  /** what gives it its coverage, among the mattes of the frame's plan */
  matte: { key: string; by: 'alpha' | 'brightness'; invert: boolean } | null;
  /** names all that says how its picture comes into the shot, by content */
  drawn: string;
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
  /** layers that give others their coverage, by the name of what they draw; flat, however long a chain of them is */
  mattes: Record<string, LayerPlan>;
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
  const planned: Planned = { layers: new Map(), mattes: {} };
  const layers = visibleLayers(shot, frame)
    .map((layer) => planLayer(project, shot, layer, frame, reduction, options.without, planned))
    .filter((plan) => plan !== null)
    .reverse();
  const plan = {
    width: Math.ceil(shot.width / reduction),
    height: Math.ceil(shot.height / reduction),
    reduction,
    background: shot.background,
    light: shot.light,
    layers,
    mattes: planned.mattes,
  };
  return {
    ...plan,
    key: hash(
      JSON.stringify([plan.width, plan.height, plan.background, plan.light, layers.map((layer) => layer.drawn)]),
    ),
  };
}

/** What is planned already: a layer that gives its matte to others is planned once. */
interface Planned {
  layers: Map<string, LayerPlan | null>;
  mattes: Record<string, LayerPlan>;
}

/** Layers that show at a frame, top first: shown ones, or only the solo ones when there are any. */
export function visibleLayers(shot: Shot, frame: number): Layer[] {
  const solo = shot.layers.some((layer) => layer.solo);
  return shot.layers.filter((layer) => {
    const local = frame - layer.span.start;
    return layer.shown && (!solo || layer.solo) && local >= 0 && local < layer.span.length;
  });
}

/** Shot pixels → pixels of a layer's picture, both at the plan's scale; null when the layer is seen from its edge. */
export const intoPicture = ({ tilt, matrix }: LayerPlan): Projective | null =>
  projectiveInverse(tilt ?? projective(matrix));

/** One layer's plan, or null when it has no picture (sound). */
export function planLayer(
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction,
  without?: PassId,
  planned: Planned = { layers: new Map(), mattes: {} },
): LayerPlan | null {
  const known = planned.layers.get(layer.id);
  if (known !== undefined) return known;
  const made = plannedLayer(project, shot, layer, frame, reduction, without, planned);
  planned.layers.set(layer.id, made);
  return made;
}

function plannedLayer(
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction,
  without: PassId | undefined,
  planned: Planned,
): LayerPlan | null {
  const full = sourceSize(project, shot, layer);
  if (!full) return null;
  const moment = momentOf(project, shot, layer, frame, reduction);
  const size = { w: Math.ceil(full.w / reduction), h: Math.ceil(full.h / reduction) };
  const source = planSource(moment, size);
  const sourceKey = hash(JSON.stringify([sourceName(source), size, reduction]));
  let key = sourceKey;
  const tools = resolveTools(moment, size);
  const passes = layer.passes
    .filter((pass) => pass.on && pass.id !== without && passOf(pass.type))
    .map((pass) => {
      const declared = passOf(pass.type)!;
      const resolved = valuesOf(declared.params, pass.values, tools);
      const values =
        'moment' in declared && declared.moment
          ? { ...resolved, ...declared.moment(resolved as never, moment.frame) }
          : resolved;
      const limits = pass.area && tools.coverage(pass.area.masks, 'none');
      // an area is one as soon as something is drawn in it
      const area = limits?.masks.length ? { ...limits, side: pass.area!.side } : null;
      if (!declared.idle?.(values as never)) key = hash(`${key} ${pass.type} ${JSON.stringify([values, area])}`);
      return { id: pass.id, type: pass.type, values, area, key };
    });
  const matrix = reduced(layerMatrix(moment, full), reduction);
  const tilted = layerTilt(moment, full);
  const opacity = Math.min(1, Math.max(0, valueAt(layer.opacity, moment)));
  const tilt = tilted && reducedTilt(tilted, reduction);
  const trail = planTrail(moment, full);
  const wrap = planWrap(passes);
  const matte = planMatte(project, shot, layer, frame, reduction, planned);
  const { blend } = layer;
  const drawn = hash(JSON.stringify([key, matrix, tilt, trail, opacity, blend, wrap, matte]));
  return {
    id: layer.id,
    name: layer.name,
    source,
    size,
    sourceKey,
    passes,
    key,
    matrix,
    tilt,
    trail,
    opacity,
    blend,
    wrap,
    matte,
    drawn,
  };
}

/** A layer's plan up to what comes into one of its passes, at full size. */
export function planBefore(project: Project, shot: Shot, layer: Layer, pass: PassId, frame: number): LayerPlan | null {
  return planLayer(
    project,
    shot,
    {
      ...layer,
      passes: layer.passes.slice(
        0,
        layer.passes.findIndex((item) => item.id === pass),
      ),
    },
    frame,
    1,
  );
}

/** Values of the last light wrap among passes. */
function planWrap(passes: readonly PassPlan[]): LayerPlan['wrap'] {
  const last = passes.findLast((pass) => pass.type === 'light-wrap');
  const values = last?.values as { reach: number; strength: number } | undefined;
  return values && values.reach > 0 && values.strength > 0
    ? { reach: values.reach, strength: values.strength, area: last!.area }
    : null;
}

/** The matte layer's plan; outside of its own time it covers nothing. */
function planMatte(
  project: Project,
  shot: Shot,
  { matte }: Layer,
  frame: number,
  reduction: Reduction,
  planned: Planned,
): LayerPlan['matte'] {
  const giver = matte && shot.layers.find((item) => item.id === matte.layer);
  const plan = giver && planLayer(project, shot, giver, frame, reduction, undefined, planned);
  if (!plan) return null;
  const there = frame >= giver.span.start && frame < giver.span.start + giver.span.length;
  const key = there ? plan.drawn : `${plan.drawn} not there`;
  planned.mattes[key] = there ? plan : { ...plan, opacity: 0, drawn: key };
  return { key, by: matte.by, invert: matte.invert };
}

const reducedTilt = (m: Projective, by: number): Projective =>
  projectiveProduct(projective(scaling(1 / by, 1 / by)), projectiveProduct(m, projective(scaling(by, by))));
const reduced = (m: Matrix, by: number): Matrix => multiply(scaling(1 / by, 1 / by), multiply(m, scaling(by, by)));

/** Source pixels → shot pixels of a layer at a moment, with all that it follows; without its tilt. */
export function layerMatrix(moment: Moment, source: Size): Matrix {
  const own = placeMatrix(moment, source);
  return moment.layer.parent ? multiply(carriedBy(moment), own) : own;
}

function layerTilt(moment: Moment, source: Size): Projective | null {
  const own = tiltMatrix(moment, source);
  return own && moment.layer.parent ? projectiveProduct(projective(carriedBy(moment)), own) : own;
}

/** Source pixels → shot pixels of a layer at a moment, its tilt included. */
export const layerProjection = (moment: Moment, source: Size): Projective =>
  layerTilt(moment, source) ?? projective(layerMatrix(moment, source));

/** Most samples of motion blur in a reduced preview; a render takes them all. */
const PREVIEW_SAMPLES = 8;

function planTrail(moment: Moment, source: Size): Projective[] {
  const { layer, reduction } = moment;
  const blur = layer.motionBlur;
  if (!blur || blur.shutter <= 0) return [];
  const samples = reduction === 1 ? blur.samples : Math.min(blur.samples, PREVIEW_SAMPLES);
  const moments = Array.from({ length: samples }, (_, i) => {
    const frame = moment.frame + ((i + 0.5) / samples - 0.5) * blur.shutter;
    return reducedTilt(layerProjection({ ...moment, frame }, source), reduction);
  });
  const still = moments.every((at) => at.every((v, i) => Math.abs(v - moments[0]![i]!) < 1e-9));
  return still ? [] : moments;
}

/** What a source's picture depends on. */
const sourceName = (source: SourcePlan): unknown =>
  source.kind === 'stock' ? [source.stock, source.file, source.seconds, source.next] : [source.type, source];

function planSource(moment: Moment, size: Size): SourcePlan {
  const { source } = moment.layer;
  const declared = sourceOf(source.type);
  if (!declared) return { kind: 'unknown', type: source.type };
  if ('draw' in declared)
    return {
      kind: 'drawn',
      type: source.type,
      values: valuesOf(declared.params, source.values, resolveTools(moment, size)),
    };
  return planStock(moment, stockIn(moment.project, stockOf(moment.layer)!));
}

function planStock({ shot, layer, frame }: Moment, item: Stock): SourcePlan {
  const base = {
    kind: 'stock' as const,
    stock: item.id,
    name: item.name,
    file: `${item.file} ${item.facts.bytes}`,
  };
  if (item.kind === 'image') return { ...base, seconds: STAMP_ROUNDING };
  const rate = item.facts.rate && item.facts.rate !== 'variable' ? item.facts.rate : shot.rate;
  const last = Math.max(0, (item.facts.seconds ?? Infinity) - secondsAt(1, rate));
  const seconds = Math.min(last, Math.max(0, sourceSeconds(shot, layer, frame)));
  const { between } = layer.time;
  const first = frameAt(seconds, rate);
  const share = (seconds * rate.num) / rate.den - first;
  if (between === 'nearest' || share < 0.001 || seconds >= last) return { ...base, seconds: seconds + STAMP_ROUNDING };
  const next = { seconds: secondsAt(first + 1, rate) + STAMP_ROUNDING, share, how: between };
  return { ...base, seconds: secondsAt(first, rate) + STAMP_ROUNDING, next };
}

/** Source time in seconds at a layer frame. */
export function sourceSeconds(shot: Shot, layer: Layer, local: number): number {
  return secondsAt(sourceFrameAt(layer.time, local), shot.rate);
}

/** @param size of the picture that the values work on, at the plan's scale */
const resolveTools = (moment: Moment, size: Size): ResolveTools => ({
  moment,
  size,
  coverage: (ids, empty) =>
    planCoverage(
      moment,
      ids.length || empty === 'none' ? (ids as MaskId[]) : moment.layer.masks.map((mask) => mask.id),
      size,
    ),
});

const valuesOf = (params: Params, values: Readonly<Record<string, Value<unknown>>>, tools: ResolveTools): PlainValues =>
  Object.fromEntries(
    Object.entries(params).map(([name, param]) => [name, resolved(param, valueAt(values[name]!, tools.moment), tools)]),
  );
