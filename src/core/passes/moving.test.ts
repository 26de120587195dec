// Passes that move the picture by tracks, lines and corners, against drawings of where it has to be.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { multiply, rotation, translation, apply, type Matrix } from '../picture/matrix';
import type { Picture } from '../picture/picture';
import { floatsOf, pictureOf, runPass, testRig, type TestRig } from '../testing/rig';
import { trackName } from '../track/known';
import { packSamples, type Sample } from '../track/samples';
import type { AreaPass } from './define';
import { passOf } from './registry';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(256e6);
});
const W = 120;
const H = 80;
const SIZE = { w: W, h: H };

/** A soft spot at a place, in pixels from the upper left, over dark grey. */
const spotAt =
  (cx: number, cy: number, r = 6) =>
  (x: number, y: number) => {
    const v = 0.2 + 0.7 * Math.exp(-((x + 0.5 - cx) ** 2 + (y + 0.5 - cy) ** 2) / (r * r));
    return [v, v, v, 1];
  };
const draw = (at: (x: number, y: number) => number[]): Picture =>
  pictureOf(
    rig,
    { x: 0, y: 0, w: W, h: H },
    Array.from({ length: W * H }, (_, i) => at(i % W, Math.floor(i / W))).flat(),
  );
/** Where the light above the ground has its middle, and whether every pixel of the frame is covered. */
function seen(out: Picture): { x: number; y: number; solid: boolean } {
  const floats = floatsOf(rig, out);
  const { x: left, y: top, w, h } = out.rect;
  let [sx, sy, sum] = [0, 0, 0];
  let covered = 0;
  for (let i = 0; i < w * h; i++) {
    const weight = Math.max(0, floats[i * 4]! - 0.5);
    sx += weight * (left + (i % w) + 0.5);
    sy += weight * (top + Math.floor(i / w) + 0.5);
    sum += weight;
    if (floats[i * 4 + 3]! > 0.999) covered++;
  }
  out.release();
  return { x: sx / sum, y: sy / sum, solid: covered === w * h && w === W && h === H };
}

describe('Steady', () => {
  const swayed = (f: number): Matrix =>
    multiply(translation(7 * Math.sin(f), 4 * Math.cos(2 * f)), rotation(3 * Math.sin(f / 2)));
  const rows: Sample[] = Array.from({ length: 12 }, (_, f) => ({
    confidence: 1,
    points: [apply(swayed(f), -40, 0), apply(swayed(f), 40, 0)],
  }));
  const held = { kind: 'sway' as const, start: 0, samples: packSamples({ first: 0, rows }, 'sway') };

  test('puts what swayed back to where it was on the first frame, with no corner empty on any', () => {
    const places = rows.map((_, f) => {
      const [x, y] = apply(swayed(f), 12, -9);
      const track = { name: trackName(held), frame: f, size: SIZE, scale: 1 };
      const values = {
        track,
        way: 'still',
        over: 24,
        position: 1,
        rotation: 1,
        scale: 1,
        edges: 'enlarge',
        cover: true,
      };
      const pass = passOf('steady')!;
      const moment = 'moment' in pass ? pass.moment!(values as never, f, 1) : {};
      return {
        zoom: (moment as { zoom: number }).zoom,
        ...seen(runPass(rig, 'steady', { ...values, ...moment }, draw(spotAt(x + W / 2, y + H / 2)))),
      };
    });
    expect(places[0]!.zoom).toBeGreaterThan(1.05);
    for (const place of places) {
      expect(place.solid).toBe(true);
      expect(place.zoom).toBe(places[0]!.zoom);
      expect(Math.hypot(place.x - places[0]!.x, place.y - places[0]!.y)).toBeLessThan(0.3);
    }
  });

  test('fills what a frame lacks with what other frames show there', () => {
    // a wide picture of which each frame shows a part, as a camera on its way does
    const wide = (x: number, y: number): number[] => {
      const v = 0.3 + 0.2 * Math.sin(x / 5) + 0.2 * Math.cos(y / 7 + x / 19);
      return [v, v, v, 1];
    };
    const shift = (f: number) => Math.round(9 * Math.sin(f / 2));
    const way = Array.from({ length: 60 }, (_, f): Sample => ({
      confidence: 1,
      points: [
        [-40 - shift(f), 0],
        [40 - shift(f), 0],
      ],
    }));
    const own = { kind: 'sway' as const, start: 0, samples: packSamples({ first: 0, rows: way }, 'sway') };
    const frame = 28;
    const track = {
      name: trackName(own),
      frame,
      size: SIZE,
      scale: 1,
      around: Array.from({ length: 49 }, (_, i) => frame + i - 24),
    };
    const pass = passOf('steady') as AreaPass;
    const values = {
      track,
      way: 'still',
      over: 24,
      room: 40,
      position: 1,
      rotation: 1,
      scale: 1,
      edges: 'frames',
      cover: true,
    };
    const moment = pass.moment!(values as never, frame, 1) as { zoom: number };
    const moments = pass.moments!({ ...values, ...moment } as never);
    expect(moments.length).toBeGreaterThan(0);
    const shown = (f: number) => draw((x, y) => wide(x + shift(f), y));
    const others = moments.map((by) => shown(frame + by));
    const out = rig.arena.lending((scratch) =>
      pass.run(
        shown(frame),
        { ...values, ...moment } as never,
        {
          ...rig,
          size: SIZE,
          scratch,
          moment: (i: number) => others[i]!,
        } as never,
      ),
    );
    const floats = floatsOf(rig, out);
    // what the first frame would have shown, had it been enlarged
    const { zoom } = moment;
    let worst = 0;
    for (let y = 6; y < H - 6; y++)
      for (let x = 1; x < W - 1; x++) {
        const want = wide((x + 0.5 - W / 2) / zoom + W / 2 - 0.5, (y + 0.5 - H / 2) / zoom + H / 2 - 0.5)[0]!;
        worst = Math.max(worst, Math.abs(floats[(y * W + x) * 4]! - want));
        expect(floats[(y * W + x) * 4 + 3]).toBeCloseTo(1, 2);
      }
    expect(worst).toBeLessThan(0.02);
  });

  test('says what it costs, and warns when that is much', () => {
    const note = (zoom: number) => passOf('steady')!.note!({ track: { name: 'x' }, zoom } as never);
    expect(note(1.087)).toEqual({ says: 'Enlarged to 108.7 %.', warns: false });
    expect(note(1.3).warns).toBe(true);
  });
});

describe('Straighten', () => {
  test('makes the line that was drawn level, and covers the frame', () => {
    const tilt = 5;
    const line = (x: number, y: number) => {
      const off =
        (y + 0.5 - H / 2) * Math.cos((tilt * Math.PI) / 180) - (x + 0.5 - W / 2) * Math.sin((tilt * Math.PI) / 180);
      const v = 0.2 + 0.7 * Math.exp(-(off * off) / 4);
      return [v, v, v, 1];
    };
    const end = (by: number) => apply(multiply(translation(W / 2, H / 2), rotation(tilt)), by, 0);
    const out = runPass(rig, 'straighten', { from: end(-40), to: end(40), cover: true }, draw(line));
    const floats = floatsOf(rig, out);
    const row = (x: number) =>
      Array.from({ length: H }, (_, y) => floats[(y * W + x) * 4]!).reduce(
        (best, v, y, all) => (v > all[best]! ? y : best),
        0,
      );
    for (const x of [4, 40, 80, 115]) expect(Math.abs(row(x) - H / 2 + 0.5)).toBeLessThan(1.01);
    expect(seen(out).solid).toBe(true);
  });
});

describe('Corner pin', () => {
  test('puts each corner where it is wanted', () => {
    const corners = { topLeft: [20, 14], topRight: [96, 6], bottomRight: [108, 70], bottomLeft: [12, 60] };
    // a bright corner at a time: its middle comes to lie just inside of where that corner is put
    const from: [number, number][] = [
      [0, 0],
      [W, 0],
      [W, H],
      [0, H],
    ];
    Object.values(corners).forEach(([x, y], i) => {
      const place = seen(runPass(rig, 'corner-pin', corners, draw(spotAt(...from[i]!, 9))));
      expect(Math.hypot(place.x - x!, place.y - y!)).toBeLessThan(6);
    });
    const flat = seen(
      runPass(
        rig,
        'corner-pin',
        corners,
        draw(() => [0.8, 0.8, 0.8, 1]),
      ),
    );
    expect(flat.solid).toBe(false);
  });

  test('with its corners on those of the picture changes nothing', () => {
    const same = { topLeft: [0, 0], topRight: [W, 0], bottomRight: [W, H], bottomLeft: [0, H] };
    const picture = draw(spotAt(50, 30));
    const before = floatsOf(rig, picture).slice();
    const out = runPass(rig, 'corner-pin', same, picture);
    const after = floatsOf(rig, out);
    const { x, y, w } = out.rect;
    const off = before.map((v, i) => {
      const [px, py] = [Math.floor(i / 4) % W, Math.floor(i / 4 / W)];
      return Math.abs(v - after[((py - y) * w + px - x) * 4 + (i % 4)]!);
    });
    expect(Math.max(...off)).toBeLessThan(1e-3);
  });
});

describe('Trail', () => {
  const rows: Sample[] = Array.from({ length: 20 }, (_, f) => ({ confidence: 1, points: [[-40 + 4 * f, 0]] }));
  const held = { kind: 'point' as const, start: 0, samples: packSamples({ first: 0, rows }, 'point') };
  const lit = (frame: number, change: object = {}): number[] => {
    const track = { name: trackName(held), frame, size: SIZE, scale: 1 };
    const values = {
      track,
      length: 8,
      width: 6,
      tail: 'even',
      hardness: 1,
      colour: [[1, 1, 1]],
      opacity: 1,
      ...change,
    };
    const pass = passOf('trail')!;
    const moment = 'moment' in pass ? pass.moment!(values as never, frame, 1) : {};
    const out = runPass(
      rig,
      'trail',
      { ...values, ...moment },
      draw(() => [0, 0, 0, 1]),
    );
    const floats = floatsOf(rig, out).slice();
    out.release();
    return Array.from({ length: W }, (_, x) => floats[((H / 2) * W + x) * 4]!);
  };
  test('lies along the last frames up to where the track is now, and nowhere else', () => {
    const row = lit(12);
    const [now, old] = [W / 2 - 40 + 48, W / 2 - 40 + 16];
    expect(row[now - 2]).toBeCloseTo(1, 2);
    expect(row[old + 2]).toBeCloseTo(1, 2);
    expect(row[now + 6]).toBe(0);
    expect(row[old - 6]).toBe(0);
  });
  test('fades towards its old end', () => {
    const row = lit(12, { tail: 'fade' });
    const at = [18, 26, 34, 42, 47].map((by) => row[W / 2 - 40 + by]!);
    at.slice(1).forEach((v, i) => expect(v).toBeGreaterThan(at[i]!));
  });
});
