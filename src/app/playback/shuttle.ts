import { ref, type Ref } from 'vue';
import { secondsAt, type FrameRate } from '../../core/time/rate';

/** Fastest pace, in times the shot's own. */
const FASTEST = 8;

/** The playhead that is run, and where. */
interface Playhead {
  range: Ref<{ from: number; to: number }>;
  loop: Ref<boolean>;
  frame(): number;
  /** of the shot that is open; null when there is none */
  rate(): FrameRate | null;
  seek(frame: number): void;
  /** told before it runs or stops */
  begin(): void;
}

/** Runs the playhead without sound, backwards or forwards. */
export function useShuttle({ range, loop, ...head }: Playhead): {
  shuttling: Ref<number>;
  shuttle: (way: -1 | 0 | 1) => void;
} {
  /** times the shot's own pace; negative backwards, 0 while it rests */
  const shuttling = ref(0);
  let timer: ReturnType<typeof setInterval> | undefined;

  /** Asked again the same way it doubles its pace. */
  function shuttle(way: -1 | 0 | 1): void {
    head.begin();
    clearInterval(timer);
    const now = shuttling.value;
    shuttling.value = way === 0 ? 0 : Math.sign(now) === way ? Math.max(-FASTEST, Math.min(FASTEST, now * 2)) : way;
    const rate = head.rate();
    if (!shuttling.value || !rate) return;
    const from = { frame: head.frame(), time: performance.now() };
    timer = setInterval(
      () => {
        const passed = ((performance.now() - from.time) / 1000) * (rate.num / rate.den) * shuttling.value;
        const frame = Math.round(from.frame + passed);
        const { from: first, to: end } = range.value;
        const inside = frame >= first && frame < end;
        if (!inside && !loop.value) return shuttle(0);
        head.seek(inside ? frame : first + ((((frame - first) % (end - first)) + end - first) % (end - first)));
      },
      secondsAt(1, rate) * 1000,
    );
  }
  return { shuttling, shuttle };
}
