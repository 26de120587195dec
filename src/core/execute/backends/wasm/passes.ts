import type { ChannelCurves, PointPass, PassTools } from '../../../passes/define';
import { chained, curveRunner } from '../../../passes/grade/tables';
import { stepOf } from '../../../transitions/registry';
import type { CoveragePlan } from '../../../masks/coverage';
import { isIdle, joins } from '../../../plan/passes';
import type { PassPlan } from '../../../plan/types';
import type { Arena } from '../../../picture/arena';
import type { Kernels } from '../../../picture/kernels';
import { BYTES_PER_PIXEL, Picture } from '../../../picture/picture';
import { copyInto } from '../../../picture/rows';
import { intersect, isEmpty, sameRect, union, type Rect } from '../../../picture/rect';
import type { Keep } from '../../backend';
import type { PictureCache } from '../../cache';
import type { MaskStore } from './masks';
import type { PlateStore } from './plates';

/** What passes run with. */
export interface Rig {
  kernels: Kernels;
  arena: Arena;
  cache: PictureCache<Picture>;
  masks: MaskStore;
  plates: PlateStore;
}

/** Where passes work: how large that is, what masks cover there, and what lies below. */
export interface Space {
  size: { w: number; h: number };
  /** coverage over a rectangle, one float a pixel, not to be changed */
  coverage(plan: CoveragePlan, rect: Rect): Float32Array;
  /** what lies below there, owned by the caller */
  below?(rect: Rect): Picture;
  /** a picture from another moment or of another layer by its key, not to be released */
  moment?(key: string): Picture | undefined;
}
/** The pixels of a layer's source. */
export const layerSpace = ({ masks }: Pick<Rig, 'masks'>, size: { w: number; h: number }): Space => ({
  size,
  coverage: (plan, rect) => masks.plane(plan, rect),
});

/**
 * Takes a picture through passes. Runs of point passes are done row by row in one sweep.
 * @param picture given up by the caller @returns owned by the caller
 */
export function runPasses(rig: Rig, space: Space, passes: readonly PassPlan[], picture: Picture, keep: Keep): Picture {
  let current = picture;
  try {
    for (let i = 0; i < passes.length;) {
      const run = nextRun(passes, i);
      i += run.length;
      const before = current;
      const next = rig.arena.guarded(() =>
        run.length > 1 && joins(run[1]!)
          ? keysTogether(rig, space, run, before)
          : run.length > 1
            ? sweep(rig, space, run, before, keep)
            : single(rig, space, run[0]!, before),
      );
      if (keep === 'every' || (keep === 'last' && i === passes.length)) rig.cache.put(run[run.length - 1]!.key, next);
      current.release();
      current = next;
    }
    return current;
  } catch (error) {
    current.release();
    throw error;
  }
}

const isArea = (pass: PassPlan): boolean => 'run' in stepOf(pass.type)!;

/** The passes from index i on that are done in one go: keys that go together, or point passes up to one that needs whole pictures. */
function nextRun(passes: readonly PassPlan[], i: number): readonly PassPlan[] {
  let end = i + 1;
  while (end < passes.length && joins(passes[end])) end++;
  if (end > i + 1 || isArea(passes[i]!) || passes[i]!.area) return passes.slice(i, end);
  while (end < passes.length && !isArea(passes[end]!) && !passes[end]!.area && !joins(passes[end + 1])) end++;
  return passes.slice(i, end);
}

/** One pass, limited to its area. @returns owned by the caller */
export function single(rig: Rig, space: Space, pass: PassPlan, picture: Picture): Picture {
  const after = isArea(pass) ? area(rig, space, pass, picture) : sweep(rig, space, [pass], picture, 'last');
  return pass.area?.masks.length ? limited(rig, space, pass.area, picture, after) : after;
}

/** Keys that all get the same picture; of each pixel the one that covers most, or least, is taken. */
function keysTogether(rig: Rig, space: Space, keys: readonly PassPlan[], picture: Picture): Picture {
  let result = single(rig, space, keys[0]!, picture);
  for (const key of keys.slice(1)) {
    if (isIdle(key)) continue;
    const other = single(rig, space, key, picture);
    const out = Picture.make(rig.arena, picture.rect);
    rig.kernels.pickByAlpha(result.at, other.at, out.at, out.pixels, key.values['combine'] === 'max' ? 1 : 0);
    result.release();
    other.release();
    result = out;
  }
  return result;
}

/** Before and after a pass mixed by its area. @param after given up by the caller */
function limited(rig: Rig, space: Space, plan: CoveragePlan, before: Picture, after: Picture): Picture {
  if (after === before) return after;
  const rect = union(before.rect, after.rect);
  const [from, to] = [extended(rig, before.retain(), rect), extended(rig, after, rect)];
  const out = Picture.make(rig.arena, rect);
  withTools(rig, space, ({ coverage }) =>
    rig.kernels.lerpByPlane(from.at, to.at, coverage(plan, rect), out.at, out.pixels),
  );
  from.release();
  to.release();
  return out;
}

/** Two pictures mixed. @param before, after given up @param amount 0 = before, 1 = after @returns owned by the caller */
export function mixed(rig: Rig, before: Picture, after: Picture, amount: number): Picture {
  if (amount >= 1 || after === before) {
    before.release();
    return after;
  }
  const rect = union(before.rect, after.rect);
  const [from, to] = [extended(rig, before, rect), extended(rig, after, rect)];
  const out = Picture.make(rig.arena, rect);
  rig.kernels.lerpSpan(from.at, to.at, out.at, out.pixels, amount);
  from.release();
  to.release();
  return out;
}

/** The picture with clear pixels around it. @param picture given up by the caller */
function extended({ kernels, arena }: Rig, picture: Picture, rect: Rect): Picture {
  if (sameRect(picture.rect, rect)) return picture;
  const out = Picture.make(arena, rect);
  copyInto({ kernels }, picture, out);
  picture.release();
  return out;
}

function area(rig: Rig, space: Space, pass: PassPlan, picture: Picture): Picture {
  const declared = stepOf(pass.type)!;
  if (!('run' in declared) || isIdle(pass) || isEmpty(picture.rect)) return picture.retain();
  return withTools(rig, space, (tools) => declared.run(picture, pass.values as never, tools), pass.moments);
}

interface Work {
  pass: PassPlan;
  declared: PointPass;
  /** what it does together with those before it that have become part of it */
  curves?: ChannelCurves;
}
/** Neighbours that work on each channel by itself become one. */
function curvesTogether(steps: readonly Work[]): Work[] {
  const out: Work[] = [];
  for (const step of steps) {
    const curves = step.declared.cover ? null : (step.declared.curves?.(step.pass.values as never) ?? null);
    const before = out.at(-1)?.curves;
    if (curves && before?.saturation === 1) out[out.length - 1] = { ...step, curves: chained([before, curves]) };
    else out.push(curves ? { ...step, curves } : step);
  }
  return out;
}

/** One sweep over the rows for a run of point passes, so that a row stays in the processor's cache from first to last. */
function sweep(rig: Rig, space: Space, run: readonly PassPlan[], picture: Picture, keep: Keep): Picture {
  const steps = run.filter((pass) => !isIdle(pass)).map((pass) => ({ pass, declared: stepOf(pass.type) as PointPass }));
  if (!steps.length) return picture.retain();
  const work: Work[] = keep === 'every' ? steps : curvesTogether(steps);
  return withTools(rig, space, (tools) => {
    const covers: Rect[] = [];
    let rect = picture.rect;
    for (const { pass, declared } of work) {
      rect = intersect(rect, declared.cover?.(rect, pass.values as never, space.size) ?? rect);
      covers.push(rect);
    }
    const outs =
      keep === 'every' ? covers.map((cover) => Picture.make(rig.arena, cover)) : [Picture.make(rig.arena, rect)];
    const runners = work.map(({ pass, declared, curves }) =>
      curves ? curveRunner(curves, tools) : declared.prepare(pass.values as never, tools),
    );
    const tall = outs[0]!.rect;
    for (let y = tall.y; y < tall.y + tall.h; y++) {
      let from = picture;
      for (let k = 0; k < runners.length; k++) {
        const to = outs[Math.min(k, outs.length - 1)]!;
        if (y < to.rect.y || y >= to.rect.y + to.rect.h) break;
        const src = from.row(y - from.rect.y) + (to.rect.x - from.rect.x) * BYTES_PER_PIXEL;
        runners[k]!(src, to.row(y - to.rect.y), to.rect.w, to.rect.x, y);
        from = to;
      }
    }
    const last = outs.pop()!;
    outs.forEach((out, k) => {
      rig.cache.put(work[k]!.pass.key, out);
      out.release();
    });
    return last;
  });
}

/** Tools whose scratch memory is given back when the pass is done. */
function withTools<T>(
  { kernels, arena, masks, plates }: Rig,
  space: Space,
  use: (tools: PassTools) => T,
  moments: PassPlan['moments'] = [],
): T {
  const held: Picture[] = [];
  const work = (scratch: (bytes: number) => number): T => {
    const coverage = (plan: CoveragePlan, rect: Rect) => {
      const plane = space.coverage(plan, rect);
      const at = scratch(plane.byteLength + 12);
      arena.floats(at, plane.length).set(plane);
      return at;
    };
    const partOf = (plate: Picture | null, rect: Rect): Picture | null => {
      if (!plate || sameRect(plate.rect, rect)) return plate;
      const part = new Picture(arena, rect, scratch(rect.w * rect.h * BYTES_PER_PIXEL));
      copyInto({ kernels }, plate, part);
      return part;
    };
    return use({
      kernels,
      arena,
      size: space.size,
      scratch,
      coverage,
      below: (rect) => {
        const picture = space.below?.(rect) ?? null;
        if (picture) held.push(picture);
        return picture;
      },
      moment: (index) => (moments[index] && space.moment?.(moments[index])) || null,
      picture: (key) => space.moment?.(key) ?? null,
      table: (plan) => masks.table(plan),
      plate: (plan, rect) => partOf(plates.get(plan, space.size), rect),
    });
  };
  try {
    return arena.lending(work);
  } finally {
    held.forEach((picture) => picture.release());
  }
}
