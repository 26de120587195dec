// What is done to chosen layers in one step, ready made: passes, places and further layers, ordinary ones from then on.
import type { Draft } from 'immer';
import { JackplaneError } from '../../base/errors';
import { passOf } from '../../passes/registry';
import { placement, type PlacementName } from '../../place/place';
import { together, type Edit } from '../edit';
import { shotIn, sourceSize } from '../find';
import type { Layer, LayerId, PassId, Project, Shot } from '../schema';
import { addPass, newPass } from './passes';
import { newLayer, newSource, putLayer } from './layers';
import { copyOf, freeName } from './time';

interface Arranging {
  shot: Shot;
  /** the chosen ones, top first */
  layers: readonly Layer[];
  fresh: () => string;
  /** how many times larger than 720 rows the shot is */
  k: number;
}
export interface Arrangement {
  name: string;
  title: string;
  words: string;
  help: string;
  /** how many layers it takes, at least and at most */
  takes: readonly [number, number];
  edits(arranging: Arranging): ((now: Project) => Edit)[];
}

/** Puts a layer into a part of the shot, which it fills. */
const into =
  ({ shot, fresh }: Arranging, layer: Layer, part: PlacementName, border: number) =>
  (now: Project): Edit => {
    const size = sourceSize(now, shot, layer) ?? { w: shot.width, h: shot.height };
    const placed = placement(
      part,
      size,
      { w: shot.width, h: shot.height },
      { fills: true, border: Math.round(border) },
    );
    return putLayer(now, { shot: shot.id, layer: layer.id }, placed, 'Place', fresh() as PassId);
  };
const QUARTERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;

/** The layer is more than a rectangle: something has been cut out of it. */
const isCutOut = ({ passes }: Layer): boolean =>
  passes.some(({ on, type }) => on && type !== 'outline' && passOf(type)?.group === 'cut out');

/** A title in the span of a layer, below it. */
function titleBelow({ shot, fresh, k }: Arranging, layer: Layer): Layer {
  const values = { text: 'Title', size: [shot.width, shot.height], height: Math.round(150 * k) };
  return newLayer(fresh() as LayerId, freeName('title', shot.layers), newSource('title', values), layer.span);
}

export const ARRANGEMENTS: readonly Arrangement[] = [
  {
    name: 'behind',
    title: 'Title behind someone',
    words: 'text behind a person ; words hidden by who walks in front ; between',
    help: 'A title below the chosen layer. One that has not been cut out yet is doubled, and its screen is keyed in the copy above.',
    takes: [1, 1],
    edits(arranging) {
      const { shot, layers, fresh } = arranging;
      const layer = layers[0]!;
      const title = titleBelow(arranging, layer);
      const copy = copyOf(layer, fresh);
      const above: Layer = { ...copy, name: freeName(copy.name, shot.layers), sound: { ...copy.sound, muted: true } };
      return [
        () => ({
          name: 'Title behind',
          apply: (draft) => {
            const own = shotIn(draft as Project, shot.id).layers as Draft<Layer>[];
            const at = own.findIndex(({ id }) => id === layer.id);
            if (isCutOut(layer)) own.splice(at + 1, 0, title as Draft<Layer>);
            else own.splice(at, 0, above as Draft<Layer>, title as Draft<Layer>);
          },
        }),
        ...(isCutOut(layer)
          ? []
          : [() => addPass({ shot: shot.id, layer: above.id }, newPass(fresh() as PassId, 'colour-key'))]),
      ];
    },
  },
  {
    name: 'inset',
    title: 'Inset in the corner',
    words: 'picture in picture ; small picture ; inset with border',
    help: 'The chosen layer small in the lower right corner, with a line around it and a little room to the edges.',
    takes: [1, 1],
    edits(arranging) {
      const { shot, layers, fresh, k } = arranging;
      const at = { shot: shot.id, layer: layers[0]!.id };
      const line = newPass(fresh() as PassId, 'outline', null, {
        width: Math.round(5 * k),
        side: 'inside',
        feather: 0,
      });
      return [into(arranging, layers[0]!, 'bottom-right', 28 * k), () => addPass(at, { ...line, space: 'shot' })];
    },
  },
  {
    name: 'split',
    title: 'Split among layers',
    words: 'split screen ; side by side ; four-way split ; quarters ; halves ; grid of pictures',
    help: 'The chosen layers side by side, each filling its part: two in halves, three or four in quarters. The topmost comes first.',
    takes: [2, 4],
    edits(arranging) {
      const { layers, k } = arranging;
      const parts = layers.length === 2 ? (['left', 'right'] as const) : QUARTERS;
      return layers.map((layer, i) => into(arranging, layer, parts[i]!, 6 * k));
    },
  },
  {
    name: 'glow-outline',
    title: 'Glow outline',
    words: 'glowing edge ; neon rim ; aura ; halo around someone',
    help: 'A bright line along the chosen layer’s edge and a soft light around it. It shows on what has been cut out.',
    takes: [1, 1],
    edits({ shot, layers, fresh, k }) {
      const at = { shot: shot.id, layer: layers[0]!.id };
      const colour = [1, 0.84, 0.5];
      const line = newPass(fresh() as PassId, 'outline', null, {
        width: Math.round(4 * k),
        feather: 2,
        colour: [colour],
      });
      const light = newPass(fresh() as PassId, 'drop-shadow', null, {
        distance: 0,
        softness: Math.round(22 * k),
        spread: Math.round(6 * k),
        colour,
        opacity: 0.8,
      });
      return [line, light].map((pass) => () => addPass(at, { ...pass, space: 'shot' }));
    },
  },
];

/** @throws JackplaneError bad-value when too few or too many layers are chosen */
export function arrange(
  project: Project,
  shotId: Shot['id'],
  ids: readonly LayerId[],
  arrangement: Arrangement,
  fresh: () => string,
): Edit {
  const shot = shotIn(project, shotId);
  const layers = shot.layers.filter(({ id }) => ids.includes(id));
  const [least, most] = arrangement.takes;
  if (layers.length < least || layers.length > most)
    throw new JackplaneError(
      'bad-value',
      `${arrangement.title} needs ${least === most ? 'one layer' : `${least} to ${most} layers`}; ${layers.length} are chosen.`,
      least === most ? 'Choose the one that it is for.' : 'Choose them in the time panel, with Ctrl for several.',
    );
  for (const layer of layers)
    if (!sourceSize(project, shot, layer) || layer.source.type === 'adjustment')
      throw new JackplaneError(
        'bad-value',
        `${layer.name} has no picture of its own.`,
        'Choose a layer that shows something.',
      );
    else if (layer.locked) throw new JackplaneError('bad-value', `${layer.name} is locked.`, 'Unlock it first.');
  return together(
    project,
    `${arrangement.title}: ${layers.map(({ name }) => name).join(', ')}`,
    arrangement.edits({
      shot,
      layers,
      fresh,
      k: shot.height / 720,
    }),
  );
}
