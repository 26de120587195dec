// Several layers as one, and back.
import type { Draft } from 'immer';
import { JackplaneError } from '../../base/errors';
import { keysOf } from '../../base/value';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import { layersNamed, nameOthers } from '../shown-layers';
import { groupOf, type Layer, type LayerId, type Place, type Project, type Shot, type ShotId } from '../schema';
import type { Value } from '../../base/value';
import { newLayer, newSource } from './layers';
import { carriersFor, followThrough } from './follow';
import type { At } from './keys';
import { copyOf } from './time';

/** Layers that a layer refers to, and what for. */
const linked = (layer: Layer): { id: LayerId; how: string }[] => [
  ...(layer.parent ? [{ id: layer.parent.layer, how: 'follows' }] : []),
  ...(layer.matte ? [{ id: layer.matte.layer, how: 'takes its matte from' }] : []),
  ...carriersFor(layer).map((id) => ({ id, how: 'follows a track through' })),
  ...layersNamed(layer).map((id) => ({ id, how: 'works with' })),
];

/** A sentence about the first link that would lead across the border of a group; null when there is none. */
function torn(shot: Shot, inside: ReadonlySet<LayerId>): string | null {
  for (const layer of shot.layers) {
    for (const { id, how } of linked(layer)) {
      if (inside.has(layer.id) === inside.has(id)) continue;
      const other = shot.layers.find((item) => item.id === id);
      if (other) return `${layer.name} ${how} ${other.name}: choose both, or end that first`;
    }
  }
  return null;
}

/**
 * Puts layers into a group, a shot of its own, which takes the place of the uppermost of them. They keep their times.
 * @param name of the group @throws JackplaneError conflict when a link would be torn
 */
export function groupLayers(
  project: Project,
  at: { shot: ShotId; layers: readonly LayerId[] },
  ids: { shot: ShotId; layer: LayerId },
  name: string,
): Edit {
  const shot = shotIn(project, at.shot);
  const inside = new Set(at.layers);
  const tear = torn(shot, inside);
  if (tear)
    throw new JackplaneError('conflict', `These layers cannot become a group: ${tear}.`, 'Nothing was changed.');
  const chosen = shot.layers.filter((layer) => inside.has(layer.id));
  const start = Math.min(...chosen.map((layer) => layer.span.start));
  const end = Math.max(...chosen.map((layer) => layer.span.start + layer.span.length));
  return {
    name: `Group ${chosen.map((layer) => layer.name).join(', ')}`.slice(0, 120),
    apply: (draft) => {
      const outer = shotIn(draft as Project, at.shot) as Draft<Shot>;
      const first = outer.layers.findIndex((layer) => inside.has(layer.id));
      const group = newLayer(ids.layer, name, newSource('group', { shot: ids.shot }), { start, length: end - start });
      // the group's own time begins where the shot's does
      group.time.offset = start;
      const layers = outer.layers.filter((layer) => inside.has(layer.id));
      outer.layers = outer.layers.filter((layer) => !inside.has(layer.id));
      outer.layers.splice(first, 0, group as Draft<Layer>);
      const { width, height, rate, length } = outer;
      draft.shots.push({
        ...{ id: ids.shot, name, width, height, rate: { ...rate } },
        ...{ length: Math.max(length, end), background: null, light: outer.light },
        ...{
          markers: [],
          range: null,
          ...(outer.vanishing && { vanishing: outer.vanishing }),
          layers,
          within: at.shot,
        },
      } as Draft<Shot>);
    },
  };
}

const isStill = <T>(value: Value<T>, wanted: T): boolean =>
  !keysOf(value).length && !value.drivers && 'still' in value && JSON.stringify(value.still) === JSON.stringify(wanted);
const untouched = ({ position, scale, rotation, anchor, tilt, depth, ...place }: Place): boolean =>
  isStill(position, [0, 0]) &&
  isStill(scale, [1, 1]) &&
  isStill(rotation, 0) &&
  isStill(anchor, [0, 0]) &&
  isStill(tilt, [0, 0]) &&
  (!depth || isStill(depth, 0)) &&
  !place.side &&
  !place.flipX &&
  !place.flipY &&
  !place.framing;

/** What a group does to its layers beside showing them, in words; none when they can be given back as they are. */
function doings(layer: Layer, outer: Shot, inner: Shot): string[] {
  return [
    ...(untouched(layer.place) && outer.width === inner.width && outer.height === inner.height ? [] : ['its place']),
    ...(isStill(layer.opacity, 1) && layer.blend === 'normal' ? [] : ['its opacity or blend mode']),
    ...(layer.passes.length ? ['its passes'] : []),
    ...(layer.parent || layer.matte || layer.motionBlur ? ['what it follows, its matte or motion blur'] : []),
    ...(isStill(layer.time.speed, 1) ? [] : ['its speed']),
    ...(JSON.stringify(inner.vanishing) === JSON.stringify(outer.vanishing) ? [] : ['its vanishing point']),
  ];
}

/**
 * Gives the layers of a group back to the shot, in its place. A group that others show too gives copies.
 * @throws JackplaneError conflict when the group does something to them that would be lost
 */
export function ungroup(project: Project, at: At, fresh: () => string): Edit {
  const outer = shotIn(project, at.shot);
  const group = layerIn(outer, at.layer);
  const inner = shotIn(project, groupOf(group)!);
  const lost = doings(group, outer, inner);
  const linkers = outer.layers.filter((layer) => linked(layer).some(({ id }) => id === group.id));
  if (linkers.length) lost.push(`the link of ${linkers.map((layer) => layer.name).join(', ')} to it`);
  if (lost.length)
    throw new JackplaneError(
      'conflict',
      `${group.name} cannot be taken apart as it is: ${lost.join(', ')} would be lost.`,
      'Take that off first; or open the group and work inside.',
    );
  const uses = project.shots.flatMap((shot) => shot.layers.filter((layer) => groupOf(layer) === inner.id)).length;
  const later = group.span.start - group.time.offset;
  return {
    name: `Ungroup ${group.name}`,
    apply: (draft) => {
      const shot = shotIn(draft as Project, at.shot) as Draft<Shot>;
      const given = uses > 1 ? copies(inner.layers, fresh) : inner.layers;
      const layers = given.map((layer) => ({
        ...layer,
        shown: layer.shown && group.shown,
        span: { ...layer.span, start: layer.span.start + later },
      }));
      const index = shot.layers.findIndex((layer) => layer.id === group.id);
      shot.layers.splice(index, 1, ...(layers as Draft<Layer>[]));
      if (uses === 1) draft.shots = draft.shots.filter((other) => other.id !== inner.id);
    },
  };
}

/** The same layers with ids of their own, which refer to each other as before. */
function copies(layers: readonly Layer[], fresh: () => string): Layer[] {
  const ids = new Map(layers.map((layer) => [layer.id, fresh() as LayerId]));
  const now = (id: LayerId): LayerId => ids.get(id) ?? id;
  return layers.map((layer) => {
    const copy = copyOf(layer, fresh);
    followThrough(copy, (id) => (id === copy.id ? now(layer.id) : now(id)));
    nameOthers(copy, now);
    return {
      ...copy,
      id: now(layer.id),
      parent: layer.parent && { ...layer.parent, layer: now(layer.parent.layer) },
      matte: layer.matte && { ...layer.matte, layer: now(layer.matte.layer) },
    };
  });
}

/** Shots that a shot is shown in, by name. */
export const shownIn = (project: Project, id: ShotId): string[] =>
  project.shots.filter((shot) => shot.layers.some((layer) => groupOf(layer) === id)).map((shot) => shot.name);
