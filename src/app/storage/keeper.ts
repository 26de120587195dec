import { sentenceOf } from '../../core/base/errors';
import type { JournalEntry } from '../../core/document/history';

export interface Row {
  seq: number;
  entry: JournalEntry;
}
export type Keeping = { state: 'kept' } | { state: 'keeping' } | { state: 'failed'; problem: string };

/** A drag is written at most this often. */
const DRAG_PAUSE = 120;
/** After a failed write the next try comes by itself. */
const RETRY = 3000;

/**
 * Keeps journal entries: what is put waits until a write that held it has succeeded. Writes go one after the other, and a failed
 * one leaves no hole, because what it held goes on waiting. It is `kept` only when nothing waits.
 */
export class Keeper {
  private readonly waiting = new Map<number, JournalEntry>();
  private working: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private problem: string | null = null;

  /** @param write writes rows in one go, or throws @param changed is told after each change of the state @param failed is told why a write failed, once */
  constructor(
    private readonly write: (rows: readonly Row[]) => Promise<void>,
    private readonly changed: (now: Keeping) => void,
    private readonly failed: (error: unknown) => void,
  ) {}

  get now(): Keeping {
    if (this.problem !== null) return { state: 'failed', problem: this.problem };
    return this.waiting.size ? { state: 'keeping' } : { state: 'kept' };
  }

  /** @param dragging more of the same entry will follow soon */
  put(seq: number, entry: JournalEntry, dragging: boolean): void {
    this.waiting.set(seq, entry);
    this.changed(this.now);
    if (!dragging) void this.flush();
    else this.timer ??= setTimeout(() => void this.flush(), DRAG_PAUSE);
  }

  /** Writes all that waits. Resolves when it is written or could not be. */
  flush(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.working ??= this.work().finally(() => (this.working = null));
    return this.working;
  }

  private async work(): Promise<void> {
    // what a drag puts while a write runs waits for its own pause
    while (this.waiting.size && this.timer === undefined) {
      const rows = [...this.waiting].sort(([a], [b]) => a - b).map(([seq, entry]) => ({ seq, entry }));
      try {
        await this.write(rows);
      } catch (error) {
        const problem = sentenceOf(error);
        if (problem !== this.problem) this.failed(error);
        this.problem = problem;
        this.timer ??= setTimeout(() => void this.flush(), RETRY);
        break;
      }
      this.problem = null;
      // one that was replaced meanwhile waits for its turn
      for (const { seq, entry } of rows) if (this.waiting.get(seq) === entry) this.waiting.delete(seq);
    }
    this.changed(this.now);
  }

  /** Forgets what waits and writes no more. */
  stop(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    this.waiting.clear();
    this.problem = null;
  }
}
