<script setup lang="ts">
import { computed } from 'vue';
import type { Ease } from '../../core/document/value';

/** A keyframe as a peg seen from the side: pointed = linear, round-headed = eased, flat-headed = hold. 9 wide, 13 high. */
const props = defineProps<{ ease: Ease }>();
const HEADS = {
  linear: 'M4.5 0.6 8.2 5 5.7 8.4 5.7 12.4 3.3 12.4 3.3 8.4 0.8 5Z',
  eased: 'M4.5 0.6a3.6 3.6 0 0 1 1.2 7v4.8H3.3V7.6a3.6 3.6 0 0 1 1.2-7Z',
  hold: 'M0.8 0.8H8.2V6.6H5.7V12.4H3.3V6.6H0.8Z',
};
const path = computed(() => (props.ease === 'linear' ? HEADS.linear : props.ease === 'hold' ? HEADS.hold : HEADS.eased));
</script>

<template>
  <svg class="peg-mark" viewBox="0 0 9 13" width="9" height="13" aria-hidden="true"><path :d="path" /></svg>
</template>
