import { defineStore } from 'pinia';
import { useStorage } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { rangeOf } from '../../core/document/edits/markers';
import type { Rect } from '../../core/picture/rect';
import { couldBeFiner } from '../../core/plan/finer';
import { planPart } from '../../core/plan/parts';
import type { FramePlan } from '../../core/plan/types';
import type { Reduction } from '../../core/time/moment';
import { planSound } from '../../core/sound/mix';
import { frameKey, useEngine, type Engine } from '../../engine/client';
import type { Look, ShownFrame } from '../../engine/types';
import { AHEAD, PLAYED } from '../../engine/wishes';
import { Ahead } from '../playback/ahead';
import { playEvery, playInTime, type Running } from '../playback/running';
import { useShuttle } from '../playback/shuttle';
import { viewPlan } from '../../core/plan/looks';
import { GROUND_COLOURS, useBench } from './bench';
import { useCompare } from './compare';
import { latestOnly } from '../base/latest';
import { useNotices } from './notices';
import { useProject } from './project';
import { SoundOut } from './sound-out';

/** Quiet time after an edit before frames ahead are computed. */
const REST = 1000;
/** Quiet time before a frame that is looked at small is computed with keys at full size. */
const SETTLED = 150;
/** How often what is ready is looked at anew for the screen, in milliseconds. */
const TOLD_EVERY = 120;

/** Shows the current frame, plays, and keeps frames ahead of the playhead ready. */
export const usePlayer = defineStore('player', () => {
  const bench = useBench();
  const compare = useCompare();
  const store = useProject();
  const notices = useNotices();

  const shown = shallowRef<ShownFrame | null>(null);
  const before = shallowRef<ShownFrame | null>(null);
  const shownFrame = ref(-1);
  /** whether what is shown is not yet what is asked for */
  const stale = ref(true);
  const playing = ref(false);
  const loop = ref(true);
  /** what playing does when a frame is not ready: leave it out and keep time, or wait for it */
  const keeps = useStorage<'time' | 'every'>('jackplane playback', 'time');
  /** whether frames are computed ahead while nothing plays */
  const readies = useStorage('jackplane frames ahead', true);
  const dropped = ref(0);
  /** frames left out since Play, each once */
  const leftOut = new Set<number>();
  const droppedFrames = shallowRef<readonly number[]>([]);
  /** stretches of frames that are ready: first, and the one after the last */
  const readyRuns = shallowRef<readonly (readonly [number, number])[]>([]);
  const busy = ref(false);
  const touching = ref(false);
  const displayScale = ref(1);
  /** what of the shot is in the window, in its pixels; null when all of it is */
  const sight = shallowRef<Rect | null>(null);
  /** what automatic preview went down to while playing */
  const playReduction = ref<Reduction | null>(null);

  let engine: Engine | null = null;
  let sound: SoundOut | null = null;
  /** frame that is due now while playing in time; the playhead on the screen may be a little behind */
  let heard: number | null = null;
  /** how often playing has begun */
  let runs = 0;
  let restTimer: ReturnType<typeof setTimeout> | undefined;
  let tellTimer: ReturnType<typeof setTimeout> | undefined;

  const resting = computed<Reduction>(() => (displayScale.value <= 0.3 ? 4 : displayScale.value <= 0.55 ? 2 : 1));
  const reduction = computed<Reduction>(() => {
    if (bench.scale !== 'auto') return bench.scale;
    // from its own size on, what is looked at is always full
    const hasty = touching.value && displayScale.value < 1 ? 2 : 1;
    const least = playing.value ? (playReduction.value ?? 1) : hasty;
    return Math.max(least, resting.value) as Reduction;
  });
  const tinted = computed(() => bench.view === 'matte' && bench.ground.matte === 'tint');
  const look = computed<Look>(() =>
    tinted.value ? 'tint' : bench.view === 'matte' || bench.view === 'relief' ? bench.view : 'picture',
  );
  /** The part that is computed, in pixels of the plan's scale; null for all of it. A key is judged as a whole. */
  const part = computed<Rect | null>(() => {
    if (!sight.value || look.value === 'relief') return null;
    const { x, y, w, h } = sight.value;
    const by = reduction.value;
    const [left, top] = [Math.floor(x / by), Math.floor(y / by)];
    return { x: left, y: top, w: Math.ceil((x + w) / by) - left, h: Math.ceil((y + h) / by) - top };
  });
  /** The range that plays, in frames. */
  const range = computed(() => (bench.shot ? rangeOf(bench.shot) : { from: 0, to: 0 }));
  const readyCount = computed(() => readyRuns.value.reduce((sum, [from, to]) => sum + to - from, 0));

  /** The plan of a frame as the chosen view shows it. */
  function planOf(frame: number, side: 'after' | 'before' = 'after', finer = false): FramePlan | null {
    const { looked: project, shotId: shot, layerId: layer, view } = bench;
    if (!project || !shot) return null;
    const named = view === 'alone' ? bench.ground.alone : '';
    const ground = named === 'below' ? named : (GROUND_COLOURS[named] ?? null);
    const plan = viewPlan(
      {
        project,
        shot,
        layer,
        pass: bench.pass?.id ?? null,
        against: compare.against,
        view,
        ground,
        reduction: reduction.value,
        finer,
      },
      frame,
      side,
    );
    return plan && part.value ? planPart(plan, part.value) : plan;
  }

  const ahead = new Ahead({
    range: () => range.value,
    playhead: () => heard ?? bench.frame,
    keyOf: (frame) => {
      const plan = planOf(frame);
      return plan && frameKey(plan, look.value);
    },
    has: (key) => engine!.cache.has(key),
    room: () =>
      engine!.cache.room(
        part.value?.w ?? Math.ceil((bench.shot?.width ?? 1) / reduction.value),
        part.value?.h ?? Math.ceil((bench.shot?.height ?? 1) / reduction.value),
      ),
    want: (keys) => engine!.cache.want(keys),
    compute: async (frame) => {
      const plan = planOf(frame);
      if (plan) await engine!.frame(plan, look.value, playing.value ? PLAYED : AHEAD);
    },
    pace: () =>
      playing.value && keeps.value === 'time' && bench.shot ? bench.shot.rate.num / bench.shot.rate.den : null,
    changed: () => (tellTimer ??= setTimeout(tellReady, TOLD_EVERY)),
    now: () => performance.now(),
    goesOn: () => playing.value,
    breathe: (milliseconds) => new Promise((resume) => setTimeout(resume, milliseconds)),
  });

  function tellReady(): void {
    tellTimer = undefined;
    const runs: [number, number][] = [];
    for (let frame = range.value.from; engine && frame < range.value.to; frame++) {
      if (!ahead.ready(frame)) continue;
      const last = runs.at(-1);
      if (last?.[1] === frame) last[1] = frame + 1;
      else runs.push([frame, frame + 1]);
    }
    readyRuns.value = runs;
    droppedFrames.value = [...leftOut];
  }

  let wishes = 0;
  let settling: ReturnType<typeof setTimeout> | undefined;
  /** Computes the current frame and shows it; with keys at full size once nothing changes. */
  function refresh(): Promise<void> {
    wishes++;
    stale.value = true;
    return show(false);
  }
  /** Whether the next frame that is shown has its keys at full size. */
  let finer = false;
  function show(settled: boolean): Promise<void> {
    clearTimeout(settling);
    finer = settled;
    return showNow();
  }
  function settleSoon(): void {
    clearTimeout(settling);
    settling = setTimeout(() => void show(true), SETTLED);
  }
  /** What is wanted of the current frame, and of what it is compared with. */
  const plansNow = (settled: boolean): readonly [FramePlan | null, FramePlan | null] => [
    planOf(bench.frame, compare.held ? 'before' : 'after', settled),
    bench.view === 'compare' || tinted.value ? planOf(bench.frame, 'before', settled) : null,
  ];
  /** Whether keys at full size would make another picture of what is wanted now. */
  const canSettle = (now: readonly (FramePlan | null)[]): boolean =>
    !playing.value && !touching.value && reduction.value > 1 && now.some((plan) => plan && couldBeFiner(plan));
  const showNow = latestOnly(
    async () => {
      const [wish, settled] = [wishes, finer];
      const slow = setTimeout(() => (busy.value = true), 300);
      let settles = false;
      try {
        engine ??= await useEngine();
        const { frame } = bench;
        const [plan, plain] = plansNow(settled);
        const next = plan && (await engine.frame(plan, look.value));
        const beside = plain && (await engine.frame(plain, 'picture'));
        // what has been asked for meanwhile does not wait for what was to settle
        if (settled && wish !== wishes) return;
        // where memory is too short for it, the smaller one stays
        if (settled && next?.problems.some((problem) => !problem.drawn)) return;
        before.value = beside;
        shown.value = next;
        shownFrame.value = frame;
        if (!settled && next && !next.problems.length && !bench.tried) ahead.key(frame);
        settles = !settled && wish === wishes && canSettle([plan, plain]);
        if (settles) settleSoon();
      } finally {
        clearTimeout(slow);
        busy.value = false;
        stale.value = settles || wish !== wishes;
      }
    },
    (error) => notices.problem(error),
  );
  watch(touching, (now) => {
    if (now || !canSettle(plansNow(false))) return;
    stale.value = true;
    settleSoon();
  });

  /** Computes frames from the playhead on. While playing all workers run ahead; otherwise the first is left to the dials. */
  async function fill(): Promise<void> {
    engine ??= await useEngine();
    if (range.value.to <= range.value.from) return;
    const lanes = playing.value ? engine.workers : readies.value ? Math.max(1, engine.workers - 1) : 0;
    await ahead.fill(lanes).catch((error: unknown) => notices.problem(error));
  }

  /** Looks ahead again once nothing has changed for a moment. */
  function restAndFill(): void {
    ahead.pause();
    clearTimeout(restTimer);
    restTimer = undefined;
    if (playing.value) return void fill();
    restTimer = setTimeout(() => {
      restTimer = undefined;
      void fill();
    }, REST);
  }

  watch(readies, restAndFill);

  /** Someone is scrolling or dragging: what is computed ahead waits, so that the page has the processor. */
  function yieldToHand(): void {
    if (!playing.value && (ahead.filling || restTimer !== undefined)) restAndFill();
  }

  /** what the frames that are ready are of */
  let ready: readonly unknown[] = [];
  watch(
    [
      () => bench.looked,
      () => bench.view,
      () => bench.layerId,
      () => bench.shotId,
      () => (bench.view === 'compare' ? `${bench.chosen} ${compare.against}` : null),
      () => `${bench.ground.alone} ${bench.ground.matte}`,
      reduction,
      part,
      () => store.media,
    ],
    (now) => {
      if (bench.tried && !playing.value) {
        // what is only tried is computed for this frame; what is ready stays so
        ahead.pause();
        clearTimeout(restTimer);
        restTimer = undefined;
        return void refresh();
      }
      // back from trying, nothing is different
      if (!now.every((part, i) => part === ready[i])) ahead.forget();
      ready = now;
      if (!playing.value) void refresh();
      restAndFill();
    },
  );
  watch(
    () => compare.held,
    () => playing.value || void refresh(),
  );
  watch(
    () => bench.frame,
    () => {
      if (playing.value) return;
      void refresh();
      // the window goes along with the playhead
      if (!ahead.filling) restAndFill();
    },
  );

  /** Shows a frame that is ready. @returns false when it is not */
  function showReady(frame: number): boolean {
    const key = ahead.key(frame);
    const ready = key === null ? undefined : engine!.cache.get(key);
    if (!ready) return false;
    shown.value = ready;
    shownFrame.value = frame;
    return true;
  }
  function drop(from: number, to: number): void {
    for (let frame = from; frame < to; frame++) leftOut.add(frame);
    dropped.value += to - from;
  }

  async function play(): Promise<void> {
    const { shot } = bench;
    if (playing.value || !shot || !store.project) return;
    engine ??= await useEngine();
    if (bench.frame >= range.value.to - 1 || bench.frame < range.value.from) bench.seek(range.value.from);
    // automatic preview stays as it is while the next second is ready
    const second = Math.round(shot.rate.num / shot.rate.den);
    const enough = Math.min(second, range.value.to - range.value.from);
    playReduction.value = ahead.readyFrom(bench.frame, enough) >= enough ? null : 2;
    clearTimeout(settling);
    playing.value = true;
    dropped.value = 0;
    leftOut.clear();
    void fill();
    const run = ++runs;
    const running: Running = {
      rate: shot.rate,
      range: () => range.value,
      loops: () => loop.value,
      goesOn: () => playing.value && run === runs && bench.shot?.id === shot.id,
      frame: () => bench.frame,
      seek: bench.seek,
      show: showReady,
      fill: () => {
        if (!ahead.filling) void fill();
      },
      // what was played before ends without stopping what is played now
      stop: () => run === runs && stop(),
    };
    if (keeps.value === 'every') return playEvery(running);
    sound = new SoundOut(engine, planSound(store.current(), shot.id));
    return playInTime(running, sound, {
      due: (frame) => (heard = frame),
      leftOut: drop,
      slow: () => (playReduction.value = 2),
    });
  }

  function stop(): void {
    playing.value = false;
    playReduction.value = null;
    if (heard !== null) bench.seek(heard);
    heard = null;
    sound?.stop();
    sound = null;
    void refresh();
    restAndFill();
  }
  const { shuttling, shuttle } = useShuttle({
    range,
    loop,
    frame: () => bench.frame,
    rate: () => bench.shot?.rate ?? null,
    seek: bench.seek,
    begin: () => playing.value && stop(),
  });
  const toggle = (): void => void (playing.value || shuttling.value ? shuttle(0) : play());

  return {
    shown,
    before,
    shownFrame,
    stale,
    playing,
    loop,
    keeps,
    readies,
    dropped,
    droppedFrames,
    readyRuns,
    readyCount,
    busy,
    touching,
    displayScale,
    sight,
    reduction,
    range,
    planOf,
    refresh,
    fill,
    play,
    stop,
    toggle,
    shuttle,
    yieldToHand,
  };
});
