// Parts of a layer given to others: its place, its passes, its masks; and another source for all of them.
import type { Draft } from 'immer';
import type { Edit } from '../edit';
import { layerIn, shotIn, stockIn } from '../find';
import { titleOf } from '../../passes/registry';
import {
  LAYER_PARTS,
  stockOf,
  type LayerPart,
  type Layer,
  type LayerId,
  type Pass,
  type PassId,
  type Project,
  type ShotId,
  type StockId,
} from '../schema';
import { fadesOf, writeFades } from './ends';
import { followThrough } from './follow';
import { stockSource } from './layers';
import { inOrder, withoutMasks } from './passes';
import { copyOf } from './time';

/**
 * Gives parts of a layer to others, keyframes and all: the place instead of theirs, with opacity and blend mode; transitions and fades instead of theirs; passes and masks after theirs.
 * Passes that use masks keep them when those come along. Locked layers are left.
 */
export const pasteParts = (
  shot: ShotId,
  from: Layer,
  to: readonly LayerId[],
  parts: ReadonlySet<LayerPart>,
  fresh: () => string,
): Edit => ({
  name: `Paste ${LAYER_PARTS.filter(({ name }) => parts.has(name))
    .map(({ label }) => label)
    .join(' and ')} of ${from.name}`,
  apply: (draft) => {
    for (const layer of shotIn(draft as Project, shot).layers as Draft<Layer>[]) {
      if (!to.includes(layer.id as LayerId) || layer.locked) continue;
      const copy = copyOf(from, fresh);
      // what followed a track through the layer itself does so through the other one
      followThrough(copy, (id) => (id === copy.id ? (layer.id as LayerId) : id));
      const { place, opacity, blend, motionBlur, masks, passes, ends } = copy;
      if (parts.has('place')) {
        const fades = fadesOf(layer as Layer);
        Object.assign(layer, { place, opacity, blend, motionBlur });
        writeFades(layer, fades);
      }
      if (parts.has('ends')) {
        layer.ends = ends as Draft<Layer>['ends'];
        writeFades(layer, fadesOf(from));
      }
      if (parts.has('masks')) layer.masks.push(...(masks as Draft<Layer>['masks']));
      if (!parts.has('passes')) continue;
      const pasted = parts.has('masks') ? passes : passes.map(withoutMasks);
      layer.passes = inOrder([...layer.passes, ...(pasted as Draft<Pass>[])]);
    }
  },
});

/** Gives layers a copy of a pass: after one that is named, else at the end of its half. Another layer than its own has not got its masks. */
export const pastePass = (
  shot: ShotId,
  { pass, from }: { pass: Pass; from: LayerId },
  to: readonly LayerId[],
  fresh: () => string,
  after?: PassId,
): Edit => ({
  name: `Paste ${titleOf(pass.type)}`,
  apply: (draft) => {
    for (const layer of shotIn(draft as Project, shot).layers as Draft<Layer>[]) {
      if (!to.includes(layer.id as LayerId) || layer.locked) continue;
      const copy = { ...(layer.id === from ? pass : withoutMasks(pass)), id: fresh() as PassId } as Draft<Pass>;
      const index = layer.passes.findIndex((item) => item.id === after);
      layer.passes.splice(index < 0 ? layer.passes.length : index + 1, 0, copy);
      layer.passes = inOrder(layer.passes);
    }
  },
});

/** Shows another piece of stock by a layer; its span, place, passes, masks and keyframes stay. A layer that has its stock's name takes the new one's. */
export function replaceSource(project: Project, at: { shot: ShotId; layer: LayerId }, stock: StockId): Edit {
  const { name, source } = layerIn(shotIn(project, at.shot), at.layer);
  const old = stockOf({ source });
  const next = stockIn(project, stock);
  return {
    name: `Replace the source of ${name}`,
    apply: (draft) => {
      const layer = layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>;
      const fresh = stockSource(stock);
      const { bare } = source.values;
      layer.source = { ...fresh, values: { ...fresh.values, ...(old && bare && { bare }) } } as Draft<Layer>['source'];
      layer.time.offset = 0;
      if (old && name === stockIn(project, old).name) layer.name = next.name;
    },
  };
}
