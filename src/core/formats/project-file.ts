import { problemsOf } from '../base/problems';
import {
  BlobReader,
  BlobWriter,
  configure,
  ERR_INVALID_CRC32,
  ERR_UNSAFE_FILENAME,
  TextReader,
  ZipReader,
  ZipWriter,
  type Entry,
  type FileEntry,
} from '@zip.js/zip.js';
import { migrated } from '../document/migrations';
import { salvaged } from '../document/salvage';
import { FORMAT_VERSION, projectSchema, type Project } from '../document/schema';
import { JackplaneError } from '../base/errors';
import { safeName } from './names';

// the caller is a worker already
configure({ useWebWorkers: false });

/** Ending of a project file: a zip with `project.json` and `media/<stock id>/<file name>`. */
export const PROJECT_ENDING = '.jackplane';

/** Most that a project file may unpack to. */
export interface Limits {
  json: number;
  media: number;
  entries: number;
  /** times its packed size that an entry may unpack to, once it is larger than a megabyte */
  ratio: number;
}
export const LIMITS: Limits = { json: 64e6, media: 4e9, entries: 10_000, ratio: 1000 };

export interface OpenedProject {
  project: Project;
  /** by stock id; what is missing here shows as missing in the project */
  media: Map<string, Blob>;
  /** parts that could not be read and were left out */
  left: string[];
}

const bad = (
  file: string,
  what: string,
  remedy = 'Choose a file that Jackplane wrote, or ask its maker for a fresh copy.',
) => new JackplaneError('bad-project', `“${file}” ${what}.`, remedy);

/** Writes a project file. Media is stored, not packed again, and streamed. @param media by stock id */
export async function writeProjectFile(project: Project, media: ReadonlyMap<string, Blob>): Promise<Blob> {
  const zip = new ZipWriter(new BlobWriter('application/zip'), { extendedTimestamp: false });
  await zip.add('project.json', new TextReader(JSON.stringify(project, null, 1)), { level: 6 });
  for (const item of project.stock) {
    const data = media.get(item.id);
    if (data) await zip.add(`media/${item.id}/${safeName(item.file)}`, new BlobReader(data), { level: 0 });
  }
  return zip.close();
}

/**
 * Reads a project file. Only what the project names is unpacked, as a stream with its size counted, so a bomb stops at the limit.
 * @param file name for messages
 * @throws JackplaneError bad-project
 */
export async function readProjectFile(data: Blob, file: string, limits: Limits = LIMITS): Promise<OpenedProject> {
  const head = new Uint8Array(await data.slice(0, 4).arrayBuffer());
  if (head.length < 4 || head[0] !== 0x50 || head[1] !== 0x4b)
    throw bad(file, 'is not a project file: it is not a zip');
  const zip = new ZipReader(new BlobReader(data), { checkCrc32: true });
  try {
    const entries = await entriesOf(zip, file, limits);
    const json = entries.find((entry) => entry.filename === 'project.json');
    if (!json) throw bad(file, 'has no project.json inside, so it is not a project file or it is cut off');
    const text = await (await unpacked(json, file, limits.json, limits.ratio)).text();
    const { project, left } = parseProject(text, file);
    const media = new Map<string, Blob>();
    let room = limits.media;
    for (const item of project.stock) {
      const entry = entries.find(({ filename }) => filename.startsWith(`media/${item.id}/`));
      if (!entry) continue;
      const blob = await unpacked(entry, file, room, limits.ratio);
      room -= blob.size;
      media.set(item.id, blob);
    }
    return { project, media, left };
  } finally {
    await zip.close();
  }
}

async function entriesOf(zip: ZipReader<Blob>, file: string, limits: Limits): Promise<FileEntry[]> {
  const entries: Entry[] = [];
  try {
    for await (const entry of zip.getEntriesGenerator()) {
      if (entries.push(entry) > limits.entries) throw bad(file, `holds more than ${limits.entries} files`);
    }
  } catch (error) {
    if (error instanceof JackplaneError) throw error;
    const { message, filename = '' } = error as Error & { filename?: string };
    throw bad(
      file,
      message === ERR_UNSAFE_FILENAME
        ? `holds a path that leads out of it (“${filename.slice(0, 60)}”)`
        : 'is damaged or cut off',
    );
  }
  return entries.filter((entry): entry is FileEntry => !entry.directory);
}

/** An entry's contents, in parts that the browser may keep on disk. */
async function unpacked(entry: FileEntry, file: string, most: number, ratio: number): Promise<Blob> {
  const parts: Blob[] = [];
  let [chunks, held, size] = [[] as Uint8Array<ArrayBuffer>[], 0, 0];
  const put = () => {
    parts.push(new Blob(chunks));
    [chunks, held] = [[], 0];
  };
  const limit = Math.min(most, Math.max(1e6, entry.compressedSize * ratio));
  const writable = new WritableStream<Uint8Array<ArrayBuffer>>({
    write(chunk) {
      size += chunk.length;
      if (size > limit)
        throw bad(file, `unpacks to more than ${Math.round(limit / 1e6)} MB at “${entry.filename.slice(0, 60)}”`);
      chunks.push(chunk);
      held += chunk.length;
      if (held > 16e6) put();
    },
  });
  try {
    await entry.getData(writable);
  } catch (error) {
    if (error instanceof JackplaneError) throw error;
    throw bad(
      file,
      `is damaged at “${entry.filename.slice(0, 60)}”${(error as Error).message === ERR_INVALID_CRC32 ? ': its checksum is wrong' : ''}`,
    );
  }
  put();
  return new Blob(parts);
}

/** @throws JackplaneError bad-project */
export function parseProject(text: string, file: string): { project: Project; left: string[] } {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw bad(file, 'holds a project.json that is not valid JSON');
  }
  const version = (raw as { format?: unknown } | null)?.format;
  if (typeof version === 'number' && version > FORMAT_VERSION) {
    throw bad(
      file,
      `was written by a newer Jackplane (format ${version}, this one knows ${FORMAT_VERSION})`,
      'Update Jackplane and open it again.',
    );
  }
  const document = migrated(raw);
  const found = salvaged(document);
  if (!found)
    throw bad(file, `does not follow the project format (${problemsOf(projectSchema.safeParse(document).error!)})`);
  return found;
}
