import type { PointPass, PassTools, PlainValues } from '../passes/define';
import { passOf } from '../passes/registry';
import type { LayerPlan, PassPlan } from '../plan/plan';
import type { Arena } from '../picture/arena';
import type { Kernels } from '../picture/kernels';
import { BYTES_PER_PIXEL, Picture } from '../picture/picture';
import { intersect, isEmpty, type Rect } from '../picture/rect';
import type { PictureCache } from './cache';

interface Bench {
  kernels: Kernels;
  arena: Arena;
  cache: PictureCache;
}

/** Every result is kept while someone is turning dials; only the last one of a layer while a render runs. */
export type Keep = 'every' | 'last';

/**
 * Takes a picture through passes. Runs of point passes are done row by row in one sweep.
 * @param picture given up by the caller @returns owned by the caller
 */
export function runPasses(bench: Bench, layer: LayerPlan, passes: readonly PassPlan[], picture: Picture, keep: Keep): Picture {
  let current = picture;
  try {
    for (let i = 0; i < passes.length; ) {
      const isArea = 'run' in passOf(passes[i]!.type)!;
      const run = isArea ? [passes[i]!] : pointRun(passes, i);
      i += run.length;
      const next = isArea ? area(bench, layer, run[0]!, current) : sweep(bench, layer, run, current, keep);
      if (keep === 'every' || i === passes.length) bench.cache.put(run[run.length - 1]!.key, next);
      current.release();
      current = next;
    }
    return current;
  } catch (error) {
    current.release();
    throw error;
  }
}

/** The point passes from index i on, up to the next area pass. */
function pointRun(passes: readonly PassPlan[], i: number): PassPlan[] {
  const rest = passes.slice(i);
  const end = rest.findIndex((pass) => 'run' in passOf(pass.type)!);
  return end < 0 ? rest : rest.slice(0, end);
}

const isIdle = (pass: PassPlan): boolean => passOf(pass.type)!.idle?.(pass.values as never) ?? false;

function area(bench: Bench, layer: LayerPlan, pass: PassPlan, picture: Picture): Picture {
  const declared = passOf(pass.type)!;
  if (!('run' in declared) || isIdle(pass) || isEmpty(picture.rect)) return picture.retain();
  return withTools(bench, layer, (tools) => declared.run(picture, pass.values, tools));
}

/** One sweep over the rows for a run of point passes, so that a row stays in the processor's cache from first to last. */
function sweep(bench: Bench, layer: LayerPlan, run: readonly PassPlan[], picture: Picture, keep: Keep): Picture {
  const work = run.filter((pass) => !isIdle(pass)).map((pass) => ({ pass, declared: passOf(pass.type) as PointPass }));
  if (!work.length) return picture.retain();
  return withTools(bench, layer, (tools) => {
    const covers: Rect[] = [];
    let rect = picture.rect;
    for (const { pass, declared } of work) {
      rect = intersect(rect, declared.cover?.(rect, pass.values, layer.size) ?? rect);
      covers.push(rect);
    }
    const outs = keep === 'every' ? covers.map((cover) => Picture.make(bench.arena, cover)) : [Picture.make(bench.arena, rect)];
    const runners = work.map(({ pass, declared }) => declared.prepare(pass.values as PlainValues as never, tools));
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
      bench.cache.put(work[k]!.pass.key, out);
      out.release();
    });
    return last;
  });
}

/** Tools whose scratch memory is given back when the pass is done. */
function withTools<T>({ kernels, arena }: Bench, layer: LayerPlan, use: (tools: PassTools) => T): T {
  const taken: number[] = [];
  const scratch = (bytes: number) => {
    const at = arena.take(bytes);
    taken.push(at);
    return at;
  };
  try {
    return use({ kernels, arena, size: layer.size, scratch });
  } finally {
    taken.forEach((at) => arena.give(at));
  }
}
