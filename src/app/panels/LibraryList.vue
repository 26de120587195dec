<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { z } from 'zod';
import { mdiDownload } from '@mdi/js';
import IconButton from '../controls/IconButton.vue';
import { useImports } from '../stores/imports';

/** The library that ships with the server: search, preview, take into the project. */
const catalogueSchema = z.array(
  z.object({
    file: z.string().regex(/^[\w.-]+$/),
    name: z.string(),
    kind: z.enum(['video', 'image', 'sound']),
    about: z.string(),
  }),
);
const entries = ref<z.infer<typeof catalogueSchema>>([]);
const problem = ref<string | null>(null);
const wish = ref('');
const shown = ref<string | null>(null);
const imports = useImports();

const found = computed(() =>
  entries.value.filter((entry) =>
    `${entry.name} ${entry.about}`.toLowerCase().includes(wish.value.trim().toLowerCase()),
  ),
);

onMounted(async () => {
  try {
    entries.value = catalogueSchema.parse(await (await fetch('/library/catalogue.json')).json());
  } catch {
    problem.value = 'The library cannot be reached. Start Jackplane with its own server: npm start.';
  }
});
async function take(file: string): Promise<void> {
  const response = await fetch(`/library/${file}`);
  if (!response.ok) problem.value = `“${file}” is not in the library any more.`;
  else await imports.take([new File([await response.blob()], file)]);
}
</script>

<template>
  <div class="library">
    <v-text-field
      v-model="wish"
      class="field"
      single-line
      hide-details
      clearable
      placeholder="Search the library"
      aria-label="Search the library"
    />
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-else-if="!found.length" class="dim">Nothing matches “{{ wish }}”.</p>
    <div v-for="entry in found" :key="entry.file" class="entry">
      <button
        class="name"
        :aria-expanded="shown === entry.file"
        @click="shown = shown === entry.file ? null : entry.file"
      >
        <strong>{{ entry.name }}</strong><span class="dim">{{ entry.about }}</span>
      </button>
      <IconButton :label="`Take ${entry.name} into the project`" :icon="mdiDownload" @click="take(entry.file)" />
      <template v-if="shown === entry.file">
        <img v-if="entry.kind === 'image'" :src="`/library/${entry.file}`" :alt="entry.about" />
        <video v-else-if="entry.kind === 'video'" :src="`/library/${entry.file}`" muted autoplay loop />
        <audio v-else :src="`/library/${entry.file}`" controls />
      </template>
    </div>
  </div>
</template>

<style scoped>
.library {
  display: grid;
  gap: 6px;
  padding: 8px;
}
input {
  padding: 4px 8px;
  background: var(--well);
  border: 1px solid var(--line);
  border-radius: 3px;
  color: inherit;
}
.entry {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  padding: 4px;
}
.entry:hover {
  background: var(--raised);
}
.name {
  display: grid;
  text-align: left;
}
.name .dim {
  font-size: 0.75rem;
}
img,
video,
audio {
  grid-column: 1 / -1;
  width: 100%;
  max-height: 8.75rem;
  object-fit: contain;
  background: var(--surround);
}
</style>
