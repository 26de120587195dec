import { useStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { rangeOf } from '../../core/document/edits/markers';
import { frameKey, useEngine, type Engine } from '../../engine/client';
import type { ShownFrame } from '../../engine/types';
import { AHEAD, PLAYED } from '../../engine/wishes';
import { Ahead } from '../playback/ahead';
import { useBench } from './bench';
import { useNotices } from './notices';
import { usePlayhead } from './playhead';
import { usePreview } from './preview';

/** Quiet time after an edit before frames ahead are computed. */
const REST = 1000;
/** How often what is ready is looked at anew for the screen, in milliseconds. */
const TOLD_EVERY = 120;

/** Frames that are computed before they are looked at: a window from the playhead on. */
export const useReady = defineStore('ready', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const preview = usePreview();
  const notices = useNotices();

  /** what playing does when a frame is not ready: leave it out and keep time, or wait for it */
  const keeps = useStorage<'time' | 'every'>('jackplane playback', 'time');
  /** whether frames are computed ahead while nothing plays */
  const readies = useStorage('jackplane frames ahead', true);
  /** stretches of frames that are ready: first, and the one after the last */
  const runs = shallowRef<readonly (readonly [number, number])[]>([]);
  /** frame that is due now while playing in time; the playhead on the screen may be a little behind */
  const due = ref<number | null>(null);
  let engine: Engine | null = null;
  let restTimer: ReturnType<typeof setTimeout> | undefined;
  let tellTimer: ReturnType<typeof setTimeout> | undefined;

  /** The range that plays, in frames. */
  const range = computed(() => (bench.shot ? rangeOf(bench.shot) : { from: 0, to: 0 }));
  const count = computed(() => runs.value.reduce((sum, [from, to]) => sum + to - from, 0));

  const ahead = new Ahead({
    range: () => range.value,
    playhead: () => due.value ?? playhead.frame,
    keyOf: (frame) => {
      const plan = preview.planOf(frame);
      return plan && frameKey(plan, preview.look);
    },
    has: (key) => engine!.cache.has(key),
    room: () =>
      engine!.cache.room(
        preview.part?.w ?? Math.ceil((bench.shot?.width ?? 1) / preview.reduction),
        preview.part?.h ?? Math.ceil((bench.shot?.height ?? 1) / preview.reduction),
      ),
    want: (keys) => engine!.cache.want(keys),
    compute: async (frame) => {
      const plan = preview.planOf(frame);
      if (plan) await engine!.frame(plan, preview.look, preview.playing ? PLAYED : AHEAD);
    },
    pace: () =>
      preview.playing && keeps.value === 'time' && bench.shot ? bench.shot.rate.num / bench.shot.rate.den : null,
    changed: tellSoon,
    now: () => performance.now(),
    goesOn: () => preview.playing,
    breathe: (milliseconds) => new Promise((resume) => setTimeout(resume, milliseconds)),
  });

  function tellSoon(): void {
    tellTimer ??= setTimeout(tell, TOLD_EVERY);
  }
  function tell(): void {
    tellTimer = undefined;
    const found: [number, number][] = [];
    for (let frame = range.value.from; engine && frame < range.value.to; frame++) {
      if (!ahead.ready(frame)) continue;
      const last = found.at(-1);
      if (last?.[1] === frame) last[1] = frame + 1;
      else found.push([frame, frame + 1]);
    }
    runs.value = found;
  }

  /** Computes frames from the playhead on. While playing all workers run ahead; otherwise the first is left to the dials. */
  async function fill(): Promise<void> {
    engine ??= await useEngine();
    if (range.value.to <= range.value.from) return;
    const lanes = preview.playing ? engine.workers : readies.value ? Math.max(1, engine.workers - 1) : 0;
    await ahead.fill(lanes).catch((error: unknown) => notices.problem(error));
  }

  /** Nothing is computed ahead until it is asked for again. */
  function pause(): void {
    ahead.pause();
    clearTimeout(restTimer);
    restTimer = undefined;
  }
  /** Looks ahead again once nothing has changed for a moment. */
  function restAndFill(): void {
    pause();
    if (preview.playing) return void fill();
    restTimer = setTimeout(() => {
      restTimer = undefined;
      void fill();
    }, REST);
  }

  watch(readies, restAndFill);

  /** Someone is scrolling or dragging: what is computed ahead waits, so that the page has the processor. */
  function yieldToHand(): void {
    if (!preview.playing && (ahead.filling || restTimer !== undefined)) restAndFill();
  }

  /** A frame that is ready. */
  function taken(frame: number): ShownFrame | undefined {
    const key = ahead.key(frame);
    return key === null ? undefined : engine?.cache.get(key);
  }

  return {
    keeps,
    readies,
    runs,
    due,
    range,
    count,
    fill,
    restAndFill,
    yieldToHand,
    pause,
    taken,
    filling: () => ahead.filling,
    /** A frame has just been computed. */
    add: (frame: number) => void ahead.key(frame),
    /** What was ready is of no use any more. */
    forget: () => ahead.forget(),
    /** How many frames from one on are ready without a gap, up to so many. */
    countFrom: (frame: number, most: number) => ahead.readyFrom(frame, most),
  };
});
