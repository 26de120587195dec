import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia';
import { reactive, ref } from 'vue';
import { colourSource, layerOf, projectOf, SHOT } from '../../core/testing/documents';
import type { FramePlan } from '../../core/plan/types';

const LENGTH = 48;
let seconds = 0;
let cost = 0;
const project = projectOf([
  {
    ...layerOf('card', colourSource([1, 0, 0])),
    place: {
      ...layerOf('x', colourSource([0, 0, 0])).place,
      position: {
        keys: [
          { at: 0, value: [0, 0], ease: 'linear' },
          { at: LENGTH, value: [48, 0], ease: 'linear' },
        ],
      },
    },
  },
]);
const bench = reactive({
  shot: project.shots[0]!,
  shotId: SHOT,
  layerId: 'card',
  layer: null,
  pass: null,
  chosen: 'place',
});
const viewing = reactive({
  looked: project,
  view: 'picture',
  ground: { alone: 'checker', matte: 'plain' },
  scale: 'auto' as 'auto' | 1 | 2,
});
const playhead = reactive({ frame: 0, seek: (frame: number) => void (playhead.frame = frame) });
const held = new Map<string, unknown>();
const engine = {
  workers: 2,
  cache: {
    get: (key: string) => held.get(key),
    has: (key: string) => held.has(key),
    want: () => undefined,
    room: () => 1000,
  },
  frame: async (plan: FramePlan, look: string) => {
    const key = `${look} ${plan.key}`;
    if (cost) await new Promise((resume) => setTimeout(resume, cost));
    held.set(key, { bitmap: { reduction: plan.reduction }, problems: [] });
    return held.get(key);
  },
};
jest.unstable_mockModule('./project', () => ({
  useProject: () => ({ project, media: new Map(), current: () => project }),
}));
jest.unstable_mockModule('./bench', () => ({ useBench: () => bench }));
jest.unstable_mockModule('./viewing', () => ({ useViewing: () => viewing, GROUND_COLOURS: {} }));
jest.unstable_mockModule('./playhead', () => ({ usePlayhead: () => playhead }));
jest.unstable_mockModule('./edits', () => ({ useEdits: () => ({ tried: null }) }));
jest.unstable_mockModule('./sound-out', () => ({
  SoundOut: class {
    private from = 0;
    private begun = 0;
    start(from: number) {
      [this.from, this.begun] = [from, seconds];
      return Promise.resolve();
    }
    now = () => this.from + seconds - this.begun;
    stop() {}
  },
}));
jest.unstable_mockModule('../../engine/client', () => ({
  useEngine: () => Promise.resolve(engine),
  frameKey: (plan: FramePlan, look: string) => `${look} ${plan.key}`,
}));
jest.unstable_mockModule('@vueuse/core', () => ({ useStorage: (_: string, value: unknown) => ref(value) }));
const { usePlayer } = await import('./player');
const { usePreview } = await import('./preview');
const { useReady } = await import('./ready');
const { useShown } = await import('./shown');

let pinia: Pinia;
/** Lets time pass in steps of a screen's frame. */
async function pass(milliseconds: number): Promise<void> {
  for (let gone = 0; gone < milliseconds; gone += 4) {
    seconds += 0.004;
    await jest.advanceTimersByTimeAsync(4);
  }
}
beforeEach(() => {
  jest.useFakeTimers();
  globalThis.requestAnimationFrame = (work) => setTimeout(() => work(seconds * 1000), 4) as unknown as number;
  setActivePinia((pinia = createPinia()));
  held.clear();
  [seconds, cost, playhead.frame, viewing.scale] = [0, 0, 0, 'auto'];
});
afterEach(() => {
  disposePinia(pinia);
  jest.useRealTimers();
});

describe('playing', () => {
  test('in time, with everything ready: every frame is shown when it is due, none is dropped', async () => {
    const player = usePlayer();
    await useReady().fill();
    await player.play();
    await pass(1000);
    expect(player.dropped).toBe(0);
    expect(Math.abs(useShown().frame - 24)).toBeLessThanOrEqual(1);
    player.stop();
  });

  test('in time, with frames that take long: the clock goes on, what is not ready is counted, and what was shown was asked for in time', async () => {
    cost = 200;
    const player = usePlayer();
    await player.play();
    await pass(1600);
    expect(player.dropped).toBeGreaterThan(15);
    expect(player.dropped).toBeLessThan(38);
    expect(Math.abs(playhead.frame - 1.6 * 24)).toBeLessThanOrEqual(5);
    player.stop();
  });

  test('every frame: none is left out, however long they take', async () => {
    cost = 90;
    const player = usePlayer();
    useReady().keeps = 'every';
    const seen: number[] = [];
    await player.play();
    for (let i = 0; i < 300; i++) {
      await pass(4);
      if (useShown().frame >= 0 && seen.at(-1) !== useShown().frame) seen.push(useShown().frame);
    }
    player.stop();
    expect(seen.length).toBeGreaterThan(8);
    expect(seen).toEqual(Array.from({ length: seen.length }, (_, i) => seen[0]! + i));
    expect(player.dropped).toBe(0);
  });

  test('automatic preview stays at full size while the next second is ready, and goes down when it is not', async () => {
    const player = usePlayer();
    usePreview().displayScale = 1;
    await useReady().fill();
    await player.play();
    expect(usePreview().reduction).toBe(1);
    await pass(400);
    expect(usePreview().reduction).toBe(1);
    player.stop();
    held.clear();
    await player.play();
    expect(usePreview().reduction).toBe(2);
    player.stop();
    expect(usePreview().reduction).toBe(1);
  });

  test('at the end it loops, or stops where that is switched off', async () => {
    const player = usePlayer();
    await useReady().fill();
    playhead.frame = LENGTH - 6;
    await player.play();
    await pass(500);
    expect(player.playing).toBe(true);
    expect(playhead.frame).toBeLessThan(12);
    player.loop = false;
    player.stop();
    playhead.frame = LENGTH - 6;
    await player.play();
    await pass(600);
    expect(player.playing).toBe(false);
  });
});
