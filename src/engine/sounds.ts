import * as Comlink from 'comlink';
import type { SoundItem } from '../core/sound/mix';
import { PATIENCE, tooLong, withPatience } from './time-limit';
import type { SoundApi } from './workers/sound.worker';

export interface OpenFile {
  file: Blob;
  name: string;
}
export interface SoundThread {
  api: Pick<Comlink.Remote<SoundApi>, 'decode' | 'drop' | 'mix'>;
  terminate(): void;
}

/** The worker that sound comes from. Each stock is decoded there once, when it is first heard. */
export class Sounds {
  private thread: SoundThread | null = null;
  private readonly decoding = new Map<string, Promise<void>>();
  /** stock that kept a worker busy for ever; it stays silent */
  private readonly refused = new Set<string>();

  /** @param open what is open by its id @param begin starts a worker */
  constructor(
    private readonly open: ReadonlyMap<string, OpenFile>,
    private readonly begin: () => SoundThread,
    private readonly patience = PATIENCE,
  ) {}

  /** Mixed stereo, transferable. Missing sound is silent. @param from second of the shot @param length in samples @throws JackplaneError when a sound cannot be decoded */
  readonly mix = async (
    items: SoundItem[],
    from: number,
    length: number,
    rate: number,
  ): Promise<[Float32Array, Float32Array]> => {
    await Promise.all([...new Set(items.map((item) => item.stock))].map((id) => this.decoded(id)));
    this.thread ??= this.begin();
    const [left, right] = await this.thread.api.mix(items, from, length, rate);
    return Comlink.transfer([left, right], [left.buffer as ArrayBuffer, right.buffer as ArrayBuffer]);
  };

  async close(id: string): Promise<void> {
    this.refused.delete(id);
    if (this.decoding.delete(id)) await this.thread?.api.drop(id);
  }

  private decoded(id: string): Promise<void> {
    const file = this.open.get(id);
    if (!file || this.refused.has(id)) return Promise.resolve();
    let work = this.decoding.get(id);
    if (!work) this.decoding.set(id, (work = this.decode(id, file)));
    return work;
  }

  /** One that does not get on is given up, and the worker replaced; what others were at begins anew in the new one. */
  private async decode(id: string, { file, name }: OpenFile): Promise<void> {
    const thread = (this.thread ??= this.begin());
    const late = tooLong(name);
    try {
      await withPatience(
        (alive) => thread.api.decode(id, file, name, Comlink.proxy(alive)),
        this.patience,
        () => late,
      );
    } catch (error) {
      this.decoding.delete(id);
      if (error !== late) throw error;
      if (thread !== this.thread) return this.decoded(id);
      thread.terminate();
      this.thread = null;
      this.decoding.clear();
      this.refused.add(id);
    }
  }
}
