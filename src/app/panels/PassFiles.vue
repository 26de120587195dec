<script setup lang="ts">
import { computed, ref } from 'vue';
import { passOf } from '../../core/passes/registry';
import { useBench } from '../stores/bench';
import { useGradeFiles } from '../stores/grade-files';
import { useProject } from '../stores/project';
import FilePick from '../controls/FilePick.vue';

/** Opens and saves files that hold the values of the chosen pass. */
const bench = useBench();
const store = useProject();
const files = useGradeFiles();
const declared = computed(() => passOf(bench.pass!.type)!.files!);
const input = ref<InstanceType<typeof FilePick>>();
</script>

<template>
  <div class="files">
    <v-btn size="small" :disabled="bench.layer!.locked || store.readOnly" @click="input?.pick()">Open…</v-btn>
    <v-menu>
      <template #activator="{ props: menu }"><v-btn v-bind="menu" size="small">Save as…</v-btn></template>
      <v-list>
        <v-list-item
          v-for="(_, ending) in declared.writes"
          :key="ending"
          :title="`${ending}`"
          @click="files.saveValues(`${ending}`)"
        />
      </v-list>
    </v-menu>
    <FilePick
      ref="input"
      label="File with the values of this pass"
      :accept="declared.reads.join(',')"
      @files="([file]) => void files.openValues(bench.pass!.id, file!)"
    />
  </div>
</template>

<style scoped>
.files {
  display: flex;
  gap: 6px;
  padding-bottom: 8px;
}
</style>
