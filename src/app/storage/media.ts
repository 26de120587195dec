import { type MediaRecord, type RenderRecord, db, ofProject, storageError } from './db';
import { lockName } from './projects';

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

/** Media that no project has, from an opening or an import that was cut short. Projects that are being opened are left alone. */
export async function strayMedia(): Promise<{ keys: [string, string][]; bytes: number }> {
  const store = await db();
  const [projects, keys, locks] = await Promise.all([
    store.getAllKeys('projects'),
    store.getAllKeys('media'),
    navigator.locks.query(),
  ]);
  const held = new Set([...(locks.held ?? []), ...(locks.pending ?? [])].map((lock) => lock.name));
  const stray = keys.filter(([project]) => !projects.includes(project) && !held.has(lockName(project)));
  const records = await Promise.all(stray.map((key) => store.get('media', key)));
  return { keys: stray, bytes: records.reduce((sum, record) => sum + (record?.file.size ?? 0), 0) };
}

export async function removeMedia(keys: readonly [string, string][]): Promise<void> {
  const tx = (await db()).transaction('media', 'readwrite');
  for (const key of keys) void tx.store.delete(key);
  await tx.done;
}
