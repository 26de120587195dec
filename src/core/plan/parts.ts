// A frame of which only a part is looked at: what does not count there is neither computed nor drawn.
import { stepOf } from '../transitions/registry';
import { placedBounds } from '../picture/bounds';
import { projective, projectiveInverse, project } from '../picture/matrix';
import { grow, intersect, isEmpty, union, type Rect } from '../picture/rect';
import { hash } from '../base/hash';
import { isIdle, joins } from './passes';
import type { FramePlan, LayerPlan, PassPlan } from './types';

/** Parts of layers begin and end at multiples of this, so that halving them for small drawings takes the same pixels together. */
const GRID = 64;
/** Pixels that drawing a picture small or turned reads around a pixel, in pixels of the drawing. */
const SAMPLING = 3;
/** A part that is larger than this share of the whole is not worth it. */
const MOST = 0.8;

const area = ({ w, h }: Rect): number => w * h;

/** Pixels around a pixel that a pass reads of the picture before it; Infinity when it may be any. */
export function reachOf(pass: PassPlan): number {
  // at another moment the layer may have been anywhere
  if (pass.moments) return Infinity;
  const declared = stepOf(pass.type)!;
  return !('run' in declared) || isIdle(pass) ? 0 : declared.reach(pass.values as never);
}
const reachOfAll = (passes: readonly PassPlan[]): number => passes.reduce((sum, pass) => sum + reachOf(pass), 0);
const needsBelow = (pass: PassPlan): boolean => !!stepOf(pass.type)!.needs?.includes('below');
/** How far passes after Place read of the layer that they work on; those that need what lies below see the shot alone. */
export const reachAfterPlace = (passes: readonly PassPlan[]): number =>
  reachOfAll(passes.filter((pass) => !needsBelow(pass)));

/** How far a layer reads of what lies below it. */
const reachBelow = (layer: LayerPlan): number =>
  reachOfAll(layer.source.kind === 'below' ? layer.passes : layer.after.filter(needsBelow));

/** @param seen what is looked at, pixels of the plan's scale @returns the plan as it is when most of it is needed */
export function planPart(plan: FramePlan, seen: Rect): FramePlan {
  const whole = { x: 0, y: 0, w: plan.width, h: plan.height };
  const wanted = intersect(seen, whole);
  const room = plan.layers.reduce((sum, layer) => sum + reachBelow(layer), 0);
  if (isEmpty(wanted) || !Number.isFinite(room)) return plan;
  const part = intersect(grow(wanted, room), whole);
  if (area(part) > MOST * area(whole)) return plan;
  const layers = plan.layers.map((layer) => partOfLayer(layer, part)).filter((layer) => layer !== null);
  return { ...plan, layers, part, seen: wanted, key: hash(JSON.stringify([plan.key, wanted])) };
}

/** What of a layer is needed for a part of its shot; null when nothing is. */
function partOfLayer(layer: LayerPlan, part: Rect): LayerPlan | null {
  if (layer.source.kind === 'below') return layer;
  const room = reachAfterPlace(layer.after);
  if (!Number.isFinite(room)) return layer;
  const needed = inPicture(layer, grow(part, room));
  if (!needed) return layer;
  const picture = { x: 0, y: 0, ...layer.size };
  // passes that read the whole picture, and keys that go together with them, stay whole
  let from = layer.passes.findLastIndex((pass) => !Number.isFinite(reachOf(pass))) + 1;
  while (joins(layer.passes[from])) from++;
  const rest = layer.passes.slice(from);
  // a pass may show what lies outside of the picture it gets: a blur, an outline
  if (isEmpty(intersect(needed, grow(picture, reachOfAll(layer.passes))))) return null;
  const rect = intersect(onGrid(grow(needed, reachOfAll(rest))), picture);
  if (isEmpty(rect)) return null;
  if (area(rect) > MOST * area(picture)) return layer;
  const named = (key: string): string => hash(JSON.stringify([key, rect]));
  return {
    ...layer,
    part: { rect, from },
    passes: [...layer.passes.slice(0, from), ...rest.map((pass) => ({ ...pass, key: named(pass.key) }))],
    key: named(layer.key),
    drawn: named(layer.drawn),
  };
}

/** The pixels of a layer's picture that are seen in a part of the shot; null when that cannot be said. */
function inPicture({ tilt, matrix, trail }: LayerPlan, part: Rect): Rect | null {
  let all: Rect | null = null;
  for (const map of trail.length ? trail : [tilt ?? projective(matrix)]) {
    const back = projectiveInverse(map);
    if (!back) return null;
    const bounds = placedBounds(back, grow(part, SAMPLING));
    // beyond the horizon of a tilted layer, or so small that halving it takes more together than the grid
    if (bounds.w > 1e5 || bounds.w > part.w * GRID || bounds.h > part.h * GRID) return null;
    const middle = project(back, part.x + part.w / 2, part.y + part.h / 2);
    if (middle[2] <= 0) return null;
    all = all ? union(all, bounds) : bounds;
  }
  return all;
}

function onGrid({ x, y, w, h }: Rect): Rect {
  const [left, top] = [Math.floor(x / GRID) * GRID, Math.floor(y / GRID) * GRID];
  return {
    x: left,
    y: top,
    w: Math.ceil((x + w) / GRID) * GRID - left,
    h: Math.ceil((y + h) / GRID) * GRID - top,
  };
}
