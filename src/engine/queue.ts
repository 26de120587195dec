import { JackplaneError } from '../core/base/errors';

/** What is computed first: the frame that is looked at and follows the dials, thumbnails and measures, frames ahead, files. */
export const PRIORITIES = ['frame', 'look', 'ahead', 'render'] as const;
export type Priority = (typeof PRIORITIES)[number];

export interface Wish {
  priority: Priority;
  /** the worker whose memory holds what it needs; nobody else takes it. Anyone when left out */
  home?: number;
  /** workers that leave it to others, as long as there are others */
  spared?: number;
  /** how many jobs a worker may have at once with this one among them; 1 when left out */
  depth?: number;
  /** takes it off the queue; what is being worked on goes on */
  signal?: AbortSignal;
}
interface Job<W> {
  wish: Wish;
  work(worker: W): Promise<unknown>;
  done(result: unknown): void;
  fail(error: unknown): void;
}

export const cancelled = (): JackplaneError =>
  new JackplaneError('cancelled', 'Something else was asked for meanwhile.', '');

/** One queue before all workers: whoever is free takes the most urgent job, of two alike the older one. */
export class Queue<W> {
  private readonly waiting: Job<W>[] = [];
  private busy: number[];
  private resting: (() => void)[] = [];

  constructor(private workers: readonly W[]) {
    this.busy = workers.map(() => 0);
  }

  get size(): number {
    return this.workers.length;
  }

  /** @throws what the work throws; JackplaneError cancelled when its signal came first */
  run<T>(wish: Wish, work: (worker: W) => Promise<T>): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const job: Job<W> = { wish, work, done: (result) => resolve(result as T), fail: reject };
      if (wish.signal?.aborted) return reject(cancelled());
      wish.signal?.addEventListener('abort', () => this.forget(job), { once: true });
      this.waiting.push(job);
      this.deal();
    });
  }

  /** What waits with this wish is more urgent than was thought. What has begun goes on as it is. */
  urge(wish: Wish, now: Wish): void {
    if (PRIORITIES.indexOf(now.priority) >= PRIORITIES.indexOf(wish.priority)) return;
    Object.assign(wish, { home: undefined, spared: undefined, depth: undefined }, now);
    this.deal();
  }

  /** Other workers take the place of these, once nothing is being worked on any more. What waits goes to the new ones. */
  async replace(make: () => Promise<readonly W[]>): Promise<readonly W[]> {
    const old = this.workers;
    this.workers = [];
    if (this.busy.some((count) => count > 0)) await new Promise<void>((rested) => this.resting.push(rested));
    this.workers = await make();
    this.busy = this.workers.map(() => 0);
    this.deal();
    return old;
  }

  private forget(job: Job<W>): void {
    const at = this.waiting.indexOf(job);
    if (at < 0) return;
    this.waiting.splice(at, 1);
    job.fail(cancelled());
  }

  /** Gives jobs to workers as long as both are there. A worker that something urgent waits for takes nothing less urgent meanwhile. */
  private deal(): void {
    const awaited = new Set<number>();
    for (const priority of PRIORITIES) {
      for (const job of this.waiting.filter((item) => item.wish.priority === priority)) {
        const index = this.takerOf(job.wish, awaited);
        if (index === null) continue;
        if (this.busy[index]! >= (job.wish.depth ?? 1)) awaited.add(index);
        else {
          this.waiting.splice(this.waiting.indexOf(job), 1);
          void this.give(job, index);
        }
      }
    }
  }

  /** The worker with the least to do among those who may take a job. */
  private takerOf({ home, spared }: Wish, awaited: ReadonlySet<number>): number | null {
    let best: number | null = null;
    for (let index = 0; index < this.workers.length; index++) {
      if (home !== undefined && index !== home % this.workers.length) continue;
      if ((index === spared && this.workers.length > 1) || awaited.has(index)) continue;
      if (best === null || this.busy[index]! < this.busy[best]!) best = index;
    }
    return best;
  }

  private async give(job: Job<W>, index: number): Promise<void> {
    const { busy } = this;
    busy[index]!++;
    try {
      job.done(await job.work(this.workers[index]!));
    } catch (error) {
      job.fail(error);
    } finally {
      busy[index]!--;
      if (busy.every((count) => count === 0)) this.resting.splice(0).forEach((rested) => rested());
      this.deal();
    }
  }
}
