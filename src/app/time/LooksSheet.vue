<script setup lang="ts">
import { computed, onBeforeUnmount, reactive, ref, watch } from 'vue';
import { mdiClose, mdiContentSaveOutline, mdiTrashCanOutline } from '@mdi/js';
import type { GradeJig, Pass } from '../../core/document/schema';
import { GRADE_LOOKS } from '../../core/passes/grade/looks';
import { planAlone } from '../../core/plan/looks';
import { useEngine } from '../../engine/client';
import { LOOK } from '../../engine/wishes';
import IconButton from '../controls/IconButton.vue';
import FilePick from '../controls/FilePick.vue';
import { useBench } from '../stores/bench';
import { GRADE_ENDINGS, useGrades } from '../stores/grades';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';

/** The chosen layer's present frame in several looks, to choose by eye: those of the project, and those that come with Jackplane. */
const open = defineModel<boolean>({ required: true });
const bench = useBench();
const store = useProject();
const grades = useGrades();
const notices = useNotices();
const picker = ref<InstanceType<typeof FilePick>>();
/** A picture of each look, by its key. */
const pictures = reactive<Record<string, string>>({});
let run = 0;

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

function clear(): void {
  Object.values(pictures).forEach((url) => URL.revokeObjectURL(url));
  Object.keys(pictures).forEach((key) => delete pictures[key]);
}
async function draw(): Promise<void> {
  const mine = ++run;
  const { shot, layer } = bench;
  if (!shot || !layer || !store.project) return;
  const engine = await useEngine();
  const canvas = new OffscreenCanvas(1, 1);
  for (const { key, passes } of looks.value) {
    if (pictures[key]) continue;
    try {
      const plan = planAlone(store.project, shot, layer, bench.frame, 4, lined(layer.passes, passes));
      const { bitmap } = await engine.frame(plan, 'picture', LOOK);
      if (mine !== run || !bitmap.width) return;
      canvas.width = bitmap.width;
      canvas.height = bitmap.height;
      canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
      const url = URL.createObjectURL(await canvas.convertToBlob({ type: 'image/webp', quality: 0.9 }));
      if (mine !== run) return URL.revokeObjectURL(url);
      pictures[key] = url;
    } catch (error) {
      return notices.problem(error);
    }
  }
}
watch(
  open,
  (shown) => {
    run++;
    clear();
    if (shown) void draw();
  },
  { immediate: true },
);
watch(
  () => grades.jigs,
  () => open.value && void draw(),
);
onBeforeUnmount(() => (run++, clear()));

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
            <v-btn
              class="tile"
              variant="text"
              height="auto"
              block
              :disabled="store.readOnly || bench.layer?.locked"
              @click="choose(look)"
            >
              <span class="picture"><img v-if="pictures[look.key]" :src="pictures[look.key]" alt="" /></span>
              {{ look.title }}
            </v-btn>
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
          Frame {{ bench.frame }}. A look is put in as passes with ordinary dials; one step back takes it away again.
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
.tile {
  padding: 4px;
  border: 1px solid transparent;
}
.tile :deep(.v-btn__content) {
  display: grid;
  gap: 4px;
  width: 100%;
  text-align: left;
}
.tile:hover,
.tile:focus-visible {
  border-color: var(--brass);
}
.picture {
  display: grid;
  aspect-ratio: 16 / 9;
  background: var(--surround);
}
.picture img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.dim {
  margin-top: 12px;
}
</style>
