import { shotIn, sourceSize, stockIn, withClipLine } from '../document/find';
import {
  groupOf,
  stockOf,
  type Layer,
  type Pass,
  type PassId,
  type Project,
  type Shot,
  type ShotId,
} from '../document/schema';
import type { CoveragePlan } from '../masks/coverage';
import type { Matrix } from '../picture/matrix';
import type { PictureOf } from '../params/define';
import { passOf } from '../passes/registry';
import { sourceOf } from '../sources/registry';
import { momentOf } from '../place/moment';
import type { Moment, Reduction } from '../time/moment';
import { STAMP_ROUNDING } from '../time/rate';
import { valueAt } from '../time/values';
import { hash } from '../base/hash';
import { isIdle, planPasses, type Others } from './passes';
import { layerMatrix, layerTilt } from '../place/projection';
import { planEnds } from './ends';
import { planDrawn, planStock, sourceName, sourceSeconds } from './sources';
import { planTrail, reduced, reducedOrNull, facesAway } from './placing';
import type { AlonePlan, CompositePlan, FramePlan, LayerPlan, PassPlan, Size, SourcePlan, Tables } from './types';

export interface PlanOptions {
  reduction?: Reduction;
  /** leave out this pass, for before and after */
  without?: PassId | undefined;
  /** at a smaller scale: passes that read their picture's own pixels, as keys do, get them, and what they give is made smaller */
  finer?: boolean | undefined;
}

/** @param frame shot frame @throws JackplaneError not-found */
export function planFrame(project: Project, shotId: ShotId, frame: number, options: PlanOptions = {}): FramePlan {
  const tables: Tables = { mattes: {}, lines: {}, shots: {} };
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
  within: Partial<Planned> = {},
): CompositePlan {
  const reduction = options.reduction ?? 1;
  const known: Planned = {
    ...within,
    layers: new Map(),
    tables,
    without: options.without,
    finer: options.finer,
    depth,
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
  finer?: boolean | undefined;
  depth: number;
  /** lines end before this pass, which asks for other moments of them */
  until?: PassId;
  /** how many passes that ask for other moments it lies in */
  moments?: number;
  /** how many layers that show each other it lies in, and what was planned of them: where many show many, each is planned once */
  pictures?: number;
  pictured?: Map<string, string | null>;
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

/** One layer's plan by itself, or null when it has no picture of its own (sound, adjustments). */
export function planLayer(
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction,
): AlonePlan | null {
  const tables: Tables = { mattes: {}, lines: {}, shots: {} };
  const known: Planned = { layers: new Map(), tables, without: undefined, depth: 0, pictured: new Map() };
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
  const moment = momentOf(project, shot, withClipLine(project, layer), frame, reduction);
  const made = full && planned(moment, full, known);
  known.layers.set(layer.id, made);
  return made;
}

function planned(moment: Moment, full: Size, known: Planned): LayerPlan {
  const { layer, reduction } = moment;
  const size = { w: Math.ceil(full.w / reduction), h: Math.ceil(full.h / reduction) };
  const until = layer.passes.findIndex((pass) => pass.id === known.until);
  const whole = layer.passes.slice(0, until < 0 ? undefined : until).filter((pass) => pass.id !== known.without);
  const fine = planFiner(moment, full, whole, known);
  const source = fine?.source ?? planSource(moment, size, known);
  const line = fine ? whole.filter((pass) => !fine.done.includes(pass)) : whole;
  const sourceKey = hash(JSON.stringify([sourceName(source), size, reduction]));
  const below = source.kind === 'below';
  // what an adjustment layer shows lies in the shot already, and where its Mask passes say it works
  const limits = below ? line.filter((pass) => pass.type === 'mask' && pass.on) : [];
  const cover = planPasses(moment, limits, size, '').flatMap((pass) => coveragesIn(pass));
  const before = line.filter((pass) => (below ? !limits.includes(pass) : pass.space === 'layer'));
  const others: Others = {
    moment: (pass, frames) => planMoment(moment, full, pass, frames, known),
    picture: (id, how) => planPicture(moment, id, how, known),
  };
  const passes = planPasses(moment, before, size, sourceKey, others);
  const key = passes.at(-1)?.key ?? sourceKey;
  // masks are drawn on the source, wherever it is placed
  const after = below
    ? []
    : planPasses(
        moment,
        line.filter((pass) => pass.space === 'shot'),
        size,
        key,
        others,
        shotSize(moment),
      );
  // what a pass asks for of other moments comes before these
  if (!below && until < 0) after.push(...planEnds(moment, shotSize(moment), after.at(-1)?.key ?? key));
  const placing = {
    matrix: below ? IDENTITY : reduced(layerMatrix(moment, full), reduction),
    tilt: below ? null : reducedOrNull(layerTilt(moment, full), reduction),
    trail: below ? [] : planTrail(moment, full),
    opacity: facesAway(moment, full) ? 0 : Math.min(1, Math.max(0, valueAt(layer.opacity, moment))),
    blend: layer.blend,
    matte: planMatte(moment, known),
  };
  const drawn = hash(JSON.stringify([key, placing, after.filter((pass) => !isIdle(pass)), cover]));
  return { id: layer.id, name: layer.name, source, size, sourceKey, passes, key, ...placing, after, cover, drawn };
}

/** A picture with more pixels than this would take too much memory at full size only to be looked at small. */
const MOST_FINER = 9e6;

/** A layer's line up to the last pass that wants its picture's own pixels, at full size, as a source for the rest of it; null when there is none. */
function planFiner(
  moment: Moment,
  full: Size,
  line: readonly Pass[],
  known: Planned,
): { source: SourcePlan; done: readonly Pass[] } | null {
  const { reduction, layer } = moment;
  if (!known.finer || reduction === 1 || full.w * full.h > MOST_FINER || layer.source.type === 'adjustment')
    return null;
  const before = line.filter((pass) => pass.space === 'layer');
  const last = before.findLastIndex((pass) => pass.on && passOf(pass.type)?.fine);
  if (last < 0) return null;
  const done = before.slice(0, last + 1);
  const own = { ...moment, reduction: 1 as const, layer: { ...layer, passes: done, matte: null, ends: {} } };
  const plan = planned(own, full, { ...known, layers: new Map(), finer: false });
  known.tables.lines[plan.key] = plan;
  return { source: { kind: 'finer', key: plan.key }, done };
}

/** Most passes in each other whose further moments are looked at. */
const DEEPEST_MOMENTS = 3;

/** What a pass would get some frames from now: the line of its layer up to it; after Place that as it is drawn, and on an adjustment layer what lies below it. */
function planMoment(moment: Moment, full: Size, pass: PassId, frames: number, known: Planned): string | null {
  const { project, shot, layer, reduction } = moment;
  const frame = moment.frame + frames;
  const moments = (known.moments ?? 0) + 1;
  if (frame < 0 || frame >= layer.span.length || moments > DEEPEST_MOMENTS) return null;
  const there = { ...known, layers: new Map(), until: pass, moments };
  if (layer.source.type === 'adjustment') {
    const at = shot.layers.indexOf(layer);
    const below = shot.layers.map((item, i) => (i < at ? { ...item, shown: false } : item));
    return shotOf(
      planComposite(
        project,
        { ...shot, layers: below },
        Math.floor(frame) + layer.span.start,
        { reduction, without: known.without, finer: known.finer },
        known.tables,
        known.depth,
        there,
      ),
      known,
    );
  }
  const plan = planned({ ...moment, frame }, full, there);
  if (layer.passes.find((item) => item.id === pass)?.space !== 'shot') {
    known.tables.lines[plan.drawn] = plan;
    return plan.drawn;
  }
  return shotOf(alone(moment, plan), known);
}
/** A shot with nothing but a layer in it. */
const alone = (moment: Moment, plan: LayerPlan): CompositePlan => ({
  ...shotSizeOf(moment),
  reduction: moment.reduction,
  background: null,
  light: 'display',
  layers: [{ ...plan, blend: 'normal' }],
  key: `${plan.drawn} alone`,
});
function shotOf(plan: CompositePlan, { tables }: Planned): string {
  tables.shots[plan.key] = plan;
  return plan.key;
}
const shotSizeOf = (moment: Moment): { width: number; height: number } => {
  const { w, h } = shotSize(moment);
  return { width: w, height: h };
};

/** Most layers in each other whose pictures are looked at: in a circle they would never end. */
const DEEPEST_PICTURES = 4;

/** Another layer's picture before its Place, or as it lies in the shot; null where it is not there, or has none. */
function planPicture(moment: Moment, id: string, { at, placed }: PictureOf, known: Planned): string | null {
  const { project, shot, reduction } = moment;
  const other = shot.layers.find((item) => item.id === id);
  const pictures = (known.pictures ?? 0) + 1;
  if (!other || other.id === moment.layer.id || pictures > DEEPEST_PICTURES) return null;
  const { start, length } = other.span;
  const now = moment.frame + moment.layer.span.start;
  const frame = at === 'first' ? start : at === 'middle' ? start + (length >> 1) : now;
  if (frame < start || frame >= start + length) return null;
  const pictured = known.pictured ?? new Map<string, string | null>();
  const { until, moments, finer } = known;
  const name = JSON.stringify([shot.id, id, frame, placed, pictures, reduction, until, moments, finer]);
  const before = pictured.get(name);
  if (before !== undefined) return before;
  const within = { ...known, layers: new Map<string, LayerPlan | null>(), pictures, pictured };
  const plan = planLayerIn(project, shot, other, frame, reduction, within);
  const key = plan && plan.source.kind !== 'below' ? (placed ? alone(moment, plan).key : plan.key) : null;
  if (plan && key) {
    if (placed) known.tables.shots[key] = alone(moment, plan);
    else known.tables.lines[key] = plan;
  }
  pictured.set(name, key);
  return key;
}

const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];
/** The coverage by which a Mask pass cuts. */
const coveragesIn = (pass: PassPlan): CoveragePlan[] =>
  Object.values(pass.values).filter(
    (value): value is CoveragePlan => typeof value === 'object' && value !== null && 'masks' in value,
  );

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

function planSource(moment: Moment, size: Size, known: Planned): SourcePlan {
  const { source } = moment.layer;
  const declared = sourceOf(source.type);
  if (!declared) return { kind: 'unknown', type: source.type };
  if ('found' in declared && declared.found === 'below') return { kind: 'below' };
  if ('found' in declared && declared.found === 'shot') return planGroup(moment, known);
  if ('draw' in declared) return planDrawn(moment, declared, size, (id, how) => planPicture(moment, id, how, known));
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
    const plan = planComposite(
      project,
      inner,
      within,
      { reduction, finer: known.finer },
      known.tables,
      known.depth + 1,
    );
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
