// Edits of when layers are and how their own time runs. Keyframes stay at the shot frames they were at, unless the layer moves.
import type { Draft } from 'immer';
import { framesIn, type FrameRate } from '../../time/rate';
import { lengthFor, sourceFrameAt, sourceFramesTo } from '../../time/speed';
import { steadyAt } from '../../time/values';
import { plain } from '../draft';
import type { Edit } from '../edit';
import { layerIn, shotIn } from '../find';
import { MOST_SPEED, type Layer, type LayerId, type PassId, type Project, type Shot, type ShotId } from '../schema';
import type { Value } from '../../base/value';
import { changedAt, eachKeyed } from './values';
import { fadesOf, writeFades } from './ends';
import { followThrough } from './follow';
import { localFrame, reversedKeys, type At } from './keys';
import { refreshMasks } from './masks';

const MOST_LENGTH = 1_000_000;

const change = (
  project: Project,
  at: At,
  name: (layer: Layer) => string,
  apply: (layer: Layer, shot: Shot) => void,
): Edit => ({
  name: name(layerIn(shotIn(project, at.shot), at.layer)),
  apply: (draft) => {
    const shot = shotIn(draft as Project, at.shot);
    apply(layerIn(shot, at.layer), shot);
  },
});
const endOf = ({ span }: Layer): number => span.start + span.length;

/** Lets layer time begin `by` frames later; what shows at every shot frame stays. */
function shiftBeginning(layer: Layer, by: number): void {
  layer.time.offset = sourceFrameAt(plain(layer.time), by);
  eachKeyed(
    layer,
    (value) =>
      ({
        ...value,
        keys: plain(value as { keys: [] }).keys.map((key: { at: number }) => ({ ...key, at: key.at - by })),
      }) as Value<unknown>,
  );
  if (layer.place.framing)
    layer.place.framing = layer.place.framing.map((stop) => ({ ...plain(stop), at: stop.at - by }));
  layer.span.start += by;
  layer.span.length -= by;
}

/** Moves a layer in time. @param start first shot frame, may be negative */
export const moveLayer = (project: Project, at: At, start: number): Edit =>
  change(
    project,
    at,
    (layer) => `Move ${layer.name} in time`,
    (layer) => {
      layer.span.start = Math.round(start);
    },
  );

/** Moves several layers by the same number of frames. */
export const nudgeLayers = (shot: ShotId, layers: readonly LayerId[], by: number): Edit => ({
  name: `Move ${layers.length === 1 ? 'a layer' : `${layers.length} layers`} by ${by > 0 ? '+' : ''}${by} f`,
  apply: (draft) => {
    for (const layer of shotIn(draft as Project, shot).layers)
      if (layers.includes(layer.id as LayerId) && !layer.locked) layer.span.start += by;
  },
});

/** Moves a layer's first frame and leaves its picture and its keyframes where they were in time. */
export const trimStart = (project: Project, at: At, start: number): Edit =>
  change(
    project,
    at,
    (layer) => `Trim start of ${layer.name}`,
    (layer) => shiftBeginning(layer, Math.min(Math.round(start), endOf(layer) - 1) - layer.span.start),
  );

/** @param end the shot frame after the layer's last */
export const trimEnd = (project: Project, at: At, end: number): Edit =>
  change(
    project,
    at,
    (layer) => `Trim end of ${layer.name}`,
    (layer) => {
      layer.span.length = Math.max(1, Math.round(end) - layer.span.start);
    },
  );

/** Shows another part of the source in the same span. @param by source frames */
export const slipLayer = (project: Project, at: At, by: number): Edit =>
  change(
    project,
    at,
    (layer) => `Slip ${layer.name}`,
    (layer) => {
      layer.time.offset += by;
    },
  );

/** A name that none of some layers has: the same, or with the next free number. */
export function freeName(name: string, layers: readonly { name: string }[]): string {
  const taken = new Set(layers.map((layer) => layer.name));
  if (!taken.has(name)) return name;
  const bare = name.replace(/ \d+$/, '').slice(0, 190);
  let n = 2;
  while (taken.has(`${bare} ${n}`)) n++;
  return `${bare} ${n}`;
}

/** Layers with names that none of them shares with another, or with others that are there. */
export function namedApart<T extends { name: string }>(layers: readonly T[], others: readonly { name: string }[]): T[] {
  const names = [...others];
  return layers.map((layer) => {
    const named = { ...layer, name: freeName(layer.name, names) };
    names.push(named);
    return named;
  });
}

/** A copy of a layer with fresh ids. */
export function copyOf(layer: Layer, fresh: () => string): Layer {
  const copy = structuredClone(plain(layer));
  const fresher = {
    ...copy,
    id: fresh() as LayerId,
    passes: copy.passes.map((pass) => ({ ...pass, id: fresh() as PassId })),
  };
  refreshMasks(fresher as Draft<Layer>, fresh);
  // what followed a track through the layer itself does so through the copy
  followThrough(fresher, (id) => (id === layer.id ? fresher.id : id));
  return fresher;
}

/** Cuts a layer in two at the playhead; the part after it lies above. */
export const splitLayer = (project: Project, at: At & { frame: number }, fresh: () => string): Edit =>
  change(
    project,
    at,
    (layer) => `Split ${layer.name}`,
    (layer, shot) => {
      const by = at.frame - layer.span.start;
      if (by <= 0 || by >= layer.span.length) return;
      const after = { ...copyOf(layer, fresh), name: freeName(layer.name, shot.layers) };
      const fades = fadesOf(layer as Layer);
      layer.span.length = by;
      shiftBeginning(after, by);
      // each half keeps the fade of its own end
      if (fades.in) writeFades(after as Draft<Layer>, { ...fades, in: 0 });
      if (fades.out) writeFades(layer, { ...fades, out: 0 });
      shot.layers.splice(
        shot.layers.findIndex((item) => item.id === layer.id),
        0,
        after as Draft<Layer>,
      );
    },
  );

/** Copies of a layer above it, each so many frames later than the one before. */
export const duplicateLayer = (project: Project, at: At, by: number, times: number, fresh: () => string): Edit =>
  change(
    project,
    at,
    (layer) => `Duplicate ${layer.name}${by ? `, ${by > 0 ? '+' : ''}${by} f` : ''}`,
    (layer, shot) => {
      const index = shot.layers.findIndex((item) => item.id === layer.id);
      const copies = Array.from({ length: times }, (_, i) => {
        const copy = copyOf(layer, fresh);
        return { ...copy, span: { ...copy.span, start: copy.span.start + by * (i + 1) } };
      });
      shot.layers.splice(index, 0, ...(namedApart(copies, shot.layers).reverse() as Draft<Layer>[]));
    },
  );

/** Adds copied layers above the stack, the first one's beginning at the playhead. */
export const pasteLayers = (shot: ShotId, layers: readonly Layer[], frame: number, fresh: () => string): Edit => ({
  name: layers.length === 1 ? `Paste ${layers[0]!.name}` : `Paste ${layers.length} layers`,
  apply: (draft) => {
    const first = Math.min(...layers.map((layer) => layer.span.start));
    const stack = shotIn(draft as Project, shot);
    const copies = layers.map((layer) => ({
      ...copyOf(layer, fresh),
      parent: null,
      matte: null,
      span: { ...layer.span, start: layer.span.start - first + frame },
    }));
    stack.layers.unshift(...(namedApart(copies, stack.layers) as Draft<Layer>[]));
  },
});

/** Deletes layers. @param closing move what begins after a deleted layer up by its length */
export const removeLayers = (project: Project, shotId: ShotId, ids: readonly LayerId[], closing = false): Edit => {
  const names = shotIn(project, shotId)
    .layers.filter((layer) => ids.includes(layer.id))
    .map((layer) => layer.name);
  return {
    name: `Delete ${names.length === 1 ? names[0] : `${names.length} layers`}${closing ? ' and close the gap' : ''}`,
    apply: (draft) => {
      const shot = shotIn(draft as Project, shotId);
      const gone = shot.layers.filter((layer) => ids.includes(layer.id) && !layer.locked);
      shot.layers = shot.layers.filter((layer) => !gone.includes(layer));
      for (const layer of shot.layers) {
        if (layer.parent && gone.some((item) => item.id === layer.parent!.layer)) layer.parent = null;
        if (closing && !layer.locked)
          layer.span.start -= gone
            .filter((item) => endOf(item) <= layer.span.start)
            .reduce((sum, item) => sum + item.span.length, 0);
      }
    },
  };
};

/** Relations in time that people name. `other` is the layer it is related to. */
export type TimeRelation =
  | { kind: 'start-with' | 'end-with' | 'after' | 'before'; other: LayerId }
  | { kind: 'fill' }
  | { kind: 'from-here'; frames: number };
const RELATION_NAMES = {
  'start-with': 'Start with',
  'end-with': 'End with',
  after: 'Begin after',
  before: 'End before',
  fill: 'Fill the shot with',
  'from-here': 'From here',
} as const;

export const relateLayer = (project: Project, at: At & { frame: number }, relation: TimeRelation): Edit =>
  change(
    project,
    at,
    (layer) => `${RELATION_NAMES[relation.kind]}: ${layer.name}`,
    (layer, shot) => {
      if (relation.kind === 'fill') {
        shiftBeginning(layer, -layer.span.start);
        layer.span.length = shot.length;
        return;
      }
      if (relation.kind === 'from-here') {
        layer.span.start = at.frame;
        layer.span.length = Math.max(1, Math.round(relation.frames));
        return;
      }
      const other = layerIn(shot, relation.other);
      const { length } = layer.span;
      layer.span.start = {
        'start-with': other.span.start,
        'end-with': endOf(other) - length,
        after: endOf(other),
        before: other.span.start - length,
      }[relation.kind];
    },
  );

/**
 * Sets how fast a layer runs. With `fit` its length changes so that it goes through as much of its source as before; while the speed
 * is keyed it stays, because a ramp is made of several steps of which none alone says how long it will be.
 */
export const setSpeed = (project: Project, at: At, speed: Value<number>, fit: boolean): Edit =>
  change(
    project,
    at,
    (layer) => `Speed of ${layer.name}`,
    (layer) => {
      const before = plain(layer.time).speed;
      const used = sourceFramesTo(before, layer.span.length);
      layer.time.speed = speed;
      const length =
        fit && used !== 0 && 'still' in speed && 'still' in before ? lengthFor(speed, used, MOST_LENGTH) : null;
      if (length !== null) layer.span.length = length;
    },
  );

/** Gives a layer the length in which it comes to the end of its source. @param frames of the source, at the shot's rate */
export const fitLength = (project: Project, at: At, frames: number): Edit =>
  change(
    project,
    at,
    (layer) => `Length of ${layer.name}`,
    (layer) => {
      const { offset, speed } = plain(layer.time);
      const forwards = sourceFramesTo(speed, layer.span.length) >= 0;
      const length = lengthFor(speed, forwards ? frames - offset : offset, MOST_LENGTH);
      if (length !== null) layer.span.length = length;
    },
  );

/** Shows every frame of a clip for one frame of the shot, at whatever speed that is. @param rate the clip's @param seconds how long it is */
export const conformLayer = (project: Project, at: At, rate: FrameRate, seconds: number): Edit =>
  change(
    project,
    at,
    (layer) => `Every frame of ${layer.name}`,
    (layer, shot) => {
      layer.time.speed = { still: Math.min(MOST_SPEED, (shot.rate.num * rate.den) / (shot.rate.den * rate.num)) };
      layer.time.offset = 0;
      layer.span.length = framesIn(seconds, rate);
    },
  );

/** Runs a layer through its span in a given number of frames. */
export const setTargetLength = (project: Project, at: At, frames: number): Edit =>
  change(
    project,
    at,
    (layer) => `Length of ${layer.name}`,
    (layer) => {
      const used = sourceFramesTo(plain(layer.time).speed, layer.span.length);
      if (used === 0) return;
      layer.time.speed = { still: Math.max(-100, Math.min(100, used / frames)) };
      layer.span.length = frames;
    },
  );

/** A change of speed at the playhead: keyed, it sets a keyframe there. */
export const speedHere = (project: Project, at: At, speed: number, fit: boolean): Edit => {
  const layer = layerIn(shotIn(project, at.shot), at.layer);
  return setSpeed(project, at, changedAt(layer.time.speed, localFrame(layer, at), speed), fit);
};

/** Plays what a layer shows backwards, in the same span. */
export const reverseLayer = (project: Project, at: At): Edit =>
  change(
    project,
    at,
    (layer) => `Reverse ${layer.name}`,
    (layer) => {
      const { speed } = plain(layer.time);
      const last = layer.span.length - 1;
      layer.time.offset = sourceFrameAt(plain(layer.time), last);
      // 0 − v and not −v: a negative zero would not survive being written down
      if ('still' in speed) layer.time.speed = { ...speed, still: 0 - speed.still };
      else
        layer.time.speed = {
          ...speed,
          keys: reversedKeys(speed.keys, last).map((key) => ({ ...key, value: 0 - (key.value as number) })),
        };
    },
  );

/** From the playhead on the layer stands still. */
export const freezeHere = (project: Project, at: At): Edit =>
  change(
    project,
    at,
    (layer) => `Freeze ${layer.name}`,
    (layer) => {
      const { speed } = plain(layer.time);
      const here = localFrame(layer, at);
      const before =
        'still' in speed
          ? [{ at: Math.min(0, here - 1), value: speed.still, ease: 'hold' as const }]
          : speed.keys.filter((key) => key.at < here);
      const lead = 'still' in speed ? [] : [{ at: here - 1, value: steadyAt(speed, here - 1), ease: 'hold' as const }];
      layer.time.speed = {
        keys: [
          ...before.filter((key) => key.at < here - (lead.length ? 1 : 0)),
          ...lead,
          { at: here, value: 0, ease: 'hold' as const },
        ],
      };
    },
  );

export const setBetween = (project: Project, at: At, between: Layer['time']['between']): Edit =>
  change(
    project,
    at,
    (layer) => `Frames between of ${layer.name}`,
    (layer) => {
      layer.time.between = between;
    },
  );

export const setKeepPitch = (project: Project, at: At, keepPitch: boolean): Edit =>
  change(
    project,
    at,
    (layer) => `${keepPitch ? 'Keep' : 'Let go'} the pitch of ${layer.name}`,
    (layer) => {
      layer.time.keepPitch = keepPitch;
    },
  );

export const setMotionBlur = (project: Project, at: At, blur: Layer['motionBlur']): Edit =>
  change(
    project,
    at,
    (layer) => `${blur ? 'Motion blur of' : 'No motion blur on'} ${layer.name}`,
    (layer) => {
      layer.motionBlur = blur;
    },
  );
