import { defineStore } from 'pinia';
import { computed, ref, shallowRef, toRef, watch } from 'vue';
import { planSound } from '../../core/sound/mix';
import { useEngine } from '../../engine/client';
import { playEvery, playInTime, type Running } from '../playback/running';
import { useShuttle } from '../playback/shuttle';
import { useBench } from './bench';
import { usePlayhead } from './playhead';
import { usePreview } from './preview';
import { useProject } from './project';
import { useReady } from './ready';
import { useShown } from './shown';
import { SoundOut } from './sound-out';

/** Plays the open shot. */
export const usePlayer = defineStore('player', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const preview = usePreview();
  const ready = useReady();
  const shown = useShown();
  const store = useProject();

  const playing = computed(() => preview.playing);
  const loop = ref(true);
  /** frames left out since Play, each once */
  const leftOut = new Set<number>();
  const dropped = ref(0);
  const droppedFrames = shallowRef<readonly number[]>([]);
  // told as often as what is ready
  watch(
    () => ready.runs,
    () => (droppedFrames.value = [...leftOut]),
  );
  let sound: SoundOut | null = null;
  /** how often playing has begun */
  let runs = 0;

  function drop(from: number, to: number): void {
    for (let frame = from; frame < to; frame++) leftOut.add(frame);
    dropped.value += to - from;
  }

  async function play(): Promise<void> {
    const { shot } = bench;
    if (preview.playing || !shot || !store.project) return;
    const engine = await useEngine();
    if (playhead.frame >= ready.range.to - 1 || playhead.frame < ready.range.from) playhead.seek(ready.range.from);
    // automatic preview stays as it is while the next second is ready
    const second = Math.round(shot.rate.num / shot.rate.den);
    const enough = Math.min(second, ready.range.to - ready.range.from);
    preview.playReduction = ready.countFrom(playhead.frame, enough) >= enough ? null : 2;
    shown.stopSettling();
    preview.playing = true;
    dropped.value = 0;
    leftOut.clear();
    void ready.fill();
    const run = ++runs;
    const running: Running = {
      rate: shot.rate,
      range: () => ready.range,
      loops: () => loop.value,
      goesOn: () => preview.playing && run === runs && bench.shot?.id === shot.id,
      frame: () => playhead.frame,
      seek: playhead.seek,
      show: shown.showReady,
      fill: () => {
        if (!ready.filling()) void ready.fill();
      },
      // what was played before ends without stopping what is played now
      stop: () => run === runs && stop(),
    };
    if (ready.keeps === 'every') return playEvery(running);
    sound = new SoundOut(engine, planSound(store.current(), shot.id));
    return playInTime(running, sound, {
      due: (frame) => (ready.due = frame),
      leftOut: drop,
      slow: () => (preview.playReduction = 2),
    });
  }

  function stop(): void {
    preview.playing = false;
    preview.playReduction = null;
    if (ready.due !== null) playhead.seek(ready.due);
    ready.due = null;
    sound?.stop();
    sound = null;
    void shown.refresh();
    ready.restAndFill();
  }
  const { shuttling, shuttle } = useShuttle({
    range: toRef(() => ready.range),
    loop,
    frame: () => playhead.frame,
    rate: () => bench.shot?.rate ?? null,
    seek: playhead.seek,
    begin: () => preview.playing && stop(),
  });
  const toggle = (): void => void (preview.playing || shuttling.value ? shuttle(0) : play());

  return { playing, loop, dropped, droppedFrames, play, stop, toggle, shuttle };
});
