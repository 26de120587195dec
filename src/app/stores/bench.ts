import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import type { Edit } from '../../core/document/edit';
import { addPass, newPass } from '../../core/document/edits/passes';
import { sourceSize } from '../../core/document/find';
import type { Layer, LayerId, PassId, Project, Shot, ShotId } from '../../core/document/schema';
import { newId } from '../ids';
import { useProject } from './project';

export const VIEWS = [
  { name: 'picture', label: 'Picture', help: 'The whole shot' },
  { name: 'matte', label: 'Matte', help: 'Coverage of the chosen layer: white is solid, black is clear' },
  { name: 'compare', label: 'Before | After', help: 'Without the chosen pass on the left of the divider, with it on the right' },
  { name: 'alone', label: 'Layer alone', help: 'The chosen layer without the others' },
] as const;
export type ViewName = (typeof VIEWS)[number]['name'];
export type PreviewScale = 'auto' | 1 | 2 | 4;
/** What the dials show and the viewer has handles for: a pass, or one of the fixed ends of the line. */
export type Chosen = PassId | 'source' | 'place';

/** What is open and chosen on the bench, and edits of it. */
export const useBench = defineStore('bench', () => {
  const store = useProject();
  const shotId = ref<ShotId | null>(null);
  const layerId = ref<LayerId | null>(null);
  const chosen = ref<Chosen>('place');
  const view = ref<ViewName>('picture');
  const scale = ref<PreviewScale>('auto');
  const frame = ref(0);
  const picking = ref(false);

  const shot = computed<Shot | null>(() => store.project?.shots.find((item) => item.id === shotId.value) ?? null);
  const layer = computed<Layer | null>(() => shot.value?.layers.find((item) => item.id === layerId.value) ?? null);
  const pass = computed(() => layer.value?.passes.find((item) => item.id === chosen.value) ?? null);
  const size = computed(() => (store.project && layer.value ? sourceSize(store.project, layer.value) : null));
  const at = computed(() => ({ shot: shotId.value!, layer: layerId.value! }));

  // whatever an undo takes away can no longer be chosen
  watch([shot, layer], () => {
    if (store.project && !shot.value) shotId.value = store.project.shots[0]?.id ?? null;
    if (shot.value && !layer.value) layerId.value = shot.value.layers[0]?.id ?? null;
    if (shot.value && frame.value >= shot.value.length) frame.value = shot.value.length - 1;
  });
  watch([layer, chosen], () => {
    const fixed = chosen.value === 'place' || chosen.value === 'source';
    if (layer.value && !fixed && !pass.value) chosen.value = layer.value.passes.at(-1)?.id ?? 'place';
    picking.value = picking.value && pass.value?.type === 'colour-key';
  });

  function openShot(id: ShotId | null): void {
    shotId.value = id;
    const first = shot.value?.layers.find((item) => item.passes.length) ?? shot.value?.layers[0];
    layerId.value = first?.id ?? null;
    chosen.value = first?.passes[0]?.id ?? 'place';
    frame.value = 0;
    view.value = 'picture';
  }

  function choose(id: LayerId, part?: Chosen): void {
    if (id !== layerId.value) {
      layerId.value = id;
      chosen.value = part ?? layer.value?.passes.at(-1)?.id ?? 'place';
    } else if (part) chosen.value = part;
  }

  const seek = (to: number): void => {
    frame.value = Math.max(0, Math.min((shot.value?.length ?? 1) - 1, Math.round(to)));
  };

  /** Edits the chosen layer, unless it is locked. */
  function editLayer(make: (project: Project, at: { shot: ShotId; layer: LayerId }) => Edit, gesture?: string): void {
    if (layer.value && !layer.value.locked) store.edit(make(store.current(), at.value), gesture);
  }

  /** Puts a pass into the chosen layer's line, after the chosen pass, and opens its dials. */
  function insertPass(type: string): void {
    if (!layer.value || layer.value.locked) return;
    const index = layer.value.passes.findIndex((item) => item.id === chosen.value);
    const id = newId<PassId>();
    store.edit(addPass(at.value, newPass(id, type), chosen.value === 'source' ? 0 : index < 0 ? undefined : index + 1));
    chosen.value = id;
    picking.value = type === 'colour-key';
  }

  return { shotId, layerId, chosen, view, scale, frame, picking, shot, layer, pass, size, at, openShot, choose, seek, editLayer, insertPass };
});
