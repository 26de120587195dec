import { beforeAll, describe, expect, test } from '@jest/globals';
import { project, type Projective } from '../picture/matrix';
import { testRig, type TestRig } from '../testing/rig';
import { moving, movingFrames, type MovingFrame, type MovingScene } from '../testing/moving';
import type { FetchedPicture } from '../picture/fetched';
import { mapBetween, type Point } from './motion';
import { runTrack, type Measured, type Run, type RunEnd } from './run';
import type { TrackKind } from './samples';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});

const W = 300;
const H = 190;
const SIZE = { w: W, h: H };
const scene = (at: (frame: number) => MovingFrame, change: Partial<MovingScene> = {}): MovingScene => ({
  seed: 3,
  w: W,
  h: H,
  noise: 0.01,
  half: { w: 30, h: 24 },
  at,
  ...change,
});
/** Corners of a rectangle of the print as a frame shows it. */
const quadOf = (map: Projective, rw: number, rh: number): Run['patterns'][number] =>
  [
    [-rw, -rh],
    [rw, -rh],
    [rw, rh],
    [-rw, rh],
  ].map(([x, y]) => {
    const [u, v] = project(map, x!, y!);
    return [u, v] as const;
  }) as unknown as Run['patterns'][number];

interface Outcome {
  end: RunEnd;
  found: Map<number, Measured['sample']>;
}
async function run(
  from: MovingScene,
  change: Partial<Run> & {
    kind?: TrackKind;
    rx?: number;
    ry?: number;
    looked?: (frame: number) => Promise<Uint8Array>;
  } = {},
  frames = 20,
): Promise<Outcome> {
  const { rx = 20, ry = 18, looked = null, ...rest } = change;
  const light = movingFrames(from);
  const first = rest.from ?? 0;
  const found = new Map<number, Measured['sample']>();
  const end = await runTrack(
    rig,
    {
      kind: 'point',
      size: SIZE,
      patterns: [quadOf(from.at(first).map, rx, ry)],
      reach: 24,
      from: first,
      to: frames - 1,
      fixed: new Map(),
      patience: 40,
      ...rest,
    },
    (frame) => Promise.resolve(frame >= 0 && frame < frames ? light(frame) : null),
    ({ frame, sample }) => {
      found.set(frame, sample);
      return true;
    },
    looked,
  );
  return { end, found };
}
/** Root mean square distance of all points from where a map carries these places of the print. */
function rms({ found }: Outcome, at: (frame: number) => MovingFrame, places: readonly Point[]): number {
  let [sum, n] = [0, 0];
  for (const [frame, sample] of found)
    sample?.points.forEach(([x, y], k) => {
      const [u, v] = project(at(frame).map, ...places[k]!);
      sum += (x - u) ** 2 + (y - v) ** 2;
      n++;
    });
  return Math.sqrt(sum / n);
}
const MIDDLE: Point[] = [[0, 0]];
const way = (f: number): [number, number] => [-60 + 3.37 * f, 20 * Math.sin(f / 7)];

describe('a point track', () => {
  test.each<[string, (f: number) => MovingFrame, number, number]>([
    ['moves', (f) => ({ map: moving(...way(f)) }), 0.005, 0.15],
    ['moves in much noise', (f) => ({ map: moving(...way(f)) }), 0.03, 0.15],
    ['turns by 20°', (f) => ({ map: moving(...way(f), 20 * Math.sin(f / 8)) }), 0.01, 0.35],
    [
      'shrinks to 0.7 and grows to 1.4',
      (f) => ({ map: moving(...way(f), 0, 1.05 + 0.35 * Math.sin(f / 9)) }),
      0.01,
      0.35,
    ],
    [
      'is lit by 30 % more and less',
      (f) => ({ map: moving(...way(f)), gain: 1 + 0.3 * Math.sin(f / 8), lift: 0.03 * Math.sin(f / 5) }),
      0.01,
      0.15,
    ],
    ['turns by 90° and doubles', (f) => ({ map: moving(...way(f), 4.7 * f, 1 + f / 19) }), 0.01, 0.35],
  ])('of what %s stays on it', async (_, at, noise, bound) => {
    const outcome = await run(scene(at, { noise }));
    expect(outcome.end).toEqual({ why: 'done' });
    expect(outcome.found.size).toBe(20);
    expect(rms(outcome, at, MIDDLE)).toBeLessThan(bound);
  });

  test('says that it is lost while a bar passes before it, finds it again, and is never surely wrong', async () => {
    const at = (f: number): MovingFrame => ({ map: moving(-40 + 1.5 * f, 4), bar: { x: -150 + 7 * f, wide: 60 } });
    const outcome = await run(scene(at), {}, 40);
    let covered = 0;
    for (const [frame, sample] of outcome.found) {
      const [x] = project(at(frame).map, 0, 0);
      const { bar } = at(frame);
      const share = Math.max(0, Math.min(x + 20, bar!.x + 60) - Math.max(x - 20, bar!.x)) / 40;
      if (share > 0.5) {
        covered++;
        expect(sample).toBeNull();
      }
      if (sample && sample.confidence > 0.5)
        expect(Math.hypot(sample.points[0]![0] - x, sample.points[0]![1] - 4)).toBeLessThan(1);
    }
    expect(covered).toBeGreaterThan(5);
    expect(outcome.found.get(39)).not.toBeNull();
    expect(outcome.end).toEqual({ why: 'done' });
  });

  test('that finds nothing any more says from where on', async () => {
    const at = (f: number): MovingFrame => ({
      map: moving(0, 0),
      bar: { x: f < 5 ? -150 : -35, wide: 70 },
    });
    const { end } = await run(scene(at), { patience: 6 }, 20);
    expect(end).toEqual({ why: 'lost', frame: 5 });
  });

  test('searches all of the picture from a frame on when it is told to, and leaves those before as they are', async () => {
    // hidden at the left, it comes out far to the right
    const at = (f: number): MovingFrame => ({
      map: f < 8 ? moving(-95 + f, -20) : moving(70 + f, 35, 4),
      ...(f >= 4 && f < 8 ? { bar: { x: -150, wide: 130 } } : {}),
    });
    const from = scene(at);
    const near = await run(from, { from: 3, patience: 9, reach: 6 }, 20);
    expect(near.end).toEqual({ why: 'lost', frame: 4 });
    const far = await run(from, { from: 3, patience: 9, reach: 6, resume: 10 }, 20);
    expect(far.end).toEqual({ why: 'done' });
    expect([...far.found.keys()]).toEqual([3, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19]);
    far.found.delete(3);
    expect(rms(far, at, MIDDLE)).toBeLessThan(0.2);
    // where it is not, nothing is taken for it
    const hidden = await run(from, { from: 3, patience: 2, reach: 6, resume: 5 }, 8);
    expect(hidden.end).toEqual({ why: 'lost', frame: 5 });
  });

  test('ends where its pattern leaves the picture', async () => {
    const at = (f: number): MovingFrame => ({ map: moving(60 + 8 * f, 0) });
    const { end, found } = await run(scene(at));
    expect(end.why).toBe('outside');
    const last = [...found.values()].at(-1)!;
    expect(last!.points[0]![0]).toBeGreaterThan(110);
  });

  test('ends where the clip is cut', async () => {
    const frames = [
      movingFrames(scene(() => ({ map: moving(0, 0) }))),
      movingFrames(scene(() => ({ map: moving(0, 0) }), { seed: 90 })),
    ];
    const end = await runTrack(
      rig,
      {
        kind: 'point',
        size: SIZE,
        patterns: [quadOf(moving(0, 0), 20, 20)],
        reach: 24,
        from: 0,
        to: 19,
        fixed: new Map(),
        patience: 10,
      },
      (frame) => Promise.resolve(frames[frame < 6 ? 0 : 1]!(frame)),
      () => true,
    );
    expect(end).toEqual({ why: 'cut', frame: 6 });
  });

  test('of a pattern without anything in it is refused with how little there is', async () => {
    const grey: FetchedPicture = { data: new Uint8ClampedArray(W * H * 4).fill(120), width: W, height: H };
    const end = await runTrack(
      rig,
      {
        kind: 'point',
        size: SIZE,
        patterns: [quadOf(moving(0, 0), 20, 20)],
        reach: 20,
        from: 0,
        to: 5,
        fixed: new Map(),
        patience: 5,
      },
      () => Promise.resolve(grey),
      () => true,
    );
    expect(end.why).toBe('plain');
    expect((end as { strength: number }).strength).toBeLessThan(1e-4);
  });

  test('goes back over its own way to where it began', async () => {
    const at = (f: number): MovingFrame => ({ map: moving(...way(f), 8 * Math.sin(f / 6)) });
    const there = await run(scene(at), {}, 20);
    const [x, y] = there.found.get(19)!.points[0]!;
    const back = await run(scene(at), { from: 19, to: 0, patterns: [quadOf(moving(x, y), 20, 18)] }, 20);
    const start = back.found.get(0)!.points[0]!;
    const [u, v] = way(0);
    expect(Math.hypot(start[0] - u, start[1] - v)).toBeLessThan(0.2);
  });

  test('passes through frames that were mended by hand and leaves them as they are', async () => {
    const at = (f: number): MovingFrame => ({ map: moving(...way(f)) });
    const mended: Point = [way(7)[0] + 0.5, way(7)[1]];
    const { found } = await run(scene(at), { fixed: new Map([[7, [mended]]]) }, 12);
    expect(found.get(7)!.points[0]).toEqual(mended);
    expect(found.get(11)).not.toBeNull();
  });
});

/** Of each pixel, from its place from the middle, whether it is looked at. */
const lookedAt = (at: (x: number, y: number) => boolean): Uint8Array =>
  Uint8Array.from({ length: W * H }, (_, i) => (at((i % W) + 0.5 - W / 2, Math.floor(i / W) + 0.5 - H / 2) ? 255 : 0));

describe('where a track looks', () => {
  // a bar that goes the other way and hides up to half of the pattern
  const at = (f: number): MovingFrame => ({ map: moving(-20 + f, 0), bar: { x: 60 - 3 * f, wide: 18 } });
  const besideBar = (frame: number) => {
    const { x, wide } = at(frame).bar!;
    return Promise.resolve(lookedAt((px) => px < x - 1 || px > x + wide + 1));
  };

  test('what is left out neither carries it along nor counts against it', async () => {
    const blind = await run(scene(at), { looked: besideBar }, 36);
    const seeing = await run(scene(at), {}, 36);
    expect(blind.end).toEqual({ why: 'done' });
    const known = ({ found }: Outcome) => [...found.values()].filter((sample) => sample !== null).length;
    expect(known(blind)).toBe(36);
    expect(known(seeing)).toBeLessThan(36);
    expect(rms(blind, at, MIDDLE)).toBeLessThan(0.25);
  });

  test('nothing outside of where it may look is taken for it', async () => {
    // the print is gone from frame 8 on, and its twin stands beside
    const there = (f: number): MovingFrame => ({ map: moving(f < 8 ? -30 : 40, 0) });
    const left = () => Promise.resolve(lookedAt((x) => x < 0));
    const everywhere = await run(scene(there), { reach: 90 }, 16);
    expect(everywhere.found.get(15)!.points[0]![0]).toBeCloseTo(40, 0);
    const half = await run(scene(there), { reach: 90, looked: left }, 16);
    expect(half.found.get(15)).toBeNull();
  });

  test('a pattern that may not be looked at is refused', async () => {
    const { end } = await run(scene(at), { looked: () => Promise.resolve(lookedAt(() => false)) });
    expect(end.why).toBe('plain');
  });

  test('a cut is seen through what is left to look at', async () => {
    const frames = [3, 90].map((seed) => movingFrames(scene(at, { seed })));
    const end = await runTrack(
      rig,
      {
        kind: 'point',
        size: SIZE,
        patterns: [quadOf(at(0).map, 20, 18)],
        reach: 24,
        from: 0,
        to: 19,
        fixed: new Map(),
        patience: 10,
      },
      (frame) => Promise.resolve(frames[frame < 6 ? 0 : 1]!(frame)),
      () => true,
      besideBar,
    );
    expect(end).toEqual({ why: 'cut', frame: 6 });
  });
});

describe('other tracks', () => {
  test('a pair says turn and size', async () => {
    const at = (f: number): MovingFrame => ({
      map: moving(...way(f), 12 * Math.sin(f / 9), 1 + 0.2 * Math.sin(f / 7)),
    });
    const spots: Point[] = [
      [-30, 0],
      [30, 6],
    ];
    const wide = scene(at, { half: { w: 60, h: 40 } });
    const patterns = spots.map(([x, y]) => {
      const [u, v] = project(at(0).map, x, y);
      return quadOf(moving(u, v), 16, 16);
    });
    const outcome = await run(wide, { kind: 'pair', patterns }, 18);
    expect(outcome.found.size).toBe(18);
    expect(rms(outcome, at, spots)).toBeLessThan(0.35);
  });

  test('a plane keeps its four corners in perspective', async () => {
    const flat: Point[] = [
      [-60, -40],
      [60, -40],
      [60, 40],
      [-60, 40],
    ];
    const corners = (f: number): Point[] => [
      [-62 + f, -42 + 3 * Math.sin(f / 5)],
      [58 + 1.4 * f, -38 - 0.5 * f],
      [60 + 1.1 * f, 44 - 0.4 * f],
      [-60 + 0.7 * f, 40 + 2 * Math.sin(f / 6)],
    ];
    const at = (f: number): MovingFrame => ({ map: mapBetween(flat, corners(f))! });
    const outcome = await run(scene(at, { half: { w: 64, h: 44 } }), { kind: 'plane', rx: 60, ry: 40 }, 18);
    expect(outcome.end).toEqual({ why: 'done' });
    expect(rms(outcome, at, flat)).toBeLessThan(0.35);
  });

  test('a patch shears', async () => {
    const at = (f: number): MovingFrame => ({
      map: [1 + 0.006 * f, 0.008 * f, f, 0.002 * f, 1 - 0.004 * f, -f / 2, 0, 0, 1],
    });
    const places: Point[] = [
      [-30, -24],
      [30, -24],
      [30, 24],
    ];
    const outcome = await run(scene(at, { half: { w: 40, h: 34 } }), { kind: 'patch', rx: 30, ry: 24 }, 18);
    expect(rms(outcome, at, places)).toBeLessThan(0.35);
  });

  test('sway is that of the whole picture, not of what moves in it', async () => {
    const at = (f: number): MovingFrame => ({ map: moving(4 * Math.sin(f / 3), 3 * Math.cos(f / 4), Math.sin(f / 5)) });
    const outcome = await run(
      scene((f) => ({ ...at(f), bar: { x: -150 + 8 * f, wide: 40 } }), { half: { w: 400, h: 300 } }),
      { kind: 'sway', rx: 138, ry: 86 },
      18,
    );
    expect(outcome.found.size).toBe(18);
    expect(
      rms(outcome, at, [
        [-138, 0],
        [138, 0],
      ]),
    ).toBeLessThan(0.35);
  });
});
