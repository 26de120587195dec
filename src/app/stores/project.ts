import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { checkChanges } from '../../core/document/check';
import type { Edit, Step } from '../../core/document/edit';
import { ENTRY_VERSION, nextRedo, nextUndo, redone, undone, withEdit, type History } from '../../core/document/history';
import type { Project } from '../../core/document/schema';
import { JackplaneError } from '../../core/base/errors';
import { useEngine } from '../../engine/client';
import type { MediaRecord } from '../storage/db';
import { Keeper, type Keeping } from '../storage/keeper';
import { fold, keepUpgraded, loadProject, lockName, setPoster as storePoster, writeEntries } from '../storage/projects';
import { useNotices } from './notices';
import { letGo, takeMedia } from './open-media';

/** Journal entries after which they are folded into the snapshot, in a quiet moment. */
const FOLD_AFTER = 300;

/** The open project: its document and history, every edit journalled as it is made. */
export const useProject = defineStore('project', () => {
  const notices = useNotices();
  const history = shallowRef<History | null>(null);
  const media = shallowRef<ReadonlyMap<string, MediaRecord>>(new Map());
  const readOnly = ref(false);
  const keptAt = ref<Date | null>(null);
  const keeping = shallowRef<Keeping>({ state: 'kept' });
  /** what the last undo or redo did, to be read in passing */
  const moved = ref<string | null>(null);

  let seq = 0;
  let folded = 0;
  let gesture: { name: string; base: History; seq: number } | null = null;
  let release: (() => void) | null = null;
  /** set by the bench: where the work is, and how to go back there */
  const hooks: { context: () => Step['where'] | null; restore: (where: NonNullable<Step['where']>) => void } = {
    context: () => null,
    restore: () => undefined,
  };

  const project = computed(() => history.value?.project ?? null);
  /** the shot whose steps are undone; the project's own belong to every shot */
  const scope = ref<string | null>(null);
  const undoStep = computed(() => (history.value && !readOnly.value ? nextUndo(history.value, scope.value) : null));
  const redoStep = computed(() => (history.value && !readOnly.value ? nextRedo(history.value, scope.value) : null));

  const keeper = new Keeper(
    (rows) => writeEntries(current(), rows, new Date().toISOString()),
    (now) => {
      if (now.state === 'kept' && keeping.value.state !== 'kept') keptAt.value = new Date();
      keeping.value = now;
      if (now.state === 'kept' && !gesture && seq - folded >= FOLD_AFTER) void foldNow().catch(() => undefined);
    },
    (error) => notices.problem(error),
  );

  /** The open project. @throws JackplaneError when none is */
  function current(): Project {
    if (!history.value)
      throw new JackplaneError('not-found', 'No project is open.', 'Open one from the projects page.');
    return history.value.project;
  }

  async function open(id: string): Promise<void> {
    if (project.value?.id === id) return;
    await close();
    readOnly.value = !(await takeLock(id));
    try {
      await load(id);
    } catch (error) {
      letLockGo();
      throw error;
    }
  }

  async function load(id: string): Promise<void> {
    const loaded = await loadProject(id);
    const again = project.value?.id === id;
    const records = await takeMedia(loaded.history.project);
    if (again) await letGo(loaded.history.project);
    media.value = new Map(records.map((record) => [record.stock, record]));
    history.value = loaded.history;
    ({ seq, folded } = loaded);
    gesture = null;
    moved.value = null;
    keeping.value = { state: 'kept' };
    if (loaded.older && !readOnly.value) await keepUpgraded(id, loaded.older, folded);
    if (loaded.warning) {
      notices.say(loaded.warning, 'problem');
      if (!readOnly.value) await foldNow();
    }
  }

  /** One tab edits a project at a time. @returns false when another has it; this one takes over when that one goes */
  function takeLock(id: string): Promise<boolean> {
    return new Promise((resolve) => {
      const hold = () => new Promise<void>((done) => (release = done));
      void navigator.locks.request(lockName(id), { ifAvailable: true }, async (lock) => {
        resolve(lock !== null);
        if (lock) return hold();
        const abort = new AbortController();
        release = () => abort.abort();
        void navigator.locks
          .request(lockName(id), { signal: abort.signal }, async () => {
            await load(id);
            readOnly.value = false;
            notices.say('The other tab has closed this project; it can be edited here now.');
            return hold();
          })
          .catch((error: unknown) => {
            if (!(error instanceof DOMException)) notices.problem(error);
          });
      });
    });
  }
  function letLockGo(): void {
    release?.();
    release = null;
  }

  async function close(): Promise<void> {
    const open = project.value;
    if (open) {
      await keeper.flush();
      if (!readOnly.value && keeping.value.state === 'kept' && seq > folded) await foldNow().catch(() => undefined);
      keeper.stop();
      await letGo(open);
      await (await useEngine()).rest();
    }
    history.value = null;
    media.value = new Map();
    keeping.value = { state: 'kept' };
    letLockGo();
  }

  async function foldNow(): Promise<void> {
    const [document, at] = [current(), seq];
    folded = at;
    await fold({ ...document, modified: new Date().toISOString() }, at);
  }

  /**
   * Makes an edit, unless the document would not follow its schema afterwards. Edits of one gesture (a drag) become one step: each
   * is made anew on the document as it was when the gesture began, so it must give whole values, not differences.
   */
  function edit(change: Edit, gestureName?: string): void {
    const now = history.value;
    if (!now) return;
    if (readOnly.value)
      return notices.say(
        'This project is open in another tab, so it can only be looked at here. Close the other tab to edit it.',
        'problem',
      );
    const goesOn = gestureName !== undefined && gesture?.name === gestureName;
    const base = goesOn ? gesture!.base : now;
    const result = withEdit(base, change, hooks.context() ?? undefined);
    if (!result) {
      if (goesOn && now !== base) replaceWith(base);
      return;
    }
    try {
      checkChanges(result.history.project, result.changes, change.name);
    } catch (error) {
      return notices.problem(error);
    }
    if (!goesOn) seq++;
    gesture = gestureName === undefined ? null : { name: gestureName, base, seq };
    history.value = result.history;
    moved.value = null;
    keeper.put(seq, result.entry, gestureName !== undefined);
  }

  /** A drag came back to where it began: nothing has changed. */
  function replaceWith(base: History): void {
    history.value = base;
    keeper.put(
      gesture!.seq,
      {
        version: ENTRY_VERSION,
        kind: 'edit',
        step: { id: base.last + 1, name: 'Nothing', scope: 'project', changes: [] },
      },
      true,
    );
  }

  function endGesture(): void {
    gesture = null;
    void keeper.flush();
  }

  function step(move: typeof undone, word: string): boolean {
    const before = history.value;
    if (!before || readOnly.value) return false;
    try {
      const next = move(before, scope.value);
      if (!next) return false;
      gesture = null;
      history.value = next.history;
      seq++;
      keeper.put(seq, next.entry, false);
      moved.value = `${word}: ${next.entry.step.name}`;
      if (next.entry.step.where) hooks.restore(next.entry.step.where);
      return true;
    } catch (error) {
      notices.problem(error);
      return false;
    }
  }
  const undo = (): boolean => step(undone, 'Undone');
  const redo = (): boolean => step(redone, 'Done again');

  /** Undoes or redoes until a step of the open shot is the last one done. @param id null = before the first */
  function jumpTo(id: number | null): void {
    const forwards = history.value?.undone.some((other) => other.id === id);
    while (undoStep.value?.id !== (id ?? undefined) && (forwards ? redo() : undo()));
  }

  function addMedia(record: MediaRecord): void {
    media.value = new Map(media.value).set(record.stock, record);
  }
  const setPoster = (poster: Blob): Promise<void> => storePoster(current().id, poster);

  /** The bench says where the work is and how to go back there. */
  const setHooks = (given: typeof hooks): void => void Object.assign(hooks, given);

  return {
    setHooks,
    jumpTo,
    project,
    history,
    media,
    readOnly,
    keptAt,
    keeping,
    moved,
    scope,
    undoStep,
    redoStep,
    current,
    open,
    close,
    edit,
    endGesture,
    undo,
    redo,
    flush: () => keeper.flush(),
    addMedia,
    setPoster,
  };
});
