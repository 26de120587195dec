<script setup lang="ts">
import { CHECK_TONES, type KeyCheck } from '../../core/measures/key-check';
import type { ViewFrame } from './frame';

/** Shares of solid, clear and between, and circles round the small islands a key left. */
defineProps<{ check: KeyCheck; frame: ViewFrame }>();
const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
const css = (tone: readonly number[]) => `rgb(${tone.join(' ')})`;
const KINDS = [
  { name: 'solid', label: 'solid' },
  { name: 'clear', label: 'clear' },
  { name: 'between', label: 'between' },
] as const;
</script>

<template>
  <div class="check">
    <svg aria-hidden="true">
      <circle
        v-for="(island, i) in check.islands"
        :key="i"
        :class="island.kind"
        :cx="frame.x + island.x * frame.width"
        :cy="frame.y + island.y * frame.height"
        :r="Math.max(7, island.radius * frame.width + 5)"
      />
    </svg>
    <div class="legend" role="status" aria-label="Key check">
      <span v-for="kind in KINDS" :key="kind.name"
        ><i :style="{ background: css(CHECK_TONES[kind.name]) }" />{{ kind.label }}
        <b class="mono">{{ percent(check[kind.name]) }}</b></span
      >
      <span>{{ check.count ? `${check.count} ${check.count === 1 ? 'island' : 'islands'}` : 'no islands' }}</span>
    </div>
  </div>
</template>

<style scoped>
.check,
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
circle {
  fill: none;
  stroke-width: 2;
}
.speck {
  stroke: #ff7b6e;
}
.hole {
  stroke: #ff7b6e;
  stroke-dasharray: 4 3;
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
i {
  display: inline-block;
  width: 10px;
  height: 0.625rem;
  margin-right: 6px;
  border: 1px solid var(--line);
}
b {
  font-weight: 500;
}
</style>
