<script setup lang="ts">
import { ref, watchPostEffect } from 'vue';
import { useScopes } from '../stores/scopes';
import type { ViewFrame } from './frame';

/** Stripes on the picture where a channel is beyond its limits. */
defineProps<{ frame: ViewFrame }>();
const scopes = useScopes();
const canvas = ref<HTMLCanvasElement>();
watchPostEffect(() => {
  const { warnings } = scopes;
  if (!canvas.value || !warnings?.width) return;
  Object.assign(canvas.value, { width: warnings.width, height: warnings.height });
  canvas.value.getContext('2d')!.drawImage(warnings, 0, 0);
});
</script>

<template>
  <canvas
    ref="canvas"
    class="stripes"
    role="img"
    :aria-label="scopes.stripes === 'video' ? 'Stripes beyond video range' : 'Stripes where the picture is clipped'"
    :style="{ left: `${frame.x}px`, top: `${frame.y}px`, width: `${frame.width}px`, height: `${frame.height}px` }"
  />
</template>

<style scoped>
.stripes {
  position: absolute;
  pointer-events: none;
  image-rendering: pixelated;
}
</style>
