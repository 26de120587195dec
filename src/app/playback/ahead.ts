/** What looking ahead needs to know and to do. Frames are shot frames; `to` is the one after the last. */
export interface AheadWork {
  range(): { from: number; to: number };
  playhead(): number;
  /** what a frame is known by as it would be shown now; null when there is nothing to show */
  keyOf(frame: number): string | null;
  has(key: string): boolean;
  /** how many frames can be held at once */
  room(): number;
  want(keys: Iterable<string>): void;
  compute(frame: number): Promise<void>;
  /** frames a second that are played in time; null while nothing plays or every frame is waited for */
  pace(): number | null;
  /** true while more will be wanted soon, so that lanes wait instead of ending */
  goesOn(): boolean;
  /** told after something has changed in what is ready */
  changed(): void;
  now(): number;
  /** lets others have the processor for some milliseconds */
  breathe(milliseconds: number): Promise<void>;
}

/** The share of the room that is filled ahead; the rest is for what is looked at in between. */
const FILLED = 0.9;
/** How far ahead of the playhead the frame asked for last still counts, in seconds. */
const NEAR = 2;
/** Longest time spent on finding out what is ready before others have a turn, in milliseconds. */
const TURN = 8;
/** Pause of a lane that has nothing to do while playing goes on, in milliseconds. */
const WAIT = 30;

/**
 * Keeps frames ahead of the playhead ready, in a window that fits what can be held. While playing in time, frames that cannot be
 * ready when they are due are left out, evenly.
 */
export class Ahead {
  private run = 0;
  private active = 0;
  private readonly keys = new Map<number, string | null>();
  private readonly inWork = new Set<number>();
  /** how long a frame takes, in milliseconds */
  private cost = 0;
  /** the frame asked for last */
  private asked: number | null = null;

  constructor(private readonly work: AheadWork) {}

  get filling(): boolean {
    return this.active > 0;
  }

  /** Something has changed that pictures are made of: what is known of frames is not true any more. */
  forget(): void {
    this.run++;
    this.keys.clear();
    this.work.changed();
  }
  pause(): void {
    this.run++;
  }

  key(frame: number): string | null {
    let key = this.keys.get(frame);
    if (key === undefined) this.keys.set(frame, (key = this.work.keyOf(frame)));
    return key;
  }
  /** True when a frame is known to be ready. */
  ready(frame: number): boolean {
    const key = this.keys.get(frame);
    return typeof key === 'string' && this.work.has(key);
  }

  /** Frames of the window in the order in which they will be shown. */
  private *window(): Generator<number> {
    const { from, to } = this.work.range();
    const length = to - from;
    const count = Math.min(length, Math.max(1, Math.floor(this.work.room() * FILLED)));
    const first = Math.min(Math.max(this.work.playhead(), from), to - 1);
    for (let i = 0; i < count; i++) yield from + ((first - from + i) % length);
  }

  /** How many frames from a frame on are ready without a gap, up to `most`. */
  readyFrom(frame: number, most: number): number {
    const { from, to } = this.work.range();
    let count = 0;
    while (count < Math.min(most, to - from) && this.ready(from + ((frame - from + count) % (to - from)))) count++;
    return count;
  }

  /** The next frame worth computing, or null. */
  private next(lanes: number): number | null {
    const pace = this.work.pace();
    const perFrame = pace === null ? 0 : (this.cost * pace) / 1000;
    // played in time: nothing that will be late, and of what is ahead only as many as can be made
    // the playhead is somewhere within its frame, so one more is taken
    const [lead, stride] = perFrame > lanes ? [Math.ceil(perFrame) + 1, Math.ceil(perFrame / lanes)] : [0, 1];
    const frames = [...this.window()];
    // clips are decoded forwards: going back for a frame that was passed costs more than it shows
    const passed = stride > 1 && this.asked !== null ? frames.indexOf(this.asked) : -1;
    const near = Math.min(NEAR * pace!, frames.length / 2);
    const first = passed >= 0 && passed < near ? Math.max(lead, passed + stride) : lead;
    for (let place = first; place < frames.length; place++) {
      const key = this.key(frames[place]!);
      if (key !== null && !this.inWork.has(frames[place]!) && !this.work.has(key)) return frames[place]!;
    }
    return null;
  }

  /** Fills the window with some lanes, until it is full or something else is wanted. */
  async fill(lanes: number): Promise<void> {
    const run = ++this.run;
    this.active++;
    try {
      await this.look(run);
      await Promise.all(Array.from({ length: lanes }, () => this.goOn(run, lanes)));
    } finally {
      this.active--;
      this.work.changed();
    }
  }

  /** Finds out which frames of the window are ready already. */
  private async look(run: number): Promise<void> {
    let begin = this.work.now();
    for (const frame of this.window()) {
      if (run !== this.run) return;
      this.key(frame);
      if (this.work.now() - begin < TURN) continue;
      this.work.changed();
      await this.work.breathe(0);
      begin = this.work.now();
    }
    this.work.changed();
  }

  private async goOn(run: number, lanes: number): Promise<void> {
    for (;;) {
      if (run !== this.run) return;
      this.work.want([...this.window()].map((frame) => this.keys.get(frame)).filter((key) => typeof key === 'string'));
      const frame = this.next(lanes);
      if (frame === null) {
        if (!this.work.goesOn()) return;
        await this.work.breathe(WAIT);
        continue;
      }
      this.inWork.add(frame);
      this.asked = frame;
      const begin = this.work.now();
      try {
        await this.work.compute(frame);
        const took = this.work.now() - begin;
        this.cost = this.cost ? this.cost * 0.7 + took * 0.3 : took;
      } finally {
        this.inWork.delete(frame);
      }
      if (run === this.run) this.work.changed();
    }
  }
}
