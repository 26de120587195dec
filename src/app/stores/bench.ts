import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { clipLine, sourceSize } from '../../core/document/find';
import type { Layer, LayerId, Pass, PassId, Shot, ShotId } from '../../core/document/schema';
import { sameList } from '../base/same';
import { useProject } from './project';

/** What the dials show and the viewer has handles for: a pass, or one of the fixed ends of the line. */
const ENDS = ['in', 'out'] as const;
export type Chosen = PassId | 'source' | 'place' | 'in' | 'out';

/** What is open and chosen on the bench. */
export const useBench = defineStore('bench', () => {
  const store = useProject();
  const shotId = ref<ShotId | null>(null);
  const layerId = ref<LayerId | null>(null);
  const chosen = ref<Chosen>('place');
  /** counts how often dials were asked for, also those that are chosen already */
  const asked = ref(0);
  /** counts how often a shot was opened */
  const opened = ref(0);
  /** the parameter of the chosen pass for which a colour is being picked */
  const picking = ref<string | null>(null);

  const shot = computed<Shot | null>(() => store.project?.shots.find((item) => item.id === shotId.value) ?? null);
  const layer = computed<Layer | null>(() => shot.value?.layers.find((item) => item.id === layerId.value) ?? null);
  /** the passes that belong to the layer's clip, and those with the layer's own after them */
  const clipPasses = computed<readonly Pass[]>((before) =>
    sameList(store.project && layer.value ? clipLine(store.project, layer.value) : [], before),
  );
  const line = computed<readonly Pass[]>((before) =>
    sameList([...clipPasses.value, ...(layer.value?.passes ?? [])], before),
  );
  const pass = computed(() => line.value.find((item) => item.id === chosen.value) ?? null);
  const ofClip = computed(() => !!pass.value && clipPasses.value.includes(pass.value));
  /** the chosen layer's source in pixels; the same object as long as it is as large */
  const size = computed<ReturnType<typeof sourceSize>>((before) => {
    const now = store.project && shot.value && layer.value ? sourceSize(store.project, shot.value, layer.value) : null;
    return before && now && before.w === now.w && before.h === now.h ? before : now;
  });
  /** the end of the layer whose dials are open */
  const end = computed(() => ENDS.find((item) => item === chosen.value) ?? null);

  // whatever an undo takes away can no longer be chosen
  watch([shot, layer], () => {
    if (store.project && !shot.value) shotId.value = store.project.shots[0]?.id ?? null;
    if (shot.value && !layer.value) layerId.value = shot.value.layers[0]?.id ?? null;
  });
  watch([layer, chosen], () => {
    const fixed = chosen.value === 'place' || chosen.value === 'source' || end.value;
    if (layer.value && !fixed && !pass.value) chosen.value = layer.value.passes.at(-1)?.id ?? 'place';
    if (picking.value && !(picking.value in (pass.value?.values ?? {}))) picking.value = null;
  });

  function openShot(id: ShotId | null): void {
    shotId.value = id;
    const first = shot.value?.layers.find((item) => item.passes.length) ?? shot.value?.layers[0];
    layerId.value = first?.id ?? null;
    chosen.value = first?.passes[0]?.id ?? 'place';
    opened.value++;
  }
  function choose(id: LayerId, part?: Chosen): void {
    if (id !== layerId.value) {
      layerId.value = id;
      chosen.value = part ?? layer.value?.passes.at(-1)?.id ?? 'place';
    } else if (part) chosen.value = part;
  }

  /** Shows the dials of a pass, the source or the place. */
  function show(what: Chosen): void {
    chosen.value = what;
    asked.value++;
  }

  // an undo takes the open shot's steps
  watch(shotId, (id) => (store.scope = id), { immediate: true, flush: 'sync' });

  return {
    shotId,
    layerId,
    chosen,
    asked,
    opened,
    picking,
    shot,
    layer,
    clipPasses,
    line,
    pass,
    ofClip,
    size,
    end,
    openShot,
    choose,
    show,
  };
});
