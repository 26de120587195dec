import fc from 'fast-check';
import {
  addLayer,
  newLayer,
  newSource,
  orderLayer,
  removeLayer,
  renameLayer,
  setBlend,
  setGain,
  setMatte,
  setOpacity,
  setPlace,
  switchLayer,
} from '../document/edits/layers';
import { moveKeys, setJitter, togglePeg } from '../document/edits/keys';
import {
  addMask,
  insertVertex,
  orderMask,
  removeMask,
  removeVertices,
  setArea,
  setMask,
  setPath,
} from '../document/edits/masks';
import { newMask, pathShape, MASK_MODES, type Mask, type MaskId } from '../document/mask';
import { setRange, toggleMarker } from '../document/edits/markers';
import {
  duplicateLayer,
  freezeHere,
  moveLayer,
  removeLayers,
  reverseLayer,
  setSpeed,
  slipLayer,
  splitLayer,
  trimEnd,
  trimStart,
} from '../document/edits/time';
import { keysOf } from '../base/value';
import { addPass, newPass, orderPass, removePass, setPassValue, switchPass } from '../document/edits/passes';
import { addShot, addStock, newProject, setShot } from '../document/edits/project';
import { type Edit, perform } from '../document/edit';
import type {
  Layer,
  LayerId,
  PassId,
  Project,
  ProjectId,
  Shot,
  ShotId,
  Source,
  Stock,
  StockId,
} from '../document/schema';
import { valueAt } from '../time/values';
import { LOOKUP } from '../place/moment';
import type { Moment } from '../time/moment';
import type { Value } from '../base/value';
import { BLEND_MODES } from '../picture/blend';
import { PASSES } from '../passes/registry';

export const SHOT = 'shot-1' as ShotId;
export const RATE = { num: 24, den: 1 };

export const shotOf = (change: Partial<Shot> = {}): Shot => ({
  id: SHOT,
  name: 'Night ferry',
  width: 64,
  height: 36,
  rate: RATE,
  length: 48,
  background: [0, 0, 0],
  light: 'display',
  markers: [],
  range: null,
  layers: [],
  within: null,
  ...change,
});

export const clipStock = (id: string, width = 64, height = 36): Stock => ({
  id: id as StockId,
  name: id,
  file: `${id}.webm`,
  kind: 'video',
  facts: { width, height, rate: RATE, seconds: 2, codec: 'vp9', alpha: false, bytes: 1000 },
  line: [],
});

export const colourSource = (colour: [number, number, number], width = 64, height = 36): Source =>
  newSource('colour', { colour, size: [width, height] });

export function layerOf(id: string, source: Source, change: Partial<Layer> = {}): Layer {
  return { ...newLayer(id as LayerId, id, source, { start: 0, length: 48 }), ...change };
}

/** A project with one shot, the given layers (top first) and a clip called `plate`. */
export function projectOf(layers: Layer[] = [], shot: Partial<Shot> = {}): Project {
  const edits = [addStock(clipStock('plate')), addShot(shotOf({ layers, ...shot }))];
  return edits.reduce(
    (project, edit) => perform(project, edit)!.project,
    newProject('project-1' as ProjectId, 'Paper Harbour', '2026-01-12T18:30:00.000Z'),
  );
}

/** A moment of a layer, or of a place alone, where the rest of the document does not matter. @param frame of layer time */
export const momentAt = (
  frame: number,
  layer: Layer = layerOf('any', colourSource([0, 0, 0])),
  shot: Shot = shotOf({ layers: [layer] }),
): Moment => ({ project: projectOf([], { ...shot }), shot, layer, frame, reduction: 1, lookup: LOOKUP });
export const placeMoment = (place: Layer['place'], frame: number, { w, h }: { w: number; h: number }): Moment => {
  const layer = { ...layerOf('any', colourSource([0, 0, 0])), place };
  return momentAt(frame, layer, shotOf({ width: w, height: h, layers: [layer] }));
};
/** A layer of a shot at a frame of the shot. */
export const shotMoment = (shot: Shot, layer: Layer, frame: number): Moment =>
  momentAt(frame - layer.span.start, layer, shot);
const ANY = momentAt(0);
/** A value at a frame of layer time. */
export const valueOn = <T>(value: Value<T>, frame: number): T => valueAt(value, { ...ANY, frame });

const vertexCount = ({ shape }: Mask): number =>
  shape.kind !== 'path' ? 0 : 'still' in shape.path ? shape.path.still.length : shape.path.keys[0]!.value.length;
/** A matte from a layer that takes none itself, so that no circle comes about. */
function freeMatte(project: Project, layer: Layer): Layer['matte'] {
  const { layers } = project.shots[0]!;
  const giver = layers.find((other) => other.id !== layer.id && !other.matte);
  return giver && !layers.some((other) => other.matte?.layer === layer.id)
    ? { layer: giver.id, by: 'alpha', invert: false }
    : null;
}

/** Counts what is made, so that ids differ. */
let made = 0;

/** Any edit that can be made on the shot of `projectOf`, chosen by what is there. */
export const anyEdit: fc.Arbitrary<(project: Project) => Edit> = fc
  .tuple(fc.nat(41), fc.nat(1000), fc.double({ min: 0, max: 1, noNaN: true }))
  .map(([which, n, x]) => (project: Project) => {
    const shot = project.shots[0]!;
    const id = () => `id-${(made += 1)}`;
    const layer = shot.layers[n % Math.max(1, shot.layers.length)];
    if (!layer || which === 0)
      return addLayer(SHOT, layerOf(id(), colourSource([x, 0.5, 1 - x])), n % (shot.layers.length + 1));
    const at = { shot: SHOT, layer: layer.id };
    const pass = layer.passes[n % Math.max(1, layer.passes.length)];
    const newOne = () => addPass(at, newPass(id() as PassId, PASSES[n % PASSES.length]!.type));
    const mask = layer.masks[n % Math.max(1, layer.masks.length)];
    const newPath = () =>
      addMask(
        at,
        newMask(
          id() as MaskId,
          `mask ${n}`,
          pathShape([
            [-21 + 20 * x, -9],
            [14, -8],
            [15, 9 + x],
            [-12, 12],
          ]),
        ),
      );
    const drawn = { ...at, frame: layer.span.start + (n % 48) };
    const square = (by: number) =>
      [
        [-9, -9],
        [9 + by, -9],
        [9, 9],
        [-9, 9 + by],
      ].map(([px, py]) => [px!, py!, 0, 0, 0, 0, 0] as const);
    const edits: (() => Edit)[] = [
      newPath,
      () => (mask ? removeMask(project, at, mask.id) : newPath()),
      () => (mask ? setMask(project, at, mask.id, { mode: MASK_MODES[n % 4]!, invert: n % 2 === 0 }) : newPath()),
      () => (mask ? orderMask(project, at, mask.id, 0) : newPath()),
      () =>
        mask?.shape.kind === 'path' && vertexCount(mask) === 4
          ? setPath(project, drawn, mask.id, square(x), n % 3 ? 'here' : 'all')
          : newPath(),
      () =>
        mask?.shape.kind === 'path' && vertexCount(mask) > 2
          ? insertVertex(project, at, mask.id, n % 2, 0.2 + 0.5 * x)
          : newPath(),
      () =>
        mask?.shape.kind === 'path' && vertexCount(mask) > 3
          ? removeVertices(project, at, mask.id, new Set([n % 3]))
          : newPath(),
      () =>
        pass && mask
          ? setArea(project, at, pass.id, n % 3 ? { masks: [mask.id], side: n % 2 ? 'inside' : 'outside' } : null)
          : newPath(),
      () => setMatte(project, at, n % 2 ? null : freeMatte(project, layer)),
      () => removeLayer(project, at),
      () => orderLayer(project, at, n % shot.layers.length),
      () => renameLayer(project, at, `layer ${n}`),
      () => switchLayer(project, at, (['shown', 'solo', 'locked'] as const)[n % 3]!),
      () => setOpacity(project, at, x),
      () => setBlend(project, at, BLEND_MODES[n % BLEND_MODES.length]!),
      () => setGain(project, at, 2 * x),
      () => moveLayer(project, at, (n % 60) - 10),
      () => trimStart(project, at, n % 60),
      () => trimEnd(project, at, n % 60),
      () =>
        setPlace(project, at, {
          position: [n % 40, 40 * x - 20],
          rotation: 360 * x,
          scale: [0.3 + x, 0.3 + x],
          flipX: n % 2 === 0,
        }),
      () => setShot(SHOT, { background: n % 2 ? null : [x, x, x], light: n % 3 ? 'display' : 'linear' }),
      newOne,
      newOne,
      () => (pass ? removePass(project, at, pass.id) : newOne()),
      () => (pass ? switchPass(project, at, pass.id) : newOne()),
      () => (pass ? orderPass(project, at, pass.id, n % layer.passes.length) : newOne()),
      () => (pass?.type === 'adjust' ? setPassValue(project, at, pass.id, 'exposure', 4 * x - 2) : newOne()),
      () => togglePeg(project, { ...at, frame: n % 48 }, 'place.position'),
      () => togglePeg(project, { ...at, frame: n % 48 }, 'opacity', 'smooth'),
      () =>
        setJitter(
          project,
          at,
          'place.rotation',
          n % 2 ? { type: 'jitter', amount: 10 * x, every: 1 + (n % 5), smooth: x, seed: n } : null,
        ),
      () =>
        moveKeys(
          SHOT,
          [...keysOf(layer.place.position)]
            .slice(0, 1)
            .map((key) => ({ layer: layer.id, path: 'place.position', at: key.at })),
          (n % 21) - 10,
        ),
      () => splitLayer(project, { ...at, frame: layer.span.start + (n % 50) }, id),
      () => duplicateLayer(project, at, 5, 1, id),
      () => slipLayer(project, at, (n % 30) - 15),
      () => reverseLayer(project, at),
      () => freezeHere(project, { ...at, frame: layer.span.start + 1 + (n % 40) }),
      () => setSpeed(project, at, { still: 4 * x - 2 }, n % 2 === 0),
      () => removeLayers(project, SHOT, [layer.id], n % 2 === 0),
      () => toggleMarker(project, SHOT, { at: n % 48, name: `m${n}`, colour: 'sand' }),
      () => setRange(SHOT, n % 3 ? { from: n % 20, to: 20 + (n % 28) } : null),
      () => (pass?.type === 'blur' ? setPassValue(project, at, pass.id, 'radius', 3 * x) : newOne()),
    ];
    return edits[(which - 1) % edits.length]!();
  });
