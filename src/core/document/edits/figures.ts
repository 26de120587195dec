// Shapes and masks: one made from the other; drawings become layers.
import type { Draft } from 'immer';
import { still } from '../../base/value';
import type { DrawnPiece, Paint } from '../../formats/svg-drawing';
import { waysOf, type Form } from '../../sources/figure';
import { steadyAt } from '../../time/values';
import { plain } from '../draft';
import { together, type Edit } from '../edit';
import { layerIn, shotIn, sourceSize } from '../find';
import {
  MASK_COLOURS,
  newMask,
  pathShape,
  SHAPE_TITLES,
  type Mask,
  type MaskId,
  type Shape,
  type Vertex,
} from '../mask';
import type { Layer, LayerId, Project, ShotId } from '../schema';
import { groupLayers } from './groups';
import { addLayer, newLayer, newSource } from './layers';
import { localFrame, type At } from './keys';
import { freeName } from './time';

/** A shape above a layer that lies where it does and is drawn by a copy of one of its masks. @param ids of the new layer and its mask */
export function shapeOfMask(project: Project, at: At, mask: Mask, ids: { layer: LayerId; mask: MaskId }): Edit {
  const shot = shotIn(project, at.shot);
  const layer = layerIn(shot, at.layer);
  const { w, h } = sourceSize(project, shot, layer)!;
  const name = freeName(mask.name.toLowerCase(), shot.layers);
  const source = newSource('shape', { form: 'path', size: [w, h], line: 0 });
  return {
    name: `Make a shape of ${mask.name}`,
    apply: (draft) => {
      const { layers } = shotIn(draft as Project, at.shot);
      const own = newLayer(ids.layer, name, source, { ...layer.span });
      own.masks = [{ ...mask, id: ids.mask, on: true, mode: 'add' }];
      layers.splice(layers.indexOf(layerIn(shotIn(draft as Project, at.shot), at.layer)), 0, {
        ...own,
        place: structuredClone(layer.place),
        parent: layer.parent && { ...layer.parent },
      });
    },
  };
}

/** What a mask must be to look like a shape's own form. */
function asMask(v: Form): Shape[] {
  const round = { centre: still([0, 0]), size: still([v.width, v.height]), rotation: still(0) } as const;
  if (v.form === 'ellipse') return [{ kind: 'ellipse', ...round } as Shape];
  if (v.form === 'rectangle') return [{ kind: 'rectangle', ...round, radius: still(v.radius) } as Shape];
  return waysOf(v).map(({ ring, closed }) => {
    const points = Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i]!, ring[2 * i + 1]!] as const);
    return { ...pathShape(points), closed } as Shape;
  });
}

/** A shape of a form becomes free paths that look the same as it does at the playhead. */
export function toFreePath(project: Project, at: At, fresh: () => string): Edit {
  const { source, name } = layerIn(shotIn(project, at.shot), at.layer);
  return {
    name: `Free path of ${name}`,
    apply: (draft) => {
      const layer = layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>;
      const frame = localFrame(layer as Layer, at);
      const now = Object.fromEntries(
        Object.entries(source.values).map(([key, value]) => [key, steadyAt(plain(value), frame)]),
      ) as unknown as Form;
      const masks = asMask(now).map((shape, i) =>
        newMask(fresh() as MaskId, SHAPE_TITLES[shape.kind], shape, MASK_COLOURS[i % MASK_COLOURS.length]!),
      );
      layer.masks.push(...(masks as Draft<Mask>[]));
      layer.source.values['form'] = still('path');
      layer.source.values['paths'] = still(masks.map(({ id }) => id));
    },
  };
}

const filled = (fill: Paint | null): Record<string, unknown> =>
  !fill
    ? { fill: 'none' }
    : 'run' in fill
      ? { fill: 'ramp', colours: fill.colours, run: fill.run }
      : { fill: 'colour', colour: fill };

function shapeOf(
  piece: DrawnPiece,
  name: string,
  size: readonly [number, number],
  length: number,
  fresh: () => string,
) {
  const { line } = piece;
  const values = {
    ...{ form: 'path', size, ...filled(piece.fill), line: line?.width ?? 0 },
    ...(line && { lineColour: line.colour, cap: line.cap, join: line.join }),
  };
  const layer = newLayer(fresh() as LayerId, name, newSource('shape', values), { start: 0, length });
  layer.opacity = still(piece.opacity);
  layer.masks = piece.paths.map(({ path, closed, hole, ...own }, i) => ({
    ...newMask(
      fresh() as MaskId,
      own.name.slice(0, 200),
      { kind: 'path', closed, path: still(path as Vertex[]) } as Shape,
      MASK_COLOURS[i % MASK_COLOURS.length]!,
    ),
    mode: hole ? ('exclude' as const) : ('add' as const),
  }));
  return layer;
}

/** A drawing on top of a shot: a shape, or a group of them, the first of them lowest. @param ids of the group and what it shows */
export function addDrawing(
  project: Project,
  shotId: ShotId,
  pieces: readonly DrawnPiece[],
  name: string,
  ids: { shot: ShotId; layer: LayerId },
  fresh: () => string,
): Edit {
  const shot = shotIn(project, shotId);
  const size = [shot.width, shot.height] as const;
  const layers: Layer[] = [];
  for (const piece of pieces) {
    const own = pieces.length > 1 ? piece.name.slice(0, 150) : name;
    layers.push(shapeOf(piece, freeName(own, [...shot.layers, ...layers]), size, shot.length, fresh));
  }
  const adding = layers.map((layer) => () => addLayer(shotId, layer));
  if (layers.length === 1) return { ...adding[0]!(), name: `Add ${name}` };
  const chosen = { shot: shotId, layers: layers.map(({ id }) => id) };
  return together(project, `Add ${name}`, [...adding, (now) => groupLayers(now, chosen, ids, name)]);
}
