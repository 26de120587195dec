<script setup lang="ts">
/** Lines across the stage that something has snapped to, in its pixels; null for none. */
defineProps<{ x: number | null; y: number | null }>();
</script>

<template>
  <line v-if="x !== null" class="guide" :x1="x" y1="0" :x2="x" y2="100%" />
  <line v-if="y !== null" class="guide" x1="0" :y1="y" x2="100%" :y2="y" />
</template>

<style scoped>
.guide {
  stroke: #d8a84a;
  stroke-dasharray: 3 3;
  pointer-events: none;
}
</style>
