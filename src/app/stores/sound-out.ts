import type { SoundItem } from '../../core/sound/mix';
import type { Engine } from '../../engine/client';

const RATE = 48000;
const BLOCK_SECONDS = 1;

/** Plays a shot's mixed sound in blocks, and is the clock of playback. */
export class SoundOut {
  private readonly context = new AudioContext({ sampleRate: RATE });
  private sources: AudioBufferSourceNode[] = [];
  private startedAt = 0;
  private from = 0;
  private run = 0;

  constructor(
    private readonly engine: Engine,
    private readonly items: readonly SoundItem[],
  ) {}

  /** Starts, or starts again, at a moment of the shot; all in seconds. */
  async start(from: number, to: number): Promise<void> {
    const run = ++this.run;
    this.silence();
    await this.context.resume();
    const first = this.items.length ? await this.block(from, to) : null;
    if (run !== this.run) return;
    this.from = from;
    this.startedAt = this.context.currentTime + 0.02;
    if (!first) return;
    this.schedule(first, from);
    void this.goOn(run, from + BLOCK_SECONDS, to);
  }

  private async goOn(run: number, from: number, to: number): Promise<void> {
    for (let at = from; at < to && run === this.run; at += BLOCK_SECONDS) {
      const block = await this.block(at, to);
      if (run !== this.run) return;
      this.schedule(block, at);
      // stay about two blocks ahead of what is heard
      while (run === this.run && at - this.now() > BLOCK_SECONDS)
        await new Promise((resume) => setTimeout(resume, 100));
    }
  }

  private async block(from: number, to: number): Promise<AudioBuffer> {
    const length = Math.max(1, Math.round(Math.min(BLOCK_SECONDS, to - from) * RATE));
    const [left, right] = await this.engine.mix([...this.items], from, length, RATE);
    const buffer = this.context.createBuffer(2, length, RATE);
    buffer.copyToChannel(left as Float32Array<ArrayBuffer>, 0);
    buffer.copyToChannel(right as Float32Array<ArrayBuffer>, 1);
    return buffer;
  }

  private schedule(buffer: AudioBuffer, at: number): void {
    const source = this.context.createBufferSource();
    source.buffer = buffer;
    source.connect(this.context.destination);
    const late = Math.max(0, this.context.currentTime - (this.startedAt + at - this.from));
    source.start(this.startedAt + at - this.from, late);
    this.sources.push(source);
    source.onended = () => (this.sources = this.sources.filter((other) => other !== source));
  }

  /** The moment of the shot that is heard now, in seconds. */
  now(): number {
    return this.from + Math.max(0, this.context.currentTime - this.startedAt);
  }

  private silence(): void {
    this.sources.forEach((source) => source.stop());
    this.sources = [];
  }

  stop(): void {
    this.run++;
    this.silence();
    void this.context.close();
  }
}
