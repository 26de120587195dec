import { strFromU8, strToU8, Unzip, UnzipInflate, zipSync, type Zippable } from 'fflate';
import { JackplaneError } from '../errors';
import { safeName } from './names';
import { FORMAT_VERSION, problemsOf, projectSchema, type Project } from '../document/schema';

/** Ending of a project file: a zip with `project.json` and `media/<stock id>/<file name>`. */
export const PROJECT_ENDING = '.jackplane';

/** Most that a project file may unpack to. */
export interface Limits {
  json: number;
  media: number;
  entries: number;
}
export const LIMITS: Limits = { json: 64e6, media: 4e9, entries: 10_000 };

export interface OpenedProject {
  project: Project;
  /** by stock id; what is missing here shows as missing in the project */
  media: Map<string, Uint8Array>;
}

const bad = (file: string, what: string, remedy = 'Choose a file that Jackplane wrote, or ask its maker for a fresh copy.') =>
  new JackplaneError('bad-project', `“${file}” ${what}.`, remedy);

/** Writes a project file. Media is stored, not packed again. @param media by stock id */
export function writeProjectFile(project: Project, media: ReadonlyMap<string, Uint8Array>): Uint8Array<ArrayBuffer> {
  const entries: Zippable = { 'project.json': [strToU8(JSON.stringify(project, null, 1)), { level: 6 }] };
  for (const item of project.stock) {
    const data = media.get(item.id);
    if (data) entries[`media/${item.id}/${safeName(item.file)}`] = [data, { level: 0 }];
  }
  return zipSync(entries);
}

/**
 * Reads a project file. Sizes are counted while unpacking, so a bomb stops at the limit.
 * @param file name for messages
 * @throws JackplaneError bad-project
 */
export function readProjectFile(data: Uint8Array, file: string, limits: Limits = LIMITS): OpenedProject {
  if (data.length < 4 || data[0] !== 0x50 || data[1] !== 0x4b) throw bad(file, 'is not a project file: it is not a zip');
  const entries = unpack(data, file, limits);
  const json = entries.get('project.json');
  if (!json) throw bad(file, 'has no project.json inside, so it is not a project file or it is cut off');
  const project = parseProject(strFromU8(json), file);
  const media = new Map<string, Uint8Array>();
  for (const item of project.stock) {
    const prefix = `media/${item.id}/`;
    for (const [path, bytes] of entries) if (path.startsWith(prefix)) media.set(item.id, bytes);
  }
  return { project, media };
}

/** @throws JackplaneError bad-project */
export function parseProject(text: string, file: string): Project {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw bad(file, 'holds a project.json that is not valid JSON');
  }
  const version = (raw as { format?: unknown } | null)?.format;
  if (typeof version === 'number' && version > FORMAT_VERSION) {
    throw bad(file, `was written by a newer Jackplane (format ${version}, this one knows ${FORMAT_VERSION})`, 'Update Jackplane and open it again.');
  }
  const parsed = projectSchema.safeParse(raw);
  if (!parsed.success) throw bad(file, `does not follow the project format (${problemsOf(parsed.error)})`);
  return parsed.data;
}

function unpack(data: Uint8Array, file: string, limits: Limits): Map<string, Uint8Array> {
  const parts = new Map<string, Uint8Array[]>();
  let total = 0;
  let failure: Error | null = null;
  const fail = (what: string) => {
    failure ??= bad(file, what);
  };
  const unzip = new Unzip((entry) => {
    if (failure) return;
    if (parts.size >= limits.entries) return fail(`holds more than ${limits.entries} files`);
    if (!isPlainPath(entry.name)) return fail(`holds a path that leads out of it (“${entry.name.slice(0, 60)}”)`);
    if (entry.name.endsWith('/')) return;
    const chunks: Uint8Array[] = [];
    let size = 0;
    const limit = entry.name === 'project.json' ? limits.json : limits.media;
    parts.set(entry.name, chunks);
    entry.ondata = (error, chunk) => {
      if (error) return fail(`is damaged at “${entry.name}”`);
      size += chunk.length;
      total += chunk.length;
      if (size > limit || total > limits.media + limits.json) {
        entry.terminate();
        return fail(`unpacks to more than ${Math.round(limit / 1e6)} MB at “${entry.name}”`);
      }
      chunks.push(chunk);
    };
    entry.start();
  });
  unzip.register(UnzipInflate);
  try {
    // small bites, so that the limits are looked at while a bomb unfolds
    for (let at = 0; at < data.length && !failure; at += 65536) unzip.push(data.subarray(at, at + 65536), at + 65536 >= data.length);
  } catch {
    fail('is damaged or cut off');
  }
  if (failure) throw failure as Error;
  return new Map([...parts].map(([name, chunks]) => [name, joined(chunks)]));
}

const isPlainPath = (path: string): boolean => !/^[\\/]|\\|^[A-Za-z]:|\0/.test(path) && path.split('/').every((part) => part !== '..');

function joined(chunks: readonly Uint8Array[]): Uint8Array {
  if (chunks.length === 1) return chunks[0]!;
  const out = new Uint8Array(chunks.reduce((sum, chunk) => sum + chunk.length, 0));
  let at = 0;
  for (const chunk of chunks) {
    out.set(chunk, at);
    at += chunk.length;
  }
  return out;
}
