import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import type { Edit, Step } from '../../core/document/edit';
import { redone, undone, withEdit, type History, type JournalEntry } from '../../core/document/history';
import type { Project } from '../../core/document/schema';
import { JackplaneError } from '../../core/errors';
import { useEngine } from '../../engine/client';
import type { MediaRecord } from '../storage/db';
import { fold, loadProject, writeEntry } from '../storage/projects';
import { useNotices } from './notices';
import { letGo, takeMedia } from './open-media';

/** How long a drag's latest value waits before it is written; well under the 250 ms within which every edit is kept. */
const WRITE_DELAY = 120;

/** The open project: its document and history, every edit journalled as it is made. */
export const useProject = defineStore('project', () => {
  const notices = useNotices();
  const history = shallowRef<History | null>(null);
  const media = shallowRef<ReadonlyMap<string, MediaRecord>>(new Map());
  const readOnly = ref(false);
  const keptAt = ref<Date | null>(null);
  const pending = ref(0);
  const failed = ref<string | null>(null);

  let seq = 0;
  let gesture: { name: string; base: History } | null = null;
  let unwritten: { project: Project; seq: number; entry: JournalEntry } | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let writes: Promise<void> = Promise.resolve();
  let release: (() => void) | null = null;
  /** set by the bench: where the work is, and how to go back there */
  const hooks: { context: () => Step['where'] | null; restore: (where: NonNullable<Step['where']>) => void } = { context: () => null, restore: () => undefined };

  const project = computed(() => history.value?.project ?? null);
  const canUndo = computed(() => !readOnly.value && !!history.value?.done.length);
  const canRedo = computed(() => !readOnly.value && !!history.value?.undone.length);

  /** The open project. @throws JackplaneError when none is */
  function current(): Project {
    if (!history.value) throw new JackplaneError('not-found', 'No project is open.', 'Open one from the projects page.');
    return history.value.project;
  }

  async function open(id: string): Promise<void> {
    if (project.value?.id === id) return;
    await close();
    readOnly.value = !(await takeLock(id));
    await load(id);
  }

  async function load(id: string): Promise<void> {
    const loaded = await loadProject(id);
    const again = project.value?.id === id;
    const records = await takeMedia(loaded.history.project);
    if (again) await letGo(loaded.history.project);
    media.value = new Map(records.map((record) => [record.stock, record]));
    history.value = loaded.history;
    seq = loaded.seq;
    gesture = null;
    failed.value = null;
    if (loaded.warning) notices.say(loaded.warning, 'problem');
  }

  /** One tab edits a project at a time. @returns false when another has it; this one takes over when that one goes */
  function takeLock(id: string): Promise<boolean> {
    const name = `jackplane project ${id}`;
    return new Promise((resolve) => {
      const hold = () => new Promise<void>((done) => (release = done));
      void navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
        resolve(lock !== null);
        if (lock) return hold();
        const abort = new AbortController();
        release = () => abort.abort();
        void navigator.locks
          .request(name, { signal: abort.signal }, async () => {
            await load(id);
            readOnly.value = false;
            notices.say('The other tab has closed this project; it can be edited here now.');
            return hold();
          })
          .catch(() => undefined);
      });
    });
  }

  async function close(): Promise<void> {
    const open = project.value;
    if (open) {
      await flush();
      await letGo(open);
      (await useEngine()).cache.clear();
    }
    history.value = null;
    media.value = new Map();
    release?.();
    release = null;
  }

  /**
   * Makes an edit. Edits of one gesture (a drag) become one step: each is made anew on the document as it was when the
   * gesture began, so it must give whole values, not differences.
   */
  function edit(change: Edit, gestureName?: string): void {
    const now = history.value;
    if (!now) return;
    if (readOnly.value) return notices.say('This project is open in another tab, so it can only be looked at here. Close the other tab to edit it.', 'problem');
    const goesOn = gestureName !== undefined && gesture?.name === gestureName;
    const base = goesOn ? gesture!.base : now;
    const result = withEdit(base, change, hooks.context() ?? undefined);
    if (!result) {
      if (goesOn && now !== base) replaceWith(base);
      return;
    }
    gesture = gestureName === undefined ? null : { name: gestureName, base };
    history.value = result.history;
    if (!goesOn || now === base) seq++;
    schedule(result.entry, gestureName !== undefined);
  }

  /** A drag came back to where it began: nothing has changed. */
  function replaceWith(base: History): void {
    history.value = base;
    schedule({ kind: 'edit', step: { name: 'Nothing', forward: [], back: [] } }, true);
  }

  function endGesture(): void {
    gesture = null;
    void flush();
  }

  function step(move: typeof undone, entry: JournalEntry): string | null {
    const before = history.value;
    const next = before && !readOnly.value ? move(before) : null;
    if (!before || !next) return null;
    gesture = null;
    history.value = next;
    seq++;
    schedule(entry, false);
    const moved = entry.kind === 'undo' ? before.done.at(-1)! : next.done.at(-1)!;
    if (moved.where) hooks.restore(moved.where);
    return moved.name;
  }
  const undo = (): string | null => step(undone, { kind: 'undo' });
  const redo = (): string | null => step(redone, { kind: 'redo' });

  /** Goes to the moment after `count` steps of the whole history. */
  function jumpTo(count: number): void {
    while (history.value && history.value.done.length > count && undo() !== null);
    while (history.value && history.value.done.length < count && redo() !== null);
  }

  function schedule(entry: JournalEntry, later: boolean): void {
    if (unwritten && unwritten.seq !== seq) void flush();
    unwritten = { project: current(), seq, entry };
    pending.value = 1;
    clearTimeout(timer);
    if (later) timer = setTimeout(() => void flush(), WRITE_DELAY);
    else void flush();
  }

  /** Writes what waits. Resolves when everything so far is kept. */
  function flush(): Promise<void> {
    const job = unwritten;
    unwritten = null;
    clearTimeout(timer);
    if (job) {
      writes = writes.then(async () => {
        try {
          await writeEntry(job.project.id, job.seq, job.entry);
          await fold({ ...job.project, modified: new Date().toISOString() }, job.seq, null);
          keptAt.value = new Date();
          failed.value = null;
        } catch (error) {
          failed.value = (error as Error).message;
          notices.problem(error);
        }
        if (!unwritten) pending.value = 0;
      });
    }
    return writes;
  }

  function addMedia(record: MediaRecord): void {
    media.value = new Map(media.value).set(record.stock, record);
  }

  const setPoster = (poster: Blob): Promise<void> => writes.then(() => fold(current(), seq, poster));
  /** Writes the whole document, so that opening it is quick and the list is right. */
  const settle = (): Promise<void> => flush().then(() => (readOnly.value ? undefined : fold(current(), seq, null)));

  /** The bench says where the work is and how to go back there. */
  const setHooks = (given: typeof hooks): void => void Object.assign(hooks, given);

  return { setHooks, jumpTo, project, history, media, readOnly, keptAt, pending, failed, canUndo, canRedo, current, open, close, edit, endGesture, undo, redo, flush, addMedia, setPoster, settle };
});
