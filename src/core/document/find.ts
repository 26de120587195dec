import { JackplaneError } from '../errors';
import type { Layer, LayerId, Project, Shot, ShotId, Stock, StockId } from './schema';

/** @throws JackplaneError not-found */
export function shotIn(project: Project, id: ShotId): Shot {
  return found(
    project.shots.find((shot) => shot.id === id),
    'shot',
  );
}

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

function found<T>(thing: T | undefined, what: string): T {
  if (thing === undefined)
    throw new JackplaneError('not-found', `That ${what} is no longer in the project.`, 'Undo, or choose another.');
  return thing;
}

/** Size of a layer's source in pixels; sound has none. */
export function sourceSize(project: Project, layer: Layer): { w: number; h: number } | null {
  if (layer.source.kind === 'colour') return { w: layer.source.width, h: layer.source.height };
  const { facts } = stockIn(project, layer.source.stock);
  return facts.width && facts.height ? { w: facts.width, h: facts.height } : null;
}
