import { computed, shallowRef, watchEffect, type ComputedRef, type Ref } from 'vue';
import type { LineStyle, TextLine } from '../../core/text/fonts';
import { bareLineOf } from '../../core/text/line';
import type { Setting } from '../../core/text/layout';
import { valuesAt } from '../../core/time/values';
import { fontsFor } from '../../engine/client';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';

export type Words = { text: string } & LineStyle & Omit<Setting, 'shown' | 'middle'>;

/** What the chosen title says and how it is set at the playhead, and its lines once their font is there. */
export function useTitleLines(): { words: ComputedRef<Words | null>; lines: Ref<readonly TextLine[]> } {
  const bench = useBench();
  const playhead = usePlayhead();
  const words = computed(() =>
    bench.layer?.source.type === 'title'
      ? (valuesAt(bench.layer.source.values, playhead.moment) as unknown as Words)
      : null,
  );
  const style = computed(() => `${words.value?.font} ${words.value?.weight}`);
  const fonts = shallowRef<{ style: string; found: Parameters<typeof bareLineOf>[0] } | null>(null);
  watchEffect(async () => {
    const [wanted, now] = [words.value, style.value];
    if (!wanted || fonts.value?.style === now) return;
    const found = await fontsFor(wanted);
    if (style.value === now) fonts.value = { style: now, found };
  });
  const lines = computed(() => {
    const { value: now } = words;
    if (!now || fonts.value?.style !== style.value) return [];
    return now.text.split('\n').map((line) => bareLineOf(fonts.value!.found, line, now.tracking));
  });
  return { words, lines };
}
