import type { Ref } from 'vue';
import { planLayer, visibleLayers } from '../../core/plan/plan';
import type { LayerId } from '../../core/document/schema';
import { useEngine } from '../../engine/client';
import { usePlayhead } from '../stores/playhead';
import { useViewing } from '../stores/viewing';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';
import type { ViewFrame } from './frame';
import { placeInLayer } from './layer-place';

/** A layer counts as being there from so much coverage on. */
const SEEN = 0.15;
/** Layers are looked at this many times smaller than they are. */
const SMALL = 4;

/** The layers that show at a place of the shot, the top one first. @param at in shot pixels from its top left */
export async function layersAt([x, y]: readonly [number, number]): Promise<LayerId[]> {
  const { shot } = useBench();
  const { frame } = usePlayhead();
  const project = useProject().current();
  if (!shot) return [];
  const engine = await useEngine();
  const found: LayerId[] = [];
  for (const layer of visibleLayers(shot, frame)) {
    const plan = layer.locked ? null : planLayer(project, shot, layer, frame, SMALL);
    const there = plan && placeInLayer(plan, [x / SMALL, y / SMALL]);
    if (!plan || !there) continue;
    const [u, v] = there;
    const [, , , alpha] = await engine.measure(plan, 'mean', { x: Math.floor(u), y: Math.floor(v), w: 1, h: 1 });
    if (alpha >= SEEN) found.push(layer.id);
  }
  return found;
}

/** Pixels of the screen that a click may move by. */
const STILL = 3;

/** What clicks on the picture do. */
export interface ClickChoice {
  press(event: PointerEvent): void;
  /** a click that is no drag chooses the layer that shows there; once more, the one below it */
  click(event: MouseEvent): Promise<void>;
  /** a double click types the title that shows there */
  doubled(event: MouseEvent): Promise<void>;
}
/** @param free no tool has the picture */
export function useClickChoice(
  stage: Ref<HTMLElement | undefined>,
  frame: Ref<ViewFrame>,
  free: Ref<boolean>,
): ClickChoice {
  const bench = useBench();
  const viewing = useViewing();
  let pressed = { x: 0, y: 0 };
  // what cannot be shown is said in the viewer
  function under(event: MouseEvent): Promise<LayerId[]> {
    const bounds = stage.value!.getBoundingClientRect();
    const { x, y, scale } = frame.value;
    return layersAt([(event.clientX - bounds.left - x) / scale, (event.clientY - bounds.top - y) / scale]).catch(
      () => [],
    );
  }
  const onPicture = (event: MouseEvent) => (event.target as Element).closest('.picture, .handles .outline');
  return {
    press: (event) => (pressed = { x: event.clientX, y: event.clientY }),
    async click(event) {
      const moved = Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > STILL;
      if (!free.value || moved || !onPicture(event) || event.detail !== 1) return;
      const hits = await under(event);
      const next = hits[(hits.indexOf(bench.layerId!) + 1) % Math.max(1, hits.length)];
      if (next && next !== bench.layerId) useSelection().pickLayer(next, false);
    },
    async doubled(event) {
      if (!free.value || !onPicture(event)) return;
      const [top] = await under(event);
      if (bench.shot?.layers.find(({ id }) => id === top)?.source.type !== 'title') return;
      useSelection().pickLayer(top!, false);
      viewing.typeText();
    },
  };
}
