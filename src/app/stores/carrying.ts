import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { setPathOn } from '../../core/document/edits/masks';
import type { MaskId } from '../../core/document/mask';
import type { Vertex } from '../../core/masks/path';
import type { Point } from '../../core/track/motion';
import { useEngine } from '../../engine/client';
import { usePlayhead } from './playhead';
import { useBench } from './bench';
import { useMasking } from './masking';
import { useNotices } from './notices';
import { useProject } from './project';
import { useTracking, WEAK } from './tracking';

/** The chosen path carried on by the motion about its vertices, and how sure that was. */
export const useCarrying = defineStore('carrying', () => {
  const bench = useBench();
  const playhead = usePlayhead();
  const masking = useMasking();
  const notices = useNotices();
  const store = useProject();
  const tracking = useTracking();
  const going = ref<{ done: number; of: number } | null>(null);
  /** how sure each vertex was, and where it was put, by mask and frame of layer time */
  const known = shallowRef<ReadonlyMap<string, readonly { sure: number; at: Point }[]>>(new Map());
  let stopper: AbortController | null = null;

  const keyOf = (id: MaskId, frame: number): string => `${id} ${frame}`;
  /** The vertices of the chosen path that are weak on the frame of the playhead. */
  const weak = computed<ReadonlySet<number>>(() => {
    const sure = masking.mask && known.value.get(keyOf(masking.mask.id, masking.frame));
    // one that has been moved since was corrected
    const there = (i: number, [x, y]: Point) => masking.path[i]?.[0] === x && masking.path[i][1] === y;
    return new Set(sure?.flatMap(({ sure: v, at }, i) => (v < WEAK && there(i, at) ? [i] : [])));
  });

  /** @param frames of the clip, backwards when negative */
  async function carry(frames: number): Promise<void> {
    const { mask, path } = masking;
    const clip = tracking.clipNow();
    const { layer, shot } = bench;
    if (!mask || !clip || !layer || !shot || going.value || !path.length) return;
    const at = playhead.at;
    const from = tracking.frame;
    const to = Math.min(clip.frames - 1, Math.max(0, from + frames));
    stopper = new AbortController();
    going.value = { done: 0, of: Math.abs(to - from) };
    try {
      const points = path.map(([x, y]): Point => [x, y]);
      const engine = await useEngine();
      const heard = (frame: number) => going.value && (going.value.done = Math.abs(frame - from));
      const carried = await engine.tracks.carry(clip, { points, size: tracking.size, from, to }, heard, stopper.signal);
      const sure = new Map(known.value);
      const paths = new Map<number, readonly Vertex[]>();
      for (const step of carried) {
        const shown = tracking.shotFrames.get(step.frame);
        if (shown === undefined) continue;
        const local = shown - layer.span.start;
        paths.set(
          local,
          path.map(([, , ...rest], i): Vertex => [round(step.points[i]![0]), round(step.points[i]![1]), ...rest]),
        );
        sure.set(
          keyOf(mask.id, local),
          step.sure.map((v, i) => ({ sure: v, at: [round(step.points[i]![0]), round(step.points[i]![1])] })),
        );
      }
      known.value = sure;
      if (!paths.size) return notices.say('The layer shows no further frames of its clip that way.', 'problem');
      store.edit(setPathOn(store.current(), at, mask.id, paths));
      const ends = [...paths.keys()];
      playhead.seek(layer.span.start + (frames > 0 ? Math.max(...ends) : Math.min(...ends)));
    } catch (error) {
      notices.problem(error);
    } finally {
      going.value = null;
    }
  }
  const round = (v: number): number => Math.round(v * 100) / 100;

  return { going, weak, carry, stop: () => stopper?.abort() };
});
