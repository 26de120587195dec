<script setup lang="ts">
import { onBeforeUnmount, reactive, watch } from 'vue';
import { mdiClose } from '@mdi/js';
import { still } from '../../core/base/value';
import { together } from '../../core/document/edit';
import { addPass, newPass } from '../../core/document/edits/passes';
import type { Pass, PassId } from '../../core/document/schema';
import { GRADE_LOOKS, type GradeLook } from '../../core/passes/grade/looks';
import { planAlone } from '../../core/plan/looks';
import { useEngine } from '../../engine/client';
import { LOOK } from '../../engine/wishes';
import { newId } from '../base/ids';
import IconButton from '../controls/IconButton.vue';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';

/** The chosen layer's present frame in several looks, to choose by eye. The one that is chosen becomes ordinary passes. */
const open = defineModel<boolean>({ required: true });
const bench = useBench();
const store = useProject();
const notices = useNotices();
/** A picture of each look, by its title. */
const pictures = reactive<Record<string, string>>({});
let run = 0;

const made = ({ passes }: GradeLook): Pass[] =>
  passes.map(([type, values]) => {
    const pass = newPass(newId<PassId>(), type, bench.size);
    return {
      ...pass,
      values: { ...pass.values, ...Object.fromEntries(Object.entries(values).map(([name, v]) => [name, still(v)])) },
    };
  });
/** The layer's line with passes of a look at the end of what works before Place. */
const lined = (line: readonly Pass[], own: readonly Pass[]): Pass[] => {
  const before = line.filter((pass) => pass.space === 'layer');
  return [...before, ...own, ...line.filter((pass) => pass.space !== 'layer')];
};

function clear(): void {
  Object.values(pictures).forEach((url) => URL.revokeObjectURL(url));
  Object.keys(pictures).forEach((title) => delete pictures[title]);
}
async function draw(): Promise<void> {
  const mine = ++run;
  clear();
  const { shot, layer } = bench;
  if (!shot || !layer || !store.project) return;
  const engine = await useEngine();
  const canvas = new OffscreenCanvas(1, 1);
  for (const look of GRADE_LOOKS) {
    const { title } = look;
    try {
      const plan = planAlone(store.project, shot, layer, bench.frame, 4, lined(layer.passes, made(look)));
      const { bitmap } = await engine.frame(plan, 'picture', LOOK);
      if (mine !== run || !bitmap.width) return;
      canvas.width = bitmap.width;
      canvas.height = bitmap.height;
      canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
      const url = URL.createObjectURL(await canvas.convertToBlob({ type: 'image/webp', quality: 0.9 }));
      if (mine !== run) return URL.revokeObjectURL(url);
      pictures[title] = url;
    } catch (error) {
      return notices.problem(error);
    }
  }
}
watch(open, (shown) => (shown ? void draw() : (run++, clear())), { immediate: true });
onBeforeUnmount(() => (run++, clear()));

function choose(look: GradeLook): void {
  const { at, layer } = bench;
  open.value = false;
  if (!at || !layer || layer.locked || store.readOnly) return;
  const passes = made(look);
  const begin = layer.passes.filter((pass) => pass.space === 'layer').length;
  store.edit(
    together(
      store.current(),
      `Look ${look.title}`,
      passes.map((pass, i) => () => addPass(at, pass, begin + i)),
    ),
  );
  bench.show(passes[0]!.id);
}
</script>

<template>
  <v-dialog v-model="open" max-width="62rem" aria-label="Looks">
    <v-card :title="`Looks for ${bench.layer?.name ?? ''}`">
      <template #append><IconButton label="Close" :icon="mdiClose" @click="open = false" /></template>
      <v-card-text>
        <ul class="sheet">
          <li v-for="look in GRADE_LOOKS" :key="look.title">
            <v-btn
              class="tile"
              variant="text"
              height="auto"
              block
              :disabled="store.readOnly || bench.layer?.locked"
              @click="choose(look)"
            >
              <span class="picture"><img v-if="pictures[look.title]" :src="pictures[look.title]" alt="" /></span>
              {{ look.title }}
            </v-btn>
          </li>
        </ul>
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
