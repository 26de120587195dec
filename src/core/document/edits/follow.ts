// Values that follow tracks: linked, changed, written as keyframes.
import { followLoop } from '../circles';
import { JackplaneError } from '../../base/errors';
import type { Key, Value } from '../../base/value';
import { passOf } from '../../passes/registry';
import { projectiveInverse, projectiveProduct, type Projective } from '../../picture/matrix';
import { momentOf } from '../../place/moment';
import type { Follow } from '../../time/drivers/follow';
import { trackFrameAt } from '../../time/track-frame';
import { valueAt } from '../../time/values';
import { pointsAt, samplesOf, TRACK_POINTS } from '../../track/samples';
import { plain } from '../draft';
import type { Edit } from '../edit';
import { layerIn, shotIn, trackIn } from '../find';
import { stockOf, type Layer, type LayerId, type Project, type Shot } from '../schema';
import type { Track, TrackId } from '../track';
import type { At } from './keys';
import { thinned } from './thin';
import { entriesOf, valueIn, withDriver, writeValue } from './values';

export type As = Follow['as'];

/** What a value of a layer can be for a track, or null when it cannot follow one. */
export function followableAs(layer: Layer, path: string): As | null {
  const [first, second, third] = path.split('.') as [string, string?, string?];
  if (first === 'place')
    return ({ position: 'position', rotation: 'turn', scale: 'size' } as const)[second as 'position'] ?? null;
  if (first === 'mask')
    return (
      (
        {
          path: 'path',
          centre: 'point',
          from: 'point',
          to: 'point',
          rotation: 'turn',
          size: 'size',
          height: 'size',
          radius: 'size',
        } as const
      )[third as 'path'] ?? null
    );
  if (first !== 'pass') return null;
  const pass = layer.passes.find((item) => item.id === second);
  const kind = pass && passOf(pass.type)?.params[third!]?.kind;
  if (kind === 'point') return pass!.space === 'shot' ? 'position' : 'point';
  return kind === 'angle' ? 'turn' : kind === 'size' ? 'size' : null;
}

/** The follow link of a value. */
export const followOf = (value: unknown): Follow | null =>
  ((value as Partial<Value<unknown>> | undefined)?.drivers?.find((driver) => driver.type === 'follow') as
    Follow | undefined) ?? null;

export interface Follower {
  shot: Shot;
  layer: Layer;
  path: string;
  link: Follow;
}
/** Everything that follows a track. */
export function followersOf(project: Project, track: TrackId): Follower[] {
  return project.shots.flatMap((shot) =>
    shot.layers.flatMap((layer) =>
      entriesOf(layer).flatMap(({ path }) => {
        const link = followOf(valueIn(layer, path));
        return link?.track === track ? [{ shot, layer, path, link }] : [];
      }),
    ),
  );
}

/** The layers through which a layer's values follow tracks. */
export const carriersFor = (layer: Layer): LayerId[] => [
  ...new Set(
    entriesOf(layer).flatMap(({ path }) => (followOf(valueIn(layer, path))?.layer as LayerId | undefined) ?? []),
  ),
];

/** Lets a layer's values follow through other layers than they did. */
export function followThrough(layer: Layer, now: (id: LayerId) => LayerId): void {
  for (const { path } of entriesOf(layer)) {
    const value = valueIn(layer, path);
    const link = followOf(value);
    if (value && link)
      writeValue(layer, path, withDriver(value, 'follow', { ...link, layer: now(link.layer as LayerId) }));
  }
}

/** The layers of a shot that show a track's clip, and so can carry what follows it. */
export const carriersOf = (shot: Shot, track: Track): Layer[] =>
  shot.layers.filter((layer) => stockOf(layer) === track.stock);

const IDENTITY: Projective = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** A new link of values to a track, each staying where it is on the frame of the playhead. */
export interface NewLink {
  track: TrackId;
  /** the layer that shows the track's clip */
  via: LayerId;
  paths: readonly string[];
  parts?: Partial<Follow['parts']>;
}

/** @throws JackplaneError loop, bad-value when nothing was measured or nothing of it can follow */
export function followTrack(project: Project, at: At & { frame: number }, link: NewLink): Edit {
  const shot = shotIn(project, at.shot);
  const layer = layerIn(shot, at.layer);
  const via = layerIn(shot, link.via);
  const track = trackIn(project, link.track);
  if (!pointsAt(samplesOf(track), 0))
    throw new JackplaneError('bad-value', `“${track.name}” has not been measured yet.`, 'Run it first.');
  const there = momentOf(project, shot, via, at.frame);
  const own = momentOf(project, shot, layer, at.frame);
  const count = TRACK_POINTS[track.kind];
  const parts = {
    position: true,
    rotation: count > 1,
    scale: count > 1,
    perspective: count > 2,
    ...link.parts,
  };
  const frame = Math.max(0, trackFrameAt(there, track.rate));
  const intoShot = there.lookup.projection(there);
  const back = intoShot && projectiveInverse(intoShot);
  const ownInto = own.lookup.projection(own);
  if (!back) throw new JackplaneError('bad-value', `“${via.name}” is seen from its edge here.`, 'Go to another frame.');
  const driverOf = (as: As): Follow => ({
    type: 'follow',
    track: track.id,
    layer: via.id,
    as,
    at: frame,
    anchor: [
      ...(as === 'position' ? back : via.id === layer.id ? IDENTITY : projectiveProduct(back, ownInto ?? IDENTITY)),
    ] as Follow['anchor'],
    parts,
    strength: 1,
    delay: 0,
    smooth: 0,
    range: null,
  });
  const paths = link.paths.flatMap((path) => {
    const as = followableAs(layer, path);
    const wanted = as === 'turn' ? parts.rotation : as === 'size' ? parts.scale : as !== null;
    return as && wanted ? [{ path, as }] : [];
  });
  if (!paths.length)
    throw new JackplaneError(
      'bad-value',
      `Nothing of “${layer.name}” was linked.`,
      'Choose a track that turns or grows, or let it follow the position.',
    );
  const change = (of: Layer) => {
    for (const { path, as } of paths) {
      const value = plain(valueIn(of, path)!) as Value<unknown>;
      // what follows already stays where it is seen
      const kept =
        followOf(value) && 'still' in value ? { ...value, still: valueAt(valueIn(layer, path)!, own) } : value;
      writeValue(of, path, withDriver(kept, 'follow', driverOf(as)));
    }
  };
  const next = structuredClone(plain(layer)) as Layer;
  change(next);
  const loop = followLoop(shot.layers.map((item) => (item.id === layer.id ? next : item)));
  if (loop)
    throw new JackplaneError(
      'loop',
      `Then these layers would follow each other in a circle: ${loop.join(', ')}.`,
      'Follow the track through another layer that shows its clip.',
    );
  return {
    name: `${layer.name} follows ${track.name}`,
    apply: (draft) => change(layerIn(shotIn(draft as Project, at.shot), at.layer)),
  };
}

/** Changes how values follow. */
export const setFollow = (
  at: At,
  paths: readonly string[],
  change: Partial<Pick<Follow, 'strength' | 'delay' | 'smooth' | 'range' | 'parts'>>,
): Edit => ({
  name: 'How it follows',
  apply: (draft) => {
    const layer = layerIn(shotIn(draft as Project, at.shot), at.layer);
    for (const path of paths) {
      const value = valueIn(layer, path);
      const link = followOf(value);
      if (value && link) writeValue(layer, path, withDriver(plain(value), 'follow', { ...plain(link), ...change }));
    }
  },
});

/** Ends following; the values stay where they are without it. */
export const unfollow = (project: Project, at: At, paths: readonly string[]): Edit => ({
  name: `${layerIn(shotIn(project, at.shot), at.layer).name} follows no track`,
  apply: (draft) => {
    const layer = layerIn(shotIn(draft as Project, at.shot), at.layer);
    for (const path of paths) {
      const value = valueIn(layer, path);
      if (value) writeValue(layer, path, withDriver(plain(value), 'follow', null));
    }
  },
});

/** Writes what values do by following as keyframes, one a frame less those that straight lines do without, and ends following. @param tolerance in the value's own unit */
export function bakeFollow(project: Project, at: At, paths: readonly string[], tolerance: number): Edit {
  const shot = shotIn(project, at.shot);
  const layer = layerIn(shot, at.layer);
  const baked = paths.flatMap((path) => {
    const value = valueIn(layer, path);
    const link = followOf(value);
    if (!value || !link) return [];
    const only = { ...value, drivers: [link] } as Value<unknown>;
    const keys = Array.from({ length: layer.span.length }, (_, frame): Key<unknown> => ({
      at: frame,
      value: valueAt(only, momentOf(project, shot, layer, frame + layer.span.start)),
      ease: 'linear',
    }));
    const rest = withDriver(value, 'follow', null).drivers;
    return [
      {
        path,
        value: { keys: thinned(unwound(keys, link.as), tolerance), ...(rest && { drivers: rest }) } as Value<unknown>,
      },
    ];
  });
  return {
    name: `Follow as keyframes: ${layer.name}`,
    apply: (draft) => {
      const own = layerIn(shotIn(draft as Project, at.shot), at.layer);
      baked.forEach(({ path, value }) => writeValue(own, path, value));
    },
  };
}

/** Turns without jumps of a whole turn. */
function unwound(keys: Key<unknown>[], as: As): Key<unknown>[] {
  if (as !== 'turn') return keys;
  let last = keys[0]!.value as number;
  return keys.map((key) => {
    const turn = key.value as number;
    last = turn - 360 * Math.round((turn - last) / 360);
    return { ...key, value: last };
  });
}
