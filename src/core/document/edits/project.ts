import { still } from '../../base/value';
import { title } from '../../sources/title';
import type { Edit } from '../edit';
import { shotIn, stockIn } from '../find';
import {
  FORMAT_VERSION,
  type LayerId,
  type Project,
  type ProjectId,
  type Shot,
  type ShotId,
  type Stock,
  type StockId,
  stockOf,
} from '../schema';

/** @param now ISO 8601 */
export function newProject(id: ProjectId, name: string, now: string): Project {
  return {
    format: FORMAT_VERSION,
    id,
    name,
    created: now,
    modified: now,
    stock: [],
    shots: [],
    tracks: [],
    stills: [],
    jigs: [],
  };
}

export const renameProject = (name: string): Edit => ({
  name: `Rename project to ${name}`,
  apply: (project) => {
    project.name = name;
  },
});

/** A shot with nothing in it, everything playing. */
export const newShot = (
  id: ShotId,
  settings: Pick<Shot, 'name' | 'width' | 'height' | 'rate' | 'length' | 'background' | 'light'>,
): Shot => ({ ...settings, id, markers: [], range: null, layers: [], within: null });

export const addShot = (shot: Shot): Edit => ({
  name: `New shot ${shot.name}`,
  apply: (project) => {
    project.shots.push(shot);
  },
});

export type ShotSettings = Partial<
  Pick<Shot, 'name' | 'width' | 'height' | 'rate' | 'length' | 'background' | 'light'>
>;
export const setShot = (id: ShotId, settings: ShotSettings): Edit => ({
  name: 'Shot settings',
  apply: (project) => {
    Object.assign(shotIn(project as Project, id), settings);
  },
});

/** Where all that lies in depth runs to, from the shot's centre; null when each layer has its own point. */
export const setVanishing = (id: ShotId, to: readonly [number, number] | null): Edit => ({
  name: to ? 'Vanishing point' : 'No vanishing point',
  apply: (project) => {
    const shot = shotIn(project as Project, id);
    if (to) shot.vanishing = [...to];
    else delete shot.vanishing;
  },
});

/** Gives a shot the size, rate and length of its one clip, which then fills it frame by frame. */
export const followClip = (
  id: ShotId,
  clip: LayerId,
  settings: Pick<Shot, 'width' | 'height' | 'rate' | 'length'>,
): Edit => ({
  name: 'Shot like its clip',
  apply: (project) => {
    const shot = shotIn(project as Project, id);
    Object.assign(shot, settings);
    for (const layer of shot.layers) if (layer.id === clip) layer.span = { start: 0, length: settings.length };
  },
});

export const removeShot = (project: Project, id: ShotId): Edit => ({
  name: `Delete shot ${shotIn(project, id).name}`,
  apply: (draft) => {
    draft.shots = draft.shots.filter((shot) => shot.id !== id);
  },
});

export const addStock = (stock: Stock): Edit => ({
  name: `Import ${stock.name}`,
  apply: (project) => {
    project.stock.push(stock);
  },
});

/** Replaces what is known of a stock item's file, when missing media is linked again. */
export const relinkStock = (project: Project, id: StockId, facts: Pick<Stock, 'file' | 'facts' | 'kind'>): Edit => ({
  name: `Link ${stockIn(project, id).name}`,
  apply: (draft) => {
    Object.assign(stockIn(draft as Project, id), facts);
  },
});

/** The stock that a title's font is; null for one that ships. */
const ownFontOf = ({ font }: Readonly<Record<string, unknown>>): string | null =>
  (font as { still?: { stock?: string } }).still?.stock ?? null;

/** Removes stock, every layer that shows it, and every track of it. Titles in a font that goes get the usual one. */
export const removeStock = (project: Project, ids: readonly StockId[]): Edit => ({
  name: `Delete ${ids.length === 1 ? stockIn(project, ids[0]!).name : `${ids.length} pieces of stock`}`,
  apply: (draft) => {
    const gone = new Set<string | null>(ids);
    draft.stock = draft.stock.filter((item) => !gone.has(item.id));
    draft.tracks = draft.tracks.filter((track) => !gone.has(track.stock));
    for (const shot of draft.shots) {
      shot.layers = shot.layers.filter((layer) => !gone.has(stockOf(layer)));
      for (const { source } of shot.layers)
        if (source.type === title.type && gone.has(ownFontOf(source.values)))
          source.values['font'] = still(title.params.font.default);
    }
  },
});
