import { describe, expect, test } from '@jest/globals';
import { still } from '../../base/value';
import { JackplaneError } from '../../base/errors';
import { perform } from '../edit';
import { momentOf } from '../../place/moment';
import { wholePlace } from '../../place/place';
import { plainFor, valueAt } from '../../time/values';
import { NOTHING, packSamples, sampleAt, samplesOf, type Sample, type TrackKind } from '../../track/samples';
import { colourSource, layerOf, projectOf, RATE, SHOT } from '../../testing/documents';
import { newMask, newShape, type MaskId } from '../mask';
import {
  crossProblems,
  projectSchema,
  type Layer,
  type LayerId,
  type Project,
  type ShotId,
  type StockId,
} from '../schema';
import type { Track, TrackId } from '../track';
import { groupLayers } from './groups';
import { stockSource } from './layers';
import { duplicateLayer } from './time';
import { reversedSamples } from '../../track/work';
import { addTrack, mendSample, removeTrack, replaceSamples, writeSamples } from './tracks';
import { bakeFollow, carriersFor, followersOf, followTrack, setFollow, unfollow } from './follow';

const LENGTH = 48;
const PLACE = ['place.position', 'place.rotation', 'place.scale'];

/** How the subject moves in the clip, in source pixels from the centre, at a frame of the clip. */
const spot = (f: number): [number, number] => [-12 + 0.6 * f + 3 * Math.sin(f / 5), 6 * Math.cos(f / 7)];
const pairAt = (f: number): Sample['points'] => {
  const [x, y] = spot(f);
  const [c, s] = [Math.cos(f / 30), Math.sin(f / 30)];
  const r = 8 * (1 + f / 60);
  return [
    [x - r * c, y - r * s],
    [x + r * c, y + r * s],
  ];
};
const trackOf = (kind: TrackKind, points: (f: number) => Sample['points']): Track => ({
  id: 'track-1' as TrackId,
  name: 'Lantern',
  stock: 'plate' as Track['stock'],
  kind,
  rate: RATE,
  start: 0,
  patterns: Array.from({ length: kind === 'pair' ? 2 : 1 }, () => [
    [-4, -4],
    [4, -4],
    [4, 4],
    [-4, 4],
  ]) as Track['patterns'],
  reach: 20,
  samples: packSamples(
    { first: 0, rows: Array.from({ length: LENGTH }, (_, f) => ({ confidence: 1, points: points(f) })) },
    kind,
  ),
  fixed: [],
});

/** The clip played at 150 %, trimmed, at 70 % and 12°, moving; above it a layer that is to follow. */
function scene(kind: TrackKind, points: (f: number) => Sample['points'], change: Partial<Layer> = {}): Project {
  const clip = layerOf('clip', stockSource('plate' as StockId), {
    time: { offset: 3, speed: still(1.5), between: 'nearest', keepPitch: false },
    span: { start: 2, length: 20 },
    place: {
      ...wholePlace(),
      position: {
        keys: [
          { at: 0, value: [4, -3], ease: 'linear' },
          { at: 15, value: [14, 5], ease: 'linear' },
        ],
      },
      scale: still([0.7, 0.7] as [number, number]),
      rotation: still(12),
    },
  });
  const top = layerOf('glow', colourSource([1, 1, 1], 10, 10), { span: { start: 5, length: 16 }, ...change });
  const project = projectOf([top, clip]);
  return perform(project, addTrack(trackOf(kind, points)))!.project;
}
const layerIn = (project: Project, id: string): Layer => project.shots[0]!.layers.find((layer) => layer.id === id)!;
const at = (layer: string, frame: number) => ({ shot: SHOT, layer: layer as LayerId, frame });
const momentIn = (project: Project, layer: string, frame: number) =>
  momentOf(project, project.shots[0]!, layerIn(project, layer), frame);
/** Where the subject is in the shot, in pixels from its middle, told from the document's own numbers. */
function truth(frame: number): [number, number] {
  const local = frame - 2;
  const [x, y] = spot(3 + 1.5 * local);
  const [c, s] = [Math.cos((12 * Math.PI) / 180) * 0.7, Math.sin((12 * Math.PI) / 180) * 0.7];
  const share = Math.min(1, Math.max(0, local / 15));
  return [c * x - s * y + 4 + 10 * share, s * x + c * y - 3 + 8 * share];
}

describe('a layer that follows a track', () => {
  const LINKED = 9;
  const link = { track: 'track-1' as TrackId, via: 'clip' as LayerId, paths: PLACE };

  test('keeps its offset, through speed, trim, place and size of the clip', () => {
    const before = scene('point', (f) => [spot(f)]);
    const after = perform(before, followTrack(before, at('glow', LINKED), link))!.project;
    const place = (project: Project, frame: number) =>
      valueAt(layerIn(project, 'glow').place.position, momentIn(project, 'glow', frame));
    expect(place(after, LINKED)).toEqual([
      expect.closeTo(place(before, LINKED)[0], 6),
      expect.closeTo(place(before, LINKED)[1], 6),
    ]);
    const [x0, y0] = truth(LINKED);
    // the offset is one of the clip's own plane: it turns and shrinks as the clip does
    for (let frame = 5; frame < 21; frame++) {
      const [x, y] = place(after, frame);
      const [u, v] = truth(frame);
      expect(Math.hypot(x - (u - x0), y - (v - y0))).toBeLessThan(0.35);
    }
  });

  test('turns and grows with a pair', () => {
    const before = scene('pair', pairAt);
    const { project: after } = perform(before, followTrack(before, at('glow', 2), link))!;
    const { rotation, scale } = layerIn(after, 'glow').place;
    const [first, last] = [3, 3 + 1.5 * 10];
    expect(valueAt(rotation, momentIn(after, 'glow', 12))).toBeCloseTo((((last - first) / 30) * 180) / Math.PI, 3);
    expect(valueAt(scale, momentIn(after, 'glow', 12))[0]).toBeCloseTo((1 + last / 60) / (1 + first / 60), 3);
  });

  test('is the same written as keyframes, on every frame', () => {
    const before = scene('pair', pairAt);
    const linked = perform(before, followTrack(before, at('glow', 8), link))!.project;
    const baked = perform(linked, bakeFollow(linked, at('glow', 8), PLACE, 0.01))!.project;
    expect(followersOf(baked, link.track)).toEqual([]);
    for (let frame = 5; frame < 21; frame++)
      for (const part of ['position', 'rotation', 'scale'] as const) {
        const [a, b] = [linked, baked].map(
          (project) =>
            [
              valueAt<unknown>(layerIn(project, 'glow').place[part], momentIn(project, 'glow', frame)),
            ].flat() as number[],
        );
        a!.forEach((v, i) => expect(Math.abs(v - b![i]!)).toBeLessThan(0.0101));
      }
  });

  test('follows half as far, later, and within a range when told so', () => {
    const before = scene('point', (f) => [spot(f)]);
    const linked = perform(before, followTrack(before, at('glow', 5), link))!.project;
    const place = (project: Project, frame: number) =>
      valueAt(layerIn(project, 'glow').place.position, momentIn(project, 'glow', frame));
    const held = perform(linked, setFollow(at('glow', 5), PLACE, { range: { from: 7.5, to: 7.5 } }))!.project;
    const off = perform(linked, setFollow(at('glow', 5), PLACE, { strength: 0 }))!.project;
    // what is left is how the clip itself is placed
    expect(place(held, 14)).toEqual(place(off, 14));
    expect(place(linked, 14)).not.toEqual(place(off, 14));
    const late = perform(linked, setFollow(at('glow', 5), PLACE, { delay: 2 }))!.project;
    const moved = (project: Project, frame: number) => place(project, frame)[0] - place(off, frame)[0];
    expect(moved(late, 14)).toBeCloseTo(moved(linked, 12), 6);
  });

  test('can be let go, and what handles write is what is seen', () => {
    const before = scene('pair', pairAt);
    const linked = perform(before, followTrack(before, at('glow', 8), link))!.project;
    const { place } = layerIn(linked, 'glow');
    const moment = momentIn(linked, 'glow', 15);
    for (const wanted of [
      [3, 4],
      [-20, 8],
    ] as [number, number][])
      expect(valueAt({ ...place.position, still: plainFor(place.position, wanted, moment) }, moment)).toEqual([
        expect.closeTo(wanted[0], 6),
        expect.closeTo(wanted[1], 6),
      ]);
    expect(valueAt({ ...place.rotation, still: plainFor(place.rotation, 33, moment) }, moment)).toBeCloseTo(33, 6);
    const free = perform(linked, unfollow(linked, at('glow', 8), PLACE))!.project;
    expect(layerIn(free, 'glow').place).toEqual(layerIn(before, 'glow').place);
  });

  test('in a circle is refused by the names, and is none that opens', () => {
    const before = scene('point', (f) => [spot(f)]);
    expect(() => followTrack(before, at('clip', 5), { ...link, paths: ['place.position'] })).toThrow(/circle: clip/);
    const linked = perform(before, followTrack(before, at('glow', 5), link))!.project;
    const bad = structuredClone(linked);
    const driver = layerIn(bad, 'glow').place.position.drivers![0]!;
    layerIn(bad, 'clip').place.position = {
      ...layerIn(bad, 'clip').place.position,
      drivers: [{ ...driver, layer: 'glow' }],
    };
    expect(crossProblems(bad).join()).toContain('glow, clip');
  });

  test('of what was not measured is refused', () => {
    const before = scene('point', (f) => [spot(f)]);
    const empty = { ...before, tracks: before.tracks.map((track) => ({ ...track, samples: NOTHING })) };
    expect(() => followTrack(empty, at('glow', 5), link)).toThrow(JackplaneError);
  });

  test('stays where it is without its track', () => {
    const before = scene('point', (f) => [spot(f)]);
    const linked = perform(before, followTrack(before, at('glow', 5), link))!.project;
    const without = perform(linked, removeTrack(linked, link.track))!.project;
    expect(projectSchema.safeParse(without).success).toBe(true);
    expect(valueAt(layerIn(without, 'glow').place.position, momentIn(without, 'glow', 15))).toEqual([0, 0]);
  });
});

describe('a mask of the tracked layer itself', () => {
  test('is carried by every corner of a plane, exactly', () => {
    const corners = (f: number): Sample['points'] => [
      [-10 + f / 4, -8],
      [10 + f / 3, -7 + f / 9],
      [11 + f / 5, 9 - f / 11],
      [-9, 8 + f / 10],
    ];
    const before = scene('plane', corners);
    const shape = newShape('path', { w: 64, h: 36 });
    const path = corners(3).map(
      ([x, y]) => [x, y, 0, 0, 0, 0, 0] as [number, number, number, number, number, number, number],
    );
    const mask = newMask('m1' as MaskId, 'Sail', { ...shape, closed: true, path: still(path) } as never);
    const masked = {
      ...before,
      shots: before.shots.map((shot) => ({
        ...shot,
        layers: shot.layers.map((layer) => (layer.id === 'clip' ? { ...layer, masks: [mask] } : layer)),
      })),
    };
    const linked = perform(
      masked,
      followTrack(masked, at('clip', 2), {
        track: 'track-1' as TrackId,
        via: 'clip' as LayerId,
        paths: ['mask.m1.path'],
      }),
    )!.project;
    const own = (layerIn(linked, 'clip').masks[0]!.shape as unknown as { path: Parameters<typeof valueAt>[0] }).path;
    for (const frame of [2, 7, 13]) {
      const seen = valueAt(own, momentIn(linked, 'clip', frame)) as number[][];
      corners(3 + 1.5 * (frame - 2)).forEach(([x, y], i) => {
        const low = corners(Math.floor(3 + 1.5 * (frame - 2)))[i]!;
        // between two frames of the clip it lies between both
        expect(Math.hypot(seen[i]![0]! - x, seen[i]![1]! - y)).toBeLessThan(
          0.02 + Math.hypot(low[0] - x, low[1] - y) * 0.01,
        );
      });
    }
  });
});

test('a copy of a layer follows through itself, and a group takes follower and followed together or not at all', () => {
  const before = scene('point', (f) => [spot(f)]);
  const mask = newMask('m2' as MaskId, 'Spot', newShape('ellipse', { w: 64, h: 36 }));
  const masked = {
    ...before,
    shots: before.shots.map((shot) => ({
      ...shot,
      layers: shot.layers.map((layer) => (layer.id === 'clip' ? { ...layer, masks: [mask] } : layer)),
    })),
  };
  const through = { track: 'track-1' as TrackId, via: 'clip' as LayerId };
  const steps = [
    (now: Project) => followTrack(now, at('clip', 5), { ...through, paths: ['mask.m2.centre'] }),
    (now: Project) => followTrack(now, at('glow', 5), { ...through, paths: ['place.position'] }),
  ];
  const linked = steps.reduce((now, make) => perform(now, make(now))!.project, masked);
  let count = 0;
  const copied = perform(
    linked,
    duplicateLayer(linked, at('clip', 5), 0, 1, () => `fresh${++count}`),
  )!.project;
  const copy = copied.shots[0]!.layers.find((layer) => layer.id.startsWith('fresh'))!;
  expect(carriersFor(copy)).toEqual([copy.id]);
  const ids = { shot: 'inner' as ShotId, layer: 'group' as LayerId };
  expect(() => groupLayers(linked, { shot: SHOT, layers: ['clip' as LayerId] }, ids, 'G')).toThrow(
    /glow follows a track through clip/,
  );
  expect(() => groupLayers(linked, { shot: SHOT, layers: ['clip', 'glow'] as LayerId[] }, ids, 'G')).not.toThrow();
});

test('reversed, a track has its drawn frame and its mended ones where they come to lie', () => {
  const before = scene('point', (f) => [spot(f)]);
  const id = 'track-1' as TrackId;
  const mended = perform(before, mendSample(before, id, 5, [[1, 2]]))!.project;
  const rows = reversedSamples(samplesOf(mended.tracks[0]!), LENGTH);
  const { project: after } = perform(
    mended,
    replaceSamples(mended, id, rows, 'Reverse', (f) => LENGTH - 1 - f),
  )!;
  const [track] = after.tracks;
  expect(track!.start).toBe(LENGTH - 1);
  expect(track!.fixed).toEqual([LENGTH - 6]);
  expect(sampleAt(samplesOf(track!), LENGTH - 6)!.points[0]).toEqual([1, 2]);
  expect(projectSchema.safeParse(after).success).toBe(true);
});

describe('samples', () => {
  test('mended by hand stay when a run writes over them, and undo takes a whole run back', () => {
    const before = scene('point', (f) => [spot(f)]);
    const id = 'track-1' as TrackId;
    const mended = perform(before, mendSample(before, id, 5, [[1, 2]]))!.project;
    const run = new Map([4, 5, 6].map((frame) => [frame, { confidence: 0.5, points: [[9, 9]] as Sample['points'] }]));
    const { project: after, changes } = perform(mended, writeSamples(mended, id, run, 'Run'))!;
    expect(after.tracks[0]!.fixed).toEqual([5]);
    expect(projectSchema.safeParse(after).success).toBe(true);
    expect(changes).toHaveLength(1);
    const rows = samplesOf(after.tracks[0]!);
    expect([4, 5, 6].map((frame) => sampleAt(rows, frame)!.points[0])).toEqual([
      [9, 9],
      [1, 2],
      [9, 9],
    ]);
  });
});
