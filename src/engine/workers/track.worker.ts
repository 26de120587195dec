// Follows patterns along clips. It has kernels and memory of its own, so that nothing waits for a run.
import * as Comlink from 'comlink';
import { Arena } from '../../core/picture/arena';
import { bindKernels } from '../../core/picture/kernels';
import type { FetchedPicture } from '../../core/picture/fetched';
import { secondsAt, STAMP_ROUNDING } from '../../core/time/rate';
import { goodPoints } from '../../core/track/corners';
import type { Tools } from '../../core/track/luma';
import { runTrack, type Measured, type Run, type RunEnd } from '../../core/track/run';
import { carryVertices, type Carried, type Carry } from '../../core/track/vertices';
import type { Point } from '../../core/track/motion';
import type { Glimpse } from '../../core/track/tracker';
import { carryErrors } from '../thrown';
import { PATIENCE, tooLong, withPatience } from '../time-limit';
import type { Clip, RunNews } from '../types';
import type { DecodeApi } from './decode.worker';

carryErrors();

/** Milliseconds between one piece of news and the next. */
const NEWS = 80;
/** Frames that a run backwards fetches at once, forwards. */
const BACKWARDS = 24;

let tools: Tools;
let decode: Comlink.Remote<DecodeApi>;
let stopped = false;

const frameOf = ({ stock, name, rate }: Clip, frame: number): Promise<FetchedPicture> =>
  withPatience(
    () => decode.frame(stock, name, secondsAt(frame, rate) + STAMP_ROUNDING),
    PATIENCE,
    () => tooLong(name),
  );

/** Frames of a clip, one after the other in either direction: clips decode only forwards. */
function framesOf(clip: Clip, way: 1 | -1): (frame: number) => Promise<FetchedPicture | null> {
  const held = new Map<number, FetchedPicture>();
  return async (frame) => {
    if (frame < 0 || frame >= clip.frames) return null;
    if (way > 0) return frameOf(clip, frame);
    if (!held.has(frame)) {
      held.clear();
      for (let at = Math.max(0, frame - BACKWARDS + 1); at <= frame; at++) held.set(at, await frameOf(clip, at));
    }
    return held.get(frame)!;
  };
}

const api = {
  async start(module: WebAssembly.Module, limit: number, decoder: MessagePort): Promise<void> {
    const arena = new Arena(limit);
    tools = { kernels: await bindKernels(module, arena), arena };
    decode = Comlink.wrap<DecodeApi>(decoder);
  },

  connectDecoder(port: MessagePort): void {
    decode = Comlink.wrap<DecodeApi>(port);
  },

  /** Measures along a clip. @param news what was measured, a few frames at a time */
  async run(
    clip: Clip,
    run: Run,
    news: (news: RunNews) => unknown,
    looked: ((frame: number) => Promise<Uint8Array | null>) | null,
  ): Promise<RunEnd> {
    stopped = false;
    let measured: Measured[] = [];
    // the end must not overtake what was told before
    const heard: unknown[] = [];
    let told = performance.now();
    const tell = (glimpse: Glimpse | null) => {
      if (measured.length) heard.push(news({ measured, glimpse }));
      measured = [];
      told = performance.now();
    };
    const hear = (now: Measured, glimpse: () => Glimpse | null) => {
      measured.push(now);
      if (performance.now() - told >= NEWS) tell(glimpse());
      return !stopped;
    };
    const end = await runTrack(tools, run, framesOf(clip, run.to < run.from ? -1 : 1), hear, looked);
    tell(null);
    await Promise.all(heard);
    return end;
  },

  /** Carries vertices of a path along a clip. @returns where they are on each frame */
  async carry(clip: Clip, carry: Carry, progress: (frame: number) => unknown): Promise<Carried[]> {
    stopped = false;
    const out: Carried[] = [];
    await carryVertices(tools, carry, framesOf(clip, carry.to < carry.from ? -1 : 1), (carried) => {
      out.push(carried);
      void progress(carried.frame);
      return !stopped;
    });
    return out;
  },

  /** Ends the run after the frame that it is at. */
  stop(): void {
    stopped = true;
  },

  /** Places of a frame that can be found again well, the best first, in source pixels from the centre. */
  async findPoints(clip: Clip, frame: number, most: number, apart: number): Promise<Point[]> {
    return goodPoints(tools, await frameOf(clip, frame), { most, apart });
  },
};

export type TrackApi = typeof api;
Comlink.expose(api);
