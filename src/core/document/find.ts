import { JackplaneError } from '../base/errors';
import {
  groupOf,
  stockOf,
  type Layer,
  type LayerId,
  type Pass,
  type Project,
  type Shot,
  type ShotId,
  type Stock,
  type StockId,
} from './schema';
import type { Track, TrackId } from './track';
import type { Value } from '../base/value';

/** @throws JackplaneError not-found */
export function shotIn(project: Project, id: ShotId): Shot {
  return found(
    project.shots.find((shot) => shot.id === id),
    'shot',
  );
}

/** The project with a shot in place of the one of that id. */
export const withShot = (project: Project, shot: Shot): Project => ({
  ...project,
  shots: project.shots.map((item) => (item.id === shot.id ? shot : item)),
});

/** @throws JackplaneError not-found */
export function layerIn(shot: Shot, id: LayerId): Layer {
  return found(
    shot.layers.find((layer) => layer.id === id),
    'layer',
  );
}

/** @throws JackplaneError not-found */
export function stockIn(project: Project, id: StockId): Stock {
  return found(
    project.stock.find((item) => item.id === id),
    'stock item',
  );
}

/** @throws JackplaneError not-found */
export function trackIn(project: Project, id: TrackId): Track {
  return found(
    project.tracks.find((track) => track.id === id),
    'track',
  );
}

function found<T>(thing: T | undefined, what: string): T {
  if (thing === undefined)
    throw new JackplaneError('not-found', `That ${what} is no longer in the project.`, 'Undo, or choose another.');
  return thing;
}

/** The passes that belong to the clip of a layer; none when the layer leaves them out. */
export function clipLine(project: Project, layer: Layer): readonly Pass[] {
  const id = stockOf(layer);
  const bare = layer.source.values['bare'] as { still?: boolean } | undefined;
  return (id && !bare?.still && project.stock.find((item) => item.id === id)?.line) || [];
}
/** A layer with the passes of its clip before its own. */
export function withClipLine(project: Project, layer: Layer): Layer {
  const line = clipLine(project, layer);
  return line.length ? { ...layer, passes: [...line, ...layer.passes] } : layer;
}

/** Size of a layer's source in pixels; sound has none. What has no size of its own is as large as the shot. */
export function sourceSize(project: Project, shot: Shot, layer: Layer): { w: number; h: number } | null {
  const item = stockOf(layer);
  if (item) {
    const { facts } = stockIn(project, item);
    return facts.width && facts.height ? { w: facts.width, h: facts.height } : null;
  }
  const inner = project.shots.find((other) => other.id === groupOf(layer));
  if (inner) return { w: inner.width, h: inner.height };
  const { size } = layer.source.values as { size?: Value<[number, number]> };
  const [w, h] = size && 'still' in size ? size.still : [shot.width, shot.height];
  return { w, h };
}
