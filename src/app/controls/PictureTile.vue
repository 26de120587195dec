<script setup lang="ts">
import Glimpse from './Glimpse.vue';

/** Something that is chosen by its picture; what it is called stands below. @property picture gives it once it is there */
withDefaults(defineProps<{ picture: () => OffscreenCanvas | undefined; pressed?: boolean; disabled?: boolean }>(), {
  pressed: undefined,
});
</script>

<template>
  <v-btn class="tile" variant="text" height="auto" block :aria-pressed="pressed" :disabled="disabled">
    <Glimpse :picture="picture" />
    <slot />
  </v-btn>
</template>

<style scoped>
.tile {
  padding: 4px;
  border: 1px solid transparent;
}
.tile :deep(.v-btn__content) {
  display: grid;
  gap: 4px;
  width: 100%;
  justify-self: stretch;
  text-align: left;
  white-space: normal;
}
.tile:hover,
.tile:focus-visible,
.tile[aria-pressed='true'] {
  border-color: var(--brass);
}
</style>
