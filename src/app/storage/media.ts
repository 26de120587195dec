import type { MediaRecord, RenderRecord } from './db';
import { db, ofProject, storageError } from './db';

export async function storeMedia(record: MediaRecord, name: string): Promise<void> {
  try {
    await (await db()).put('media', record);
  } catch (error) {
    throw storageError(`“${name}” could not be stored`, error);
  }
}

export async function mediaOf(project: string): Promise<MediaRecord[]> {
  return (await db()).getAll('media', ofProject(project));
}

export async function storeRender(record: RenderRecord): Promise<void> {
  try {
    await (await db()).put('renders', record);
  } catch (error) {
    throw storageError(`“${record.name}” could not be stored`, error);
  }
}

export async function listRenders(): Promise<RenderRecord[]> {
  return (await (await db()).getAll('renders')).sort((a, b) => b.made.localeCompare(a.made));
}

export async function deleteRender(id: string): Promise<void> {
  await (await db()).delete('renders', id);
}
