<script setup lang="ts">
import { computed, ref } from 'vue';
import { passOf } from '../../core/passes/registry';
import { useBench } from '../stores/bench';
import { useGradeFiles } from '../stores/grade-files';
import { useProject } from '../stores/project';

/** Opens and saves files that hold the values of the chosen pass. */
const bench = useBench();
const store = useProject();
const files = useGradeFiles();
const declared = computed(() => passOf(bench.pass!.type)!.files!);
const input = ref<HTMLInputElement>();
function chosen(event: Event): void {
  const own = event.target as HTMLInputElement;
  const file = own.files?.[0];
  own.value = '';
  if (file) void files.openValues(bench.pass!.id, file);
}
</script>

<template>
  <div class="files">
    <v-btn size="small" :disabled="bench.layer!.locked || store.readOnly" @click="input?.click()">Open…</v-btn>
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
    <input
      ref="input"
      type="file"
      :accept="declared.reads.join(',')"
      class="visually-hidden"
      tabindex="-1"
      aria-label="File with the values of this pass"
      @change="chosen"
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
