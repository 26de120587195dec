<script setup lang="ts">
import { mdiContentSaveOutline, mdiPlus, mdiTrashCanOutline } from '@mdi/js';
import type { GradeJig } from '../../core/document/schema';
import type { KeptTable } from '../../core/params/table';
import { titleOf } from '../../core/passes/registry';
import IconButton from '../controls/IconButton.vue';
import { useBench } from '../stores/bench';
import { useGrades } from '../stores/grades';
import { useProject } from '../stores/project';

/** Grades of the project, from files and from layers, as a kind of stock: put on the chosen layer, saved, deleted. */
const bench = useBench();
const grades = useGrades();
const store = useProject();

/** What it consists of, in a few words. */
function madeOf({ passes }: GradeJig): string {
  if (passes.length > 1) return `${passes.length} passes`;
  const { type, values } = passes[0]!;
  const value = values['table'];
  const table = value && 'still' in value ? (value.still as KeptTable | null) : null;
  if (!table) return titleOf(type);
  return `Table · ${table.dimensions === 1 ? table.size : `${table.size}³`}`;
}
</script>

<template>
  <ul class="grades" aria-label="Grades">
    <li v-for="jig in grades.jigs" :key="jig.id" :title="jig.name">
      <span class="text"
        ><strong>{{ jig.name }}</strong
        ><span class="mono dim">{{ madeOf(jig) }}</span></span
      >
      <IconButton
        :label="`Put ${jig.name} on the chosen layer`"
        :icon="mdiPlus"
        :disabled="!bench.layer || bench.layer.locked || store.readOnly"
        @click="grades.use(`Grade ${jig.name}`, jig.passes)"
      />
      <IconButton :label="`Save ${jig.name} as a file`" :icon="mdiContentSaveOutline" @click="grades.saveFile(jig)" />
      <IconButton
        :label="`Delete ${jig.name} from the project`"
        :icon="mdiTrashCanOutline"
        :disabled="store.readOnly"
        @click="grades.remove(jig.id)"
      />
    </li>
  </ul>
</template>

<style scoped>
.grades {
  flex: none;
  max-height: 8rem;
  overflow: auto;
  list-style: none;
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
li {
  display: flex;
  align-items: center;
  padding: 2px 4px 2px 8px;
}
li:hover,
li:focus-within {
  background: var(--raised);
}
.text {
  flex: 1;
  display: grid;
  min-width: 0;
}
.text > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.text .mono {
  font-size: 0.625rem;
}
</style>
