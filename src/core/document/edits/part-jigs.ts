// What was done to a layer (passes, masks, place, transitions), kept with the project or in a file, to be done to others.
import { produce, type Draft } from 'immer';
import { JackplaneError } from '../../base/errors';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import {
  LAYER_PARTS,
  type Layer,
  type LayerId,
  type LayerPart,
  type PartJig,
  type Project,
  type ShotId,
} from '../schema';
import { perform } from '../edit';
import { fadesOf, writeFades } from './ends';
import { newLayer, newSource } from './layers';
import { grown, needsOf } from './layer-jigs';
import { withoutMasks } from './passes';
import { pasteParts } from './parts';
import type { At } from './keys';

export const partJigs = (project: Project): PartJig[] =>
  project.jigs.filter((jig): jig is PartJig => 'kind' in jig && jig.kind === 'parts');

/** The parts of a layer that there is something of: its place always, the others where it has any. */
export const partsThere = (layer: Layer): LayerPart[] =>
  LAYER_PARTS.map(({ name }) => name).filter((name) => {
    if (name === 'passes') return layer.passes.length > 0;
    if (name === 'masks') return layer.masks.length > 0;
    const fades = fadesOf(layer);
    return name === 'place' || fades.in > 0 || fades.out > 0;
  });

/**
 * Parts of a layer to be used again.
 * @throws JackplaneError bad-value when the layer has none of them, or they need stock or a track, which another project does not have
 */
export function partJigOf(
  project: Project,
  at: At,
  wanted: ReadonlySet<LayerPart>,
  names: { id: string; name: string },
): PartJig {
  const shot = shotIn(project, at.shot);
  const layer = layerIn(shot, at.layer);
  const parts = partsThere(layer).filter((part) => wanted.has(part));
  const labels = LAYER_PARTS.filter(({ name }) => wanted.has(name)).map(({ label }) => label);
  if (!parts.length)
    throw new JackplaneError(
      'bad-value',
      `${layer.name} has no ${labels.join(', no ')} to keep.`,
      'Choose a layer that has.',
    );
  const own = bareCopy(layer, new Set(parts));
  const needs = needsOf(project, own);
  if (needs)
    throw new JackplaneError(
      'bad-value',
      `What is kept of ${layer.name} needs ${needs}, which another project does not have.`,
      'Keep its other parts.',
    );
  return { ...names, kind: 'parts', width: shot.width, height: shot.height, parts, layer: own };
}

/** A layer that has nothing but some parts of another. */
function bareCopy(layer: Layer, parts: ReadonlySet<LayerPart>): Layer {
  const bare = newLayer(layer.id, layer.name, newSource('adjustment'), { start: 0, length: layer.span.length });
  const fades = fadesOf(layer);
  return produce({ ...bare, ...(parts.has('ends') && { ends: layer.ends }) }, (draft: Draft<Layer>) => {
    const { place, opacity, blend, motionBlur, masks, passes } = layer as Draft<Layer>;
    if (parts.has('place')) Object.assign(draft, { place, opacity, blend, motionBlur });
    if (parts.has('masks')) draft.masks = masks;
    if (parts.has('passes')) draft.passes = parts.has('masks') ? passes : passes.map((pass) => withoutMasks(pass));
    writeFades(draft, parts.has('ends') ? fades : { in: 0, out: 0 });
  });
}

/** Does to layers of a shot what a jig keeps; a place as large as the shot is high beside the one that it was made in. */
export function putPartJig(
  project: Project,
  shot: ShotId,
  to: readonly LayerId[],
  jig: PartJig,
  fresh: () => string,
): Edit {
  const k = shotIn(project, shot).height / jig.height;
  const from = jig.parts.includes('place') ? grown(jig.layer, k) : jig.layer;
  return { ...pasteParts(shot, from, to, new Set(jig.parts), fresh), name: `Put ${jig.name} on layers` };
}

/** A project in which a jig was put on a layer, and the frame of the shot that shows it best: within a transition, or the present one. */
export function withPartJig(
  project: Project,
  at: At & { frame: number },
  jig: PartJig,
  fresh: () => string,
): { project: Project; frame: number } {
  const put = perform(project, putPartJig(project, at.shot, [at.layer], jig, fresh))?.project ?? project;
  const layer = layerIn(shotIn(put, at.shot), at.layer);
  if (!jig.parts.includes('ends')) return { project: put, frame: at.frame };
  const { in: begins, out } = fadesOf(layer);
  const { start, length } = layer.span;
  return { project: put, frame: begins ? start + Math.floor(begins / 2) : start + length - 1 - Math.floor(out / 2) };
}
