// A boat that moves and changes its speed, over a deck: what edits in time and place are tried on.
import { stockSource } from '../document/edits/layers';
import { perform, type Edit } from '../document/edit';
import { layerIn } from '../document/find';
import type { Layer, LayerId, Project } from '../document/schema';
import type { Value } from '../base/value';
import { apply } from '../picture/matrix';
import { layerMatrix } from '../place/projection';
import { sourceSeconds } from '../plan/sources';
import { colourSource, layerOf, projectOf, SHOT, shotMoment } from './documents';

export const keyed: Value<[number, number]> = {
  keys: [
    { at: 4, value: [0, 0], ease: 'linear' },
    { at: 20, value: [32, -16], ease: { cubic: [0.4, 0, 0.6, 1] } },
    { at: 44, value: [0, 8], ease: 'smooth' },
  ],
};
export const moving = (change: Partial<Layer> = {}): Layer => {
  const layer = layerOf('boat', stockSource('plate' as never), change);
  return {
    ...layer,
    place: { ...layer.place, position: keyed },
    time: {
      ...layer.time,
      speed: {
        keys: [
          { at: 0, value: 2, ease: 'linear' },
          { at: 30, value: 0.5, ease: 'linear' },
        ],
      },
    },
  };
};
export const at = { shot: SHOT, layer: 'boat' as LayerId, frame: 12 };
export const project = projectOf([moving(), layerOf('deck', colourSource([0.2, 0.2, 0.2]))]);
export const done = (edit: Edit, base: Project = project): Project => perform(base, edit)?.project ?? base;
export const layerOfProject = (result: Project, id = 'boat'): Layer => layerIn(result.shots[0]!, id as LayerId);
/** What shows of a layer at a shot frame: where it is and which source time. */
export const state = (result: Project, id: string, frame: number): number[] => {
  const shot = result.shots[0]!;
  const layer = layerOfProject(result, id);
  return [
    ...apply(layerMatrix(shotMoment(shot, layer, frame), { w: 64, h: 36 }), 0, 0),
    sourceSeconds(shot, layer, frame - layer.span.start),
  ];
};
