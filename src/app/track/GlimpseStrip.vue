<script setup lang="ts">
import { ref, watchPostEffect } from 'vue';
import type { Glimpse } from '../../core/track/tracker';

/** The pattern as it was drawn, as it is seen now, and what differs. */
const props = defineProps<{ glimpse: Glimpse }>();
const canvases = ref<HTMLCanvasElement[]>([]);
const NAMES = ['pattern', 'now', 'difference'];

watchPostEffect(() => {
  const { w, h, first, now } = props.glimpse;
  const greys = [first, now, first.map((v, i) => Math.min(255, Math.abs(v - now[i]!) * 3))];
  canvases.value.forEach((canvas, k) => {
    canvas.width = w;
    canvas.height = h;
    const image = new ImageData(w, h);
    greys[k]!.forEach((v, i) => image.data.set([v, v, v, 255], i * 4));
    canvas.getContext('2d')!.putImageData(image, 0, 0);
  });
});
</script>

<template>
  <div class="strip">
    <figure v-for="name in NAMES" :key="name">
      <canvas ref="canvases" role="img" :aria-label="`The track’s ${name}`" />
      <figcaption class="dim">{{ name }}</figcaption>
    </figure>
  </div>
</template>

<style scoped>
.strip {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
}
canvas {
  width: 100%;
  max-height: 5.5rem;
  object-fit: contain;
  background: var(--surround);
  image-rendering: pixelated;
}
figcaption {
  font-size: 0.6875rem;
}
</style>
