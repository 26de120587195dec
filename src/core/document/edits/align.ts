// Layers put in line with each other or with their shot, and spread evenly.
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import type { LayerId, Project, ShotId } from '../schema';
import { momentOf } from '../../place/moment';
import { boxOf, type Box } from '../../place/boxes';
import { carriedBy, placeAt } from '../../place/place';
import { plainFor } from '../../time/values';
import { setValues } from './keys';

export const ALIGNMENTS = [
  { name: 'left', label: 'Left edges' },
  { name: 'centre', label: 'Centres sideways' },
  { name: 'right', label: 'Right edges' },
  { name: 'top', label: 'Top edges' },
  { name: 'middle', label: 'Centres upright' },
  { name: 'bottom', label: 'Bottom edges' },
] as const;
export type Alignment = (typeof ALIGNMENTS)[number]['name'];
export type Axis = 'sideways' | 'upright';

interface Chosen {
  shot: ShotId;
  layers: readonly LayerId[];
  frame: number;
}
interface Lying {
  id: LayerId;
  box: Box;
}
/** The chosen layers that can be moved: with a picture at the frame, not locked. */
function lying(project: Project, { shot: id, layers, frame }: Chosen): Lying[] {
  const shot = shotIn(project, id);
  return shot.layers.flatMap((layer) => {
    const box =
      layers.includes(layer.id) && !layer.locked && !layer.place.framing && boxOf(project, shot, layer, frame);
    return box ? [{ id: layer.id, box }] : [];
  });
}

/** Moves layers by so many pixels of the shot, whatever carries them along and drives their places. */
function moving(
  project: Project,
  { shot: id, frame }: Chosen,
  name: string,
  by: ReadonlyMap<LayerId, [number, number]>,
): Edit {
  const shot = shotIn(project, id);
  const edits = [...by].map(([layerId, [dx, dy]]) => {
    const layer = layerIn(shot, layerId);
    const moment = momentOf(project, shot, layer, frame);
    const [a, b, c, d] = carriedBy(moment);
    const det = a * d - b * c || 1;
    const [x, y] = placeAt(moment).position;
    const next = [x + (d * dx - c * dy) / det, y + (a * dy - b * dx) / det].map((v) => Math.round(v * 100) / 100);
    const position = plainFor(layer.place.position, next as [number, number], moment);
    return setValues({ shot: id, layer: layerId, frame }, { 'place.position': position }, name);
  });
  return { name, apply: (draft) => edits.forEach((edit) => edit.apply(draft)) };
}

const LOW = { sideways: 'left', upright: 'top' } as const;
const HIGH = { sideways: 'right', upright: 'bottom' } as const;

/** Puts edges or middles of layers in line: of several with the outermost of them, of one with the shot’s. */
export function alignLayers(project: Project, chosen: Chosen, way: Alignment): Edit {
  const axis: Axis = ['left', 'centre', 'right'].includes(way) ? 'sideways' : 'upright';
  const all = lying(project, chosen);
  const { width, height } = shotIn(project, chosen.shot);
  const long = axis === 'sideways' ? width : height;
  const [low, high] = [LOW[axis], HIGH[axis]];
  const [from, to] =
    all.length > 1
      ? [Math.min(...all.map(({ box }) => box[low])), Math.max(...all.map(({ box }) => box[high]))]
      : [-long / 2, long / 2];
  const by = new Map(
    all.map(({ id, box }): [LayerId, [number, number]] => {
      const shift =
        way === 'left' || way === 'top'
          ? from - box[low]
          : way === 'right' || way === 'bottom'
            ? to - box[high]
            : (from + to - box[low] - box[high]) / 2;
      return [id, axis === 'sideways' ? [shift, 0] : [0, shift]];
    }),
  );
  return moving(project, chosen, `Align: ${ALIGNMENTS.find(({ name }) => name === way)!.label.toLowerCase()}`, by);
}

/** Spreads three or more layers so that the gaps between them are equal; the outer ones stay. */
export function spreadLayers(project: Project, chosen: Chosen, axis: Axis): Edit {
  const [low, high] = [LOW[axis], HIGH[axis]];
  const all = lying(project, chosen).sort((p, q) => p.box[low] + p.box[high] - q.box[low] - q.box[high]);
  const taken = all.reduce((sum, { box }) => sum + box[high] - box[low], 0);
  const [first, last] = [all[0], all.at(-1)];
  const gap = first && last ? (last.box[high] - first.box[low] - taken) / Math.max(1, all.length - 1) : 0;
  let at = first?.box[low] ?? 0;
  const by = new Map(
    all.map(({ id, box }): [LayerId, [number, number]] => {
      const shift = at - box[low];
      at += box[high] - box[low] + gap;
      return [id, axis === 'sideways' ? [shift, 0] : [0, shift]];
    }),
  );
  return moving(project, chosen, `Spread ${axis}`, by);
}
