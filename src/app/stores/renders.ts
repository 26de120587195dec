import { rangeOf } from '../../core/document/edits/markers';
import { defineStore } from 'pinia';
import { computed, ref, toRaw } from 'vue';
import { shotIn } from '../../core/document/find';
import type { Project, ShotId } from '../../core/document/schema';
import { JackplaneError, sentenceOf } from '../../core/base/errors';
import { withEnding } from '../../core/formats/names';
import { planFrame } from '../../core/plan/plan';
import { useEngine } from '../../engine/client';
import type { RenderSettings } from '../../engine/types';
import { newId } from '../base/ids';
import type { RenderRecord } from '../storage/db';
import { deleteRender, listRenders, storeRender } from '../storage/media';
import { useNotices } from './notices';
import { letGo, takeMedia } from './open-media';

export interface RenderJob {
  id: string;
  name: string;
  state: 'waiting' | 'running' | 'failed';
  done: number;
  frames: number;
  started: number;
  problem: string | null;
  project: Project;
  shot: ShotId;
  settings: RenderSettings;
}

/** The render queue and the finished files. */
export const useRenders = defineStore('renders', () => {
  const notices = useNotices();
  const jobs = ref<RenderJob[]>([]);
  const finished = ref<RenderRecord[]>([]);
  const running = computed(() => jobs.value.find((job) => job.state === 'running') ?? null);

  async function load(): Promise<void> {
    finished.value = await listRenders();
  }

  function queue(project: Project, shot: ShotId, name: string, settings: RenderSettings): void {
    const { from, to } = rangeOf(shotIn(project, shot));
    jobs.value.push({
      id: newId(),
      name: withEnding(name, settings.container),
      state: 'waiting',
      done: 0,
      frames: to - from,
      started: 0,
      problem: null,
      project,
      shot,
      settings,
    });
    void work();
  }

  async function work(): Promise<void> {
    const job = jobs.value.find((entry) => entry.state === 'waiting');
    if (running.value || !job) return;
    job.state = 'running';
    job.started = Date.now();
    try {
      const engine = await useEngine();
      await takeMedia(job.project);
      const result = await engine.render(toRaw(job.project), job.shot, { ...job.settings }, (done) => {
        const live = jobs.value.find((entry) => entry.id === job.id);
        if (live) live.done = done;
      });
      await keep({ id: job.id, project: job.project.name, name: job.name, made: new Date().toISOString(), result });
      jobs.value = jobs.value.filter((entry) => entry.id !== job.id);
      notices.say(
        `“${job.name}” is written and checked: ${result.frames} frames, ${(result.blob.size / 1e6).toFixed(1)} MB.`,
        'news',
        { label: 'Download', run: () => download(result.blob, job.name) },
      );
    } catch (error) {
      const gone = error instanceof JackplaneError && error.code === 'cancelled';
      if (gone) jobs.value = jobs.value.filter((entry) => entry.id !== job.id);
      else {
        job.state = 'failed';
        job.problem = sentenceOf(error);
        notices.say(`“${job.name}” was not written: ${job.problem}`, 'problem');
      }
    } finally {
      await letGo(job.project);
    }
    void work();
  }

  /** Keeps a file that is written where all of them are. */
  async function keep(record: RenderRecord): Promise<void> {
    await storeRender(record);
    finished.value = [record, ...finished.value];
  }

  /** Writes one frame of a shot as PNG, keeps it with the other files and hands it to the download. */
  async function writeFrame(project: Project, shot: ShotId, frame: number, name: string): Promise<void> {
    const { width, height } = shotIn(project, shot);
    const blob = await (await useEngine()).png(planFrame(project, shot, frame));
    const file = withEnding(name, 'png');
    const result = { blob, width, height, frames: 1, seconds: 0, videoCodec: 'png', soundCodec: null };
    await keep({ id: newId(), project: project.name, name: file, made: new Date().toISOString(), result });
    download(blob, file);
    notices.say(
      `“${file}” is written: frame ${frame}, ${(blob.size / 1e6).toFixed(1)} MB. It is among the renders too.`,
    );
  }

  async function cancel(id: string): Promise<void> {
    const job = jobs.value.find((entry) => entry.id === id);
    if (job?.state === 'running') await (await useEngine()).cancelRender();
    else jobs.value = jobs.value.filter((entry) => entry.id !== id);
  }

  async function remove(id: string): Promise<void> {
    await deleteRender(id);
    finished.value = finished.value.filter((entry) => entry.id !== id);
  }

  return { jobs, finished, running, load, queue, writeFrame, cancel, remove };
});

/** Hands a file to the browser's download. */
export function download(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
