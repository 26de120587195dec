<script setup lang="ts">
import { ref } from 'vue';
import { setPassValue } from '../../core/document/edits/passes';
import { passOf } from '../../core/passes/registry';
import { planBefore } from '../../core/plan/looks';
import { steadyAt } from '../../core/time/values';
import type { Value } from '../../core/base/value';
import { useEngine } from '../../engine/client';
import { followPointer } from '../controls/pointer';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';
import type { ViewFrame } from './frame';
import { placeInLayer } from './layer-place';

/** A drag up or down on the picture turns the light of the part, dark, middle or bright, that it began on. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const preview = usePreview();
const store = useProject();
const notices = useNotices();
/** Pixels of the screen for one stop. */
const PER_STOP = 120;
/** Pixels of the layer each way whose mean is read. */
const READ = 5;
const said = ref('');

/** The dial of the part that the picture belongs to at a place of the stage. */
async function partAt(x: number, y: number): Promise<string | null> {
  const { shot, layer, pass } = bench;
  const ranges = pass && passOf(pass.type)?.ranges;
  const plan = shot && layer && pass && planBefore(store.current(), shot, layer, pass.id, playhead.frame);
  const { frame } = props;
  const there = plan && placeInLayer(plan, [(x - frame.x) / frame.scale, (y - frame.y) / frame.scale]);
  if (!ranges || !plan || !there) return null;
  const rect = { x: there[0] - READ / 2, y: there[1] - READ / 2, w: READ, h: READ };
  const [r, g, b] = await (await useEngine()).measure(plan, 'mean', rect);
  const values = Object.fromEntries(
    Object.entries(pass.values).map(([name, value]) => [name, steadyAt(value, playhead.moment.frame)]),
  );
  const shares = ranges.shares(values as never, 0.2126 * r + 0.7152 * g + 0.0722 * b);
  return ranges.lights[shares.indexOf(Math.max(...shares))]!;
}

function down(event: PointerEvent): void {
  if (event.button !== 0) return;
  event.stopPropagation();
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect();
  const { pass } = bench;
  let name: string | null = null;
  let from = 0;
  partAt(event.clientX - bounds.left, event.clientY - bounds.top)
    .then((found) => {
      name = found;
      if (!found) return notices.say('That is outside of the layer. Press on the layer itself.');
      from = steadyAt(pass!.values[found] as Value<number>, playhead.moment.frame);
    })
    .catch((error: unknown) => notices.problem(error));
  followPointer(
    event,
    (now) => {
      if (!name || !pass) return;
      const own = name;
      preview.touching = true;
      const stops = Math.min(
        4,
        Math.max(-4, Math.round((from + (event.clientY - now.clientY) / PER_STOP) * 100) / 100),
      );
      said.value = `${passOf(pass.type)!.params[own]!.label}: ${stops > 0 ? '+' : ''}${stops.toFixed(2)} stops`;
      edits.editLayer((project, at) => setPassValue(project, at, pass.id, own, stops), `range ${pass.id} ${own}`);
    },
    () => {
      said.value = '';
      preview.touching = false;
      store.endGesture();
    },
  );
}
</script>

<template>
  <div class="tool" aria-hidden="true" @pointerdown="down">
    <output v-if="said" class="mono">{{ said }}</output>
  </div>
</template>

<style scoped>
.tool {
  position: absolute;
  inset: 0;
  cursor: ns-resize;
  touch-action: none;
}
output {
  position: absolute;
  left: 8px;
  bottom: 8px;
  padding: 2px 8px;
  background: rgb(0 0 0 / 75%);
  color: #fff;
  font-size: 0.75rem;
}
</style>
