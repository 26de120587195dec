// Further pictures that a layer asks for: its own at other moments, and those of other layers.
import type { PassId } from '../document/schema';
import type { PictureOf } from '../params/define';
import type { Moment } from '../time/moment';
import { shotSize, type Planned } from './planned';
import type { CompositePlan, LayerPlan, Size } from './types';

/** Most passes in each other whose further moments are looked at. */
const DEEPEST_MOMENTS = 3;

/** What a pass would get some frames from now: the line of its layer up to it; after Place that as it is drawn, and on an adjustment layer what lies below it. */
export function planMoment(moment: Moment, full: Size, pass: PassId, frames: number, known: Planned): string | null {
  const { project, shot, layer, reduction } = moment;
  const frame = moment.frame + frames;
  const moments = (known.moments ?? 0) + 1;
  if (frame < 0 || frame >= layer.span.length || moments > DEEPEST_MOMENTS) return null;
  const there = { ...known, layers: new Map(), until: pass, moments };
  if (layer.source.type === 'adjustment') {
    const at = shot.layers.indexOf(layer);
    const below = shot.layers.map((item, i) => (i < at ? { ...item, shown: false } : item));
    return shotOf(
      known.how.composite(
        project,
        { ...shot, layers: below },
        Math.floor(frame) + layer.span.start,
        { reduction, without: known.without, finer: known.finer },
        there,
      ),
      known,
    );
  }
  const plan = known.how.line({ ...moment, frame }, full, there);
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
export function planPicture(moment: Moment, id: string, { at, placed }: PictureOf, known: Planned): string | null {
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
  const plan = known.how.layer(project, shot, other, frame, reduction, within);
  const key = plan && plan.source.kind !== 'below' ? (placed ? alone(moment, plan).key : plan.key) : null;
  if (plan && key) {
    if (placed) known.tables.shots[key] = alone(moment, plan);
    else known.tables.lines[key] = plan;
  }
  pictured.set(name, key);
  return key;
}
