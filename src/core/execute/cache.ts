import { LRUCache } from 'lru-cache';
import type { Held } from './backend';

/** Pictures by content key, the least recently used leaving first. Holds one reference to each. */
export class PictureCache<P extends Held> {
  private readonly held: LRUCache<string, P> | null;

  /** @param limit most bytes held; 0 holds nothing */
  constructor(readonly limit: number) {
    this.held = limit
      ? new LRUCache({
          maxSize: limit,
          sizeCalculation: (picture) => Math.max(1, picture.bytes),
          dispose: (picture) => picture.release(),
        })
      : null;
  }

  get bytes(): number {
    return this.held?.calculatedSize ?? 0;
  }

  has(key: string): boolean {
    return !!this.held?.has(key);
  }

  /** @returns the picture, retained for the caller, or undefined */
  get(key: string): P | undefined {
    return this.held?.get(key)?.retain();
  }

  put(key: string, picture: P): void {
    if (!this.held || this.held.has(key) || picture.bytes > this.limit) return;
    this.held.set(key, picture.retain());
  }

  /** Lets go of the least recently used picture. @returns false when there is none */
  dropOldest(): boolean {
    return !!this.held?.size && !!this.held.pop();
  }

  clear(): void {
    this.held?.clear();
  }
}
