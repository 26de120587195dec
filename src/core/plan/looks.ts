// Plans of what is looked at other than the shot as it is: a layer by itself, the shot without one, a line up to one of its passes.
import { newLayer, stockSource } from '../document/edits/layers';
import { clipLine, sourceSize, withShot } from '../document/find';
import {
  stockOf,
  type Layer,
  type LayerId,
  type Pass,
  type PassId,
  type Project,
  type Shot,
  type ShotId,
  type StockId,
} from '../document/schema';
import { passOf } from '../passes/registry';
import { planFrame, planLayer } from './plan';
import type { AlonePlan, FramePlan } from './types';
import type { Reduction } from '../time/moment';

/** What the picture is compared with: itself without the chosen pass, or without any grade of the chosen layer, or a still. */
export type Against = 'pass' | 'grade' | StockId;

/** What of a project is looked at, and how. */
export interface Viewed {
  project: Project;
  shot: ShotId;
  layer: LayerId | null;
  /** left out on the side before */
  pass: PassId | null;
  /** what the side before is otherwise: the layer without its grade, or a picture of the stock */
  against?: Against;
  view: 'picture' | 'matte' | 'relief' | 'compare' | 'alone';
  /** what the layer alone is seen on: a flat colour, the layers below, or nothing */
  ground: readonly [number, number, number] | 'below' | null;
  reduction: Reduction;
  /** as nothing moves: keys get their picture's own pixels */
  finer?: boolean;
}

/** The plan of a frame as a view shows it; null when the shot is gone. @param side before the chosen pass (or all passes, when the layer is judged by itself), or after */
export function viewPlan(
  { project, shot: id, layer, pass, against = 'pass', view, ground, reduction, finer }: Viewed,
  frame: number,
  side: 'after' | 'before' = 'after',
): FramePlan | null {
  const shot = project.shots.find((item) => item.id === id);
  if (!shot) return null;
  if (view === 'picture' || view === 'compare') {
    if (side === 'after') return planFrame(project, id, frame, { reduction, finer });
    if (against === 'grade') return planFrame(withoutGrade(project, shot, layer), id, frame, { reduction, finer });
    if (against !== 'pass') return stillPlan(project, shot, against, reduction);
    return planFrame(project, id, frame, { reduction, finer, without: pass ?? undefined });
  }
  const below = ground === 'below';
  const seen = (item: Layer): Layer => ({
    ...item,
    opacity: { still: 1 },
    ...(side === 'before' ? { passes: [], matte: null } : {}),
  });
  const own = shot.layers.find((item) => item.id === layer);
  const layers = alone(shot, own ? seen(own) : null, below);
  const only = { ...shot, background: below ? shot.background : (ground as [number, number, number] | null), layers };
  return planFrame(withShot(project, only), id, frame, { reduction, finer });
}

/** A shot's layers with one of them shown, in this form. The others stay, hidden: it may follow one of them or take its matte from it. @param below those below it stay as they are */
function alone(shot: Shot, own: Layer | null, below: boolean): Layer[] {
  const at = shot.layers.findIndex((item) => item.id === own?.id);
  return shot.layers.map((item, i) => ({
    ...(i === at
      ? { ...own!, shown: true, blend: 'normal' as const }
      : { ...item, shown: below && i > at && item.shown }),
    solo: false,
  }));
}

/** A layer's picture before any of its passes. */
export const sourcePlan = (
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction,
): AlonePlan | null => planLayer(project, shot, { ...layer, passes: [], matte: null }, frame, reduction);

/** A layer's picture as it comes into one of its passes, at full size. */
export function planBefore(project: Project, shot: Shot, layer: Layer, pass: PassId, frame: number): AlonePlan | null {
  const { project: cut, layer: own } = cutBefore(project, layer, pass);
  return planLayer(cut, shot, own, frame, 1);
}

/** A layer's picture after one of its passes, which works in this form. */
export function planThrough(project: Project, shot: Shot, layer: Layer, pass: Pass, frame: number): AlonePlan | null {
  const { project: cut, layer: own } = cutBefore(project, layer, pass.id);
  return planLayer(cut, shot, { ...own, passes: [...own.passes, pass] }, frame, 1);
}

/** A layer's line, and that of its clip, cut off where a pass stands. */
function cutBefore(project: Project, layer: Layer, pass: PassId): { project: Project; layer: Layer } {
  const upTo = (passes: readonly Pass[]): Pass[] =>
    passes.slice(
      0,
      passes.findIndex((item) => item.id === pass),
    );
  const clip = clipLine(project, layer);
  if (!clip.some((item) => item.id === pass)) return { project, layer: { ...layer, passes: upTo(layer.passes) } };
  const stock = project.stock.map((item) => (item.id === stockOf(layer) ? { ...item, line: upTo(clip) } : item));
  return { project: { ...project, stock }, layer: { ...layer, passes: [] } };
}

/** A layer alone where it lies in its shot, over nothing. @param passes of its line */
export function planAlone(
  project: Project,
  shot: Shot,
  layer: Layer,
  frame: number,
  reduction: Reduction,
  passes: Pass[] = layer.passes,
): FramePlan {
  const layers = alone(shot, { ...layer, passes }, false);
  return planFrame(withShot(project, { ...shot, background: null, layers }), shot.id, frame, { reduction });
}

/** A shot without one of its layers. */
export function planWithout(
  project: Project,
  shot: Shot,
  layer: LayerId,
  frame: number,
  reduction: Reduction,
): FramePlan {
  const layers = shot.layers.map((item) => (item.id === layer ? { ...item, shown: false } : item));
  return planFrame(withShot(project, { ...shot, layers }), shot.id, frame, { reduction });
}

/** What lies behind a layer. */
export function planBehind(project: Project, shot: Shot, layer: Layer, frame: number, reduction: Reduction): FramePlan {
  const at = shot.layers.findIndex(({ id }) => id === layer.id);
  const layers = shot.layers.map((item, i) => (i <= at ? { ...item, shown: false } : item));
  return planFrame(withShot(project, { ...shot, background: null, layers }), shot.id, frame, { reduction });
}

/** The project with nothing behind a shot's layers. */
export const onNothing = (project: Project, shot: Shot): Project => withShot(project, { ...shot, background: null });

/** The project with no pass of the grade on a layer of a shot. */
function withoutGrade(project: Project, shot: Shot, layer: LayerId | null): Project {
  const plain = (item: Layer): Layer => ({
    ...item,
    passes: item.passes.filter((pass) => passOf(pass.type)?.group !== 'grade'),
  });
  return withShot(project, { ...shot, layers: shot.layers.map((item) => (item.id === layer ? plain(item) : item)) });
}

/** A picture of the stock by itself, fitted into a shot; null when it is not in the project. */
export function stillPlan(project: Project, shot: Shot, stock: StockId, reduction: Reduction): FramePlan | null {
  const item = project.stock.find(({ id }) => id === stock);
  if (!item) return null;
  const layer = newLayer('still' as LayerId, item.name, stockSource(stock), { start: 0, length: 1 });
  const size = sourceSize(project, shot, layer);
  if (!size) return null;
  const fitted = Math.min(shot.width / size.w, shot.height / size.h);
  layer.place.scale = { still: [fitted, fitted] };
  return planFrame(withShot(project, { ...shot, background: null, layers: [layer] }), shot.id, 0, { reduction });
}
