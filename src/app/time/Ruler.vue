<script setup lang="ts">
import { computed } from 'vue';
import type { FrameRate } from '../../core/time/rate';

/** Frame numbers over the rows; press and drag to scrub. */
const props = defineProps<{ length: number; perFrame: number; rate: FrameRate }>();
const emit = defineEmits<{ seek: [frame: number] }>();

/** Labels at least this many pixels apart, on steps that fall on whole seconds where there is room for them. */
const APART = 54;
const step = computed(() => {
  const second = Math.round(props.rate.num / props.rate.den);
  const steps = [1, 2, 5, second / 2, second, 2 * second, 5 * second, 10 * second, 30 * second, 60 * second, 300 * second].filter(Number.isInteger);
  return steps.find((frames) => frames * props.perFrame >= APART) ?? 600 * second;
});
const marks = computed(() => Array.from({ length: Math.ceil(props.length / step.value) }, (_, i) => i * step.value));

function scrub(event: PointerEvent): void {
  const ruler = event.currentTarget as HTMLElement;
  ruler.setPointerCapture(event.pointerId);
  const go = (now: PointerEvent) => emit('seek', Math.floor((now.clientX - ruler.getBoundingClientRect().left) / props.perFrame));
  go(event);
  ruler.addEventListener('pointermove', go);
  ruler.addEventListener('lostpointercapture', () => ruler.removeEventListener('pointermove', go), { once: true });
}
</script>

<template>
  <div class="ruler" :style="{ width: `${length * perFrame}px` }" aria-label="Ruler" @pointerdown="scrub">
    <span v-for="mark in marks" :key="mark" class="mono" :style="{ left: `${mark * perFrame}px` }">{{ mark }}</span>
  </div>
</template>

<style scoped>
.ruler {
  position: relative;
  cursor: ew-resize;
  touch-action: none;
  user-select: none;
}
span {
  position: absolute;
  top: 0;
  height: 100%;
  padding: 2px 0 0 4px;
  font-size: 10px;
  color: var(--dim);
  border-left: 1px solid var(--line);
}
</style>
