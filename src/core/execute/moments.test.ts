// Passes that ask for further moments of their line.
import { beforeAll, describe, expect, test } from '@jest/globals';
import { newLayer, newSource } from '../document/edits/layers';
import { newPass } from '../document/edits/passes';
import type { Layer, LayerId, PassId, Project } from '../document/schema';
import { still, type Value } from '../base/value';
import { planFrame } from '../plan/plan';
import { testRig, type TestRig } from '../testing/rig';
import { colourSource, layerOf, projectOf, SHOT } from '../testing/documents';
import { WasmExecutor } from './backends/wasm/executor';

let rig: TestRig;
beforeAll(async () => {
  rig = await testRig(128e6);
});

const pass = (type: string, values: Record<string, unknown> = {}, space?: 'layer' | 'shot', id = type) => {
  const made = { ...newPass(id as PassId, type), ...(space && { space }) };
  for (const [name, value] of Object.entries(values))
    made.values[name] = (typeof value === 'object' && value ? value : still(value)) as Value<unknown>;
  return made;
};
const ramp = (from: number, to: number, frames = 40): Value<number> => ({
  keys: [
    { at: 0, value: from, ease: 'linear' },
    { at: frames, value: to, ease: 'linear' },
  ],
});
/** A red card of 4×4 that goes a pixel to the right with each frame; at frame 0 its middle is 16 px left of the shot's. */
const moving = (passes: Layer['passes'], change: Partial<Layer> = {}): Layer => {
  const plain = layerOf('card', colourSource([1, 0, 0], 4, 4), { passes, ...change });
  const position = { keys: [0, 60].map((at) => ({ at, value: [at - 16, 0], ease: 'linear' })) } as never;
  return { ...plain, place: { ...plain.place, position } };
};
const clear = (layers: Layer[]): Project => projectOf(layers, { background: null });

/** RGBA 0…1 of places of a frame; shots are 64×36. */
async function seen(project: Project, frame: number): Promise<(x: number, y?: number) => number[]> {
  const executor = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no media here')));
  const problems: { sentence: string }[] = [];
  const before = rig.arena.used;
  const picture = await executor.frame(planFrame(project, SHOT, frame), 'every', problems as never);
  const floats = rig.arena.floats(picture.at, picture.pixels * 4).slice();
  const { w } = picture.rect;
  picture.release();
  executor.cache.clear();
  expect(problems).toEqual([]);
  expect(rig.arena.used).toBe(before);
  return (x, y = 18) => [...floats.subarray((y * w + x) * 4, (y * w + x) * 4 + 4)];
}
/** Where the middle of the card is at a frame. */
const at = (frame: number) => 32 - 16 + frame;

describe('an echo after Place', () => {
  const echo = (values: Record<string, unknown> = {}) =>
    pass('echo', { copies: 2, spacing: 6, fade: 0.5, ...values }, 'shot');

  test('shows where the layer was, each time fainter', async () => {
    const alpha = await seen(clear([moving([echo()])]), 20);
    expect(alpha(at(20))[3]).toBeCloseTo(1, 5);
    expect(alpha(at(14))[3]).toBeCloseTo(0.5, 5);
    expect(alpha(at(8))[3]).toBeCloseTo(0.25, 5);
    expect(alpha(at(2))[3]).toBe(0);
    expect(alpha(at(26))[3]).toBe(0);
  });
  test('or where it will be; before the layer begins there is nothing', async () => {
    const later = await seen(clear([moving([echo({ way: 'after' })])]), 20);
    expect([at(26), at(32), at(14)].map((x) => later(x)[3])).toEqual([0.5, 0.25, 0]);
    const early = await seen(clear([moving([echo()])]), 6);
    expect(early(at(0))[3]).toBeCloseTo(0.5, 5);
    expect(early(at(-6))[3]).toBe(0);
  });
  test('is seen also when the layer itself has left the shot', async () => {
    // at frame 58 the card is eight pixels beyond the right border
    const alpha = await seen(
      clear([moving([echo({ copies: 1, spacing: 18 })], { span: { start: 0, length: 60 } })]),
      58,
    );
    expect(alpha(at(40))[3]).toBeCloseTo(0.5, 5);
  });
  test('works on what the passes before it have made at that moment', async () => {
    const dim = pass('adjust', { exposure: ramp(0, -4) }, 'shot');
    const lit = await seen(clear([moving([dim, echo({ copies: 1, fade: 0 })])]), 20);
    const [now, then] = [lit(at(20))[0]!, lit(at(14))[0]!];
    // half a stop and more brighter six frames ago
    expect(then).toBeGreaterThan(now * 1.1);
  });
  test('two echoes echo each other, and no deeper than a few', async () => {
    const twice = await seen(
      clear([moving([echo({ copies: 1 }), pass('echo', { copies: 1, spacing: 12, fade: 0.5 }, 'shot', 'again')])]),
      30,
    );
    expect([at(30), at(24), at(18), at(12)].map((x) => twice(x)[3])).toEqual([1, 0.5, 0.5, 0.25]);
  });
});

test('an echo before Place goes along with the layer', async () => {
  const fading = pass('adjust', { exposure: ramp(0, -4) });
  const echo = pass('echo', { copies: 1, spacing: 10, fade: 0, lies: 'lighter' });
  const both = await seen(clear([moving([fading, echo])]), 20);
  const earlier = await seen(clear([moving([fading])]), 10);
  // where the layer is now, as bright as it was ten frames ago
  expect(both(at(20))[0]).toBeCloseTo(earlier(at(10))[0]!, 5);
  expect(both(at(10))[3]).toBe(0);
});

test('an echo on an adjustment layer is of what lies below it', async () => {
  const above = layerOf('above', colourSource([0, 0, 1], 2, 2));
  const all: Layer = {
    ...newLayer('all' as LayerId, 'all', newSource('adjustment', { layers: [] }), { start: 0, length: 48 }),
    passes: [pass('echo', { copies: 1, spacing: 6, fade: 0.5 })],
  };
  const frame = await seen(clear([above, all, moving([])]), 24);
  expect(frame(at(24))[3]).toBeCloseTo(1, 5);
  expect(frame(at(18))[3]).toBeCloseTo(0.5, 5);
  // what lies above is there once, and not echoed
  expect(frame(32)).toEqual([0, 0, 1, 1]);
});

test('a layer that gives its matte is echoed too', async () => {
  const giver = moving([pass('echo', { copies: 1, spacing: 6, fade: 0.5 }, 'shot')], { shown: false });
  const cut = layerOf('white', colourSource([1, 1, 1]), {
    matte: { layer: giver.id, by: 'alpha', invert: false },
  });
  const frame = await seen(clear([giver, cut]), 20);
  expect([at(20), at(14), at(8)].map((x) => frame(x)[3])).toEqual([1, 0.5, 0]);
});

test('the same moments have the same key, other moments another', () => {
  const keyAt = (spacing: number, frame: number) =>
    planFrame(clear([moving([pass('echo', { spacing }, 'shot')])]), SHOT, frame).key;
  expect(keyAt(3, 20)).toBe(keyAt(3, 20));
  expect(keyAt(3, 20)).not.toBe(keyAt(4, 20));
});

describe('passes that show other moments', () => {
  /** Where the card is seen at a frame: columns of the shot that it covers. */
  const columns = async (layer: Layer, frame: number): Promise<number[]> => {
    const at = await seen(clear([layer]), frame);
    return Array.from({ length: 64 }, (_, x) => x).filter((x) => at(x)[3]! > 0.5);
  };
  const middleOf = (xs: number[]): number => xs.reduce((sum, x) => sum + x, 0) / xs.length + 0.5;

  test('held frames stay for as many as said, from where they are counted', async () => {
    const held = moving([pass('hold', { frames: 4, first: 1 }, 'shot')]);
    for (const [frame, shown] of [
      [0, 0],
      [1, 1],
      [4, 1],
      [5, 5],
      [23, 21],
    ] as const)
      expect(middleOf(await columns(held, frame))).toBe(at(shown));
  });
  test('a frozen moment stays, before it too or only from there on', async () => {
    const frozen = moving([pass('freeze', { frame: 12 }, 'shot')]);
    expect(middleOf(await columns(frozen, 4))).toBe(at(12));
    expect(middleOf(await columns(frozen, 30))).toBe(at(12));
    const later = moving([pass('freeze', { frame: 12, before: false }, 'shot')]);
    expect(middleOf(await columns(later, 4))).toBe(at(4));
    expect(middleOf(await columns(later, 30))).toBe(at(12));
  });
  test('shuffled frames come from within as many as said, stay, and are the same every time', async () => {
    const shuffled = moving([pass('shuffle', { within: 5, frames: 2, seed: 3 }, 'shot')]);
    const shown: number[] = [];
    for (let frame = 10; frame < 26; frame++) shown.push(middleOf(await columns(shuffled, frame)) - at(0));
    shown.forEach((at, i) => expect(Math.abs(at - 2 * Math.floor((10 + i) / 2))).toBeLessThanOrEqual(5));
    shown.forEach((at, i) => i % 2 && expect(at).toBe(shown[i - 1]));
    expect(new Set(shown.map((at, i) => at - 2 * Math.floor(i / 2))).size).toBeGreaterThan(3);
    expect(middleOf(await columns(shuffled, 17)) - at(0)).toBe(shown[7]);
  });
  test('a time sweep shows each row at its own moment', async () => {
    const tall = { ...moving([]), source: colourSource([1, 0, 0], 4, 36) };
    const sweep = pass('time-sweep', { frames: 18, way: 'top' }, 'shot');
    const shown = await seen(clear([{ ...tall, passes: [sweep] }]), 30);
    // row 0 is now, row 35 eighteen frames earlier: half a pixel further left with every row
    const across = (y: number): number => {
      let [sum, weight] = [0, 0];
      for (let x = 0; x < 64; x++) [sum, weight] = [sum + shown(x, y)[3]! * (x + 0.5), weight + shown(x, y)[3]!];
      return sum / weight;
    };
    for (const y of [0, 9, 18, 30, 35]) expect(across(y)).toBeCloseTo(at(30) - (y + 0.5) / 2, 5);
  });
  test('the median of moments leaves out what only passes, and keeps what stays', async () => {
    const wall = layerOf('wall', colourSource([0, 0.5, 0]), { span: { start: 0, length: 60 } });
    const all: Layer = {
      ...newLayer('all' as LayerId, 'all', newSource('adjustment', { layers: [] }), { start: 0, length: 60 }),
      passes: [pass('median', { moments: 2, apart: 6 })],
    };
    const shown = await seen(clear([all, moving([], { span: { start: 0, length: 60 } }), wall]), 30);
    for (const x of [at(18), at(24), at(30), at(36), at(42)]) expect(shown(x).slice(0, 3)).toEqual([0, 0.5, 0]);
    // three moments of five that are near enough for the card to stay
    const near = { ...all, passes: [pass('median', { moments: 2, apart: 1 })] };
    const kept = await seen(clear([near, moving([], { span: { start: 0, length: 60 } }), wall]), 30);
    expect(kept(at(30)).slice(0, 3)).toEqual([1, 0, 0]);
  });
});
