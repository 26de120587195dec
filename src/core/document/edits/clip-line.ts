// Passes that belong to a clip: every layer made from it shows them, in every shot.
import type { Draft } from 'immer';
import { JackplaneError } from '../../base/errors';
import { paramsOf, passOf, titleOf } from '../../passes/registry';
import type { Edit } from '../edit';
import { layerIn, shotIn, stockIn } from '../find';
import { stockOf, type Pass, type PassId, type Project } from '../schema';
import type { At } from './keys';

/** Why a pass cannot belong to a clip: it needs something that only its layer has. Null when it can. */
export function boundToLayer(pass: Pass): string | null {
  if (pass.space === 'shot' || passOf(pass.type)?.needs) return 'it works in the shot, after Place';
  if (pass.area) return 'its area is a mask of the layer';
  const masks = Object.values(paramsOf(pass.type)).some((param) => param.kind === 'masks');
  if (masks) return 'it uses masks of the layer';
  const moves = Object.values(pass.values).some((value) => !('still' in value) || value.drivers?.length);
  return moves ? 'its values change over the layer’s time' : null;
}

/** Gives a pass of a layer to its clip, after those that the clip has. @throws JackplaneError bad-value */
export function passToClip(project: Project, at: At, id: PassId): Edit {
  const layer = layerIn(shotIn(project, at.shot), at.layer);
  const pass = layer.passes.find((item) => item.id === id);
  const stock = stockOf(layer);
  const bound = !stock ? 'the layer shows no clip' : pass ? boundToLayer(pass) : 'it is not in the layer’s line';
  if (bound || !pass || !stock)
    throw new JackplaneError(
      'bad-value',
      `${titleOf(pass?.type ?? '')} cannot belong to the clip: ${bound}.`,
      'Keep it on the layer, or take that away first.',
    );
  return {
    name: `${titleOf(pass.type)} for the whole clip`,
    apply: (draft) => {
      const own = layerIn(shotIn(draft as Project, at.shot), at.layer);
      own.passes = own.passes.filter((item) => item.id !== id);
      stockIn(draft as Project, stock).line.push(pass as Draft<Pass>);
    },
  };
}

/** Takes a pass from a clip and gives it to one of the layers made from it, before the layer's own. */
export function passToLayer(project: Project, at: At, id: PassId): Edit {
  const stock = stockOf(layerIn(shotIn(project, at.shot), at.layer));
  const pass = stock && stockIn(project, stock).line.find((item) => item.id === id);
  return {
    name: `${titleOf(pass?.type ?? '')} for one layer`,
    apply: (draft) => {
      if (!stock || !pass) return;
      const item = stockIn(draft as Project, stock);
      item.line = item.line.filter((other) => other.id !== id);
      layerIn(shotIn(draft as Project, at.shot), at.layer).passes.unshift(pass as Draft<Pass>);
    },
  };
}
