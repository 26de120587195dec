import * as Comlink from 'comlink';
import type { Scoped, ScopeApi } from './workers/scope.worker';

/** Widest picture that is read; wider ones are thinned out, not averaged, so that no value is made up. */
const WIDEST = 640;

/** The worker that reads scopes; begun when first asked, ended when nobody looks. */
export class ScopeReader {
  private worker: Worker | null = null;
  private api: Comlink.Remote<ScopeApi> | null = null;

  async read(bitmap: ImageBitmap, warn: boolean): Promise<Scoped> {
    if (!this.api) {
      this.worker = new Worker(new URL('./workers/scope.worker.ts', import.meta.url), { type: 'module' });
      this.api = Comlink.wrap<ScopeApi>(this.worker);
    }
    const { width, height } = bitmap;
    const by = Math.min(1, WIDEST / width);
    const own = await createImageBitmap(bitmap, {
      resizeWidth: Math.max(1, Math.round(width * by)),
      resizeHeight: Math.max(1, Math.round(height * by)),
      resizeQuality: 'pixelated',
    });
    return this.api.read(Comlink.transfer(own, [own]), warn);
  }
  rest(): void {
    this.worker?.terminate();
    this.worker = this.api = null;
  }
}
