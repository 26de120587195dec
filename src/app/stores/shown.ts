import { defineStore } from 'pinia';
import { ref, shallowRef, watch } from 'vue';
import { couldBeFiner } from '../../core/plan/finer';
import type { FramePlan } from '../../core/plan/types';
import { useEngine } from '../../engine/client';
import type { ShownFrame } from '../../engine/types';
import { latestOnly } from '../base/latest';
import { useBench } from './bench';
import { useCompare } from './compare';
import { useEdits } from './edits';
import { useNotices } from './notices';
import { usePlayhead } from './playhead';
import { usePreview } from './preview';
import { useProject } from './project';
import { useReady } from './ready';
import { useViewing } from './viewing';

/** Quiet time before a frame that is looked at small is computed with keys at full size. */
const SETTLED = 150;

/** The picture on the screen: the frame at the playhead as it is looked at, computed anew whenever that changes. */
export const useShown = defineStore('shown', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const viewing = useViewing();
  const edits = useEdits();
  const compare = useCompare();
  const preview = usePreview();
  const ready = useReady();
  const store = useProject();

  const picture = shallowRef<ShownFrame | null>(null);
  /** what it is compared with */
  const before = shallowRef<ShownFrame | null>(null);
  /** the frame that is shown; -1 for none */
  const frame = ref(-1);
  /** whether what is shown is not yet what is asked for */
  const stale = ref(true);
  /** it has taken so long that this is said */
  const busy = ref(false);

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
    stopSettling();
    finer = settled;
    return showNow();
  }
  const stopSettling = (): void => clearTimeout(settling);
  function settleSoon(): void {
    stopSettling();
    settling = setTimeout(() => void show(true), SETTLED);
  }
  /** What is wanted of the current frame, and of what it is compared with. */
  const plansNow = (settled: boolean): readonly [FramePlan | null, FramePlan | null] => [
    preview.planOf(playhead.frame, compare.held ? 'before' : 'after', settled),
    viewing.view === 'compare' || preview.tinted ? preview.planOf(playhead.frame, 'before', settled) : null,
  ];
  /** Whether keys at full size would make another picture of what is wanted now. */
  const canSettle = (now: readonly (FramePlan | null)[]): boolean =>
    !preview.playing && !preview.touching && preview.reduction > 1 && now.some((plan) => plan && couldBeFiner(plan));
  const showNow = latestOnly(
    async () => {
      const [wish, settled] = [wishes, finer];
      const slow = setTimeout(() => (busy.value = true), 300);
      let settles = false;
      try {
        const engine = await useEngine();
        const at = playhead.frame;
        const [plan, plain] = plansNow(settled);
        const next = plan && (await engine.frame(plan, preview.look));
        const beside = plain && (await engine.frame(plain, 'picture'));
        // what has been asked for meanwhile does not wait for what was to settle
        if (settled && wish !== wishes) return;
        // where memory is too short for it, the smaller one stays
        if (settled && next?.problems.some((problem) => !problem.drawn)) return;
        before.value = beside;
        picture.value = next;
        frame.value = at;
        if (!settled && next && !next.problems.length && !edits.tried) ready.add(at);
        settles = !settled && wish === wishes && canSettle([plan, plain]);
        if (settles) settleSoon();
      } finally {
        clearTimeout(slow);
        busy.value = false;
        stale.value = settles || wish !== wishes;
      }
    },
    (error) => useNotices().problem(error),
  );
  watch(
    () => preview.touching,
    (now) => {
      if (now || !canSettle(plansNow(false))) return;
      stale.value = true;
      settleSoon();
    },
  );

  /** what the frames that are ready are of */
  let shownOf: readonly unknown[] = [];
  watch(
    [
      () => viewing.looked,
      () => viewing.view,
      () => bench.layerId,
      () => bench.shotId,
      () => (viewing.view === 'compare' ? `${bench.chosen} ${compare.against}` : null),
      () => `${viewing.ground.alone} ${viewing.ground.matte}`,
      () => preview.reduction,
      () => preview.part,
      () => store.media,
    ],
    (now) => {
      if (edits.tried && !preview.playing) {
        // what is only tried is computed for this frame; what is ready stays so
        ready.pause();
        return void refresh();
      }
      // back from trying, nothing is different
      if (!now.every((part, i) => part === shownOf[i])) ready.forget();
      shownOf = now;
      if (!preview.playing) void refresh();
      ready.restAndFill();
    },
  );
  watch(
    () => compare.held,
    () => preview.playing || void refresh(),
  );
  watch(
    () => playhead.frame,
    () => {
      if (preview.playing) return;
      void refresh();
      // the window goes along with the playhead
      if (!ready.filling()) ready.restAndFill();
    },
  );

  /** Shows a frame that is ready. @returns false when it is not */
  function showReady(at: number): boolean {
    const taken = ready.taken(at);
    if (!taken) return false;
    picture.value = taken;
    frame.value = at;
    return true;
  }

  return { picture, before, frame, stale, busy, refresh, showReady, stopSettling };
});
