<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { mdiDelete, mdiFileAlertOutline, mdiFileDownloadOutline } from '@mdi/js';
import { newProject } from '../../core/document/edits/project';
import type { ProjectId } from '../../core/document/schema';
import { vFirstFocus } from '../controls/first-focus';
import IconButton from '../controls/IconButton.vue';
import FilePick from '../controls/FilePick.vue';
import SiteHead from '../panels/SiteHead.vue';
import { newId } from '../base/ids';
import { exportProject, openDemo, openProjectFile } from '../stores/project-files';
import { removeMedia, strayMedia } from '../storage/media';
import {
  createProject,
  deleteProject,
  listAsides,
  listProjects,
  storedOriginal,
  type ProjectCard,
} from '../storage/projects';
import { download } from '../stores/renders';
import { useNotices } from '../stores/notices';

const router = useRouter();
const notices = useNotices();
const cards = ref<(ProjectCard & { url: string | null })[]>([]);
const storage = ref<{ used: number; total: number } | null>(null);
const stray = ref<Awaited<ReturnType<typeof strayMedia>> | null>(null);
/** ids of projects of which an unreadable original is kept */
const asides = ref<string[]>([]);
const busy = ref<string | null>(null);
const naming = ref(false);
const name = ref('');
const deleting = ref<ProjectCard | null>(null);
const picker = ref<InstanceType<typeof FilePick>>();

async function refresh(): Promise<void> {
  cards.value.forEach((card) => card.url && URL.revokeObjectURL(card.url));
  cards.value = (await listProjects()).map((card) => ({
    ...card,
    url: card.poster && URL.createObjectURL(card.poster),
  }));
  const { usage = 0, quota = 0 } = await navigator.storage.estimate();
  storage.value = { used: usage, total: quota };
  stray.value = await strayMedia();
  asides.value = await listAsides();
}

/** Runs with a line saying what is going on; trouble is said and leaves everything as it was. */
async function during(what: string, work: () => Promise<void>): Promise<void> {
  busy.value = what;
  try {
    await work();
  } catch (error) {
    notices.problem(error);
  }
  busy.value = null;
  await refresh().catch(notices.problem);
}

const create = () =>
  during('Making the project', async () => {
    const project = newProject(newId<ProjectId>(), name.value.trim() || 'Untitled', new Date().toISOString());
    await createProject(project);
    naming.value = false;
    await router.push({ name: 'bench', params: { project: project.id } });
  });

async function openFiles([file]: readonly File[]): Promise<void> {
  if (file) await during(`Opening ${file.name}`, async () => void (await openProjectFile(file)));
}

const loadDemo = () => during('Opening the demo', openDemo);
const save = (card: ProjectCard) =>
  during(`Writing ${card.name}`, async () => download(...(await exportProject(card.id))));
const remove = (card: ProjectCard) =>
  during(`Deleting ${card.name}`, () => deleteProject(card.id, card.name)).then(() => (deleting.value = null));

const original = (card: ProjectCard) =>
  during(`Writing the original of ${card.name}`, async () =>
    download(new Blob([await storedOriginal(card.id)], { type: 'application/json' }), `${card.name} original.json`),
  );
const tidy = () => during('Removing what belongs to no project', () => removeMedia(stray.value?.keys ?? []));

const megabytes = (bytes: number) =>
  bytes >= 1e9 ? `${(bytes / 1e9).toFixed(1)} GB` : `${Math.round(bytes / 1e6)} MB`;
const day = (iso: string) =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

onMounted(() =>
  during('Looking for projects', async () => {
    const settings = await fetch('/settings.json').then(
      (response) => response.json() as Promise<{ openDemo?: boolean }>,
      () => null,
    );
    if (!settings?.openDemo || (await listProjects()).length > 0) return;
    busy.value = 'Opening the demo';
    await openDemo();
  }),
);
</script>

<template>
  <SiteHead>
    <main class="page">
      <div class="top">
        <h1>Projects</h1>
        <span class="actions">
          <v-btn color="primary" variant="flat" @click="((name = ''), (naming = true))">New project</v-btn>
          <v-btn @click="picker?.pick()">Open file…</v-btn>
          <v-btn :disabled="busy === 'Opening the demo'" @click="loadDemo">Open the demo</v-btn>
        </span>
        <FilePick ref="picker" label="Project file" accept=".jackplane" @files="openFiles" />
      </div>
      <div v-if="busy" class="busy" role="status">
        {{ busy }}… <v-progress-linear :aria-label="busy" indeterminate color="primary" height="2" />
      </div>
      <ul v-if="cards.length" class="cards">
        <li v-for="card in cards" :key="card.id" class="card">
          <router-link :to="{ name: 'bench', params: { project: card.id } }" :aria-label="`Open ${card.name}`">
            <img v-if="card.url" :src="card.url" alt="" />
            <span v-else class="blank dim">no picture yet</span>
          </router-link>
          <div class="facts">
            <span>
              <strong>{{ card.name }}</strong>
              <span class="dim mono small">{{ day(card.modified) }} · {{ megabytes(card.bytes) }}</span>
            </span>
            <span class="tools">
              <IconButton
                v-if="asides.includes(card.id)"
                :label="`Save the unreadable original of ${card.name}`"
                :icon="mdiFileAlertOutline"
                @click="original(card)"
              />
              <IconButton :label="`Save ${card.name} as a file`" :icon="mdiFileDownloadOutline" @click="save(card)" />
              <IconButton :label="`Delete ${card.name}`" :icon="mdiDelete" @click="deleting = card" />
            </span>
          </div>
        </li>
      </ul>
      <p v-else-if="!busy" class="empty dim">
        Nothing here yet. Make a project and drop footage into it, or open the demo and look at how a shot is built.
      </p>
      <p v-if="stray?.keys.length" class="storage" role="note">
        <span class="mono">{{ megabytes(stray.bytes) }}</span> of media belong to no project; an import or an opening
        was cut short.
        <v-btn size="small" @click="tidy">Remove them</v-btn>
      </p>
      <p v-if="storage" class="dim storage">
        Stored in this browser: <span class="mono">{{ megabytes(storage.used) }}</span> of
        <span class="mono">{{ megabytes(storage.total) }}</span> available
      </p>
    </main>
    <v-dialog v-model="naming" aria-label="New project">
      <v-card title="New project">
        <v-card-text>
          <form @submit.prevent="create">
            <v-text-field v-model="name" v-first-focus label="Name" maxlength="200" />
            <div class="choices">
              <v-btn variant="text" @click="naming = false">Cancel</v-btn>
              <v-btn type="submit" color="primary" variant="flat">Make it</v-btn>
            </div>
          </form>
        </v-card-text>
      </v-card>
    </v-dialog>
    <v-dialog :model-value="deleting !== null" aria-label="Delete project" @update:model-value="deleting = null">
      <v-card v-if="deleting" :title="`Delete “${deleting.name}”?`">
        <v-card-text>
          The project and its media leave this browser and cannot be brought back. Save it as a file first if you may
          want it again.
          <div class="choices">
            <v-btn variant="text" @click="deleting = null">Keep it</v-btn>
            <v-btn color="error" variant="flat" @click="remove(deleting)">Delete</v-btn>
          </div>
        </v-card-text>
      </v-card>
    </v-dialog>
  </SiteHead>
</template>

<style scoped>
.page {
  max-width: 1100px;
  margin: 0 auto;
  padding: 28px 24px;
}
.top {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 20px;
}
h1 {
  font-size: 1.375rem;
  font-weight: 650;
}
.actions {
  display: flex;
  gap: 8px;
}
.busy {
  margin-bottom: 16px;
}
.cards {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(17.5rem, 1fr));
  gap: 16px;
}
.card {
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
  overflow: hidden;
}
.card:hover {
  border-color: var(--dim);
}
.card a {
  display: block;
  aspect-ratio: 16/9;
  background: var(--surround);
}
.card img,
.blank {
  width: 100%;
  height: 100%;
  object-fit: cover;
  display: grid;
  place-items: center;
}
.facts {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 10px 8px 10px 12px;
}
.facts > span:first-child {
  display: grid;
  gap: 2px;
}
.tools {
  display: flex;
}
.small {
  font-size: 0.75rem;
}
.storage {
  margin-top: 24px;
  font-size: 0.75rem;
}
.empty {
  padding: 48px 0;
}
.choices {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 16px;
}
</style>
