import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { halfWay } from '../../core/document/edits/ends';
import { withShot } from '../../core/document/find';
import { stockOf, type Layer, type LayerId, type PassId, type Project, type Shot } from '../../core/document/schema';
import { wholePlace } from '../../core/place/place';
import { tracedProject } from '../../core/plan/traced';
import { useBench } from './bench';
import { useEdits } from './edits';
import { useNotices } from './notices';
import { usePlayhead } from './playhead';
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

/** How the open shot is looked at, and what is worked on over its picture. */
export const useViewing = defineStore('viewing', () => {
  const bench = useBench();
  const edits = useEdits();
  const playhead = usePlayhead();
  const store = useProject();
  const view = ref<ViewName>('picture');
  const ground = ref<{ alone: string; matte: string }>({ alone: 'checker', matte: 'plain' });
  const scale = ref<PreviewScale>('auto');
  /** the picture is shown only up to this pass, as long as Alt is held on it */
  const upTo = ref<PassId | null>(null);
  /** the light of dark, middle and bright parts is dragged on the picture */
  const ranging = ref(false);
  /** the chosen layer is traced: shown uncut, with this share of what lies above it; null when it is not */
  const tracing = ref<number | null>(null);
  /** the framing tool is open */
  const framing = ref(false);
  /** the title whose text is being typed on the picture */
  const typing = ref<LayerId | null>(null);

  watch(
    () => bench.opened,
    () => (view.value = 'picture'),
    { flush: 'sync' },
  );
  watch([() => bench.layerId, () => bench.chosen], () => (framing.value = ranging.value = false));

  /** The chosen layer's whole picture, alone and fitted into the shot with a little room. */
  function framed(project: Project, own: Layer): Project {
    const changed = (item: Shot): Shot => {
      const fitted = Math.min(item.width / bench.size!.w, item.height / bench.size!.h) * FRAMING_ROOM;
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
    return { ...project, shots: project.shots.map((item) => (item.id === bench.shotId ? changed(item) : item)) };
  }

  /** The project as it is shown: cut off at the pass that Alt is held on, and with the pass that is tried. */
  const looked = computed<Project | null>(() => {
    const { project } = store;
    const own = bench.layer;
    if (framing.value && project && own && bench.size) return framed(project, own);
    if (project && own && tracing.value !== null) return tracedProject(project, bench.shotId!, own.id, tracing.value);
    if (!project || !own || (!upTo.value && !edits.tried)) return project;
    if (edits.tried && 'transition' in edits.tried) {
      const seen = halfWay(own, edits.tried.transition, playhead.frame - own.span.start);
      return withShot(project, {
        ...bench.shot!,
        layers: bench.shot!.layers.map((item) => (item === own ? seen : item)),
      });
    }
    const passes = edits.tried ? edits.lineWith(edits.tried.pass, edits.tried.values) : [...own.passes];
    const ofClip = bench.clipPasses.findIndex((item) => item.id === upTo.value);
    if (!edits.tried) passes.splice(passes.findIndex((item) => item.id === upTo.value) + 1);
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
    return { ...project, stock, shots: project.shots.map((item) => (item.id === bench.shotId ? changed(item) : item)) };
  });

  /** Opens the chosen title's text for typing on the picture. */
  function typeText(): void {
    if (bench.layer?.source.type !== 'title' || bench.layer.locked || store.readOnly || !playhead.layerHere) return;
    bench.show('source');
    if ((bench.layer.source.values['counter'] as { still: unknown }).still !== 'none')
      return useNotices().say('This title counts: its text, with # for what is counted, is changed in the dials.');
    view.value = 'picture';
    typing.value = bench.layer.id;
  }

  return { view, ground, scale, upTo, ranging, tracing, framing, typing, typeText, looked };
});
