// Measures on a layer's picture, or on what masks cover of it.
import { bytesOf } from '../../../picture/bytes';
import type { Measure, Measured } from '../../../measures/define';
import { MEASURES, type MeasureName, type OptionsOf, type ResultOf } from '../../../measures/registry';
import type { Picture } from '../../../picture/picture';
import type { AlonePlan } from '../../../plan/types';
import { JackplaneError } from '../../../base/errors';
import type { Problem } from '../../execute';
import type { WasmExecutor } from './executor';
import { layerSpace, runPasses } from './passes';

/** A placeholder is no picture to measure. */
async function pictureOf(executor: WasmExecutor, layer: AlonePlan): Promise<Picture> {
  const problems: Problem[] = [];
  const picture = await executor.layer(layer, 'every', problems);
  if (problems.every(({ drawn }) => drawn)) return picture;
  picture.release();
  throw new JackplaneError('bad-media', problems.find(({ drawn }) => !drawn)!.sentence, '');
}

/** @param layer what is measured; null for measures that need no picture @throws what computing the layer throws */
export async function measure<N extends MeasureName>(
  executor: WasmExecutor,
  layer: AlonePlan | null,
  name: N,
  options: OptionsOf<N>,
): Promise<ResultOf<N>> {
  let held: Promise<Picture> | null = null;
  const picture = () => {
    if (!layer) throw new Error(`the measure ${name} needs a layer`);
    return (held ??= pictureOf(executor, layer));
  };
  const of: Measured = {
    kernels: executor.kernels,
    arena: executor.arena,
    picture,
    bytes: async () => {
      const own = await picture();
      return { data: bytesOf(executor, own), w: own.rect.w, h: own.rect.h };
    },
    through: (passes, own) => runPasses(executor.backend, layerSpace(executor.backend, own.rect), passes, own, 'none'),
    coverage: async (plan) => {
      await executor.backend.prepareMasks([plan]);
      const [w, h] = [Math.round(plan.centre[0] * 2), Math.round(plan.centre[1] * 2)];
      return { w, h, plane: executor.backend.masks.plane(plan, { x: 0, y: 0, w, h }) };
    },
  };
  try {
    return await (MEASURES[name] as Measure<OptionsOf<N>, ResultOf<N>>).run(of, options);
  } finally {
    (await (held as Promise<Picture> | null)?.catch(() => null))?.release();
  }
}
