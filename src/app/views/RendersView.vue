<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue';
import { useIntervalFn } from '@vueuse/core';
import SiteHead from '../panels/SiteHead.vue';
import type { RenderRecord } from '../storage/db';
import { useNotices } from '../stores/notices';
import { download, useRenders, type RenderJob } from '../stores/renders';

const renders = useRenders();
const notices = useNotices();
const now = ref(Date.now());
const playing = ref<{ id: string; url: string } | null>(null);
useIntervalFn(() => (now.value = Date.now()), 500);
onMounted(() => renders.load().catch(notices.problem));

function left(job: RenderJob): string {
  if (job.state !== 'running' || !job.done) return '';
  const seconds = Math.ceil(((now.value - job.started) / job.done / 1000) * (job.frames - job.done));
  return ` · about ${seconds} s left`;
}
function watchIt(record: RenderRecord): void {
  stop();
  playing.value = { id: record.id, url: URL.createObjectURL(record.result.blob) };
}
function stop(): void {
  if (playing.value) URL.revokeObjectURL(playing.value.url);
  playing.value = null;
}
onBeforeUnmount(stop);
const isPicture = ({ result }: RenderRecord): boolean => result.blob.type.startsWith('image/');
const facts = (record: RenderRecord) => {
  const { result } = record;
  return isPicture(record)
    ? `${result.width}×${result.height} · one frame · ${result.videoCodec} · ${(result.blob.size / 1e6).toFixed(1)} MB`
    : `${result.width}×${result.height} · ${result.frames} frames · ${result.seconds.toFixed(2)} s · ${result.videoCodec}${result.soundCodec ? ` + ${result.soundCodec}` : ''} · ${(result.blob.size / 1e6).toFixed(1)} MB`;
};
</script>

<template>
  <SiteHead>
    <main class="page">
      <h1>Renders</h1>
      <section v-if="renders.jobs.length" aria-label="Queue">
        <div v-for="job in renders.jobs" :key="job.id" class="row">
          <div>
            <strong>{{ job.name }}</strong>
            <span v-if="job.problem" class="problem">{{ job.problem }}</span>
            <span v-else class="mono dim">{{
              job.state === 'waiting' ? 'waiting' : `frame ${job.done} of ${job.frames}${left(job)}`
            }}</span>
            <v-progress-linear
              :aria-label="`Rendering ${job.name}`"
              v-if="!job.problem"
              :model-value="(100 * job.done) / job.frames"
              color="primary"
              height="3"
            />
          </div>
          <v-btn size="small" @click="renders.cancel(job.id)">{{ job.problem ? 'Close' : 'Cancel' }}</v-btn>
        </div>
      </section>
      <section aria-label="Finished files">
        <div v-for="record in renders.finished" :key="record.id" class="row">
          <div>
            <strong>{{ record.name }}</strong> <span class="dim">from {{ record.project }}</span>
            <span class="mono dim">{{ facts(record) }}</span>
            <img
              v-if="playing?.id === record.id && isPicture(record)"
              :src="playing.url"
              :alt="`${record.name}, as it was written`"
            />
            <video v-else-if="playing?.id === record.id" :src="playing.url" controls autoplay />
          </div>
          <span class="tools">
            <v-btn size="small" @click="playing?.id === record.id ? stop() : watchIt(record)">{{
              playing?.id === record.id ? 'Close' : isPicture(record) ? 'Look' : 'Watch'
            }}</v-btn>
            <v-btn size="small" color="primary" variant="flat" @click="download(record.result.blob, record.name)"
              >Save file</v-btn
            >
            <v-btn size="small" @click="renders.remove(record.id)">Delete</v-btn>
          </span>
        </div>
        <p v-if="!renders.finished.length && !renders.jobs.length" class="dim">
          No renders yet. Open a shot and choose Render.
        </p>
      </section>
    </main>
  </SiteHead>
</template>

<style scoped>
.page {
  max-width: 900px;
  margin: 0 auto;
  padding: 28px 24px;
}
h1 {
  margin-bottom: 16px;
  font-size: 1.375rem;
  font-weight: 650;
}
.row {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 16px;
  align-items: center;
  padding: 12px;
  margin-bottom: 8px;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.row .mono {
  display: block;
  margin-top: 3px;
  font-size: 0.75rem;
}
.problem {
  display: block;
}
.tools {
  display: flex;
  gap: 6px;
}
video {
  display: block;
  width: 100%;
  max-height: 26.25rem;
  margin-top: 8px;
}
</style>
