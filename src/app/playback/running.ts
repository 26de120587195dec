// The two ways of playing: in time with the sound, and every frame.
import { secondsAt, type FrameRate } from '../../core/time/rate';

/** Frames in a row that are missing before it is said that playing is too slow. */
const MISSED_BEFORE_SLOW = 12;
/** While frames are missing, the playhead on the screen moves only this often, in milliseconds: drawing it takes the processor from the frames. */
const MOVE_EVERY = 150;

/** What is played, and what is done with it. */
export interface Running {
  rate: FrameRate;
  range(): { from: number; to: number };
  loops(): boolean;
  /** it has not been stopped, and its shot is open */
  goesOn(): boolean;
  /** where the playhead is on the screen */
  frame(): number;
  seek(frame: number): void;
  /** @returns false when the frame is not ready */
  show(frame: number): boolean;
  /** lets frames ahead be computed */
  fill(): void;
  stop(): unknown;
}
/** Sound that plays along, and is the clock. */
export interface Clock {
  /** in seconds of the shot */
  now(): number;
  start(from: number, to: number): Promise<void>;
}
/** What playing in time tells while it runs. */
export interface Told {
  /** a frame is due now */
  due(frame: number): void;
  /** frames from one to before another were left out */
  leftOut(from: number, to: number): void;
  slow(): void;
}

/** The sound is the clock; a frame that is not ready when it is due is left out. */
export async function playInTime(running: Running, clock: Clock, told: Told): Promise<void> {
  const { rate } = running;
  const startAt = (frame: number) => clock.start(secondsAt(frame, rate), secondsAt(running.range().to, rate));
  await startAt(running.frame());
  let last = running.frame();
  let missed = 0;
  let movedAt = 0;
  const tick = () => {
    if (!running.goesOn()) return void running.stop();
    const { from, to } = running.range();
    let frame = Math.floor((clock.now() * rate.num) / rate.den + 1e-6);
    if (frame >= to) {
      if (!running.loops()) return void running.stop();
      frame = from;
      last = frame - 1;
      void startAt(frame);
    }
    if (frame !== last) {
      const seen = running.show(frame);
      told.leftOut(last + 1, seen ? frame : frame + 1);
      missed = seen ? 0 : missed + frame - last;
      if (missed >= MISSED_BEFORE_SLOW) told.slow();
      last = frame;
      told.due(frame);
      const now = performance.now();
      if (seen || now - movedAt >= MOVE_EVERY) {
        running.seek(frame);
        movedAt = now;
      }
      running.fill();
    }
    // nothing happens before the next frame is due: the page is not asked to draw in between
    const due = (secondsAt(frame + 1, rate) - clock.now()) * 1000;
    setTimeout(() => requestAnimationFrame(tick), Math.max(0, due - 12));
  };
  requestAnimationFrame(tick);
}

/** No frame is left out: the next one is shown when it is due and ready. Without sound. */
export function playEvery(running: Running): void {
  const long = secondsAt(1, running.rate) * 1000;
  let due = performance.now() + long;
  const tick = () => {
    if (!running.goesOn()) return void running.stop();
    const { from, to } = running.range();
    const after = running.frame() + 1;
    if (after >= to && !running.loops()) return void running.stop();
    const next = after < to ? after : from;
    const now = performance.now();
    if (now >= due - 2 && running.show(next)) {
      running.seek(next);
      due = Math.max(due + long, now);
    }
    running.fill();
    requestAnimationFrame(tick);
  };
  requestAnimationFrame(tick);
}
