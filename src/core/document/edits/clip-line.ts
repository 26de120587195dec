// Passes that belong to a clip: every layer made from it shows them, in every shot.
import type { Draft } from 'immer';
import { JackplaneError } from '../../base/errors';
import { paramsOf, passOf, titleOf } from '../../passes/registry';
import type { Edit } from '../edit';
import { layerIn, shotIn, stockIn } from '../find';
import { still } from '../../base/value';
import { LOG_CURVES, type LogCurveName } from '../../picture/encodings';
import { stockOf, type Pass, type PassId, type Project, type Stock, type StockId } from '../schema';
import { newPass } from './passes';
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

/**
 * Gives a pass of a layer to its clip, after those that the clip has. Those that stand before it in the layer go along, so that the picture
 * stays as it is. @throws JackplaneError bad-value
 */
export function passToClip(project: Project, at: At, id: PassId): Edit {
  const layer = layerIn(shotIn(project, at.shot), at.layer);
  const stock = stockOf(layer);
  const index = layer.passes.findIndex((item) => item.id === id);
  const given = layer.passes.slice(0, index + 1);
  const held = given.find((pass) => boundToLayer(pass));
  if (!stock || !given.length || held)
    throw new JackplaneError(
      'bad-value',
      held
        ? `${titleOf(held.type)} cannot belong to the clip: ${boundToLayer(held)}.`
        : `${layer.name} shows no clip that a pass could belong to.`,
      held && held.id !== id
        ? 'It stands before the pass that you gave: put it after that first.'
        : 'Keep it on the layer, or take that away first.',
    );
  return {
    name: `${given.map((pass) => titleOf(pass.type)).join(', ')} for the whole clip`,
    apply: (draft) => {
      const own = layerIn(shotIn(draft as Project, at.shot), at.layer);
      own.passes = own.passes.slice(index + 1);
      stockIn(draft as Project, stock).line.push(...(given as Draft<Pass>[]));
    },
  };
}

/** How a clip was recorded: the log curve that its own line decodes, or none. */
export const encodingOf = (stock: Stock): LogCurveName | null =>
  (stock.line.find((pass) => pass.type === 'decode-log')?.values['curve'] as { still: LogCurveName } | undefined)
    ?.still ?? null;

/** Says how a clip was recorded: its line begins with what decodes that. @param curve null for an ordinary picture @param fresh id of the pass if there is none yet */
export const setEncoding = (id: StockId, curve: LogCurveName | null, fresh: PassId): Edit => ({
  name: curve ? `Recorded as ${LOG_CURVES[curve].title}` : 'Recorded as it looks',
  apply: (draft) => {
    const stock = stockIn(draft as Project, id);
    const own = stock.line.find((pass) => pass.type === 'decode-log');
    if (!curve) return void (stock.line = stock.line.filter((pass) => pass !== own));
    const pass = own ?? newPass(fresh, 'decode-log');
    const limited = stock.kind === 'video';
    pass.values = {
      ...pass.values,
      curve: still(curve),
      primaries: still(LOG_CURVES[curve].primaries),
      limited: still(limited),
    };
    if (!own) stock.line.unshift(pass);
  },
});

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
