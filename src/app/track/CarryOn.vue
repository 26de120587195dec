<script setup lang="ts">
import { ref } from 'vue';
import { mdiArrowLeft, mdiArrowRight, mdiStop } from '@mdi/js';
import NumberField from '../controls/NumberField.vue';
import { useBench } from '../stores/bench';
import { useCarrying } from '../stores/carrying';
import { useProject } from '../stores/project';
import { useTracking } from '../stores/tracking';

/** A path carried on along its clip, and what of it is weak here. */
const bench = useBench();
const carrying = useCarrying();
const store = useProject();
const tracking = useTracking();
const frames = ref(12);
</script>

<template>
  <div v-if="tracking.clip" class="carry">
    <span class="line"
      >Carry on with the motion over
      <NumberField
        label="Frames to carry on"
        unit="f"
        :value="frames"
        :min="1"
        :max="1000"
        :digits="0"
        @change="(v) => (frames = v)"
    /></span>
    <div v-if="!carrying.going" class="line">
      <v-btn
        size="small"
        :prepend-icon="mdiArrowLeft"
        :disabled="bench.layer!.locked || store.readOnly"
        @click="carrying.carry(-frames)"
        >Carry backward</v-btn
      >
      <v-btn
        size="small"
        :prepend-icon="mdiArrowRight"
        :disabled="bench.layer!.locked || store.readOnly"
        @click="carrying.carry(frames)"
        >Carry forward</v-btn
      >
    </div>
    <div v-else class="line" role="status">
      <span
        ><span class="mono">{{ carrying.going.done }}</span> of
        <span class="mono">{{ carrying.going.of }}</span> frames</span
      >
      <v-btn size="small" :prepend-icon="mdiStop" @click="carrying.stop()">Stop</v-btn>
    </div>
    <p v-if="carrying.weak.size" class="weak" role="note">
      {{ carrying.weak.size === 1 ? 'One vertex was' : `${carrying.weak.size} vertices were` }} hard to find on this
      frame; {{ carrying.weak.size === 1 ? 'it is' : 'they are' }} marked on the picture. Drag what is wrong to its
      place and carry on from there.
    </p>
  </div>
</template>

<style scoped>
.carry {
  display: grid;
  gap: 4px;
  margin: 6px 0;
  font-size: 0.8125rem;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  justify-content: space-between;
}
.weak {
  padding: 4px 8px;
  border-left: 2px solid var(--red);
  font-size: 0.75rem;
}
</style>
