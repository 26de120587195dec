import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { NO_GUIDES, setGuides, type Guides } from '../../core/document/edits/guides';
import { useBench } from './bench';
import { useProject } from './project';

/** Shares of the picture that everything should lie within, and all text (SMPTE ST 2046-1). */
export const SAFE = { action: 0.93, text: 0.9 } as const;

/** Fewest pixels between lines of the grid. */
const FINEST = 4;

/** Lines on the picture to work by: guides, safe areas, a grid. They are never rendered. */
export const useAids = defineStore('aids', () => {
  const bench = useBench();
  const store = useProject();
  const rulers = useLocalStorage('jackplane rulers', false);
  const safe = useLocalStorage('jackplane safe areas', false);
  const grid = useLocalStorage('jackplane grid', false);
  const spacing = useLocalStorage('jackplane grid spacing', 80);
  const any = computed(() => rulers.value || safe.value || grid.value);
  const guides = computed<Guides>(() => bench.shot?.guides ?? NO_GUIDES);

  const safeLines = (long: number): number[] =>
    [SAFE.action, SAFE.text].flatMap((part) => [-1, 1].map((side) => (side * part * long) / 2));
  /** The grid's lines from the middle outwards. */
  function gridLines(long: number): number[] {
    const by = Math.max(FINEST, spacing.value || FINEST);
    const count = Math.floor(long / 2 / by);
    return Array.from({ length: 2 * count + 1 }, (_, i) => (i - count) * by);
  }
  /** All lines that are shown, which a dragged layer comes to lie on. */
  const lines = computed<Guides>(() => {
    const { width, height } = bench.shot!;
    const along = (long: number, own: readonly number[]) => [
      ...(rulers.value ? own : []),
      ...(safe.value ? safeLines(long) : []),
      ...(grid.value ? gridLines(long) : []),
    ];
    return { upright: along(width, guides.value.upright), level: along(height, guides.value.level) };
  });

  /** @param gesture for a drag, which is one step */
  function write(next: Guides, name: string, gesture?: string): void {
    if (bench.shot && !store.readOnly) store.edit(setGuides(bench.shot.id, next, name), gesture);
  }

  return { rulers, safe, grid, spacing, any, guides, lines, safeLines, gridLines, write };
});
