// Edits of masks: what they are, in which order they work, and their paths over time.
import type { Draft } from 'immer';
import { withVertex, withoutVertices, type Vertex } from '../../masks/path';
import { steadyAt } from '../../time/values';
import { plain } from '../draft';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import type { Mask, MaskId, Shape } from '../mask';
import type { Layer, Pass, PassId, Project } from '../schema';
import type { Key, Value } from '../../base/value';
import { changedAt, mapped, valueIn, withKeys, writeValue } from './values';
import type { Params } from '../../params/registry';
import { paramsOf, titleOf } from '../../passes/registry';
import { sourceOf } from '../../sources/registry';
import { isFreePath } from '../../sources/shape';
import { localFrame, type At } from './keys';

type Path = readonly Vertex[];

const nameOf = (project: Project, at: At, id: MaskId): string =>
  layerIn(shotIn(project, at.shot), at.layer).masks.find((mask) => mask.id === id)?.name ?? 'mask';

const onLayer = (at: At, name: string, apply: (layer: Draft<Layer>) => void): Edit => ({
  name,
  apply: (draft) => apply(layerIn(shotIn(draft as Project, at.shot), at.layer) as Draft<Layer>),
});
const onMask = (project: Project, at: At, id: MaskId, what: string, apply: (mask: Draft<Mask>) => void): Edit =>
  onLayer(at, `${what} ${nameOf(project, at, id)}`, (layer) => {
    for (const mask of layer.masks) if (mask.id === id) apply(mask);
  });

/** Adds a mask after the others. @param area the pass whose area waits for it */
export const addMask = (at: At, mask: Mask, area?: PassId): Edit =>
  onLayer(at, `Add mask ${mask.name}`, (layer) => {
    layer.masks.push(mask as Draft<Mask>);
    for (const pass of layer.passes) if (pass.id === area && pass.area) pass.area.masks.push(mask.id);
  });

/** Takes a mask away, and out of the passes that use it; an area without masks is no area. */
export const removeMask = (project: Project, at: At, id: MaskId): Edit =>
  onLayer(at, `Delete mask ${nameOf(project, at, id)}`, (layer) => {
    layer.masks = layer.masks.filter((mask) => mask.id !== id);
    withMasks(layer, (ids) => ids.filter((other) => other !== id));
  });

/** True when a pass works with masks, or with a certain one: within an area, or by those that it names. A Mask pass without names takes all. */
export function usesMasks(pass: Pass, mask?: MaskId): boolean {
  const has = (ids: readonly MaskId[]) => (mask ? ids.includes(mask) : ids.length > 0);
  const named = (name: string) => {
    const value = pass.values[name] as Value<MaskId[]>;
    return 'still' in value ? [value.still] : value.keys.map((key) => key.value);
  };
  const lists = Object.entries(paramsOf(pass.type)).flatMap(([name, param]) =>
    param.kind === 'masks' ? [{ all: param.empty === 'all', ids: named(name) }] : [],
  );
  return (
    Boolean(pass.area && has(pass.area.masks)) ||
    lists.some(({ all, ids }) => ids.some((list) => has(list) || (all && !list.length)))
  );
}

/** True when a layer's source is drawn by masks, or by a certain one. */
export function drawnByMasks({ source }: Layer, mask?: MaskId): boolean {
  if (!isFreePath(source)) return false;
  const { still: ids } = source.values['paths'] as { still: MaskId[] };
  return !mask || !ids.length || ids.includes(mask);
}

/** The masks of a layer that neither a pass of it nor its source works with. */
export const freeMasks = (layer: Layer): MaskId[] =>
  layer.masks
    .filter(({ id }) => !drawnByMasks(layer, id) && !layer.passes.some((pass) => usesMasks(pass, id)))
    .map(({ id }) => id);

/** Changes the ids of masks that a layer's source and its passes refer to. */
function withMasks({ source, passes }: Draft<Layer>, change: (ids: MaskId[]) => MaskId[]): void {
  const inValues = (params: Params, values: Draft<Pass>['values']): void => {
    for (const [name, { kind }] of Object.entries(params))
      if (kind === 'masks' && values[name]) values[name] = mapped(plain(values[name] as Value<MaskId[]>), change);
  };
  for (const pass of passes) {
    if (pass.area?.masks.length) {
      pass.area.masks = change(pass.area.masks);
      if (!pass.area.masks.length) delete pass.area;
    }
    inValues(paramsOf(pass.type), pass.values);
  }
  inValues(sourceOf(source.type)?.params ?? {}, source.values);
}

/** A copied layer's masks get ids of their own, and its passes refer to those. */
export function refreshMasks(layer: Draft<Layer>, fresh: () => string): void {
  const ids = new Map(layer.masks.map((mask) => [mask.id, fresh() as MaskId]));
  layer.masks = layer.masks.map((mask) => ({ ...mask, id: ids.get(mask.id)! }));
  withMasks(layer, (own) => own.map((id) => ids.get(id) ?? id));
}

/** Copies of masks at the end of a layer's. */
export const pasteMasks = (at: At, masks: readonly Mask[], fresh: () => string): Edit =>
  onLayer(at, masks.length === 1 ? `Paste mask ${masks[0]!.name}` : `Paste ${masks.length} masks`, (layer) => {
    for (const mask of masks) layer.masks.push({ ...mask, id: fresh() as MaskId } as Draft<Mask>);
  });

export const orderMask = (project: Project, at: At, id: MaskId, index: number): Edit =>
  onLayer(at, `Reorder mask ${nameOf(project, at, id)}`, (layer) => {
    const from = layer.masks.findIndex((mask) => mask.id === id);
    const [mask] = layer.masks.splice(from, 1);
    if (mask) layer.masks.splice(index, 0, mask);
  });

/** Changes what is the same at all frames: name, colour, mode, side of the feather, inversion, whether it is used. */
export const setMask = (
  project: Project,
  at: At,
  id: MaskId,
  change: Partial<Pick<Mask, 'name' | 'colour' | 'on' | 'mode' | 'invert' | 'featherSide'>>,
): Edit => onMask(project, at, id, 'Change mask', (mask) => void Object.assign(mask, change));

/** Replaces the shape as a whole, its keyframes included. */
export const setShape = (project: Project, at: At, id: MaskId, shape: Shape, what = 'Shape of'): Edit =>
  onMask(project, at, id, what, (mask) => {
    mask.shape = shape as Draft<Shape>;
  });

/** Which keyframes of a path an edit reaches: the frame itself, all of them, or those from one frame of layer time to another. */
export type Reach = 'here' | 'all' | { from: number; to: number };

/**
 * Gives a path another form at the playhead, which makes a keyframe there. Or its vertices move by as much in all keyframes, or those of
 * a range. The number of vertices stays.
 */
export const setPath = (project: Project, at: At, id: MaskId, next: Path, reach: Reach): Edit => {
  const where = `mask.${id}.path`;
  return onLayer(at, `Path of ${nameOf(project, at, id)}`, (layer) => {
    const draft = valueIn(layer as Layer, where) as Value<Path> | undefined;
    if (!draft) return;
    const value = plain(draft);
    const frame = localFrame(layer as Layer, at);
    if (reach === 'here')
      return writeValue(
        layer,
        where,
        'still' in value
          ? withKeys(value, [{ at: frame, value: next, ease: 'linear' }], next)
          : changedAt(value, frame, next),
      );
    if ('still' in value) return writeValue(layer, where, { ...value, still: next });
    const now = steadyAt(value, frame);
    const shifted = (path: Path): Path =>
      path.map((vertex, i) => vertex.map((v, k) => v + (next[i]![k]! - now[i]![k]!)) as unknown as Vertex);
    const within = (frameOfKey: number) => reach === 'all' || (frameOfKey >= reach.from && frameOfKey <= reach.to);
    writeValue(layer, where, {
      ...value,
      keys: value.keys.map((key) => (within(key.at) ? { ...key, value: shifted(key.value) } : key)),
    });
  });
};

const onEveryPath = (project: Project, at: At, id: MaskId, what: string, change: (path: Path) => Path): Edit =>
  onMask(project, at, id, what, (mask) => {
    if (mask.shape.kind === 'path')
      mask.shape.path = mapped(plain(mask.shape.path) as Value<Path>, change) as typeof mask.shape.path;
  });

/** A vertex more, in every keyframe, without moving any of their shapes. */
export const insertVertex = (project: Project, at: At, id: MaskId, segment: number, t: number): Edit =>
  onEveryPath(project, at, id, 'Add a vertex to', (path) => withVertex(path, segment, t));

/** Takes vertices out of every keyframe. */
export const removeVertices = (project: Project, at: At, id: MaskId, which: ReadonlySet<number>): Edit =>
  onEveryPath(project, at, id, which.size === 1 ? 'Remove a vertex of' : `Remove ${which.size} vertices of`, (path) =>
    withoutVertices(path, which),
  );

/** Appends a vertex to a path that is being drawn. */
export const appendVertex = (project: Project, at: At, id: MaskId, vertex: Vertex): Edit =>
  onEveryPath(project, at, id, 'Draw', (path) => [...path, vertex]);

/** Closes a drawn path. @param pegged with its first keyframe at the playhead */
export const closePath = (project: Project, at: At, id: MaskId, pegged: boolean): Edit =>
  onLayer(at, `Close ${nameOf(project, at, id)}`, (layer) => {
    for (const { id: own, shape } of layer.masks) {
      if (own !== id || shape.kind !== 'path') continue;
      shape.closed = true;
      const value = plain(shape.path) as typeof shape.path;
      if (pegged && 'still' in value)
        shape.path = withKeys(
          value,
          [{ at: localFrame(layer as Layer, at), value: value.still, ease: 'linear' }],
          value.still,
        );
    }
  });

/** Limits a pass to masks of its layer, or frees it. A side without masks waits for the first one. */
export const setArea = (project: Project, at: At, id: PassId, area: Pass['area'] | null): Edit => {
  const title = titleOf(layerIn(shotIn(project, at.shot), at.layer).passes.find((pass) => pass.id === id)?.type ?? '');
  return onLayer(at, area ? `Area of ${title}` : `${title} everywhere`, (layer) => {
    for (const pass of layer.passes) {
      if (pass.id !== id) continue;
      if (area) pass.area = area as Draft<NonNullable<Pass['area']>>;
      else delete pass.area;
    }
  });
};

/** Writes a path on many frames of layer time as keyframes, in place of those there. */
export const setPathOn = (project: Project, at: At, id: MaskId, paths: ReadonlyMap<number, Path>): Edit => {
  const where = `mask.${id}.path`;
  return onLayer(at, `Carry ${nameOf(project, at, id)} on`, (layer) => {
    const draft = valueIn(layer as Layer, where) as Value<Path> | undefined;
    if (!draft) return;
    const value = plain(draft);
    const frame = localFrame(layer as Layer, at);
    // the frame that it was carried from stays as it is
    const own: Key<Path>[] = 'keys' in value ? value.keys : [{ at: frame, value: value.still, ease: 'linear' }];
    const carried = [...paths].map(([key, path]): Key<Path> => ({ at: key, value: path, ease: 'linear' }));
    writeValue(layer, where, withKeys(value, [...own, ...carried], steadyAt(value, frame)));
  });
};
