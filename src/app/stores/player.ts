import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { rangeOf } from '../../core/document/edits/markers';
import { planFrame, type FramePlan, type Reduction } from '../../core/plan/plan';
import { planSound } from '../../core/sound/mix';
import { secondsAt } from '../../core/time/rate';
import { frameKey, useEngine, type Engine } from '../../engine/client';
import type { Look, ShownFrame } from '../../engine/types';
import type { Layer } from '../../core/document/schema';
import { GROUND_COLOURS, useBench } from './bench';
import { latestOnly } from '../latest';
import { useNotices } from './notices';
import { useProject } from './project';
import { SoundOut } from './sound-out';

/** Quiet time after an edit before frames ahead are computed. */
const REST = 500;

/** Shows the current frame, plays, and keeps frames ahead of the playhead ready. */
export const usePlayer = defineStore('player', () => {
  const bench = useBench();
  const store = useProject();
  const notices = useNotices();

  const shown = shallowRef<ShownFrame | null>(null);
  const before = shallowRef<ShownFrame | null>(null);
  const shownFrame = ref(-1);
  const playing = ref(false);
  const loop = ref(true);
  const dropped = ref(0);
  const cachedCount = ref(0);
  const busy = ref(false);
  const touching = ref(false);
  const displayScale = ref(1);

  let engine: Engine | null = null;
  let sound: SoundOut | null = null;
  let fillRun = 0;
  let filling = false;
  const shuttling = ref(0);
  let shuttleTimer: ReturnType<typeof setInterval> | undefined;
  let restTimer: ReturnType<typeof setTimeout> | undefined;

  const reduction = computed<Reduction>(() => {
    if (bench.scale !== 'auto') return bench.scale;
    if (displayScale.value <= 0.3) return 4;
    return playing.value || touching.value || displayScale.value <= 0.55 ? 2 : 1;
  });
  const tinted = computed(() => bench.view === 'matte' && bench.ground.matte === 'tint');
  const look = computed<Look>(() => (tinted.value ? 'tint' : bench.view === 'matte' || bench.view === 'check' ? bench.view : 'picture'));

  /** The plan of a frame as the chosen view shows it. */
  function planOf(frame: number, side: 'after' | 'before' = 'after'): FramePlan | null {
    const project = bench.looked;
    const shot = project?.shots.find((item) => item.id === bench.shotId);
    if (!project || !shot) return null;
    const without = side === 'before' && bench.pass ? bench.pass.id : undefined;
    if (bench.view === 'picture' || bench.view === 'compare') return planFrame(project, shot.id, frame, { reduction: reduction.value, without });
    // the others stay, hidden: the layer may follow one of them or take its matte from it
    const own = shot.layers.findIndex((layer) => layer.id === bench.layerId);
    const ground = bench.view === 'alone' ? bench.ground.alone : '';
    const alone = (layer: Layer): Layer => ({ ...layer, shown: true, opacity: { still: 1 }, blend: 'normal', ...(side === 'before' ? { passes: [], matte: null } : {}) });
    const layers = shot.layers.map((layer, i) => ({ ...(i === own ? alone(layer) : { ...layer, shown: ground === 'below' && i > own && layer.shown }), solo: false }));
    const only = { ...shot, background: ground === 'below' ? shot.background : (GROUND_COLOURS[ground] ?? null), layers };
    return planFrame({ ...project, shots: [only] }, shot.id, frame, { reduction: reduction.value });
  }

  /** Computes the current frame and shows it. */
  const refresh = latestOnly(
    async () => {
      const slow = setTimeout(() => (busy.value = true), 300);
      try {
        engine ??= await useEngine();
        const frame = bench.frame;
        const plan = planOf(frame);
        const plain = bench.view === 'compare' || tinted.value ? planOf(frame, 'before') : null;
        const next = plan && (await engine.frame(plan, look.value));
        before.value = plain && (await engine.frame(plain, 'picture'));
        shown.value = next;
        shownFrame.value = frame;
      } finally {
        clearTimeout(slow);
        busy.value = false;
      }
    },
    (error) => notices.problem(error),
  );

  /** The range that plays, in frames. */
  const range = computed(() => (bench.shot ? rangeOf(bench.shot) : { from: 0, to: 0 }));

  /** Computes frames from the playhead on, round the range, on all workers; counts those that are ready. */
  async function fill(): Promise<void> {
    const run = ++fillRun;
    engine ??= await useEngine();
    const { from, to } = range.value;
    const length = to - from;
    if (length <= 0) return;
    const asked = new Set<number>();
    let ready = 0;
    cachedCount.value = 0;
    /** The first frame from the playhead on, round the range, that nobody has asked for yet. */
    const nextFrame = () => {
      for (let ahead = 0; ahead < length; ahead++) {
        const frame = from + ((bench.frame - from + ahead) % length);
        if (!asked.has(frame)) return frame;
      }
      return null;
    };
    // while playing all workers run ahead; otherwise the first is left to the dials
    const lanes = Array.from({ length: engine.workers }, (_, i) => i).slice(playing.value || engine.workers === 1 ? 0 : 1);
    const one = async (worker: number) => {
      for (let frame = nextFrame(); frame !== null && run === fillRun; frame = nextFrame()) {
        asked.add(frame);
        const plan = planOf(frame);
        if (!plan) return;
        if (!engine!.cache.has(frameKey(plan, look.value))) await engine!.frame(plan, look.value, worker);
        else if (asked.size % 16 === 0) await new Promise((resume) => setTimeout(resume));
        if (run === fillRun) cachedCount.value = ++ready;
      }
    };
    filling = true;
    await Promise.all(lanes.map(one)).catch((error: unknown) => notices.problem(error));
    if (run === fillRun) filling = false;
  }

  /** Plans ahead again once nothing has changed for a moment. */
  function restAndFill(): void {
    fillRun++;
    clearTimeout(restTimer);
    restTimer = undefined;
    if (playing.value) return;
    restTimer = setTimeout(() => {
      restTimer = undefined;
      void fill();
    }, REST);
  }

  /** Someone is scrolling or dragging: what is computed ahead waits, so that the page has the processor. */
  function yieldToHand(): void {
    if (!playing.value && (filling || restTimer !== undefined)) restAndFill();
  }

  watch(
    [() => bench.looked, () => bench.frame, () => bench.view, () => bench.layerId, () => bench.shotId, () => (bench.view === 'compare' ? bench.chosen : null), () => `${bench.ground.alone} ${bench.ground.matte}`, reduction, () => store.media],
    (now, old) => {
      if (!playing.value) void refresh();
      const onlyFrame = now.every((value, i) => i === 1 || value === old[i]);
      if (onlyFrame) return;
      cachedCount.value = 0;
      restAndFill();
    },
  );

  async function play(): Promise<void> {
    const { shot } = bench;
    if (playing.value || !shot || !store.project) return;
    engine ??= await useEngine();
    playing.value = true;
    dropped.value = 0;
    if (bench.frame >= range.value.to - 1 || bench.frame < range.value.from) bench.seek(range.value.from);
    void fill();
    const items = planSound(store.project, shot.id);
    sound = new SoundOut(engine, items);
    await sound.start(secondsAt(bench.frame, shot.rate), secondsAt(range.value.to, shot.rate));
    let last = bench.frame;
    const tick = () => {
      if (!playing.value || !sound || bench.shot?.id !== shot.id) return stop();
      let frame = Math.floor((sound.now() * shot.rate.num) / shot.rate.den + 1e-6);
      if (frame >= range.value.to) {
        if (!loop.value) return stop();
        frame = range.value.from;
        last = frame - 1;
        void sound.start(secondsAt(frame, shot.rate), secondsAt(range.value.to, shot.rate));
      }
      if (frame !== last) {
        const plan = planOf(frame);
        const ready = plan && engine!.cache.get(frameKey(plan, look.value));
        if (ready) {
          shown.value = ready;
          shownFrame.value = frame;
          dropped.value += Math.max(0, frame - last - 1);
        } else dropped.value += Math.max(1, frame - last);
        last = frame;
        bench.seek(frame);
      }
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  }

  function stop(): void {
    playing.value = false;
    sound?.stop();
    sound = null;
    void refresh();
    restAndFill();
  }
  const toggle = (): void => void (playing.value || shuttling.value ? shuttle(0) : play());

  /** Runs the playhead without sound, backwards or forwards; asked again the same way it doubles its pace, up to eightfold. */
  function shuttle(way: -1 | 0 | 1): void {
    if (playing.value) stop();
    clearInterval(shuttleTimer);
    const now = shuttling.value;
    shuttling.value = way === 0 ? 0 : Math.sign(now) === way ? Math.max(-8, Math.min(8, now * 2)) : way;
    const { shot } = bench;
    if (!shuttling.value || !shot) return;
    const from = { frame: bench.frame, time: performance.now() };
    shuttleTimer = setInterval(() => {
      const passed = ((performance.now() - from.time) / 1000) * (shot.rate.num / shot.rate.den) * shuttling.value;
      const frame = Math.round(from.frame + passed);
      if (frame < range.value.from || frame >= range.value.to) return shuttle(0);
      bench.seek(frame);
    }, secondsAt(1, shot.rate) * 1000);
  }

  return { shown, before, shownFrame, playing, loop, dropped, cachedCount, busy, touching, displayScale, reduction, planOf, refresh, fill, play, stop, toggle, shuttle, yieldToHand };
});
