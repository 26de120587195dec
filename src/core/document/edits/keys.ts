// Edits of keyframes, many at once.
import type { Draft } from 'immer';
import { plain } from '../draft';
import type { Edit } from '../edit';
import { layerIn, shotIn, withClipLine } from '../find';
import type { Layer, LayerId, Project, ShotId } from '../schema';
import type { Jitter } from '../../time/drivers/jitter';
import type { Ease, Key, Value } from '../../base/value';
import { steadyAt } from '../../time/values';
import { changedAt, entriesOf, pegged, valueIn, withDriver, withKeys, writeValue } from './values';
import { keysOf } from '../../base/value';

/** A keyframe: whose, of which value, at which frame of layer time. */
export interface KeyRef {
  layer: LayerId;
  path: string;
  at: number;
}
export interface At {
  shot: ShotId;
  layer: LayerId;
  /** shot frame of the playhead */
  frame?: number;
}

const labelOf = (project: Project, at: At, path: string): string => {
  const layer = layerIn(shotIn(project, at.shot), at.layer);
  const found = entriesOf(layer).find((entry) => entry.path === path);
  return `${found?.label ?? path} of ${layer.name}`;
};

/** The frame of layer time that the playhead is on. */
export const localFrame = (layer: Pick<Layer, 'span'>, at: At): number =>
  (at.frame ?? layer.span.start) - layer.span.start;

const onValue = (
  project: Project,
  at: At,
  path: string,
  name: string,
  change: (value: Value<unknown>, layer: Layer) => Value<unknown>,
): Edit => ({
  name,
  apply: (draft) => {
    const layer = layerIn(shotIn(draft as Project, at.shot), at.layer);
    const value = valueIn(layer, path);
    if (value) writeValue(layer, path, change(plain(value), layer));
  },
});

/** Sets values at the playhead: still ones as a whole, keyed ones by a keyframe there. */
export const setValues = (at: At, changes: Readonly<Record<string, unknown>>, name: string): Edit => ({
  name,
  apply: (draft) => {
    const layer = withClipLine(draft as Project, layerIn(shotIn(draft as Project, at.shot), at.layer));
    for (const [path, next] of Object.entries(changes)) {
      const value = valueIn(layer, path);
      if (value) writeValue(layer, path, changedAt(plain(value), localFrame(layer, at), next));
    }
  },
});

/** Adds or removes a keyframe at the playhead. */
export const togglePeg = (project: Project, at: At, path: string, ease: Ease = 'linear'): Edit => {
  const layer = layerIn(shotIn(project, at.shot), at.layer);
  const there = keysOf(valueIn(layer, path)!).some((key) => key.at === localFrame(layer, at));
  return onValue(
    project,
    at,
    path,
    `${there ? 'Remove' : 'Add'} keyframe: ${labelOf(project, at, path)}`,
    (value, own) => pegged(value, localFrame(own, at), ease),
  );
};

/** Takes all keyframes of a value away; it stays as it is at the playhead. */
export const makeStill = (project: Project, at: At, path: string): Edit =>
  onValue(project, at, path, `No keyframes: ${labelOf(project, at, path)}`, (value, layer) =>
    withKeys(value, [], steadyAt(value, localFrame(layer, at))),
  );

export const setJitter = (project: Project, at: At, path: string, jitter: Jitter | null): Edit =>
  onValue(project, at, path, `${jitter ? 'Jitter' : 'No jitter'}: ${labelOf(project, at, path)}`, (value) =>
    withDriver(value, 'jitter', jitter),
  );

/** Along its path at one speed, or by the keyframes' own times. */
export const setEven = (project: Project, at: At, path: string, even: boolean): Edit =>
  onValue(project, at, path, `${even ? 'Constant speed' : 'Own times'}: ${labelOf(project, at, path)}`, (value) =>
    'keys' in value ? { ...value, even: even || undefined } : value,
  );

/** A change of chosen keyframes: value by value, the chosen keyframes go through `change`; the others give way where they meet. */
function onKeys(
  shot: ShotId,
  refs: readonly KeyRef[],
  name: string,
  change: (key: Key<unknown>, layer: Layer, chosen: readonly Key<unknown>[]) => Key<unknown> | null,
): Edit {
  return {
    name,
    apply: (draft) => {
      for (const [where, frames] of grouped(refs)) {
        const [layerId, path] = where.split('\n') as [LayerId, string];
        const layer = layerIn(shotIn(draft as Project, shot), layerId);
        const draftValue = valueIn(layer, path);
        if (!draftValue || !('keys' in draftValue)) continue;
        const value = plain(draftValue) as Value<unknown> & { keys: Key<unknown>[] };
        const chosen = value.keys.filter((key) => frames.has(key.at));
        const others = value.keys.filter((key) => !frames.has(key.at));
        const changed = chosen.map((key) => change(key, layer, chosen)).filter((key) => key !== null);
        writeValue(layer as Draft<Layer>, path, withKeys(value, [...others, ...changed], chosen[0]?.value));
      }
    },
  };
}
function grouped(refs: readonly KeyRef[]): Map<string, Set<number>> {
  const out = new Map<string, Set<number>>();
  for (const { layer, path, at } of refs) {
    const where = `${layer}\n${path}`;
    out.set(where, (out.get(where) ?? new Set()).add(at));
  }
  return out;
}
const count = (refs: readonly KeyRef[]): string => (refs.length === 1 ? 'a keyframe' : `${refs.length} keyframes`);

export const moveKeys = (shot: ShotId, refs: readonly KeyRef[], by: number): Edit =>
  onKeys(shot, refs, `Move ${count(refs)}`, (key) => ({ ...key, at: key.at + Math.round(by) }));

export const removeKeys = (shot: ShotId, refs: readonly KeyRef[]): Edit =>
  onKeys(shot, refs, `Delete ${count(refs)}`, () => null);

export const easeKeys = (shot: ShotId, refs: readonly KeyRef[], ease: Ease): Edit =>
  onKeys(shot, refs, `Easing of ${count(refs)}`, (key) => ({ ...key, ease }));

/** Stretches keyframes in time about a shot frame. Where two would meet, the later one stays. */
export const stretchKeys = (shot: ShotId, refs: readonly KeyRef[], factor: number, pivot: number): Edit =>
  onKeys(shot, refs, `Stretch ${count(refs)}`, (key, layer) => ({
    ...key,
    at: Math.round(pivot - layer.span.start + (key.at + layer.span.start - pivot) * factor),
  }));

const numbers = (value: unknown, change: (v: number, part: number) => number): unknown =>
  typeof value === 'number'
    ? change(value, 0)
    : Array.isArray(value) && typeof value[0] === 'number'
      ? value.map(change)
      : value;

/** Multiplies the values of keyframes, or adds to them, within the value's limits. */
export const scaleKeys = (shot: ShotId, refs: readonly KeyRef[], factor: number, add = 0): Edit =>
  onKeys(shot, refs, `${factor === 1 ? 'Offset' : 'Scale'} values of ${count(refs)}`, (key) => ({
    ...key,
    value: numbers(key.value, (v) => v * factor + add),
  }));

/** Sets the value of one part of one keyframe. */
export const setKeyValue = (shot: ShotId, ref: KeyRef, part: number, next: number): Edit =>
  onKeys(shot, [ref], 'Value of a keyframe', (key) => ({
    ...key,
    value: numbers(key.value, (v, i) => (i === part ? next : v)),
  }));

/** Handles of a motion path at one keyframe; null makes it straight again. */
export const bendKey = (shot: ShotId, ref: KeyRef, bend: Key<unknown>['bend'] | null): Edit =>
  onKeys(shot, [ref], 'Bend the path', ({ bend: _, ...key }) => ({ ...key, ...(bend ? { bend } : {}) }));

/** Keyframes on their own, times from the first one on. */
export type KeyClip = { path: string; keys: Key<unknown>[] }[];

export function copyKeys(project: Project, shotId: ShotId, refs: readonly KeyRef[]): KeyClip {
  const shot = shotIn(project, shotId);
  const first = Math.min(...refs.map((ref) => ref.at + layerIn(shot, ref.layer).span.start));
  return [...grouped(refs)].map(([where, frames]) => {
    const [layerId, path] = where.split('\n') as [LayerId, string];
    const layer = layerIn(shot, layerId);
    return {
      path,
      keys: keysOf(valueIn(layer, path)!)
        .filter((key) => frames.has(key.at))
        .map((key) => ({ ...key, at: key.at + layer.span.start - first })),
    };
  });
}

/** The same keyframes backwards in time; easings run backwards too. */
export function reversedKeys(
  keys: readonly Key<unknown>[],
  last = Math.max(...keys.map((key) => key.at)),
): Key<unknown>[] {
  return keys
    .map((key, i) => {
      const before = keys[i - 1]?.ease ?? key.ease;
      const bend = key.bend && { in: key.bend.out, out: key.bend.in };
      return { at: last - key.at, value: key.value, ease: reversedEase(before), ...(bend ? { bend } : {}) };
    })
    .reverse();
}
function reversedEase(ease: Ease): Ease {
  if (typeof ease === 'string' || 'bounce' in ease) return ease;
  const [x1, y1, x2, y2] = ease.cubic;
  return { cubic: [1 - x2, 1 - y2, 1 - x1, 1 - y1] };
}

/** Puts copied keyframes into a layer from the playhead on; values that the layer has not got are left out. */
export const pasteKeys = (at: At, clip: KeyClip, reversed: boolean): Edit => ({
  name: reversed ? 'Paste keyframes reversed' : 'Paste keyframes',
  apply: (draft) => {
    const layer = layerIn(shotIn(draft as Project, at.shot), at.layer);
    const last = Math.max(...clip.flatMap(({ keys }) => keys.map((key) => key.at)));
    for (const { path, keys } of clip) {
      const value = valueIn(layer, ownPath(layer, path));
      if (!value) continue;
      const own = plain(value);
      const pasted = (reversed ? reversedKeys(keys, last) : keys).map((key) => ({
        ...key,
        at: key.at + localFrame(layer, at),
      }));
      writeValue(layer, ownPath(layer, path), withKeys(own, [...keysOf(own), ...pasted], null));
    }
  },
});

/** A pass's path on another layer: that layer's first pass with such a value. */
function ownPath(layer: Layer, path: string): string {
  if (valueIn(layer, path) || !path.startsWith('pass.')) return path;
  const param = path.split('.')[2];
  return (
    entriesOf(layer).find((entry) => entry.path.startsWith('pass.') && entry.path.endsWith(`.${param}`))?.path ?? path
  );
}
