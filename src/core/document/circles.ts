// Things of a document that lead to each other in a circle.
import type { LayerId, ShotId } from './ids';
import { groupOf, type Layer, type Place } from './layer';
import type { Shot } from './schema';

/** Names of shots that show each other in a circle; or null. */
export function groupLoop(shots: readonly Shot[]): string[] | null {
  const byId = new Map(shots.map((shot) => [shot.id, shot]));
  const free = new Set<Shot>();
  const along = (shot: Shot, way: readonly Shot[]): string[] | null => {
    if (way.includes(shot)) return way.slice(way.indexOf(shot)).map((item) => item.name);
    if (free.has(shot)) return null;
    for (const layer of shot.layers) {
      const inner = byId.get(groupOf(layer) as ShotId);
      const loop = inner && along(inner, [...way, shot]);
      if (loop) return loop;
    }
    free.add(shot);
    return null;
  };
  for (const shot of shots) {
    const loop = along(shot, []);
    if (loop) return loop;
  }
  return null;
}

/** Names of layers that follow each other, or take their mattes from each other, in a circle; or null. */
export const followLoop = (layers: readonly Pick<Layer, 'id' | 'name' | 'parent' | 'place'>[]): string[] | null =>
  loopAlong(layers, ({ parent, place }) => [...(parent ? [parent.layer] : []), ...carriersOfPlace(place)]);
/** The layers through which a place follows tracks. */
const carriersOfPlace = (place: Place): string[] =>
  Object.values(place).flatMap((value) =>
    typeof value === 'object' && value !== null && 'drivers' in value
      ? (value.drivers ?? []).flatMap((driver) => (driver.type === 'follow' ? [String(driver['layer'])] : []))
      : [],
  );
export const matteLoop = (layers: readonly Pick<Layer, 'id' | 'name' | 'matte'>[]): string[] | null =>
  loopAlong(layers, ({ matte }) => (matte ? [matte.layer] : []));

/** Every layer is walked over once, however long the chains are. */
function loopAlong<T extends { id: LayerId; name: string }>(
  layers: readonly T[],
  leads: (layer: T) => readonly string[],
): string[] | null {
  const byId = new Map<string, T>(layers.map((layer) => [layer.id, layer]));
  const done = new Set<T>();
  for (const start of layers) {
    // the way to where it is looked now, each with the leads not yet gone along
    const way = done.has(start) ? [] : [{ layer: start, left: [...leads(start)] }];
    for (let last = way.at(-1); last; last = way.at(-1)) {
      const next = byId.get(last.left.pop() ?? '');
      if (next) {
        const met = way.findIndex(({ layer }) => layer === next);
        if (met >= 0) return way.slice(met).map(({ layer }) => layer.name);
        if (!done.has(next)) way.push({ layer: next, left: [...leads(next)] });
      } else if (!last.left.length) {
        done.add(last.layer);
        way.pop();
      }
    }
  }
  return null;
}
