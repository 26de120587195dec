<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { mdiClose, mdiContentSaveOutline, mdiTrashCanOutline } from '@mdi/js';
import type { GradeJig, Pass } from '../../core/document/schema';
import { GRADE_LOOKS } from '../../core/passes/grade/looks';
import { planAlone } from '../../core/plan/looks';
import IconButton from '../controls/IconButton.vue';
import PictureTile from '../controls/PictureTile.vue';
import FilePick from '../controls/FilePick.vue';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { GRADE_ENDINGS, useGrades } from '../stores/grades';
import { useProject } from '../stores/project';
import { useGlimpses } from './glimpses';

/** The chosen layer's present frame in several looks, to choose by eye: those of the project, and those that come with Jackplane. */
const open = defineModel<boolean>({ required: true });
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const grades = useGrades();
const picker = ref<InstanceType<typeof FilePick>>();

interface Look {
  key: string;
  title: string;
  passes: Pass[];
  /** one of the project's own */
  jig?: GradeJig;
}
const looks = computed<Look[]>(() => [
  ...grades.jigs.map((jig) => ({ key: jig.id, title: jig.name, passes: jig.passes, jig })),
  ...GRADE_LOOKS.map((look) => ({ key: look.title, title: look.title, passes: grades.lookPasses(look) })),
]);
/** The layer's line with passes of a look at the end of what works before Place. */
const lined = (line: readonly Pass[], own: readonly Pass[]): Pass[] => {
  const before = line.filter((pass) => pass.space === 'layer');
  return [...before, ...own, ...line.filter((pass) => pass.space !== 'layer')];
};

/** A picture of each look, by its key. */
const { pictures, draw, clear } = useGlimpses();
const drawLooks = (): void => {
  const { shot, layer } = bench;
  const { frame } = playhead;
  const { project } = store;
  if (!shot || !layer || !project) return;
  void draw(
    looks.value.map(({ key, passes }) => ({
      key,
      plan: () => planAlone(project, shot, layer, frame, 4, lined(layer.passes, passes)),
    })),
  );
};
watch(
  open,
  (shown) => {
    clear();
    if (shown) drawLooks();
  },
  { immediate: true },
);
watch(
  () => grades.jigs,
  () => open.value && drawLooks(),
);

function choose({ title, passes }: Look): void {
  open.value = false;
  grades.use(`Look ${title}`, passes);
}
</script>

<template>
  <v-dialog v-model="open" max-width="62rem" aria-label="Looks">
    <v-card :title="`Looks for ${bench.layer?.name ?? ''}`">
      <template #append><IconButton label="Close" :icon="mdiClose" @click="open = false" /></template>
      <v-card-text>
        <ul class="sheet">
          <li v-for="look in looks" :key="look.key">
            <PictureTile
              :picture="() => pictures[look.key]"
              :disabled="store.readOnly || bench.layer?.locked"
              @click="choose(look)"
              >{{ look.title }}</PictureTile
            >
            <span v-if="look.jig" class="own">
              <IconButton
                :label="`Save ${look.title} as a file`"
                :icon="mdiContentSaveOutline"
                @click="grades.saveFile(look.jig)"
              />
              <IconButton
                :label="`Delete ${look.title} from the project’s looks`"
                :icon="mdiTrashCanOutline"
                :disabled="store.readOnly"
                @click="grades.remove(look.key)"
              />
            </span>
          </li>
        </ul>
        <div class="more">
          <v-btn size="small" :disabled="store.readOnly" @click="grades.save()"
            >Keep this layer’s grade as a look</v-btn
          >
          <v-btn size="small" :disabled="store.readOnly" @click="picker?.pick()">From files…</v-btn>
          <FilePick
            ref="picker"
            label="Files with grades"
            multiple
            :accept="GRADE_ENDINGS.join(',')"
            @files="grades.openFiles"
          />
        </div>
        <p class="dim">
          Frame {{ playhead.frame }}. A look is put in as passes with ordinary dials; one step back takes it away again.
        </p>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 12px;
  list-style: none;
}
.sheet li {
  position: relative;
}
.own {
  position: absolute;
  right: 6px;
  bottom: 2px;
  display: flex;
}
.more {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}
.dim {
  margin-top: 12px;
}
</style>
