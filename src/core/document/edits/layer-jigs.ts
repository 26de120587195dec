// Made layers that are kept with the project, or in a file, to be used again in any shot.
import type { Draft } from 'immer';
import { JackplaneError } from '../../base/errors';
import type { Value } from '../../base/value';
import { perform, type Edit } from '../edit';
import { plain } from '../draft';
import { shotIn } from '../find';
import { nameOthers } from '../shown-layers';
import {
  groupOf,
  MOST_IN_JIG,
  type Layer,
  type LayerId,
  type LayerJig,
  type Project,
  type Shot,
  type ShotId,
} from '../schema';
import type { ReadyMade } from './ready-made';
import { copyOf, namedApart } from './time';

export const layerJigs = (project: Project): LayerJig[] =>
  project.jigs.filter((jig): jig is LayerJig => 'kind' in jig && jig.kind === 'layers');

/** What of a project a layer cannot do without; undefined for one that any project can have. */
export function needsOf(project: Project, layer: Layer): string | undefined {
  const text = JSON.stringify(layer);
  const named = ({ id }: { id: string }) => text.includes(`"${id}"`);
  return groupOf(layer) ? 'a group' : (project.stock.find(named) ?? project.tracks.find(named))?.name;
}

/**
 * Layers of a shot to be used again; they begin together where the first of them does.
 * @throws JackplaneError bad-value when they show footage or a group, which another project does not have
 */
export function layerJigOf(
  project: Project,
  shotId: ShotId,
  ids: readonly LayerId[],
  name: string,
  id: string,
): LayerJig {
  const shot = shotIn(project, shotId);
  const chosen = shot.layers.filter((layer) => ids.includes(layer.id));
  if (!chosen.length)
    throw new JackplaneError('bad-value', 'No layer is chosen.', 'Choose those that belong together.');
  if (chosen.length > MOST_IN_JIG)
    throw new JackplaneError(
      'bad-value',
      `A jig holds up to ${MOST_IN_JIG} layers; ${chosen.length} are chosen.`,
      'Choose fewer.',
    );
  for (const layer of chosen) {
    const needs = needsOf(project, layer);
    if (needs)
      throw new JackplaneError(
        'bad-value',
        `${layer.name} needs ${needs}, which another project does not have.`,
        'Keep layers that are made: titles, shapes, colours, adjustments.',
      );
  }
  const first = Math.min(...chosen.map(({ span }) => span.start));
  const layers = chosen.map((layer) => ({
    ...within(layer, chosen, (other) => other),
    span: { ...layer.span, start: layer.span.start - first },
  }));
  return { id, kind: 'layers', name, width: shot.width, height: shot.height, layers };
}
/** A layer that is tied to no others than some. */
function within(layer: Layer, others: readonly Layer[], now: (id: LayerId) => LayerId): Layer {
  const there = (id: LayerId | undefined) => others.some((other) => other.id === id);
  const own = structuredClone(plain(layer));
  nameOthers(own, (id) => (there(id) ? now(id) : null));
  return {
    ...own,
    parent: layer.parent && there(layer.parent.layer) ? { ...layer.parent, layer: now(layer.parent.layer) } : null,
    matte: layer.matte && there(layer.matte.layer) ? { ...layer.matte, layer: now(layer.matte.layer) } : null,
  };
}

type Pair = [number, number];
const times = ([x, y]: Pair, k: number): Pair => [x * k, y * k];
/** The same value and its motion path, k times as large. */
function larger(value: Value<Pair>, k: number): Value<Pair> {
  if ('still' in value) return { ...value, still: times(value.still, k) };
  const keys = value.keys.map((key) => ({
    ...key,
    value: times(key.value, k),
    ...(key.bend && { bend: { in: times(key.bend.in, k), out: times(key.bend.out, k) } }),
  }));
  return { ...value, keys };
}
/** A layer at its place in a shot k times as large. */
export const grown = (layer: Layer, k: number): Layer => {
  const { position, scale } = layer.place;
  return { ...layer, place: { ...layer.place, position: larger(position, k), scale: larger(scale, k) } };
};

/** Something ready made as a jig for a shot of the same size. */
export const jigOfReady = (ready: ReadyMade, shot: Shot, fresh: () => string): LayerJig => ({
  id: ready.name,
  kind: 'layers',
  name: ready.title,
  ...{ width: shot.width, height: shot.height },
  layers: ready.layers({ shot, fresh, k: shot.height / 720 }),
});

/** What dark and bright jigs are both seen on. */
const SEEN_ON = [0.4, 0.44, 0.47] as const;
/** The same shot with nothing but a jig in it, to be looked at. */
export function shotOfJig(project: Project, shot: Shot, jig: LayerJig, fresh: () => string): Project {
  const bare: Shot = { ...shot, layers: [], background: [...SEEN_ON] };
  const empty = { ...project, shots: [...project.shots.filter(({ id }) => id !== shot.id), bare] };
  return perform(empty, putLayerJig(empty, shot.id, 0, jig, fresh))?.project ?? empty;
}

/** Puts a jig's layers on top of a shot, from a frame on, as large as the shot is high beside the one that they were made in. */
export function putLayerJig(project: Project, shotId: ShotId, frame: number, jig: LayerJig, fresh: () => string): Edit {
  const shot = shotIn(project, shotId);
  const k = shot.height / jig.height;
  const copies = new Map(jig.layers.map((layer) => [layer.id, copyOf(layer, fresh)]));
  const layers = [...copies.values()].map((copy) => {
    const own = within(copy, jig.layers, (id) => copies.get(id)!.id);
    return { ...(own.parent ? own : grown(own, k)), span: { ...copy.span, start: copy.span.start + frame } };
  });
  return {
    name: `Put in ${jig.name}`,
    apply: (draft) =>
      void shotIn(draft as Project, shotId).layers.unshift(...(namedApart(layers, shot.layers) as Draft<Layer>[])),
  };
}
