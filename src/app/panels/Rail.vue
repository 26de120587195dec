<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { refAutoReset } from '@vueuse/core';
import {
  mdiChevronDown,
  mdiFileDownloadOutline,
  mdiHelpCircleOutline,
  mdiRedo,
  mdiThemeLightDark,
  mdiUndo,
} from '@mdi/js';
import { shownIn } from '../../core/document/edits/groups';
import type { Shot, ShotId } from '../../core/document/schema';
import { removeShot, renameProject } from '../../core/document/edits/project';
import { rateLabel } from '../../core/time/rate';
import { timecode } from '../../core/time/timecode';
import Icon from '../controls/Icon.vue';
import IconButton from '../controls/IconButton.vue';
import { sameItems } from '../base/same';
import TextField from '../controls/TextField.vue';
import { ask, useAnswer } from '../base/asks';
import { useBench } from '../stores/bench';
import { usePlayhead } from '../stores/playhead';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { copyOfOpen } from '../stores/project-files';
import { download, useRenders } from '../stores/renders';
import { useLook } from '../theme/look';
import HistoryList from './HistoryList.vue';
import Mark from './Mark.vue';
import NewShot from './NewShot.vue';
import RenderDialog from './RenderDialog.vue';
import SearchBox from '../search/SearchBox.vue';

const store = useProject();
const bench = useBench();
const playhead = usePlayhead();
const renders = useRenders();
const notices = useNotices();
const { toggle } = useLook();
const adding = ref(false);
const editing = ref(false);
const rendering = ref(false);

useAnswer('save-copy', () => void saveCopy());
useAnswer('look', toggle);
useAnswer('new-shot', () => (adding.value = true));
useAnswer('shot-settings', () => (editing.value = true));
useAnswer('render', () => (rendering.value = !!bench.shot));

const facts = computed(() => {
  const { shot } = bench;
  return shot ? `${shot.width}×${shot.height} · ${rateLabel(shot.rate)} · ${timecode(shot.length, shot.rate)}` : '';
});
const kept = computed(() => {
  if (store.keeping.state === 'failed') return 'Not kept';
  if (store.readOnly) return 'Looking only';
  if (store.keeping.state === 'keeping') return 'Keeping…';
  return store.keptAt
    ? `All kept · ${store.keptAt.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`
    : 'All kept';
});
/** What was undone is said where the state of keeping stands, for a while and while all is well. */
const MOVED_FOR = 5000;
const justMoved = refAutoReset('', MOVED_FOR);
watch(
  () => store.moved,
  (moved) => (justMoved.value = moved ?? ''),
);
const moved = computed(() => (store.keeping.state === 'failed' ? '' : justMoved.value));
const lastStep = computed(() => store.undoStep?.name);
const nextStep = computed(() => store.redoStep?.name);
const jobs = computed(() => renders.jobs.filter((job) => job.state !== 'failed').length);

function rename(text: string): void {
  const name = text.trim();
  if (name && name !== store.project?.name) store.edit(renameProject(name));
}
/** Groups are opened from the layers that show them. */
const shots = computed<readonly { id: ShotId; name: string }[]>((before) =>
  sameItems(
    (store.project?.shots ?? []).filter((shot) => !shot.within).map(({ id, name }) => ({ id, name })),
    before,
  ),
);
const open = computed(() => !!bench.shot);
const called = computed(() => bench.shot?.name ?? 'no shot');
const projectName = computed(() => store.project?.name ?? null);
/** the open shot can be deleted */
const removable = computed(() => !!bench.shot && !bench.shot.within && shots.value.length > 1);
/** The shots that the open group lies in, the outermost first. */
const around = computed<readonly { id: ShotId; name: string }[]>((before) => {
  const out: Shot[] = [];
  for (let shot = bench.shot; shot?.within && out.length < 40; shot = out[0] ?? null) {
    const outer = store.project?.shots.find((item) => item.id === shot!.within);
    if (!outer || out.includes(outer)) break;
    out.unshift(outer);
  }
  return sameItems(
    out.map(({ id, name }) => ({ id, name })),
    before,
  );
});
function remove(): void {
  const { shot } = bench;
  if (!shot) return;
  const users = shownIn(store.current(), shot.id);
  if (users.length)
    return notices.say(`${shot.name} is shown as a group in ${users.join(', ')}; delete it there first.`, 'problem');
  store.edit(removeShot(store.current(), shot.id));
}

/** Everything of the project as it is in this tab, kept or not. */
async function saveCopy(): Promise<void> {
  try {
    download(...(await copyOfOpen()));
  } catch (error) {
    notices.problem(error);
  }
}
</script>

<template>
  <header class="rail">
    <router-link to="/" class="brand" aria-label="Jackplane: all projects"><Mark /><span>Jackplane</span></router-link>
    <template v-if="projectName !== null">
      <TextField
        class="project"
        label="Project name"
        :value="projectName"
        :style="{ width: `${Math.max(6, projectName.length) + 3}ch` }"
        :disabled="store.readOnly"
        @change="rename"
      />
      <span class="dim">/</span>
      <template v-for="outer in around" :key="outer.id">
        <v-btn
          size="small"
          variant="text"
          class="shot"
          :aria-label="`Back to ${outer.name}`"
          @click="playhead.step(outer.id)"
        >
          {{ outer.name }}
        </v-btn>
        <span class="dim">›</span>
      </template>
      <v-menu>
        <template #activator="{ props: menu }">
          <v-btn size="small" variant="text" v-bind="menu" class="shot" :aria-label="`Shot: ${called}`" :title="called">
            <span class="called">{{ called }}</span> <Icon :path="mdiChevronDown" />
          </v-btn>
        </template>
        <v-list>
          <v-list-item
            v-for="shot in shots"
            :key="shot.id"
            :title="shot.name"
            :active="shot.id === bench.shotId"
            @click="bench.openShot(shot.id)"
          />
          <v-divider />
          <v-list-item title="New shot…" @click="adding = true" />
          <v-list-item v-if="open" title="Shot settings…" @click="editing = true" />
          <v-list-item v-if="removable" :title="`Delete ${called}`" @click="remove" />
        </v-list>
      </v-menu>
      <span class="mono dim facts">{{ facts }}</span>
    </template>
    <SearchBox class="search" />
    <IconButton
      :label="lastStep ? `Undo: ${lastStep}` : 'Undo'"
      keys="Ctrl+Z"
      :icon="mdiUndo"
      :disabled="lastStep === undefined"
      @click="store.undo()"
    />
    <IconButton
      :label="nextStep ? `Redo: ${nextStep}` : 'Redo'"
      keys="Ctrl+Shift+Z"
      :icon="mdiRedo"
      :disabled="nextStep === undefined"
      @click="store.redo()"
    />
    <HistoryList />
    <span v-show="moved" class="moved dim" role="status" aria-label="Undone or done again" :title="moved">{{
      moved
    }}</span>
    <span
      v-show="!moved"
      class="kept"
      :class="{ problem: store.keeping.state === 'failed' }"
      role="status"
      :title="store.keeping.state === 'failed' ? store.keeping.problem : undefined"
      >{{ kept }}</span
    >
    <IconButton
      v-if="projectName !== null"
      label="Save a copy as a file"
      :class="{ problem: store.keeping.state === 'failed' }"
      :icon="mdiFileDownloadOutline"
      @click="saveCopy"
    />
    <IconButton label="Shortcuts" keys="?" :icon="mdiHelpCircleOutline" @click="ask('shortcuts')" />
    <IconButton label="Evening or daylight look" :icon="mdiThemeLightDark" @click="toggle" />
    <v-btn variant="text" to="/renders" class="to-renders"
      >Renders<span v-if="jobs" class="count mono">{{ jobs }}</span></v-btn
    >
    <v-btn color="primary" variant="flat" :disabled="!open" @click="rendering = true">Render…</v-btn>
    <NewShot v-if="adding" @close="adding = false" />
    <NewShot v-if="editing && open" :shot="bench.shot!" @close="editing = false" />
    <RenderDialog v-if="rendering && open" @close="rendering = false" />
  </header>
</template>

<style scoped>
.rail {
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 4px 8px;
  min-height: 2.75rem;
  flex: none;
  padding: 4px 12px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  white-space: nowrap;
}
.brand {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 1.5rem;
  min-width: 1.5rem;
  margin-right: 8px;
  font-weight: 650;
  font-size: 0.9375rem;
  color: inherit;
  text-decoration: none;
}
.project {
  flex: none;
  max-width: 11.25rem;
}
.project:not(:hover, :focus-within) :deep(.v-field) {
  background: none;
}
.project:not(:hover, :focus-within) :deep(.v-field__outline) {
  opacity: 0;
}
.shot {
  display: flex;
  align-items: center;
  min-height: 1.5rem;
  font-weight: 650;
}
/* a long name gives way, so that all stays in one row */
.called {
  max-width: 8rem;
  overflow: hidden;
  text-overflow: ellipsis;
}
.shot svg {
  width: 1rem;
  fill: currentColor;
}
.facts {
  font-size: 0.75rem;
  margin-left: 4px;
}
.search {
  flex: 1 1 8rem;
  max-width: 16rem;
  margin: 0 auto;
}
.moved {
  flex: none;
  max-width: 9.5rem;
  overflow: hidden;
  font-size: 0.75rem;
  text-overflow: ellipsis;
}
.kept {
  font-size: 0.75rem;
  color: var(--dim);
  min-width: 6rem;
  text-align: right;
}
.kept.problem {
  color: var(--red);
}
.count {
  margin-left: 6px;
  color: var(--brass);
}
@media (width < 1260px) {
  .facts,
  .brand span {
    display: none;
  }
}
</style>
