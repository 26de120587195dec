import type { Picture } from '../picture/picture';

/** Pictures by content key, the least recently used leaving first. Holds one reference to each. */
export class PictureCache {
  private readonly entries = new Map<string, Picture>();
  private held = 0;

  /** @param limit most bytes held */
  constructor(readonly limit: number) {}

  get bytes(): number {
    return this.held;
  }

  has(key: string): boolean {
    return this.entries.has(key);
  }

  /** @returns the picture, retained for the caller, or undefined */
  get(key: string): Picture | undefined {
    const picture = this.entries.get(key);
    if (!picture) return undefined;
    this.entries.delete(key);
    this.entries.set(key, picture);
    return picture.retain();
  }

  put(key: string, picture: Picture): void {
    if (this.entries.has(key) || picture.bytes > this.limit) return;
    this.entries.set(key, picture.retain());
    this.held += picture.bytes;
    while (this.held > this.limit) this.dropOldest();
  }

  /** Lets go of the least recently used picture. @returns false when there is none */
  dropOldest(): boolean {
    const oldest = this.entries.entries().next();
    if (oldest.done) return false;
    const [key, picture] = oldest.value;
    this.entries.delete(key);
    this.held -= picture.bytes;
    picture.release();
    return true;
  }

  clear(): void {
    while (this.dropOldest());
  }
}
