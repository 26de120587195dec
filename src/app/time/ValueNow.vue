<script setup lang="ts">
import { computed } from 'vue';
import { momentOf } from '../../core/place/moment';
import type { Value } from '../../core/base/value';
import { followOf } from '../../core/document/edits/follow';
import { valueIn, type ValueEntry } from '../../core/document/edits/values';
import type { Layer } from '../../core/document/schema';
import { steadyAt, valueAt } from '../../core/time/values';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** What a row's value is, beside the playhead. By itself, so that stepping draws nothing else of the row anew. */
const props = defineProps<{
  layer: Layer;
  entries: readonly ValueEntry[];
  perFrame: number;
  from: number;
  to: number;
}>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
/** Room that the numbers need, in pixels; where there is less they stand before the playhead. */
const ROOM = 96;

function shown(value: unknown, factor: number): string {
  if (typeof value === 'number') return String(Math.round(value * factor * 10) / 10);
  if (Array.isArray(value) && typeof value[0] === 'number') return value.map((part) => shown(part, factor)).join(', ');
  return typeof value === 'string' ? value : '';
}
const frame = computed(() => playhead.frame - props.layer.span.start);
const followed = (value: Value<unknown>) =>
  valueAt(value, momentOf(store.current(), bench.shot!, props.layer, playhead.frame));
const now = computed(() => {
  return props.entries.flatMap((entry) => {
    const value = valueIn(props.layer, entry.path);
    const follows = !!value && followOf(value) !== null;
    const text = value ? shown(follows ? followed(value) : steadyAt(value, frame.value), entry.factor) : '';
    return text ? [{ text: entry.unit ? `${text} ${entry.unit}` : text, follows }] : [];
  });
});
const place = computed(() => {
  const x = (playhead.frame + 0.5) * props.perFrame;
  const before = (props.to - playhead.frame) * props.perFrame < ROOM;
  return { left: `${x + (before ? -6 : 6)}px`, transform: before ? 'translateX(-100%)' : undefined };
});
</script>

<template>
  <span
    v-if="now.length && playhead.frame >= from && playhead.frame <= to"
    class="now mono"
    :class="{ follows: now[0]!.follows }"
    :style="place"
    :title="now[0]!.follows ? 'Follows a track' : undefined"
    >{{ now.map(({ text }) => text).join(' · ') }}</span
  >
</template>

<style scoped>
.now {
  position: absolute;
  z-index: 1;
  top: 3px;
  padding: 0 4px;
  font-size: 0.6875rem;
  line-height: 1.125rem;
  color: var(--text);
  white-space: nowrap;
  background: color-mix(in srgb, var(--bg) 78%, transparent);
  border-radius: 3px;
  pointer-events: none;
}
.follows {
  color: var(--violet);
}
</style>
