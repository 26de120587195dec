import { safeName } from '../../core/formats/names';
import { PROJECT_ENDING } from '../../core/formats/project-file';
import { leftOut } from '../../core/document/salvage';
import type { Project, ProjectId, Stock } from '../../core/document/schema';
import { JackplaneError, sentenceOf } from '../../core/base/errors';
import { planFrame } from '../../core/plan/plan';
import { useEngine } from '../../engine/client';
import { newId } from '../base/ids';
import { useNotices } from './notices';
import { useProject } from './project';
import type { MediaRecord } from '../storage/db';
import { mediaOf, storeMedia } from '../storage/media';
import { createProject, hasProject, loadProject, lockName } from '../storage/projects';

/** A project opens without a picture of it when that takes longer, in milliseconds. */
const POSTER_PATIENCE = 10_000;
/** Files that are looked into at the same time. */
const LANES = 4;

/** Takes a project file into this browser, beside what is here. @throws JackplaneError */
export async function openProjectFile(file: File): Promise<Project> {
  const { project: read, media, left } = await (await useEngine()).unpack(file);
  if (left.length)
    useNotices().say(
      `“${file.name}” was opened without what could not be read: ${leftOut(left)}. The file stays as it is.`,
      'problem',
    );
  const taken = await hasProject(read.id);
  const project: Project = taken
    ? { ...read, id: newId<ProjectId>(), name: `${read.name} (copy)`.slice(0, 200) }
    : read;
  // as long as the lock is held, its media is not taken for somebody's leavings
  return navigator.locks.request(lockName(project.id), async () => {
    const waiting = [...project.stock];
    const lane = async () => {
      for (let item = waiting.shift(); item; item = waiting.shift()) {
        const data = media.get(item.id);
        if (data) await keepMedia(project, item, data);
      }
    };
    await Promise.all(Array.from({ length: LANES }, lane));
    const late = new Promise<null>((resolve) => setTimeout(() => resolve(null), POSTER_PATIENCE));
    await createProject(project, await Promise.race([makePoster(project).catch(() => null), late]));
    return project;
  });
}

async function keepMedia(project: Project, item: Stock, data: Blob): Promise<void> {
  const file = new File([data], item.file);
  try {
    const { poster, peaks } = await (await useEngine()).glance(file);
    await storeMedia({ project: project.id, stock: item.id, file, poster, peaks }, item.name);
  } catch (error) {
    if (error instanceof JackplaneError && error.code === 'storage') throw error;
    useNotices().say(`${sentenceOf(error)} “${item.name}” shows as missing until you link it again.`, 'problem');
  }
}

/** The first shot's middle frame, for the projects page. */
async function makePoster(project: Project): Promise<Blob | null> {
  const shot = project.shots[0];
  if (!shot) return null;
  const engine = await useEngine();
  const media = await mediaOf(project.id);
  for (const record of media) await engine.openStock(record.stock, record.file, record.stock);
  try {
    const { bitmap } = await engine.frame(
      planFrame(project, shot.id, Math.floor(shot.length / 2), { reduction: 2 }),
      'picture',
    );
    return await posterFrom(bitmap);
  } finally {
    for (const record of media) await engine.closeStock(record.stock);
  }
}

export async function posterFrom(bitmap: ImageBitmap): Promise<Blob> {
  const canvas = new OffscreenCanvas(480, Math.round((480 * bitmap.height) / bitmap.width));
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return canvas.convertToBlob({ type: 'image/webp', quality: 0.85 });
}

/** @returns the project file and its name */
export async function exportProject(id: string): Promise<[Blob, string]> {
  const { history } = await loadProject(id);
  return packed(history.project, await mediaOf(id));
}

/** The open project as it is in this tab, whether it could be kept or not. @returns its file and its name */
export function copyOfOpen(): Promise<[Blob, string]> {
  const store = useProject();
  return packed(store.current(), [...store.media.values()]);
}

async function packed(project: Project, media: readonly MediaRecord[]): Promise<[Blob, string]> {
  const files = new Map(media.map((record) => [record.stock, record.file]));
  return [await (await useEngine()).pack(project, files), safeName(project.name) + PROJECT_ENDING];
}

let opening: Promise<void> | null = null;
/** Fetches the demo that ships with the server; asked again while it is being opened, it goes on with that. */
export function openDemo(): Promise<void> {
  opening ??= fetchDemo().finally(() => (opening = null));
  return opening;
}

async function fetchDemo(): Promise<void> {
  const name = `paper-harbour${PROJECT_ENDING}`;
  const remedy = 'Start Jackplane with: npm run demo';
  const data = await fetch(`/demo/${name}`).then(
    (response) => (response.ok ? response.blob() : null),
    () => {
      throw new JackplaneError('not-found', 'The demo could not be fetched: the server does not answer.', remedy);
    },
  );
  if (!data) throw new JackplaneError('not-found', 'The demo project is not on this server.', remedy);
  await openProjectFile(new File([data], name));
}
