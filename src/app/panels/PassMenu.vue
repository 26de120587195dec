<script setup lang="ts">
import { boundToLayer, passToClip } from '../../core/document/edits/clip-line';
import { removePass, switchPass } from '../../core/document/edits/passes';
import { stockOf, type Layer, type Pass } from '../../core/document/schema';
import { titleOf } from '../../core/passes/registry';
import SubMenu from '../controls/SubMenu.vue';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** What can be done with a pass, where it was pointed at. @property others layers that it can be copied to */
const props = defineProps<{ pass: Pass; at: [number, number]; others: readonly Pick<Layer, 'id' | 'name'>[] }>();
const emit = defineEmits<{ close: [] }>();
const bench = useBench();
const edits = useEdits();
const store = useProject();
const remove = (): void => edits.editLayer((project, at) => removePass(project, at, props.pass.id));
const flip = (): void => edits.editLayer((project, at) => switchPass(project, at, props.pass.id));
const give = (): void => edits.editLayer((project, at) => passToClip(project, at, props.pass.id));
</script>

<template>
  <v-menu :model-value="true" :target="at" :aria-label="titleOf(pass.type)" @update:model-value="emit('close')">
    <v-list :disabled="bench.layer?.locked || store.readOnly">
      <v-list-item :title="pass.on ? 'Switch off' : 'Switch on'" @click="flip" />
      <v-list-item title="Duplicate" @click="edits.duplicatePass(pass)" />
      <SubMenu
        v-if="others.length"
        title="Copy to another layer…"
        :items="others.map(({ id, name }) => ({ title: name, run: () => edits.copyPassTo(id, pass) }))"
      />
      <v-list-item
        v-if="bench.layer && stockOf(bench.layer) && !boundToLayer(pass)"
        title="For the whole clip"
        @click="give"
      />
      <v-list-item title="Delete" @click="remove" />
    </v-list>
  </v-menu>
</template>
