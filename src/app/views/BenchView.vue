<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useEventListener, useStorage } from '@vueuse/core';
import { Pane, Splitpanes } from 'splitpanes';
import { rem } from '../controls/rem';
import DialsPanel from '../panels/DialsPanel.vue';
import FirstClip from '../panels/FirstClip.vue';
import NewShot from '../panels/NewShot.vue';
import PassLine from '../panels/PassLine.vue';
import Rail from '../panels/Rail.vue';
import StockPanel from '../panels/StockPanel.vue';
import TimePanel from '../panels/TimePanel.vue';
import Viewer from '../panels/Viewer.vue';
import { useShortcuts } from '../keyboard/shortcuts';
import { posterFrom } from '../stores/project-files';
import { useViewing } from '../stores/viewing';
import { useBench } from '../stores/bench';
import { useImports } from '../stores/imports';
import { useNotices } from '../stores/notices';
import { usePlayer } from '../stores/player';
import { useReady } from '../stores/ready';
import { useShown } from '../stores/shown';
import { useProject } from '../stores/project';

const route = useRoute();
const router = useRouter();
const store = useProject();
const bench = useBench();
const viewing = useViewing();
const player = usePlayer();
const ready = useReady();
const shown = useShown();
const imports = useImports();
const notices = useNotices();
const opened = ref(false);
/** Sizes of the panes in percent: the upper part; stock and dials. Kept in the browser. */
const wide = window.innerWidth;
const tall = window.innerHeight - rem(44);
const panes = useStorage('jackplane panes', {
  upper: 100 - (Math.min(rem(236), tall * 0.45) / tall) * 100,
  stock: (Math.min(rem(208), wide * 0.22) / wide) * 100,
  dials: (Math.min(rem(292), wide * 0.36) / wide) * 100,
});
const LEAST = { upper: 40, stock: 10, dials: 16 };
const MOST = { upper: 84, stock: 40, dials: 45 };
const bounded = (name: keyof typeof LEAST, size: number) =>
  (panes.value[name] = Math.min(MOST[name], Math.max(LEAST[name], size)));
function resized(event: { panes: { size: number }[] }, names: readonly (keyof typeof LEAST | null)[]): void {
  event.panes.forEach(({ size }, i) => names[i] && bounded(names[i], size));
}
/** The dividers can be moved by arrow keys. */
const dividers = useTemplateRef<HTMLElement>('root');
function nameDividers(): void {
  const named = [
    ['horizontal', 'Height of the time panel'],
    ['stock', 'Width of the stock'],
    ['dials', 'Width of the dials'],
  ] as const;
  const found = [...(dividers.value?.querySelectorAll<HTMLElement>('.splitpanes__splitter') ?? [])];
  const inner = found.filter((element) => element.parentElement!.classList.contains('splitpanes--vertical'));
  const outer = found.find((element) => element.parentElement!.classList.contains('splitpanes--horizontal'));
  [outer, ...inner].forEach((element, i) => {
    if (!element || element.dataset['named']) return;
    element.dataset['named'] = 'true';
    const size = () => Math.round([panes.value.upper, panes.value.stock, panes.value.dials][i]!);
    const attributes = {
      tabindex: 0,
      role: 'separator',
      'aria-label': named[i]![1],
      'aria-orientation': i ? 'vertical' : 'horizontal',
      'aria-valuemin': 0,
      'aria-valuemax': 100,
      'aria-valuenow': size(),
    };
    Object.entries(attributes).forEach(([attribute, value]) => element.setAttribute(attribute, String(value)));
    element.addEventListener('keydown', (event) => {
      const by = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[event.key];
      if (!by) return;
      event.preventDefault();
      event.stopPropagation();
      if (i === 0) bounded('upper', panes.value.upper + by);
      else if (i === 1) bounded('stock', panes.value.stock + by);
      else bounded('dials', panes.value.dials - by);
      element.setAttribute('aria-valuenow', String(size()));
    });
  });
}

useShortcuts();

watch(
  () => route.params['project'] as string | undefined,
  async (id) => {
    if (!id) return;
    opened.value = false;
    try {
      await store.open(id);
      const shots = store.project?.shots ?? [];
      bench.openShot((shots.find((shot) => shot.id === route.query['shot']) ?? shots[0])?.id ?? null);
      opened.value = true;
      void shown.refresh();
      void ready.fill();
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
  (shot) => void (opened.value && shot && router.replace({ query: { shot } })),
);

function drop(event: DragEvent): void {
  if (event.dataTransfer?.files.length) void imports.take([...event.dataTransfer.files]);
}
// scrolling, wheeling and dragging have the processor to themselves
useEventListener(
  window,
  ['wheel', 'scroll', 'pointerdown', 'pointermove'],
  (event: Event) => {
    if (event.type !== 'pointermove' || (event as PointerEvent).buttons) ready.yieldToHand();
  },
  { passive: true, capture: true },
);
const settle = () => void store.flush();
onMounted(() => addEventListener('pagehide', settle));
onBeforeUnmount(async () => {
  removeEventListener('pagehide', settle);
  if (player.playing) player.stop();
  player.shuttle(0);
  const poster = viewing.view === 'picture' && !shown.picture?.part ? shown.picture?.bitmap : undefined;
  if (poster?.width && !store.readOnly) await store.setPoster(await posterFrom(poster)).catch(() => undefined);
  await store.close();
});
// names, so that the panes stay as they are while the shot changes
const projectName = computed(() => store.project?.name);
const shotName = computed(() => bench.shot?.name ?? null);
</script>

<template>
  <div ref="root" class="bench" @dragover.prevent @drop.prevent="drop">
    <Rail />
    <p v-if="store.readOnly" class="banner" role="status">
      This project is open in another tab. Here it can be looked at; it becomes editable when the other tab closes it.
    </p>
    <main v-if="opened && shotName !== null" class="panes">
      <h1 class="visually-hidden">{{ projectName }}: {{ shotName }}</h1>
      <Splitpanes horizontal @ready="nameDividers" @resized="resized($event, ['upper', null])">
        <Pane :size="panes.upper" :min-size="40">
          <Splitpanes @ready="nameDividers" @resized="resized($event, ['stock', null, 'dials'])">
            <Pane :size="panes.stock" :min-size="10"><StockPanel /></Pane>
            <Pane :size="100 - panes.stock - panes.dials" :min-size="30">
              <div class="middle">
                <Viewer />
                <PassLine />
              </div>
            </Pane>
            <Pane :size="panes.dials" :min-size="16"><DialsPanel /></Pane>
          </Splitpanes>
        </Pane>
        <Pane :size="100 - panes.upper" :min-size="16"><TimePanel /></Pane>
      </Splitpanes>
    </main>
    <NewShot v-else-if="opened" first />
    <div v-else class="loading" role="status">
      Opening the project…
      <v-progress-linear aria-label="Opening the project" indeterminate color="primary" height="2" />
    </div>
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
