import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import type { Rect } from '../../core/picture/rect';
import { viewPlan } from '../../core/plan/looks';
import { planPart } from '../../core/plan/parts';
import type { FramePlan } from '../../core/plan/types';
import type { Reduction } from '../../core/time/moment';
import type { Look } from '../../engine/types';
import { useBench } from './bench';
import { useCompare } from './compare';
import { GROUND_COLOURS, useViewing } from './viewing';

/** What a frame is computed as for the screen: at which scale, which part of it, and how it is looked at. */
export const usePreview = defineStore('preview', () => {
  const bench = useBench();
  const viewing = useViewing();
  const compare = useCompare();

  /** something is being dragged */
  const touching = ref(false);
  const playing = ref(false);
  /** what automatic preview went down to while playing */
  const playReduction = ref<Reduction | null>(null);
  const displayScale = ref(1);
  /** what of the shot is in the window, in its pixels; null when all of it is */
  const sight = shallowRef<Rect | null>(null);

  const resting = computed<Reduction>(() => (displayScale.value <= 0.3 ? 4 : displayScale.value <= 0.55 ? 2 : 1));
  const reduction = computed<Reduction>(() => {
    if (viewing.scale !== 'auto') return viewing.scale;
    // from its own size on, what is looked at is always full
    const hasty = touching.value && displayScale.value < 1 ? 2 : 1;
    const least = playing.value ? (playReduction.value ?? 1) : hasty;
    return Math.max(least, resting.value) as Reduction;
  });
  const tinted = computed(() => viewing.view === 'matte' && viewing.ground.matte === 'tint');
  const look = computed<Look>(() =>
    tinted.value ? 'tint' : viewing.view === 'matte' || viewing.view === 'relief' ? viewing.view : 'picture',
  );
  /** The part that is computed, in pixels of the plan's scale; null for all of it. A key is judged as a whole. */
  const part = computed<Rect | null>(() => {
    if (!sight.value || look.value === 'relief') return null;
    const { x, y, w, h } = sight.value;
    const by = reduction.value;
    const [left, top] = [Math.floor(x / by), Math.floor(y / by)];
    return { x: left, y: top, w: Math.ceil((x + w) / by) - left, h: Math.ceil((y + h) / by) - top };
  });
  /** The plan of a frame as the chosen view shows it. */
  function planOf(frame: number, side: 'after' | 'before' = 'after', finer = false): FramePlan | null {
    const { looked: project, view } = viewing;
    const { shotId: shot, layerId: layer } = bench;
    if (!project || !shot) return null;
    const named = view === 'alone' ? viewing.ground.alone : '';
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

  return { touching, playing, playReduction, displayScale, sight, reduction, tinted, look, part, planOf };
});
