<script setup lang="ts">
import { ref } from 'vue';
import { mdiClose } from '@mdi/js';
import type { KeptTable, TableParam } from '../../core/params/table';
import IconButton from '../controls/IconButton.vue';
import FilePick from '../controls/FilePick.vue';
import { useBench } from '../stores/bench';
import { useGradeFiles } from '../stores/grade-files';
import type { DialEmits, DialProps } from './define';

const props = defineProps<DialProps<TableParam, KeptTable | null>>();
const emit = defineEmits<DialEmits<null>>();
const bench = useBench();
const files = useGradeFiles();
const input = ref<InstanceType<typeof FilePick>>();
</script>

<template>
  <div class="table" role="group" :aria-label="param.label" :title="param.help">
    <span v-if="value"
      >{{ value.title }}
      <span class="mono dim">{{ value.dimensions === 1 ? value.size : `${value.size}³` }}</span></span
    >
    <span v-else class="dim">No table yet</span>
    <v-btn size="small" :disabled="disabled" @click="input?.pick()">Open a .cube…</v-btn>
    <IconButton
      v-if="value"
      label="Take the table away"
      :icon="mdiClose"
      :disabled="disabled"
      @click="emit('change', null)"
    />
    <FilePick
      ref="input"
      label="Table file"
      accept=".cube"
      @files="([file]) => bench.pass && void files.openTable(bench.pass.id, props.name, file!)"
    />
  </div>
</template>

<style scoped>
.table {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
  padding-bottom: 6px;
}
</style>
