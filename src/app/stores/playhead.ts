import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { groupOf, type LayerId, type ShotId } from '../../core/document/schema';
import { momentOf } from '../../core/place/moment';
import { useBench } from './bench';
import { useProject } from './project';

/** The frame of the open shot that is worked on. */
export const usePlayhead = defineStore('playhead', () => {
  const bench = useBench();
  const store = useProject();
  const frame = ref(0);

  const seek = (to: number): void => {
    frame.value = Math.max(0, Math.min((bench.shot?.length ?? 1) - 1, Math.round(to)));
  };
  watch(
    () => bench.opened,
    () => (frame.value = 0),
    { flush: 'sync' },
  );
  watch(
    () => bench.shot,
    (shot) => {
      if (shot && frame.value >= shot.length) frame.value = shot.length - 1;
    },
  );

  /** It on the chosen layer, for resolving its values. Only while a layer is chosen. */
  const moment = computed(() => momentOf(store.current(), bench.shot!, bench.layer!, frame.value));
  /** the chosen layer is part of the frame */
  const layerHere = computed(() => {
    const span = bench.layer?.span;
    return !!span && frame.value >= span.start && frame.value < span.start + span.length;
  });
  /** Where an edit of the chosen layer is made. */
  const at = computed(() => ({ shot: bench.shotId!, layer: bench.layerId!, frame: frame.value }));

  /** Opens a group from a layer that shows it, or goes back out to the layer that shows the open one; the playhead stays. */
  function step(id: ShotId): void {
    const [from, at] = [bench.shotId, frame.value];
    bench.openShot(id);
    seek(at);
    const shows = bench.shot?.layers.find((item) => groupOf(item) === from);
    if (shows) bench.choose(shows.id, 'place');
  }

  /** What the playhead and the choice are, to come back to with an undo. */
  store.setHooks({
    context: () => (bench.shotId ? { shot: bench.shotId, layer: bench.layerId, frame: frame.value } : null),
    restore: (where) => {
      if (!store.project?.shots.some((item) => item.id === where.shot)) return;
      bench.shotId = where.shot as ShotId;
      if (where.layer && bench.shot?.layers.some((item) => item.id === where.layer))
        bench.layerId = where.layer as LayerId;
      seek(where.frame);
    },
  });

  return { frame, seek, moment, layerHere, at, step };
});
