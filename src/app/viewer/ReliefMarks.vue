<script setup lang="ts">
import type { Island, KeyCheck } from '../../core/measures/key-check';
import type { ViewFrame } from './frame';

/** Shares of solid, clear and between, and rings about the crumbs and gaps that a key left; choosing one goes there. */
defineProps<{ check: KeyCheck; frame: ViewFrame }>();
defineEmits<{ visit: [island: Island] }>();
const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
const counted = (count: number, one: string) => `${count || 'no'} ${one}${count === 1 ? '' : 's'}`;
const KINDS = ['solid', 'clear', 'between'] as const;
/** No ring is smaller than a pointer can hit. */
const RING = 24;
const across = (island: Island, frame: ViewFrame) => Math.max(RING, 2 * island.radius * frame.width + 10);
</script>

<template>
  <div class="relief">
    <button
      v-for="(island, i) in check.islands"
      :key="i"
      class="ring"
      :class="island.kind"
      :aria-label="`Go to ${island.kind} ${i + 1}`"
      :title="`A ${island.kind}. Click to look at it at 200 %.`"
      :style="{
        left: `${frame.x + island.x * frame.width}px`,
        top: `${frame.y + island.y * frame.height}px`,
        width: `${across(island, frame)}px`,
        height: `${across(island, frame)}px`,
      }"
      @click="$emit('visit', island)"
    />
    <div class="legend" role="status" aria-label="Relief">
      <span v-for="kind in KINDS" :key="kind"
        >{{ kind }} <b class="mono">{{ percent(check[kind]) }}</b></span
      >
      <span>{{ counted(check.crumbs, 'crumb') }}, {{ counted(check.gaps, 'gap') }}</span>
    </div>
  </div>
</template>

<style scoped>
.relief {
  position: absolute;
  inset: 0;
  overflow: hidden;
  pointer-events: none;
}
.ring {
  position: absolute;
  transform: translate(-50%, -50%);
  border: 2px solid #d0342c;
  border-radius: 50%;
  pointer-events: auto;
}
.ring.gap {
  border-style: dashed;
}
.ring:hover,
.ring:focus-visible {
  background: rgb(208 52 44 / 25%);
}
.legend {
  position: absolute;
  left: 50%;
  bottom: 8px;
  display: flex;
  gap: 16px;
  padding: 4px 12px;
  transform: translateX(-50%);
  background: var(--raised);
  border: 1px solid var(--line);
  border-radius: 3px;
  font-size: 0.75rem;
  white-space: nowrap;
}
b {
  font-weight: 500;
}
</style>
