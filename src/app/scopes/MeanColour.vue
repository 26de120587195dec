<script setup lang="ts">
import { computed } from 'vue';
import { mdiClose, mdiPinOutline } from '@mdi/js';
import { differenceOf, labOf } from '../../core/picture/difference';
import { toLinear } from '../../core/picture/light';
import IconButton from '../controls/IconButton.vue';
import { hexOf } from '../../core/base/hex';
import { useScopes } from '../stores/scopes';

/** The mean colour of what scopes look at, and how far it lies from a pinned one. */
const props = defineProps<{ mean: readonly [number, number, number] }>();
const scopes = useScopes();
/** Light of a card that is middle grey. */
const GREY = 0.18;

const light = computed(() => {
  const [r, g, b] = props.mean.map(toLinear) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
});
/** Stops over or under middle grey. */
const stops = computed(() => {
  if (light.value < 1e-4) return 'black';
  const over = Math.log2(light.value / GREY);
  return `${over < 0 ? '−' : '+'}${Math.abs(over).toFixed(1)} stops`;
});
const apart = computed(() => scopes.pinned && differenceOf(labOf(scopes.pinned), labOf(props.mean)));
const bytes = computed(() => props.mean.map((v) => Math.round(v * 255)).join(' '));
</script>

<template>
  <div class="mean">
    <span class="swatch" :style="{ background: hexOf(mean) }" aria-hidden="true" />
    <output class="mono" aria-label="Mean colour" title="Red, green and blue of 255, and stops from middle grey"
      >{{ bytes }} · {{ stops }}</output
    >
    <IconButton
      label="Pin this colour, to compare others with it"
      :icon="mdiPinOutline"
      @click="scopes.pinned = [...mean]"
    />
    <template v-if="scopes.pinned">
      <span class="swatch" :style="{ background: hexOf(scopes.pinned) }" aria-hidden="true" />
      <output
        class="mono"
        aria-label="From the pinned colour"
        title="How far apart people see both, CIEDE2000: 1 is just seen side by side"
        >ΔE {{ apart?.toFixed(1) }} from the pinned one</output
      >
      <IconButton label="Let the pinned colour go" :icon="mdiClose" @click="scopes.pinned = null" />
    </template>
  </div>
</template>

<style scoped>
.mean {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: 2px 8px;
  align-items: center;
  font-size: 0.6875rem;
}
.swatch {
  width: 1.5rem;
  height: 1rem;
  border: 1px solid var(--line);
}
</style>
