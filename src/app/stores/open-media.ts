import type { Project } from '../../core/document/schema';
import { useEngine } from '../../engine/client';
import { mediaOf } from '../storage/media';
import type { MediaRecord } from '../storage/db';

/** How many users (the bench, render jobs) each project's media has in the decoder. */
const users = new Map<string, number>();

/** Opens a project's media for decoding, until letGo. */
export async function takeMedia(project: Project): Promise<MediaRecord[]> {
  users.set(project.id, (users.get(project.id) ?? 0) + 1);
  const engine = await useEngine();
  const records = await mediaOf(project.id);
  for (const record of records) {
    const name = project.stock.find((item) => item.id === record.stock)?.name ?? record.stock;
    await engine.openStock(record.stock, record.file, name);
  }
  return records;
}

/** Closes a project's media when nobody else uses it. */
export async function letGo(project: Project): Promise<void> {
  const left = (users.get(project.id) ?? 1) - 1;
  users.set(project.id, left);
  if (left > 0) return;
  const engine = await useEngine();
  await Promise.all(project.stock.map((item) => engine.closeStock(item.id)));
}
