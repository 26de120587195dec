<script setup lang="ts">
import { computed, useTemplateRef, watch } from 'vue';

/** A small picture in a frame of the shape of most shots. @property picture gives it once it is there; asked here, so that what lies around stays as it is */
const props = defineProps<{ picture: () => OffscreenCanvas | undefined }>();
const seen = computed(() => props.picture());
const canvas = useTemplateRef<HTMLCanvasElement>('canvas');
watch([seen, canvas], ([picture, to]) => {
  if (!picture?.width || !to) return;
  [to.width, to.height] = [picture.width, picture.height];
  to.getContext('2d')!.drawImage(picture, 0, 0);
});
</script>

<template>
  <span class="picture"><canvas v-if="seen" ref="canvas" /></span>
</template>

<style scoped>
.picture {
  width: 100%;
  display: grid;
  aspect-ratio: 16 / 9;
  background: var(--surround);
}
.picture canvas {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
</style>
