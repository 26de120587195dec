import * as Comlink from 'comlink';
import type { Rect } from '../core/picture/rect';
import { WAVE_COLUMNS, type ScopeQuestion } from '../core/scopes/read';
import type { Scoped, ScopeApi } from './workers/scope.worker';

/** Widest picture that is read: as many pixels in each column of a waveform. Wider ones are thinned out, not averaged, so that no value is made up. */
const WIDEST = 2 * WAVE_COLUMNS;

interface Thread {
  api: Comlink.Remote<ScopeApi>;
  terminate(): void;
}
const begin = (): Thread => {
  const worker = new Worker(new URL('./workers/scope.worker.ts', import.meta.url), { type: 'module' });
  return { api: Comlink.wrap<ScopeApi>(worker), terminate: () => worker.terminate() };
};
function thinned(bitmap: ImageBitmap): Promise<ImageBitmap> {
  const by = Math.min(1, WIDEST / bitmap.width);
  return createImageBitmap(bitmap, {
    resizeWidth: Math.max(1, Math.round(bitmap.width * by)),
    resizeHeight: Math.max(1, Math.round(bitmap.height * by)),
    resizeQuality: 'pixelated',
  });
}

const scaled = ({ x, y, w, h }: Rect, by: number, down: number): Rect => ({
  x: x * by,
  y: y * down,
  w: w * by,
  h: h * down,
});

/** The worker that reads scopes; begun when first asked, ended when nobody looks. */
export class ScopeReader {
  private thread: Thread | null = null;
  private abandon: (() => void) | null = null;

  constructor(
    private readonly make: () => Thread = begin,
    private readonly small: (bitmap: ImageBitmap) => Promise<ImageBitmap> = thinned,
  ) {}

  /** One at a time. @param question its part in pixels of the bitmap @returns null when the worker was ended meanwhile, which answers no more then */
  async read(bitmap: ImageBitmap, question: ScopeQuestion = {}): Promise<Scoped | null> {
    const { api } = (this.thread ??= this.make());
    const ended = new Promise<null>((resolve) => (this.abandon = () => resolve(null)));
    const own = await this.small(bitmap);
    const { part, ...rest } = question;
    const asked = part ? { ...rest, part: scaled(part, own.width / bitmap.width, own.height / bitmap.height) } : rest;
    return Promise.race([api.read(Comlink.transfer(own, [own]), asked), ended]);
  }
  rest(): void {
    this.thread?.terminate();
    this.thread = null;
    this.abandon?.();
  }
}
