<script setup lang="ts">
import { ref } from 'vue';
import { mdiContentSaveOutline, mdiTrashCanOutline } from '@mdi/js';
import { JIG_ENDING } from '../../core/formats/jig';
import FilePick from '../controls/FilePick.vue';
import IconButton from '../controls/IconButton.vue';
import TextField from '../controls/TextField.vue';
import { useLayerJigs } from '../stores/layer-jigs';
import { useProject } from '../stores/project';

/** The project's jigs of layers: put in, saved as files, opened from files, deleted. */
const open = defineModel<boolean>({ required: true });
const jigs = useLayerJigs();
const store = useProject();
const picker = ref<InstanceType<typeof FilePick>>();
</script>

<template>
  <v-dialog v-model="open" max-width="30rem" aria-label="Jigs of layers">
    <v-card title="Jigs of layers">
      <v-card-text>
        <p v-if="!jigs.jigs.length" class="dim">
          None yet. Choose layers that are made, such as a title with its bar, and keep them as a jig: Layer, Keep as a
          jig. Or open a file.
        </p>
        <ul class="jigs" aria-label="Jigs">
          <li v-for="jig in jigs.jigs" :key="jig.id">
            <TextField
              :label="`Name of jig ${jig.name}`"
              :value="jig.name"
              :disabled="store.readOnly"
              @change="(name) => jigs.rename(jig.id, name)"
            />
            <span class="dim">{{ jig.layers.length === 1 ? '1 layer' : `${jig.layers.length} layers` }}</span>
            <v-btn size="small" :disabled="store.readOnly" @click="(jigs.use(jig), (open = false))">Put in</v-btn>
            <IconButton :label="`Save ${jig.name} as a file`" :icon="mdiContentSaveOutline" @click="jigs.save(jig)" />
            <IconButton
              :label="`Delete jig ${jig.name}`"
              :icon="mdiTrashCanOutline"
              :disabled="store.readOnly"
              @click="jigs.remove(jig.id)"
            />
          </li>
        </ul>
        <div class="choices">
          <v-btn variant="text" :disabled="store.readOnly" @click="picker?.pick()">Open a file…</v-btn>
          <v-btn color="primary" variant="flat" @click="open = false">Done</v-btn>
        </div>
        <FilePick ref="picker" label="Jig of layers to open" :accept="JIG_ENDING" @files="jigs.openFiles" />
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.jigs {
  display: grid;
  gap: 4px;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 1fr auto auto auto auto;
  align-items: center;
  gap: 8px;
}
.choices {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 12px;
}
</style>
