import type { Arena } from './arena';
import type { Rect } from './rect';

export const BYTES_PER_PIXEL = 16;

/**
 * Float32 RGBA, premultiplied, display-encoded unless said otherwise, rows contiguous, covering `rect`; clear elsewhere.
 * Counted references: whoever keeps a picture retains it and releases it once.
 */
export class Picture {
  private holders = 1;

  constructor(
    private readonly arena: Arena,
    readonly rect: Rect,
    readonly at: number,
  ) {}

  static make(arena: Arena, rect: Rect): Picture {
    return new Picture(arena, rect, arena.take(rect.w * rect.h * BYTES_PER_PIXEL));
  }

  get pixels(): number {
    return this.rect.w * this.rect.h;
  }

  get bytes(): number {
    return this.pixels * BYTES_PER_PIXEL;
  }

  /** Address of the first pixel of row y, counted from the top of the rectangle. */
  row(y: number): number {
    return this.at + y * this.rect.w * BYTES_PER_PIXEL;
  }

  retain(): this {
    this.holders++;
    return this;
  }

  release(): void {
    this.holders--;
    if (this.holders === 0) this.arena.give(this.at);
    if (this.holders < 0) throw new Error('picture released twice');
  }

  get shared(): boolean {
    return this.holders > 1;
  }
}
