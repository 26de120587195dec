<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useEventListener } from '@vueuse/core';
import { Pane, Splitpanes } from 'splitpanes';
import DialsPanel from '../panels/DialsPanel.vue';
import FirstClip from '../panels/FirstClip.vue';
import NewShot from '../panels/NewShot.vue';
import PassLine from '../panels/PassLine.vue';
import Rail from '../panels/Rail.vue';
import StockPanel from '../panels/StockPanel.vue';
import TimePanel from '../panels/TimePanel.vue';
import Viewer from '../panels/Viewer.vue';
import { useShortcuts } from '../shortcuts';
import { posterFrom } from '../storage/project-files';
import { useBench } from '../stores/bench';
import { useImports } from '../stores/imports';
import { useNotices } from '../stores/notices';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';

const route = useRoute();
const router = useRouter();
const store = useProject();
const bench = useBench();
const player = usePlayer();
const imports = useImports();
const notices = useNotices();
const ready = ref(false);
const wide = window.innerWidth;
const tall = window.innerHeight - 44;

useShortcuts();

watch(
  () => route.params['project'] as string | undefined,
  async (id) => {
    if (!id) return;
    ready.value = false;
    try {
      await store.open(id);
      const shots = store.project?.shots ?? [];
      bench.openShot((shots.find((shot) => shot.id === route.query['shot']) ?? shots[0])?.id ?? null);
      ready.value = true;
      void player.refresh();
      void player.fill();
    } catch (error) {
      notices.problem(error);
      await router.replace('/');
    }
  },
  { immediate: true },
);

// a reload comes back to the shot that was open
watch(
  () => bench.shotId,
  (shot) => void (ready.value && shot && router.replace({ query: { shot } })),
);

function drop(event: DragEvent): void {
  if (event.dataTransfer?.files.length) void imports.take([...event.dataTransfer.files]);
}
// scrolling, wheeling and dragging have the processor to themselves
useEventListener(window, ['wheel', 'scroll', 'pointerdown', 'pointermove'], (event: Event) => {
  if (event.type !== 'pointermove' || (event as PointerEvent).buttons) player.yieldToHand();
}, { passive: true, capture: true });
const settle = () => void store.flush();
onMounted(() => addEventListener('pagehide', settle));
onBeforeUnmount(async () => {
  removeEventListener('pagehide', settle);
  if (player.playing) player.stop();
  player.shuttle(0);
  const shown = bench.view === 'picture' ? player.shown?.bitmap : undefined;
  if (shown?.width && !store.readOnly) await store.setPoster(await posterFrom(shown)).catch(() => undefined);
  await store.close();
});
</script>

<template>
  <div class="bench" @dragover.prevent @drop.prevent="drop">
    <Rail />
    <p v-if="store.readOnly" class="banner" role="status">This project is open in another tab. Here it can be looked at; it becomes editable when the other tab closes it.</p>
    <Splitpanes v-if="ready && bench.shot" horizontal class="panes">
      <Pane :size="100 - (236 / tall) * 100" :min-size="40">
        <Splitpanes>
          <Pane :size="(208 / wide) * 100" :min-size="10"><StockPanel /></Pane>
          <Pane :size="100 - ((208 + 292) / wide) * 100" :min-size="30">
            <div class="middle">
              <Viewer />
              <PassLine />
            </div>
          </Pane>
          <Pane :size="(292 / wide) * 100" :min-size="16"><DialsPanel /></Pane>
        </Splitpanes>
      </Pane>
      <Pane :size="(236 / tall) * 100" :min-size="16"><TimePanel /></Pane>
    </Splitpanes>
    <NewShot v-else-if="ready" first />
    <div v-else class="loading" role="status">Opening the project… <v-progress-linear indeterminate color="primary" height="2" /></div>
    <FirstClip />
  </div>
</template>

<style scoped>
.bench {
  display: flex;
  flex-direction: column;
  height: 100vh;
  overflow: clip; /* hidden could still be scrolled by what gets the focus */
}
.panes {
  flex: 1;
  min-height: 0;
}
.middle {
  display: grid;
  grid-template-rows: 1fr auto;
  height: 100%;
  min-width: 0;
}
.banner {
  padding: 6px 14px;
  background: var(--brass-soft);
  border-bottom: 1px solid var(--line);
}
.loading {
  width: 320px;
  margin: 20vh auto;
}
</style>
