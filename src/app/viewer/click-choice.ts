import type { Ref } from 'vue';
import { planLayer, visibleLayers } from '../../core/plan/plan';
import type { LayerId } from '../../core/document/schema';
import { useEngine } from '../../engine/client';
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
  const { shot, frame } = useBench();
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

/** A click on the picture that is no drag chooses the layer that shows there; once more, the one below it. @param free no tool has the picture */
export function useClickChoice(
  stage: Ref<HTMLElement | undefined>,
  frame: Ref<ViewFrame>,
  free: Ref<boolean>,
): { press(event: PointerEvent): void; click(event: MouseEvent): Promise<void> } {
  const bench = useBench();
  let pressed = { x: 0, y: 0 };
  return {
    press: (event) => (pressed = { x: event.clientX, y: event.clientY }),
    async click(event) {
      const moved = Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > STILL;
      const onPicture = (event.target as Element).closest('.picture, .handles .outline');
      if (!free.value || moved || !onPicture || event.detail !== 1) return;
      const bounds = stage.value!.getBoundingClientRect();
      const { x, y, scale } = frame.value;
      const at = [(event.clientX - bounds.left - x) / scale, (event.clientY - bounds.top - y) / scale] as const;
      // what cannot be shown is said in the viewer
      const hits = await layersAt(at).catch((): LayerId[] => []);
      const next = hits[(hits.indexOf(bench.layerId!) + 1) % Math.max(1, hits.length)];
      if (next && next !== bench.layerId) useSelection().pickLayer(next, false);
    },
  };
}
