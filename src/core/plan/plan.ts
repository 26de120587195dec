import type { MaskId } from '../document/mask';
import type { CoveragePlan } from '../masks/coverage';
import { carriedBy, placeMatrix, tiltMatrix } from '../document/place';
import { shotIn, sourceSize, stockIn } from '../document/find';
import {
  groupOf,
  stockOf,
  type Layer,
  type Pass,
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
  /** another shot at a moment, among the shots of the frame's plan; between two of its frames, both */
  | { kind: 'shot'; key: string; next?: { key: string; share: number } }
  /** the composite of the layers below */
  | { kind: 'below' }
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
  /** how strongly it works, 0…1, when it comes from an adjustment layer; then its masks lie in the shot */
  amount?: number;
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
  /** passes that work on the placed picture, in the shot's pixels */
  after: PassPlan[];
  /** of an adjustment layer: where it works; everywhere when there are none */
  cover: CoveragePlan[];
  /** what gives it its coverage, among the mattes of the frame's plan */
  matte: { key: string; by: 'alpha' | 'brightness'; invert: boolean } | null;
  /** names all that says how its picture comes into the shot, by content */
  drawn: string;
}

/** The layers of a shot at a frame, as plain data. */
export interface CompositePlan {
  width: number;
  height: number;
  reduction: Reduction;
  background: readonly [number, number, number] | null;
  light: 'display' | 'linear';
  /** bottom layer first */
  layers: LayerPlan[];
  key: string;
}
/** What layers refer to by name; flat, however long chains of them are. */
export interface Tables {
  /** layers that give others their coverage, by the name of what they draw */
  mattes: Record<string, LayerPlan>;
  /** shots that layers show, by their keys */
  shots: Record<string, CompositePlan>;
}
/** All that is needed to compute a frame. The same document, frame and scale give the same plan. */
export interface FramePlan extends CompositePlan, Tables {}
/** All that is needed to compute a layer by itself. */
export interface AlonePlan extends LayerPlan {
  tables: Tables;
}

export interface PlanOptions {
  reduction?: Reduction;
  /** leave out this pass, for before and after */
  without?: PassId | undefined;
}

/** @param frame shot frame @throws JackplaneError not-found */
export function planFrame(project: Project, shotId: ShotId, frame: number, options: PlanOptions = {}): FramePlan {
  const tables: Tables = { mattes: {}, shots: {} };
  return { ...planComposite(project, shotIn(project, shotId), frame, options, tables, 0), ...tables };
}

/** @param depth how many groups it lies in */
function planComposite(
  project: Project,
  shot: Shot,
  frame: number,
  options: PlanOptions,
  tables: Tables,
  depth: number,
): CompositePlan {
  const reduction = options.reduction ?? 1;
  const known: Planned = { layers: new Map(), tables, without: options.without, depth };
  const shown = visibleLayers(shot, frame);
  const naming = shown.filter((layer) => namedBy(layer).length > 0);
  const layers = shown
    .filter((layer) => !naming.includes(layer))
    .map((layer) => planLayerIn(project, shot, layer, frame, reduction, known))
    .filter((plan) => plan !== null)
    .map((plan) => withAdjustments(plan, naming, (layer) => momentOf(project, shot, layer, frame, reduction)))
    .reverse();
  const plan = {
    width: Math.ceil(shot.width / reduction),
    height: Math.ceil(shot.height / reduction),
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
}

/** What is planned already, and what it is planned with. */
interface Planned {
  /** a layer that gives its matte to others is planned once */
  layers: Map<string, LayerPlan | null>;
  tables: Tables;
  without: PassId | undefined;
  depth: number;
}

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
const shotSize = ({ shot, reduction }: Moment): Size => ({
  w: Math.ceil(shot.width / reduction),
  h: Math.ceil(shot.height / reduction),
});

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

/** One layer's plan by itself, or null when it has no picture of its own (sound, adjustments). */
export function planLayer(
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction,
): AlonePlan | null {
  const tables: Tables = { mattes: {}, shots: {} };
  const known: Planned = { layers: new Map(), tables, without: undefined, depth: 0 };
  const plan = planLayerIn(project, shot, layer, frame, reduction, known);
  return plan && plan.source.kind !== 'below' ? { ...plan, tables } : null;
}

function planLayerIn(
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction,
  known: Planned,
): LayerPlan | null {
  const before = known.layers.get(layer.id);
  if (before !== undefined) return before;
  const full = sourceSize(project, shot, layer);
  const moment = momentOf(project, shot, layer, frame, reduction);
  const made = full && planned(moment, full, known);
  known.layers.set(layer.id, made);
  return made;
}

/** The passes of one space that are on, resolved. @param size of the picture that they work on @param key of the picture before them */
function planPasses(moment: Moment, passes: readonly Pass[], size: Size, key: string): PassPlan[] {
  const tools = resolveTools(moment, size);
  return passes.flatMap((pass) => {
    const declared = pass.on ? passOf(pass.type) : undefined;
    if (!declared) return [];
    const resolved = valuesOf(declared.params, pass.values, tools);
    const values =
      'moment' in declared && declared.moment
        ? { ...resolved, ...declared.moment(resolved as never, moment.frame) }
        : resolved;
    const limits = pass.area && tools.coverage(pass.area.masks, 'none');
    // an area is one as soon as something is drawn in it
    const area = limits?.masks.length ? { ...limits, side: pass.area!.side } : null;
    if (!declared.idle?.(values as never)) key = hash(`${key} ${pass.type} ${JSON.stringify([values, area])}`);
    return [{ id: pass.id, type: pass.type, values, area, key }];
  });
}

function planned(moment: Moment, full: Size, known: Planned): LayerPlan {
  const { layer, reduction } = moment;
  const size = { w: Math.ceil(full.w / reduction), h: Math.ceil(full.h / reduction) };
  const source = planSource(moment, size, known);
  const sourceKey = hash(JSON.stringify([sourceName(source), size, reduction]));
  const line = layer.passes.filter((pass) => pass.id !== known.without);
  const below = source.kind === 'below';
  // what an adjustment layer shows lies in the shot already, and where its Mask passes say it works
  const limits = below ? line.filter((pass) => pass.type === 'mask' && pass.on) : [];
  const cover = planPasses(moment, limits, size, '').flatMap((pass) => coveragesIn(pass));
  const before = line.filter((pass) => (below ? !limits.includes(pass) : pass.space === 'layer'));
  const passes = planPasses(moment, before, size, sourceKey);
  const key = passes.at(-1)?.key ?? sourceKey;
  // masks are drawn on the source, wherever it is placed
  const after = below
    ? []
    : planPasses(
        moment,
        line.filter((pass) => pass.space === 'shot'),
        size,
        key,
      );
  const placing = {
    matrix: below ? IDENTITY : reduced(layerMatrix(moment, full), reduction),
    tilt: below ? null : reducedOrNull(layerTilt(moment, full), reduction),
    trail: below ? [] : planTrail(moment, full),
    opacity: Math.min(1, Math.max(0, valueAt(layer.opacity, moment))),
    blend: layer.blend,
    matte: planMatte(moment, known),
  };
  const drawn = hash(JSON.stringify([key, placing, after.filter((pass) => !isIdle(pass)), cover]));
  return { id: layer.id, name: layer.name, source, size, sourceKey, passes, key, ...placing, after, cover, drawn };
}

const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];
const reducedOrNull = (m: Projective | null, by: number): Projective | null => m && reducedTilt(m, by);
const isIdle = (pass: PassPlan): boolean => passOf(pass.type)!.idle?.(pass.values as never) ?? false;
/** The coverage by which a Mask pass cuts. */
const coveragesIn = (pass: PassPlan): CoveragePlan[] =>
  Object.values(pass.values).filter(
    (value): value is CoveragePlan => typeof value === 'object' && value !== null && 'masks' in value,
  );

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

/** The matte layer's plan goes to the table; outside of its own time it covers nothing. */
function planMatte(moment: Moment, known: Planned): LayerPlan['matte'] {
  const { project, shot, reduction } = moment;
  const { matte } = moment.layer;
  const giver = matte && shot.layers.find((item) => item.id === matte.layer);
  const frame = moment.frame + moment.layer.span.start;
  const plan = giver && planLayerIn(project, shot, giver, frame, reduction, known);
  if (!plan || plan.source.kind === 'below') return null;
  const there = frame >= giver.span.start && frame < giver.span.start + giver.span.length;
  const key = there ? plan.drawn : `${plan.drawn} not there`;
  known.tables.mattes[key] = there ? plan : { ...plan, opacity: 0, drawn: key };
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
  source.kind === 'stock' ? [source.stock, source.file, source.seconds, source.next] : source;

function planSource(moment: Moment, size: Size, known: Planned): SourcePlan {
  const { source } = moment.layer;
  const declared = sourceOf(source.type);
  if (!declared) return { kind: 'unknown', type: source.type };
  if ('found' in declared && declared.found === 'below') return { kind: 'below' };
  if ('found' in declared && declared.found === 'shot') return planGroup(moment, known);
  if ('draw' in declared)
    return {
      kind: 'drawn',
      type: source.type,
      values: valuesOf(declared.params, source.values, resolveTools(moment, size)),
    };
  return planStock(moment, stockIn(moment.project, stockOf(moment.layer)!));
}

/** Most groups in each other that are looked into. */
const DEEPEST = 40;

function planGroup(moment: Moment, known: Planned): SourcePlan {
  const { project, layer, shot, reduction } = moment;
  const inner = project.shots.find((item) => item.id === groupOf(layer));
  if (!inner || known.depth >= DEEPEST) return { kind: 'unknown', type: 'group' };
  const at = (frame: number): string => {
    const within = Math.min(inner.length - 1, Math.max(0, frame));
    const plan = planComposite(project, inner, within, { reduction }, known.tables, known.depth + 1);
    known.tables.shots[plan.key] = plan;
    return plan.key;
  };
  const { num, den } = inner.rate;
  const place = (sourceSeconds(shot, layer, moment.frame) * num) / den + STAMP_ROUNDING;
  const first = Math.floor(place);
  const share = place - first;
  if (layer.time.between === 'nearest' || share < 0.001) return { kind: 'shot', key: at(first) };
  return { kind: 'shot', key: at(first), next: { key: at(first + 1), share } };
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
