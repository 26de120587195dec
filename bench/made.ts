// What titles, groups, transitions and effects cost: milliseconds of a frame, and times a copy of the same buffer.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { still, type Value } from '../src/core/base/value';
import { perform } from '../src/core/document/edit';
import { ARRIVALS, letArrive } from '../src/core/document/edits/arrive';
import { setTransition } from '../src/core/document/edits/ends';
import { groupLayers } from '../src/core/document/edits/groups';
import { newSource } from '../src/core/document/edits/layers';
import { addPass, newPass } from '../src/core/document/edits/passes';
import { newMask, type MaskId, type Shape } from '../src/core/document/mask';
import type { Layer, LayerId, PassId, Project, ShotId } from '../src/core/document/schema';
import { WasmExecutor } from '../src/core/execute/backends/wasm/executor';
import { plainFont } from '../src/core/formats/font-file';
import { corner } from '../src/core/masks/path';
import { PASSES } from '../src/core/passes/registry';
import type { Picture } from '../src/core/picture/picture';
import { planFrame } from '../src/core/plan/plan';
import { lineOf, readFont } from '../src/core/text/line';
import { SWARMS } from '../src/core/sources/swarms';
import { layerOf, projectOf, SHOT } from '../src/core/testing/documents';
import { testRig } from '../src/core/testing/rig';
import { TRANSITIONS } from '../src/core/transitions/registry';

const SIZES = [
  [1280, 720],
  [1920, 1080],
] as const;
type Size = (typeof SIZES)[number];
const FONT = join(import.meta.dirname, '../node_modules/@fontsource/archivo/files/archivo-latin-700-normal.woff');
/** Frames before it is measured how long they take: so many that what runs often has been compiled for good. */
const WARM = 8;
/** Effects whose goal is 15 times a copy, as they work on what is near. */
const LOCAL = 15;
/** The goal of those that collect from far around. */
const FAR: Readonly<Record<string, number>> = { defocus: 40, glow: 40, streaks: 40, 'light-rays': 40, ghosts: 40 };
const EFFECTS = ['focus', 'light', 'texture', 'distort', 'frame'];

const keyed = <T>(...keys: [number, T][]): Value<T> => ({
  keys: keys.map(([at, value]) => ({ at, value, ease: 'linear' as const })),
});
const at = { shot: SHOT, layer: 'a' as LayerId, frame: 0 };
const shotOf = ([width, height]: Size, layers: Layer[]): Project => projectOf(layers, { width, height, length: 100 });
/** Colours that run over the picture, at hand when a pass wants them. */
const ground = (size: Size, id = 'a'): Layer =>
  layerOf(id, newSource('gradient', { size, form: 'round' }), { span: { start: 0, length: 100 } });
/** The same, computed for each frame, and moving. */
const movingGround = (size: Size, id = 'a'): Layer => {
  const layer = ground(size, id);
  layer.place.position = keyed<[number, number]>([0, [0, 0]], [99, [99, 50]]);
  return layer;
};

async function made() {
  const font = readFont(await plainFont(new Uint8Array(readFileSync(FONT)), 'archivo'));
  const { kernels, arena } = await testRig(2e9);
  const executor = new WasmExecutor(
    kernels,
    arena,
    () => Promise.reject(new Error('no footage here')),
    (text, { tracking }) => Promise.resolve(lineOf([font], text, tracking)),
  );
  let next = 0;
  /** @param sources pictures that layers begin with, by their keys, which the frame need not compute; it adds its own */
  const frame = async (project: Project, sources?: Map<string, Picture>): Promise<void> => {
    const plan = planFrame(project, SHOT, 20 + (next++ % 60));
    sources?.forEach((picture, key) => executor.cache.put(key, picture));
    const picture = await executor.frame(plan, 'every', []);
    picture.release();
    for (const { sourceKey } of sources ? plan.layers : []) {
      const source = sources!.has(sourceKey) ? undefined : executor.cache.get(sourceKey);
      if (source) sources!.set(sourceKey, source);
    }
    executor.cache.clear();
  };
  /** The shortest time of frames that were not computed before, once the machine has seen some of them. */
  const cost = async (project: Project, sources?: Map<string, Picture>): Promise<number> => {
    for (let i = 0; i < WARM; i++) await frame(project, sources);
    return least(() => frame(project, sources), 9);
  };
  return { cost, kernels, arena };
}

/** The shortest of several times, in ms: whatever else a machine does only adds to it. */
async function least(work: () => unknown, runs: number): Promise<number> {
  let best = Infinity;
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    await work();
    best = Math.min(best, performance.now() - start);
  }
  return best;
}

/** @returns a table in Markdown */
export async function madeTable(): Promise<string> {
  const { cost, kernels, arena } = await made();
  const copies: number[] = [];
  for (const [w, h] of SIZES) {
    const [from, to] = [arena.take(w * h * 16), arena.take(w * h * 16)];
    copies.push(await least(() => kernels.copy(from, to, w * h), 25));
    [from, to].forEach((held) => arena.give(held));
  }
  const plain: number[] = [];
  const grounds = new Map<string, Picture>();
  for (const size of SIZES) plain.push(await cost(shotOf(size, [ground(size)]), grounds));
  const rows: string[] = [];
  const row = (what: string, times: readonly number[], goal = ''): void => {
    const cells = times.map((ms, i) => `${ms.toFixed(1)} ms, ${(ms / copies[i]!).toFixed(1)}×`);
    rows.push(`| ${what} | ${cells.join(' | ')} | ${goal} |`);
  };
  row('copying', copies);
  const each = async (
    what: string,
    build: (size: Size) => Project,
    less: readonly number[],
    goal = '',
    sources?: Map<string, Picture>,
  ) => {
    const times: number[] = [];
    for (const [i, size] of SIZES.entries()) times.push((await cost(build(size), sources)) - less[i]!);
    row(what, times, goal);
  };
  const none = [0, 0];
  await each(
    'a moving gradient over the whole shot, with all of a frame',
    (size) => shotOf(size, [movingGround(size)]),
    none,
  );
  const bare: number[] = [];
  for (const size of SIZES)
    bare.push(
      await cost(
        shotOf(size, [
          layerOf('a', newSource('shape', { size, width: 2, height: 2 }), { span: { start: 0, length: 100 } }),
        ]),
      ),
    );
  row('all of a frame with nothing but a speck in it', bare);
  await each(
    'title of 40 letters that arrive one by one',
    (size) => {
      const text = 'The night ferry leaves the paper harbour.';
      const base = shotOf(size, [
        layerOf('a', newSource('title', { size, text }), { span: { start: 0, length: 100 } }),
      ]);
      const rise = ARRIVALS.find(({ name }) => name === 'rise')!;
      return perform(base, letArrive(base, at, rise, 90))!.project;
    },
    bare,
    '12 ms at 720p',
  );
  await each(
    'solid title of 10 letters that turns',
    (size) => {
      const source = newSource('solid', { size, text: 'Lamplights', letter: size[1] / 6 });
      source.values['swing'] = keyed([0, -40], [99, 40]);
      return shotOf(size, [layerOf('a', source, { span: { start: 0, length: 100 } })]);
    },
    bare,
    '40 ms at 720p',
  );
  await each(
    'free path with a line whose ends fade',
    (size) => {
      const source = newSource('shape', { size, form: 'path', line: 12, fade: 0.2 });
      source.values['to'] = keyed([0, 0], [99, 1]);
      const points = Array.from({ length: 12 }, (_, i) => corner(-500 + 90 * i, i % 2 ? -200 : 200));
      const path = { kind: 'path', closed: false, path: still(points) } as unknown as Shape;
      const layer = layerOf('a', source, {
        span: { start: 0, length: 100 },
        masks: [newMask('m' as MaskId, 'way', path)],
      });
      return shotOf(size, [layer]);
    },
    bare,
  );
  const many = (size: Size, values: object, more: Layer[] = []): Project => {
    const [wide, high] = size;
    const all = { ...{ size, wide, high, emitter: 'box', rate: 0, before: 0 }, life: 9, lifeVaries: 0, ends: 1 };
    const source = newSource('particles', { ...all, grainVaries: 0, ...values });
    return shotOf(size, [layerOf('a', source, { span: { start: 0, length: 100 } }), ...more]);
  };
  const sprite = layerOf('s', newSource('clouds', { size: [64, 64] }), {
    shown: false,
    span: { start: 0, length: 100 },
  });
  for (const [how, shines] of [
    ['shine', true],
    ['cover', false],
  ] as const)
    await each(
      `1,500 particles that are pictures of 64 px and ${how}`,
      (size) => many(size, { burst: 1500, grain: 64, figure: 'sprite', sprites: ['s'], shines }, [sprite]),
      bare,
      '40 ms at 720p',
    );
  await each('20,000 dots', (size) => many(size, { burst: 20_000, grain: 4 }), bare, '25 ms at 720p');
  for (const { title, values } of SWARMS)
    await each(
      `particles: ${title}`,
      (size) =>
        shotOf(size, [layerOf('a', newSource('particles', { size, ...values }), { span: { start: 0, length: 100 } })]),
      bare,
    );
  const five = (size: Size) =>
    shotOf(
      size,
      ['a', 'b', 'c', 'd', 'e'].map((id) => ({ ...movingGround(size, id), opacity: still(0.7) })),
    );
  await each('five layers', five, none);
  await each(
    'the same five as a group',
    (size) => {
      const base = five(size);
      const layers = base.shots[0]!.layers.map(({ id }) => id);
      const ids = { shot: 'inner' as ShotId, layer: 'group' as LayerId };
      return perform(base, groupLayers(base, { shot: SHOT, layers }, ids, 'group'))!.project;
    },
    none,
    '5 % more than the layers',
  );
  for (const { type, title } of TRANSITIONS)
    await each(
      `transition: ${title}`,
      (size) => {
        const base = shotOf(size, [ground(size)]);
        return perform(base, setTransition(base, at, 'in', type, 90))!.project;
      },
      plain,
      `${LOCAL}×`,
      grounds,
    );
  for (const pass of PASSES.filter(({ group }) => EFFECTS.includes(group)))
    await each(
      pass.title,
      (size) => {
        const base = shotOf(size, [ground(size)]);
        return perform(base, addPass(at, newPass('p' as PassId, pass.type)))!.project;
      },
      plain,
      `${FAR[pass.type] ?? LOCAL}×`,
      grounds,
    );
  const heads = SIZES.map(([w, h]) => `${w}×${h}`).join(' | ');
  return [`| what | ${heads} | goal |`, '|---|---|---|---|', ...rows].join('\n');
}
