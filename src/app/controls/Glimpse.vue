<script setup lang="ts">
/** A small picture in a frame of the shape of most shots. @property picture its address, once it is there */
defineProps<{ picture: string | undefined }>();
</script>

<template>
  <span class="picture"><img v-if="picture" :src="picture" alt="" /></span>
</template>

<style scoped>
.picture {
  display: grid;
  aspect-ratio: 16 / 9;
  background: var(--surround);
}
.picture img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
</style>
