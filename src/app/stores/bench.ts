import { momentOf } from '../../core/place/moment';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Edit } from '../../core/document/edit';
import { addPass, newPass, withoutMasks } from '../../core/document/edits/passes';
import { freeMasks } from '../../core/document/edits/masks';
import { halfWay } from '../../core/document/edits/ends';
import { clipLine, sourceSize, withShot } from '../../core/document/find';
import { tracedProject } from '../../core/plan/traced';
import { paramsOf, passOf, titleOf, type Offered } from '../../core/passes/registry';
import { wholePlace } from '../../core/place/place';
import {
  groupOf,
  stockOf,
  type Layer,
  type LayerId,
  type Pass,
  type PassId,
  type Project,
  type Shot,
  type ShotId,
} from '../../core/document/schema';
import { newId } from '../base/ids';
import { sameList } from '../base/same';
import { useNotices } from './notices';
import { useProject } from './project';

export const VIEWS = [
  { name: 'picture', label: 'Picture', help: 'The whole shot' },
  { name: 'matte', label: 'Matte', help: 'Coverage of the chosen layer: white is solid, black is clear' },
  {
    name: 'relief',
    label: 'Relief',
    help: 'Coverage of the chosen layer as shaded height: contour lines along its edges, rings about crumbs and gaps',
  },
  {
    name: 'compare',
    label: 'Before | After',
    help: 'Without the chosen pass on the left of the divider, with it on the right',
  },
  { name: 'alone', label: 'Layer alone', help: 'The chosen layer without the others' },
] as const;
/** What a layer alone, or its matte, is judged on. */
export const GROUNDS = {
  alone: [
    { name: 'checker', label: 'on checker' },
    { name: 'grey', label: 'on grey' },
    { name: 'black', label: 'on black' },
    { name: 'white', label: 'on white' },
    { name: 'below', label: 'on the layers below' },
  ],
  matte: [
    { name: 'plain', label: 'as grey' },
    { name: 'tint', label: 'as a tint over the layer' },
  ],
} as const;
export const GROUND_COLOURS: Record<string, [number, number, number]> = {
  grey: [0.5, 0.5, 0.5],
  black: [0, 0, 0],
  white: [1, 1, 1],
};
/** Share of the picture's area that the source takes while framings are set. */
export const FRAMING_ROOM = 0.96;
export type ViewName = (typeof VIEWS)[number]['name'];
export type PreviewScale = 'auto' | 1 | 2 | 4;
/** What the dials show and the viewer has handles for: a pass, or one of the fixed ends of the line. */
const ENDS = ['in', 'out'] as const;
/** Something that is only seen on the picture while it is highlighted: a pass, or what the layer would begin or end with. */
export type Tried = { pass: string; values?: Offered['values'] } | { transition: string | null };
export type Chosen = PassId | 'source' | 'place' | 'in' | 'out';

/** What is open and chosen on the bench, and edits of it. */
export const useBench = defineStore('bench', () => {
  const store = useProject();
  const shotId = ref<ShotId | null>(null);
  const layerId = ref<LayerId | null>(null);
  const chosen = ref<Chosen>('place');
  /** counts how often dials were asked for, also those that are chosen already */
  const asked = ref(0);
  const view = ref<ViewName>('picture');
  const ground = ref<{ alone: string; matte: string }>({ alone: 'checker', matte: 'plain' });
  const scale = ref<PreviewScale>('auto');
  const frame = ref(0);
  /** the parameter of the chosen pass for which a colour is being picked */
  const picking = ref<string | null>(null);
  /** the picture is shown only up to this pass, as long as Alt is held on it */
  const upTo = ref<PassId | null>(null);
  /** a type of pass that is shown as if it were in the line, while it is looked at in the search */
  const tried = shallowRef<Tried | null>(null);
  /** the light of dark, middle and bright parts is dragged on the picture */
  const ranging = ref(false);
  /** the chosen layer is traced: shown uncut, with this share of what lies above it; null when it is not */
  const tracing = ref<number | null>(null);
  /** the framing tool is open */
  const framing = ref(false);
  /** the title whose text is being typed on the picture */
  const typing = ref<LayerId | null>(null);

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
  /** The playhead on the chosen layer, for resolving its values. Only while a layer is chosen. */
  const moment = computed(() => momentOf(store.current(), shot.value!, layer.value!, frame.value));
  /** the chosen layer is part of the frame at the playhead */
  const layerHere = computed(
    () =>
      !!layer.value &&
      frame.value >= layer.value.span.start &&
      frame.value < layer.value.span.start + layer.value.span.length,
  );
  const at = computed(() => ({ shot: shotId.value!, layer: layerId.value!, frame: frame.value }));

  // whatever an undo takes away can no longer be chosen
  watch([shot, layer], () => {
    if (store.project && !shot.value) shotId.value = store.project.shots[0]?.id ?? null;
    if (shot.value && !layer.value) layerId.value = shot.value.layers[0]?.id ?? null;
    if (shot.value && frame.value >= shot.value.length) frame.value = shot.value.length - 1;
  });
  watch([layerId, chosen], () => (framing.value = ranging.value = false));
  watch([layer, chosen], () => {
    const fixed = chosen.value === 'place' || chosen.value === 'source' || end.value;
    if (layer.value && !fixed && !pass.value) chosen.value = layer.value.passes.at(-1)?.id ?? 'place';
    if (picking.value && !(picking.value in (pass.value?.values ?? {}))) picking.value = null;
  });

  /** Opens a group from a layer that shows it, or goes back out to the layer that shows the open one; the playhead stays. */
  function step(id: ShotId): void {
    const from = shotId.value;
    const at = frame.value;
    openShot(id);
    seek(at);
    const shows = shot.value?.layers.find((item) => groupOf(item) === from);
    if (shows) choose(shows.id, 'place');
  }
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

  // an undo takes the open shot's steps
  watch(shotId, (id) => (store.scope = id), { immediate: true, flush: 'sync' });
  /** What the playhead and the choice are, to come back to with an undo. */
  store.setHooks({
    context: () => (shotId.value ? { shot: shotId.value, layer: layerId.value, frame: frame.value } : null),
    restore: (where) => {
      if (!store.project?.shots.some((item) => item.id === where.shot)) return;
      shotId.value = where.shot as ShotId;
      if (where.layer && shot.value?.layers.some((item) => item.id === where.layer))
        layerId.value = where.layer as LayerId;
      seek(where.frame);
    },
  });

  /** Edits the chosen layer, unless it is locked. */
  function editLayer(
    make: (project: Project, at: { shot: ShotId; layer: LayerId; frame: number }) => Edit,
    gesture?: string,
  ): void {
    if (!layer.value || layer.value.locked) return;
    try {
      store.edit(make(store.current(), at.value), gesture);
    } catch (error) {
      useNotices().problem(error); // an edit that would make no sense says why
    }
  }

  /** Where a new pass goes: after the chosen one, at the end when none is chosen. */
  function nextPlace(): number {
    const passes = layer.value?.passes ?? [];
    const index = passes.findIndex((item) => item.id === chosen.value);
    return chosen.value === 'source' || ofClip.value ? 0 : index < 0 ? passes.length : index + 1;
  }

  /** A pass for the chosen layer; it works inside masks that were drawn and do nothing yet. */
  function passFor(id: PassId, type: string, values?: Offered['values']): Pass {
    const declared = passOf(type);
    const inShot = declared?.space === 'shot' && shot.value;
    const own = newPass(id, type, inShot ? { w: inShot.width, h: inShot.height } : size.value, values);
    const masks = declared?.whole || declared?.group === 'cut out' || !layer.value ? [] : freeMasks(layer.value);
    return masks.length ? { ...own, area: { masks, side: 'inside' } } : own;
  }
  /** The chosen layer's line with a new pass where it would come. */
  const lineWith = (type: string, values?: Offered['values']): Pass[] => {
    const passes = [...(layer.value?.passes ?? [])];
    passes.splice(nextPlace(), 0, passFor('tried' as PassId, type, values));
    return passes;
  };
  /** Puts a pass into the chosen layer's line, after the chosen pass, and opens its dials. */
  function insertPass(type: string, values?: Offered['values']): void {
    if (!layer.value || layer.value.locked) return;
    const own = passFor(newId<PassId>(), type, values);
    const names = layer.value.masks.filter((mask) => own.area?.masks.includes(mask.id)).map(({ name }) => name);
    store.edit(addPass(at.value, own, nextPlace()));
    chosen.value = own.id;
    if (names.length) useNotices().say(`${titleOf(type)} works inside ${names.join(', ')}.`);
    const pickFirst = Object.entries(paramsOf(type)).find(([, param]) => param.kind === 'samples' && param.finds);
    picking.value = pickFirst?.[0] ?? null;
  }

  /** Shows the dials of the layer's pass of a type, and adds one when it has none. */
  function openPass(type: string): void {
    const there = layer.value?.passes.find((item) => item.type === type);
    if (there) show(there.id);
    else insertPass(type);
  }

  /** A copy of a pass, the chosen one when left out, at the end of another layer's line. */
  function copyPassTo(target: LayerId, own: Pass | null = pass.value): void {
    if (own) store.edit(addPass({ shot: shotId.value!, layer: target }, withoutMasks({ ...own, id: newId<PassId>() })));
  }
  /** A copy of one of the chosen layer's passes, right after it. */
  function duplicatePass(own: Pass): void {
    const copy = { ...own, id: newId<PassId>() };
    const index = layer.value?.passes.indexOf(own) ?? -1;
    editLayer((_, where) => addPass(where, copy, index < 0 ? undefined : index + 1));
    chosen.value = copy.id;
  }

  /** The chosen layer's whole picture, alone and fitted into the shot with a little room. */
  function framed(project: Project, own: Layer): Project {
    const changed = (item: Shot): Shot => {
      const fitted = Math.min(item.width / size.value!.w, item.height / size.value!.h) * FRAMING_ROOM;
      const layer: Layer = {
        ...own,
        parent: null,
        motionBlur: null,
        opacity: { still: 1 },
        blend: 'normal',
        shown: true,
        place: { ...wholePlace(), scale: { still: [fitted, fitted] } },
      };
      return { ...item, layers: [layer] };
    };
    return { ...project, shots: project.shots.map((item) => (item.id === shotId.value ? changed(item) : item)) };
  }

  /** The project as it is shown: cut off at the pass that Alt is held on, and with the pass that is tried. */
  const looked = computed<Project | null>(() => {
    const { project } = store;
    const own = layer.value;
    if (framing.value && project && own && size.value) return framed(project, own);
    if (project && own && tracing.value !== null) return tracedProject(project, shotId.value!, own.id, tracing.value);
    if (!project || !own || (!upTo.value && !tried.value)) return project;
    if (tried.value && 'transition' in tried.value) {
      const seen = halfWay(own, tried.value.transition, frame.value - own.span.start);
      return withShot(project, {
        ...shot.value!,
        layers: shot.value!.layers.map((item) => (item === own ? seen : item)),
      });
    }
    const passes = tried.value ? lineWith(tried.value.pass, tried.value.values) : [...own.passes];
    const ofClip = clipPasses.value.findIndex((item) => item.id === upTo.value);
    if (!tried.value) passes.splice(passes.findIndex((item) => item.id === upTo.value) + 1);
    const changed = (item: Shot): Shot => ({
      ...item,
      layers: item.layers.map((entry) => (entry.id === own.id ? { ...entry, passes } : entry)),
    });
    const stock =
      ofClip < 0
        ? project.stock
        : project.stock.map((item) =>
            item.id === stockOf(own) ? { ...item, line: item.line.slice(0, ofClip + 1) } : item,
          );
    return { ...project, stock, shots: project.shots.map((item) => (item.id === shotId.value ? changed(item) : item)) };
  });

  /** Opens the chosen title's text for typing on the picture. */
  function typeText(): void {
    if (layer.value?.source.type !== 'title' || layer.value.locked || store.readOnly || !layerHere.value) return;
    show('source');
    if ((layer.value.source.values['counter'] as { still: unknown }).still !== 'none')
      return useNotices().say('This title counts: its text, with # for what is counted, is changed in the dials.');
    view.value = 'picture';
    typing.value = layer.value.id;
  }

  /** Shows the dials of a pass, the source or the place. */
  function show(what: Chosen): void {
    chosen.value = what;
    asked.value++;
  }

  return {
    layerHere,
    asked,
    show,
    framing,
    typing,
    typeText,
    tracing,
    ranging,
    upTo,
    tried,
    looked,
    copyPassTo,
    duplicatePass,
    shotId,
    layerId,
    chosen,
    view,
    ground,
    scale,
    frame,
    picking,
    shot,
    layer,
    pass,
    clipPasses,
    line,
    ofClip,
    size,
    moment,
    end,
    at,
    openShot,
    step,
    choose,
    seek,
    editLayer,
    lineWith,
    insertPass,
    openPass,
  };
});
