import { JackplaneError } from '../base/errors';

const PAGE = 65536;
const ALIGN = 64;

interface Span {
  at: number;
  size: number;
}

/**
 * Memory of the kernels, handed out in blocks. One arena belongs to one worker.
 * Best fit over a sorted list of free spans, which join again when freed.
 */
export class Arena {
  readonly memory: WebAssembly.Memory;
  private readonly taken = new Map<number, number>();
  private free: Span[];
  private end: number;
  private inUse = 0;
  /** what was taken since the innermost `guarded` began */
  private watched: Set<number> | null = null;
  /** Called when memory is short; frees something and returns true, or returns false when there is nothing left to free. */
  relief: () => boolean = () => false;

  /** @param limit most bytes this arena may ever hold */
  constructor(readonly limit: number) {
    const maximum = Math.min(65535, Math.ceil(limit / PAGE));
    this.memory = new WebAssembly.Memory({ initial: 32, maximum });
    this.end = this.memory.buffer.byteLength;
    this.free = [{ at: PAGE, size: this.end - PAGE }]; // the first page is the module's own
  }

  get used(): number {
    return this.inUse;
  }

  /** @param bytes @returns address, a multiple of 64, or null when the limit is reached */
  tryTake(bytes: number): number | null {
    const size = Math.max(ALIGN, Math.ceil(bytes / ALIGN) * ALIGN);
    const span = this.bestFit(size) ?? (this.enlarge(size) ? this.bestFit(size) : null);
    if (!span) return null;
    const { at } = span;
    span.at += size;
    span.size -= size;
    if (span.size === 0) this.free.splice(this.free.indexOf(span), 1);
    this.taken.set(at, size);
    this.watched?.add(at);
    this.inUse += size;
    return at;
  }

  /** As tryTake, asking for relief when memory is short. @throws JackplaneError memory */
  take(bytes: number): number {
    let at = this.tryTake(bytes);
    while (at === null && this.relief()) at = this.tryTake(bytes);
    if (at === null) {
      throw new JackplaneError(
        'memory',
        `The picture needs ${Math.ceil(bytes / 1e6)} MB more than the ${Math.round(this.limit / 1e6)} MB set aside for computing.`,
        'Choose a smaller preview scale, or smaller stock.',
      );
    }
    return at;
  }

  give(at: number): void {
    const size = this.taken.get(at);
    if (size === undefined) throw new Error(`no block at ${at}`);
    this.taken.delete(at);
    this.watched?.delete(at);
    this.inUse -= size;
    let i = this.free.findIndex((span) => span.at > at);
    if (i < 0) i = this.free.length;
    this.free.splice(i, 0, { at, size });
    this.join(i);
    if (i > 0) this.join(i - 1);
  }

  /** Runs with scratch memory that is given back afterwards. */
  scratch<T>(bytes: number, use: (at: number) => T): T {
    const at = this.take(bytes);
    try {
      return use(at);
    } finally {
      this.give(at);
    }
  }

  /** Runs with scratch memory that is taken bit by bit and all given back afterwards. */
  lending<T>(use: (scratch: (bytes: number) => number) => T): T {
    const taken: number[] = [];
    try {
      return use((bytes) => {
        const at = this.take(bytes);
        taken.push(at);
        return at;
      });
    } finally {
      taken.forEach((at) => this.give(at));
    }
  }

  /** Runs work that waits for nothing; when it throws, all that it took and did not give back is given back. */
  guarded<T>(work: () => T): T {
    const outer = this.watched;
    const own = (this.watched = new Set<number>());
    try {
      const result = work();
      this.watched = outer;
      own.forEach((at) => outer?.add(at));
      return result;
    } catch (error) {
      this.watched = outer;
      own.forEach((at) => this.give(at));
      throw error;
    }
  }

  /** A view of floats; valid until the next take. */
  floats(at: number, length: number): Float32Array {
    return new Float32Array(this.memory.buffer, at, length);
  }

  /** A view of doubles; valid until the next take. */
  doubles(at: number, length: number): Float64Array {
    return new Float64Array(this.memory.buffer, at, length);
  }

  /** A view of bytes; valid until the next take. */
  bytes(at: number, length: number): Uint8ClampedArray<ArrayBuffer> {
    return new Uint8ClampedArray(this.memory.buffer as ArrayBuffer, at, length);
  }

  private bestFit(size: number): Span | null {
    let best: Span | null = null;
    for (const span of this.free) {
      if (span.size >= size && (!best || span.size < best.size)) best = span;
    }
    return best;
  }

  private enlarge(size: number): boolean {
    const last = this.free[this.free.length - 1];
    const tail = last && last.at + last.size === this.end ? last.size : 0;
    const pages = Math.ceil((size - tail) / PAGE);
    try {
      this.memory.grow(pages);
    } catch {
      return false;
    }
    const at = this.end;
    this.end = this.memory.buffer.byteLength;
    this.free.push({ at, size: this.end - at });
    this.join(this.free.length - 2);
    return true;
  }

  /** Joins free span i with the next when they touch. */
  private join(i: number): void {
    const span = this.free[i];
    const next = this.free[i + 1];
    if (span && next && span.at + span.size === next.at) {
      span.size += next.size;
      this.free.splice(i + 1, 1);
    }
  }
}
