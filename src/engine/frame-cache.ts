import type { ShownFrame } from './types';

const bytesOf = ({ bitmap }: Pick<ShownFrame, 'bitmap'>): number => bitmap.width * bitmap.height * 4;

/**
 * Finished frames by what they are known by. When they are more than fit, those leave first that nobody has said to be wanted; of
 * these the least recently used.
 */
export class FrameCache {
  private readonly frames = new Map<string, ShownFrame>();
  private wanted: ReadonlySet<string> = new Set();
  private held = 0;

  /** @param limit most bytes */
  constructor(readonly limit: number) {}

  get bytes(): number {
    return this.held;
  }

  /** How many frames of a size fit at once. */
  room(width: number, height: number): number {
    return Math.floor(this.limit / (width * height * 4));
  }

  get(key: string): ShownFrame | undefined {
    const frame = this.frames.get(key);
    if (frame) {
      this.frames.delete(key);
      this.frames.set(key, frame);
    }
    return frame;
  }

  has(key: string): boolean {
    return this.frames.has(key);
  }

  /** Says which frames are wanted soon; they stay as long as they fit. */
  want(keys: Iterable<string>): void {
    this.wanted = new Set(keys);
  }

  put(key: string, frame: ShownFrame): void {
    // two workers may have been asked for the same frame: the one that came first stays
    if (this.frames.has(key)) return frame.bitmap.close();
    this.frames.set(key, frame);
    this.held += bytesOf(frame);
    for (const kept of [false, true]) {
      for (const old of this.frames.keys()) {
        if (this.held <= this.limit) return;
        if (old !== key && this.wanted.has(old) === kept) this.drop(old);
      }
    }
  }

  private drop(key: string): void {
    const frame = this.frames.get(key)!;
    this.frames.delete(key);
    this.held -= bytesOf(frame);
    frame.bitmap.close();
  }

  clear(): void {
    this.frames.forEach((frame) => frame.bitmap.close());
    this.frames.clear();
    this.held = 0;
  }
}
