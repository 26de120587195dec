// One layer at a moment: its source, its passes, and how it comes into its shot.
import { sourceSize, stockIn, withClipLine } from '../document/find';
import { stockOf, type Pass } from '../document/schema';
import { hash } from '../base/hash';
import type { CoveragePlan } from '../masks/coverage';
import { passOf } from '../passes/registry';
import type { Matrix } from '../picture/matrix';
import { momentOf } from '../place/moment';
import { layerMatrix, layerTilt } from '../place/projection';
import { sourceOf } from '../sources/registry';
import type { Moment } from '../time/moment';
import { valueAt } from '../time/values';
import { planEnds } from './ends';
import { planMoment, planPicture } from './further';
import { planGroup } from './group';
import { isIdle, planPasses, type Others } from './passes';
import { facesAway, planTrail, reduced, reducedOrNull } from './placing';
import { shotSize, type Planned, type Planner } from './planned';
import { planDrawn, planStock, sourceName } from './sources';
import type { LayerPlan, PassPlan, Size, SourcePlan } from './types';

/** Each layer is planned once in a frame. @returns null when it has no picture: sound */
export const planLayerIn: Planner['layer'] = (project, shot, layer, frame, reduction, known) => {
  const before = known.layers.get(layer.id);
  if (before !== undefined) return before;
  const full = sourceSize(project, shot, layer);
  const moment = momentOf(project, shot, withClipLine(project, layer), frame, reduction);
  const made = full && planLine(moment, full, known);
  known.layers.set(layer.id, made);
  return made;
};

/** @param full size of its source */
export function planLine(moment: Moment, full: Size, known: Planned): LayerPlan {
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
  const plan = planLine(own, full, { ...known, layers: new Map(), finer: false });
  known.tables.lines[plan.key] = plan;
  return { source: { kind: 'finer', key: plan.key }, done };
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
