<script setup lang="ts">
import { useTracking } from '../stores/tracking';
import type { TrackParam } from '../../core/params/track';
import type { DialEmits, DialProps } from './define';

defineProps<DialProps<TrackParam, string>>();
const emit = defineEmits<DialEmits<string>>();
const tracking = useTracking();
</script>

<template>
  <div :title="param.help">
    <v-select
      persistent-placeholder
      :model-value="value || null"
      :items="tracking.tracks.filter((track) => track.samples.rows)"
      item-title="name"
      item-value="id"
      :label="param.label"
      placeholder="none"
      no-data-text="No track of this clip has been measured. Press T."
      :disabled="disabled"
      @update:model-value="emit('change', $event ?? '')"
    />
  </div>
</template>
