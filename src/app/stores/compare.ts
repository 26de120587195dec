import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import type { StockId } from '../../core/document/schema';
import type { Against } from '../../core/plan/looks';
import { useViewing } from './viewing';
import { useBench } from './bench';
import { useProject } from './project';

export const HOW_COMPARED = [
  { value: 'upright', title: 'upright divider' },
  { value: 'level', title: 'level divider' },
  { value: 'slanted', title: 'slanted divider' },
  { value: 'beside', title: 'side by side' },
  { value: 'difference', title: 'difference ×8' },
] as const;
export type HowCompared = (typeof HOW_COMPARED)[number]['value'];
export type DividerWay = Exclude<HowCompared, 'beside' | 'difference'>;

/** With what the picture is compared, and how both are laid out. */
export const useCompare = defineStore('compare', () => {
  const bench = useBench();
  const viewing = useViewing();
  const store = useProject();
  const against = ref<Against>('pass');
  const how = ref<HowCompared>('upright');
  /** where before ends and after begins, a share of the way across */
  const share = ref(0.5);
  /** the picture from before is shown for as long as a key or a button is held */
  const held = ref(false);

  const stills = computed(() => (store.project?.stock ?? []).filter((item) => item.still));
  const choices = computed(() => [
    { value: 'pass' as Against, title: 'without the chosen pass' },
    { value: 'grade' as Against, title: 'without the layer’s grade' },
    ...stills.value.map((item) => ({ value: item.id as Against, title: item.name })),
  ]);
  /** What the side before is, in a word or two. */
  const named = computed(() => stills.value.find((item) => item.id === against.value)?.name ?? 'before');
  // a still that was deleted, or that belongs to another project, can no longer be compared with
  watch(choices, (list) => {
    if (!list.some((choice) => choice.value === against.value)) against.value = 'pass';
  });
  // an empty shot has nothing to compare, and something to say
  const on = computed(() => viewing.view === 'compare' && !!bench.shot?.layers.length);
  /** how the divider lies, if there is one */
  const divider = computed<DividerWay | null>(() =>
    !on.value || how.value === 'beside' || how.value === 'difference' ? null : how.value,
  );

  /** Compares with a still at once. */
  function withStill(stock: StockId): void {
    against.value = stock;
    viewing.view = 'compare';
  }
  /** Shows before until the key or the button is let go. */
  function hold(): void {
    if (held.value) return;
    held.value = true;
    const ended = new AbortController();
    for (const event of ['keyup', 'pointerup', 'pointercancel', 'blur'])
      addEventListener(
        event,
        () => {
          held.value = false;
          ended.abort();
        },
        { signal: ended.signal },
      );
  }

  return { against, how, share, held, stills, choices, named, on, divider, withStill, hold };
});
