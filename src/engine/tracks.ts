import * as Comlink from 'comlink';
import { JackplaneError } from '../core/base/errors';
import type { Point } from '../core/track/motion';
import type { Run, RunEnd } from '../core/track/run';
import type { Carried, Carry } from '../core/track/vertices';
import type { Clip, RunNews } from './types';
import type { TrackApi } from './workers/track.worker';

interface Thread {
  api: Comlink.Remote<TrackApi>;
  terminate(): void;
}

const given = (): JackplaneError =>
  new JackplaneError(
    'cancelled',
    'The run was ended: its clip was closed, or could not be read any more.',
    'Run it again.',
  );

/** The worker that follows patterns: made when first asked, given back when a project closes. One run at a time. */
export class TrackRunner {
  private thread: Promise<Thread> | null = null;
  private running = false;
  private abandon: (() => void) | null = null;

  constructor(private readonly begin: () => Promise<Thread>) {}

  private async api(): Promise<Comlink.Remote<TrackApi>> {
    return (await (this.thread ??= this.begin())).api;
  }

  /** @param looked of a frame's pixels, below 128 where it is not to be looked at; null where it is everywhere @param signal stops after the frame that is being measured; what was told of before stays @throws JackplaneError of media, conflict */
  run(
    clip: Clip,
    run: Run,
    news: (news: RunNews) => void,
    signal: AbortSignal,
    looked: ((frame: number) => Promise<Uint8Array | null>) | null = null,
  ): Promise<RunEnd> {
    return this.alone<RunEnd>(
      signal,
      (api) => api.run(clip, run, Comlink.proxy(news), looked && Comlink.proxy(looked)),
      { why: 'stopped' },
    );
  }
  /** Carries vertices of a path along a clip. @param progress the frame that was done last */
  carry(clip: Clip, carry: Carry, progress: (frame: number) => void, signal: AbortSignal): Promise<Carried[]> {
    return this.alone(signal, (api) => api.carry(clip, carry, Comlink.proxy(progress)), []);
  }

  private async alone<T>(
    signal: AbortSignal,
    work: (api: Comlink.Remote<TrackApi>) => Promise<T>,
    nothing: T,
  ): Promise<T> {
    if (this.running)
      throw new JackplaneError('conflict', 'Another track is being measured.', 'Wait for it, or stop it.');
    this.running = true;
    try {
      const api = await this.api();
      if (signal.aborted) return nothing;
      const stop = () => void api.stop();
      signal.addEventListener('abort', stop);
      // a worker that is given back answers no more
      const ended = new Promise<never>((_, fail) => (this.abandon = () => fail(given())));
      return await Promise.race([work(api), ended]).finally(() => signal.removeEventListener('abort', stop));
    } finally {
      this.running = false;
      this.abandon = null;
    }
  }

  /** Places of a frame that can be found again well, in source pixels from the centre. */
  async findPoints(clip: Clip, frame: number, most: number, apart: number): Promise<Point[]> {
    return (await this.api()).findPoints(clip, frame, most, apart);
  }

  rest(): void {
    void this.thread?.then((thread) => thread.terminate());
    this.thread = null;
    this.abandon?.();
  }
}
