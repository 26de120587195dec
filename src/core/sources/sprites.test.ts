import { beforeAll, describe, expect, test } from '@jest/globals';
import { still } from '../base/value';
import { newSource } from '../document/edits/layers';
import { layersNamed, nameOthers, showing } from '../document/shown-layers';
import { newPass } from '../document/edits/passes';
import { newMask, type Mask, type MaskId, type Shape } from '../document/mask';
import type { Layer, LayerId, PassId } from '../document/schema';
import { WasmExecutor } from '../execute/backends/wasm/executor';
import { planFrame } from '../plan/plan';
import { floatsOf, testRig, type TestRig } from '../testing/rig';
import { layerOf, projectOf, RATE, SHOT } from '../testing/documents';

let rig: TestRig;
let executor: WasmExecutor;
beforeAll(async () => {
  rig = await testRig(256e6);
  executor = new WasmExecutor(rig.kernels, rig.arena, () => Promise.reject(new Error('no footage here')));
});
const [W, H] = [120, 80];
const FPS = RATE.num / RATE.den;
/** One still sprite in the middle. */
const ONE = {
  ...{
    figure: 'sprite',
    rate: 0,
    burst: 1,
    life: 9,
    lifeVaries: 0,
    before: 0,
    speed: 0,
    gravity: 0,
    wander: 0,
    drag: 0,
  },
  ...{ grain: 40, grainVaries: 0, ends: 1, appears: 0, goes: 0, turned: 0, shines: false, size: [W, H] },
};
const RED = layerOf('red', newSource('colour', { size: [30, 15], colour: [1, 0, 0] }), { shown: false });
const swarm = (values: object, id = 'swarm'): Layer =>
  layerOf(id, newSource('particles', { ...ONE, sprites: ['red'], ...values }));
async function shown(layers: Layer[], frame = 0) {
  const project = projectOf(layers, { width: W, height: H, length: 40, background: null });
  const picture = await executor.frame(planFrame(project, SHOT, frame), 'none');
  const floats = floatsOf(rig, picture).slice();
  picture.release();
  executor.cache.clear();
  const at = (x: number, y: number) => [...floats.subarray((y * W + x) * 4, (y * W + x) * 4 + 4)];
  const sum = (c: number) => floats.reduce((all, v, i) => (i % 4 === c ? all + v : all), 0);
  return { at, sum };
}

describe('particles that are pictures of layers', () => {
  test('as large as said along the longer side, in the layer’s own colours and proportion', async () => {
    const { at, sum } = await shown([swarm({}), RED]);
    expect(at(W / 2, H / 2)).toEqual([1, 0, 0, 1].map((v) => expect.closeTo(v, 5)));
    expect(Math.abs(sum(3) / (40 * 20) - 1)).toBeLessThan(0.02);
    expect(at(W / 2 - 18, H / 2)[3]).toBeCloseTo(1, 5);
    expect(at(W / 2, H / 2 - 12)[3]).toBe(0);
  });

  test('turned by a quarter it stands upright; made small it keeps its area and colour', async () => {
    const up = await shown([swarm({ along: true, speed: 0.001, direction: 90 }), RED]);
    expect(up.at(W / 2, H / 2 - 18)[3]).toBeCloseTo(1, 3);
    expect(up.at(W / 2 - 18, H / 2)[3]).toBe(0);
    // its right side goes down, its top to the right
    const ramp = newSource('gradient', {
      size: [30, 15],
      from: [-15, -7],
      to: [15, 7],
      colours: [
        [0, [0, 0, 0]],
        [1, [1, 1, 1]],
      ],
    });
    const down = await shown([swarm({ along: true, speed: 0.001, direction: 90 }), { ...RED, source: ramp }]);
    expect(down.at(W / 2, H / 2 + 15)[0]! - down.at(W / 2, H / 2 - 15)[0]!).toBeGreaterThan(0.4);
    expect(down.at(W / 2 - 7, H / 2)[0]! - down.at(W / 2 + 7, H / 2)[0]!).toBeGreaterThan(0.1);
    const small = await shown([swarm({ grain: 6 }), RED]);
    expect(Math.abs(small.sum(3) / 18 - 1)).toBeLessThan(0.1);
    expect(small.sum(1)).toBeCloseTo(0, 5);
  });

  test('passes of the layer count, and colours only as far as wanted', async () => {
    const dark = newPass('p' as PassId, 'adjust', null, { exposure: -1 });
    const dimmed = await shown([swarm({}), { ...RED, passes: [dark] }]);
    expect(dimmed.at(W / 2, H / 2)[0]).toBeLessThan(0.9);
    const green = [
      [0, [0, 1, 0]],
      [1, [0, 1, 0]],
    ];
    const half = await shown([swarm({ tinted: 0.5, colours: green }), RED]);
    expect(half.at(W / 2, H / 2)).toEqual([0.5, 0, 0, 1].map((v) => expect.closeTo(v, 4)));
  });

  test('something drawn is as large as what is seen of it, not as the picture that it stands in', async () => {
    const star = newSource('shape', { form: 'rectangle', width: 20, height: 10, line: 0, size: [90, 90] });
    const { sum } = await shown([swarm({}), { ...RED, source: star }]);
    expect(Math.abs(sum(3) / (40 * 20) - 1)).toBeLessThan(0.02);
  });

  test('younger ones lie over older ones; those that shine add up, and cover together', async () => {
    const white = { ...RED, source: newSource('colour', { size: [30, 15], colour: [1, 1, 1] }) };
    const ageing = [
      [0, [1, 0, 0]],
      [1, [0, 0, 1]],
    ];
    const coming = { burst: 0, rate: 2, life: 2, tinted: 1, colours: ageing };
    const over = await shown([swarm(coming), white], FPS);
    // the youngest of them has just come
    expect(over.at(W / 2, H / 2)).toEqual([1, 0, 0, 1].map((v) => expect.closeTo(v, 1)));
    const grey = { ...RED, source: newSource('colour', { size: [30, 15], colour: [0.3, 0.2, 0.1] }) };
    const lit = await shown([swarm({ burst: 2, shines: true }), grey]);
    expect(lit.at(W / 2, H / 2)).toEqual([0.6, 0.4, 0.2, 1].map((v) => expect.closeTo(v, 3)));
    const faint = await shown([swarm({ burst: 2, shines: true, opacity: 0.5 }), grey]);
    expect(faint.at(W / 2, H / 2)).toEqual([0.3, 0.2, 0.1, 0.75].map((v) => expect.closeTo(v, 3)));
  });

  test('an open shutter draws each out over its way of a frame, covering as much in all', async () => {
    const going = { speed: 12 * FPS, speedVaries: 0, direction: 0, spread: 0, grain: 20 };
    const [sharp, blurred] = [
      await shown([swarm(going), RED], 2),
      await shown([swarm({ ...going, shutter: 1 }), RED], 2),
    ];
    const seen = ({ at }: typeof sharp) =>
      Array.from({ length: W }, (_, x) => at(x, H / 2)[3]!).map((alpha, x) => [x, alpha] as const);
    const edges = (of: typeof sharp) =>
      seen(of)
        .filter(([, alpha]) => alpha > 0.02)
        .map(([x]) => x);
    const wide = (of: typeof sharp) => edges(of).at(-1)! - edges(of)[0]! + 1;
    expect(wide(sharp)).toBe(20);
    expect(Math.abs(wide(blurred) - 32)).toBeLessThanOrEqual(2);
    expect(Math.abs(blurred.sum(3) / sharp.sum(3) - 1)).toBeLessThan(0.01);
    // all of the time where it is at both ends of its way, half of it at where its end begins
    const begins = edges(sharp)[0]!;
    expect(blurred.at(begins + 10, H / 2)[3]).toBeCloseTo(1, 2);
    expect(Math.abs(blurred.at(begins, H / 2)[3]! - 0.5)).toBeLessThan(0.1);
  });

  test('of several layers each has one by lot', async () => {
    const blue = layerOf('blue', newSource('colour', { size: [30, 30], colour: [0, 0, 1] }), { shown: false });
    const many = { sprites: ['red', 'blue'], burst: 60, emitter: 'box', wide: W, high: H, grain: 6 };
    const { sum } = await shown([swarm(many), RED, blue]);
    for (const c of [0, 2]) expect(sum(c) / sum(3)).toBeGreaterThan(0.25);
  });

  test('none come where the layer is not there, is gone, or shows them itself', async () => {
    expect((await shown([swarm({ sprites: [] })])).sum(3)).toBe(0);
    expect((await shown([swarm({ sprites: ['gone'] })])).sum(3)).toBe(0);
    expect((await shown([swarm({ emitter: 'layer', from: [] }), RED])).sum(3)).toBe(0);
    const later = { ...RED, span: { start: 20, length: 10 } };
    expect((await shown([swarm({}), later])).sum(3)).toBe(0);
    expect((await shown([swarm({ stands: true }), later])).sum(3)).toBeGreaterThan(100);
    const circle = [swarm({ sprites: ['two'] }, 'one'), swarm({ sprites: ['one'] }, 'two')];
    expect((await shown(circle)).sum(3)).toBe(0);
  });

  test('layers that all show each other, again and again, are planned in no time', () => {
    const ids = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'];
    const bending = (own: string) =>
      Array.from({ length: 40 }, (_, i) =>
        newPass(`${own}${i}` as PassId, 'displace', null, { map: [ids.find((id) => id !== own)] }),
      );
    const layers = ids.map((id) => ({
      ...swarm({ sprites: ids.filter((other) => other !== id) }, id),
      passes: bending(id),
    }));
    const began = performance.now();
    planFrame(projectOf(layers, { width: W, height: H, length: 40 }), SHOT, 3);
    expect(performance.now() - began).toBeLessThan(2000);
  });

  test('they come from where another layer lies in the shot', async () => {
    const place = { ...RED.place, position: still([30, 0] as [number, number]) };
    const from = { emitter: 'layer', from: ['red'], sprites: ['red'], burst: 200, grain: 4 };
    const { at, sum } = await shown([swarm(from), { ...RED, place } as Layer]);
    expect(sum(3)).toBeGreaterThan(100);
    expect(at(W / 2 + 30, H / 2)[3]).toBeGreaterThan(0.5);
    for (let x = 0; x < W; x++) if (Math.abs(x - (W / 2 + 30)) > 18) expect(at(x, H / 2)[3]).toBe(0);
  });
});

describe('particles that come from masks', () => {
  const dots = { figure: 'disc', emitter: 'mask', burst: 300, grain: 2, sprites: [] };
  const mask = (id: string, x: number, more: object = {}): Mask => ({
    ...newMask(id as MaskId, id, {
      kind: 'ellipse',
      centre: still([x, 0]),
      size: still([30, 40]),
      rotation: still(0),
    } as Shape),
    ...more,
  });
  /** How much lies inside of an ellipse about a place right of the middle, and outside. */
  async function parts(layer: Layer, x: number, frame = 0) {
    const { at, sum } = await shown([layer], frame);
    let inside = 0;
    for (let py = 0; py < H; py++)
      for (let px = 0; px < W; px++)
        if (Math.hypot((px + 0.5 - W / 2 - x) / 17, (py + 0.5 - H / 2) / 22) <= 1) inside += at(px, py)[3]!;
    return { inside, all: sum(3) };
  }
  test('lie within what these cover together, and there are none without any', async () => {
    const one = { ...swarm(dots), masks: [mask('a', -30)] };
    const { inside, all } = await parts(one, -30);
    expect(all).toBeGreaterThan(300);
    expect(inside / all).toBeGreaterThan(0.99);
    const two = { ...one, masks: [mask('a', -30), mask('b', 25, { mode: 'add' })] };
    const both = await parts(two, -30);
    expect(both.inside / both.all).toBeGreaterThan(0.35);
    expect(both.inside / both.all).toBeLessThan(0.65);
    const chosen = { ...swarm({ ...dots, inside: ['b'] }), masks: two.masks };
    expect((await parts(chosen, 25)).inside / (await parts(chosen, 25)).all).toBeGreaterThan(0.99);
    expect((await parts(swarm(dots), 0)).all).toBe(0);
  });
  test('stay where they came when the mask goes on', async () => {
    const there = mask('a', -30);
    const moved = {
      keys: [
        { at: 0, value: [-30, 0], ease: 'linear' },
        { at: 20, value: [30, 0], ease: 'linear' },
      ],
    };
    const moving = { ...there, shape: { ...there.shape, centre: moved } } as Mask;
    const later = await parts({ ...swarm(dots), masks: [moving] }, -30, 20);
    expect(later.inside / later.all).toBeGreaterThan(0.99);
  });
});

describe('layers that name each other', () => {
  const [one, two] = [swarm({ sprites: ['two', 'red'] }, 'one'), swarm({ from: ['red'] }, 'two')];
  test('are found in sources and passes, and are called anew in copies', () => {
    expect(layersNamed(one)).toEqual(['two', 'red']);
    expect(layersNamed(two)).toEqual(['red']);
    const copy = structuredClone(one);
    nameOthers(copy, (id) => (id === 'red' ? null : (`${id}-again` as LayerId)));
    expect(layersNamed(copy)).toEqual(['two-again']);
    expect(layersNamed(one)).toEqual(['two', 'red']);
  });
  test('a layer cannot show those that show it, however far round', () => {
    expect(showing([one, two, RED], 'red' as LayerId)).toEqual(new Set(['red', 'one', 'two']));
    expect(showing([one, two, RED], 'one' as LayerId)).toEqual(new Set(['one']));
  });
});
