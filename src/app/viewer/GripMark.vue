<script setup lang="ts">
/** A grip on the picture, where it lies: a square, or a round one, with room around for the pointer. */
defineProps<{ at: readonly [number, number]; stroke: string; round?: boolean | undefined }>();
</script>

<template>
  <g class="grip" :transform="`translate(${at[0]} ${at[1]})`" role="button" tabindex="0" @mousedown.prevent>
    <circle r="12" class="target" />
    <circle v-if="round" r="5.5" class="mark" :style="{ stroke }" />
    <rect v-else x="-5" y="-5" width="10" height="10" class="mark" :style="{ stroke }" />
  </g>
</template>

<style scoped>
.grip {
  pointer-events: all;
  cursor: move;
  touch-action: none;
}
.target {
  fill: transparent;
}
.mark {
  fill: #1b1b1b;
  stroke-width: 1.8;
}
</style>
