import { safeName } from '../../core/formats/names';
import { PROJECT_ENDING } from '../../core/formats/project-file';
import type { Project, ProjectId, Stock } from '../../core/document/schema';
import { JackplaneError, sentenceOf } from '../../core/errors';
import { planFrame } from '../../core/plan/plan';
import { useEngine } from '../../engine/client';
import { newId } from '../ids';
import { useNotices } from '../stores/notices';
import { mediaOf, storeMedia } from './media';
import { createProject, fold, hasProject, loadProject } from './projects';

/** Files that are looked into at the same time. */
const LANES = 4;

/** Takes a project file into this browser, beside what is here. @throws JackplaneError */
export async function openProjectFile(file: File): Promise<Project> {
  const { project: read, media } = await (await useEngine()).unpack(file);
  const taken = await hasProject(read.id);
  const project: Project = taken ? { ...read, id: newId<ProjectId>(), name: `${read.name} (copy)` } : read;
  const waiting = [...project.stock];
  const lane = async () => {
    for (let item = waiting.shift(); item; item = waiting.shift()) {
      const data = media.get(item.id);
      if (data) await keepMedia(project, item, data);
    }
  };
  await Promise.all(Array.from({ length: LANES }, lane));
  await createProject(project);
  await makePoster(project).catch(useNotices().problem);
  return project;
}

async function keepMedia(project: Project, item: Stock, data: Blob): Promise<void> {
  const file = new File([data], item.file);
  try {
    const { poster, peaks } = await (await useEngine()).probe(file, () => undefined);
    await storeMedia({ project: project.id, stock: item.id, file, poster, peaks }, item.name);
  } catch (error) {
    if (error instanceof JackplaneError && error.code === 'storage') throw error;
    useNotices().say(`${sentenceOf(error)} “${item.name}” shows as missing until you link it again.`, 'problem');
  }
}

/** The first shot's middle frame, for the projects page. */
async function makePoster(project: Project): Promise<void> {
  const shot = project.shots[0];
  if (!shot) return;
  const engine = await useEngine();
  const media = await mediaOf(project.id);
  for (const record of media) await engine.openStock(record.stock, record.file, record.stock);
  const { bitmap } = await engine.frame(planFrame(project, shot.id, Math.floor(shot.length / 2), { reduction: 2 }), 'picture');
  await fold(project, 0, await posterFrom(bitmap));
  for (const record of media) await engine.closeStock(record.stock);
}

export async function posterFrom(bitmap: ImageBitmap): Promise<Blob> {
  const canvas = new OffscreenCanvas(480, Math.round((480 * bitmap.height) / bitmap.width));
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  return canvas.convertToBlob({ type: 'image/webp', quality: 0.85 });
}

/** @returns the project file and its name */
export async function exportProject(id: string): Promise<[Blob, string]> {
  const { history } = await loadProject(id);
  const media = new Map((await mediaOf(id)).map((record) => [record.stock, record.file]));
  return [await (await useEngine()).pack(history.project, media), safeName(history.project.name) + PROJECT_ENDING];
}

/** Fetches the demo that ships with the server. */
export async function openDemo(): Promise<void> {
  const name = `paper-harbour${PROJECT_ENDING}`;
  const response = await fetch(`/demo/${name}`);
  if (!response.ok) throw new JackplaneError('not-found', 'The demo project is not on this server.', 'Start Jackplane with: npm run demo');
  await openProjectFile(new File([await response.blob()], name));
}
