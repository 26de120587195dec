<script setup lang="ts">
import { makeStill } from '../../core/document/edits/keys';
import type { Layer } from '../../core/document/schema';
import SubMenu from '../controls/SubMenu.vue';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useRows, type ValueRow } from '../stores/rows';

/** What can be done with a row of values, where it was pointed at. @property others rows of the layer that it can be laid over */
const props = defineProps<{ layer: Layer; row: ValueRow; others: readonly ValueRow[]; at: [number, number] }>();
const emit = defineEmits<{ close: [] }>();
const bench = useBench();
const playhead = usePlayhead();
const rows = useRows();
const store = useProject();
const still = (): void => {
  const project = store.current();
  const at = { shot: bench.shotId!, layer: props.layer.id, frame: playhead.frame };
  store.edit(makeStill(project, at, props.row.entries[0]!.path));
};
</script>

<template>
  <v-menu :model-value="true" :target="at" :aria-label="row.entries[0]!.label" @update:model-value="emit('close')">
    <v-list>
      <v-list-item :title="rows.isGrown(row.id) ? 'Low again' : 'Grow into a curve'" @click="rows.grow(row.id)" />
      <SubMenu
        v-if="others.length"
        title="Lay over…"
        :items="
          others.map(({ id, entries: [first] }) => ({
            title: first!.label,
            subtitle: first!.group,
            run: () => rows.layOver(layer, row.id, id),
          }))
        "
      />
      <v-list-item v-if="row.entries.length > 1" title="Apart again" @click="rows.apart(layer, row)" />
      <v-list-item
        :title="rows.look(row.id).oneScale ? 'Each over its own range' : 'All over one range'"
        @click="rows.change(row.id, { oneScale: !rows.look(row.id).oneScale })"
      />
      <v-list-item
        :title="rows.look(row.id).change ? 'Without the change per frame' : 'With the change per frame'"
        @click="(rows.change(row.id, { change: !rows.look(row.id).change }), rows.grow(row.id, true))"
      />
      <v-list-item title="No keyframes: stays as it is now" :disabled="layer.locked || store.readOnly" @click="still" />
    </v-list>
  </v-menu>
</template>
