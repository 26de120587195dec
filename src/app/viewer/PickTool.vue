<script setup lang="ts">
import { computed, ref } from 'vue';
import { setPassValue } from '../../core/document/edits/passes';
import type { Value } from '../../core/document/value';
import type { Colour } from '../../core/passes/define';
import { screenOf } from '../../core/passes/colour-key';
import { apply, invert } from '../../core/picture/matrix';
import { planLayer } from '../../core/plan/plan';
import { valueAt } from '../../core/time/values';
import { useEngine } from '../../engine/client';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { HANDLE, type ViewFrame } from './frame';

/** Picks the screen on the picture: click, drag to average an area, Shift to add a sample. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const store = useProject();
const notices = useNotices();
const from = ref<{ x: number; y: number } | null>(null);
const to = ref({ x: 0, y: 0 });
/** A click averages this many pixels each way, so that noise does not decide. */
const CLICK = 5;
const MOST = 8;
/** Below this share of colour difference a pick is grey rather than a screen. */
const LEAST = 0.03;

const area = computed(() => from.value && { x: Math.min(from.value.x, to.value.x), y: Math.min(from.value.y, to.value.y), w: Math.abs(to.value.x - from.value.x), h: Math.abs(to.value.y - from.value.y) });

function place(event: PointerEvent): { x: number; y: number } {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect();
  return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
}
function down(event: PointerEvent): void {
  if (event.button !== 0) return;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  from.value = to.value = place(event);
}
function move(event: PointerEvent): void {
  if (from.value) to.value = place(event);
}
async function up(event: PointerEvent): Promise<void> {
  const picked = area.value;
  from.value = null;
  if (!picked) return;
  try {
    const colour = await colourOf(picked);
    if (colour) keep(colour, event.shiftKey);
  } catch (error) {
    notices.problem(error);
  }
}

/** Mean colour of a part of the stage in what comes into the key. */
async function colourOf(part: { x: number; y: number; w: number; h: number }): Promise<Colour | null> {
  const { shot, layer, pass } = bench;
  if (!shot || !layer || !pass || !store.project) return null;
  const before = layer.passes.slice(0, layer.passes.findIndex((item) => item.id === pass.id));
  const plan = planLayer(store.project, shot, { ...layer, passes: before }, bench.frame, 1);
  const back = plan && invert(plan.matrix);
  if (!plan || !back) return null;
  const inShot = (x: number, y: number) => apply(back, (x - props.frame.x) / props.frame.scale, (y - props.frame.y) / props.frame.scale);
  const ends = [inShot(part.x, part.y), inShot(part.x + part.w, part.y + part.h)] as const;
  const x = Math.min(ends[0][0], ends[1][0]);
  const y = Math.min(ends[0][1], ends[1][1]);
  const w = Math.max(CLICK, Math.abs(ends[1][0] - ends[0][0]));
  const h = Math.max(CLICK, Math.abs(ends[1][1] - ends[0][1]));
  if (x + w < 0 || y + h < 0 || x > plan.size.w || y > plan.size.h) {
    notices.say(`That is outside ${layer.name}. Pick on the layer itself.`, 'problem');
    return null;
  }
  const [r, g, b] = await (await useEngine()).mean(plan, { x: x - (w === CLICK ? CLICK / 2 : 0), y: y - (h === CLICK ? CLICK / 2 : 0), w, h });
  return [r, g, b];
}

function keep(colour: Colour, adding: boolean): void {
  const { pass, layer } = bench;
  if (!pass || !layer) return;
  const known = screenOf(colour);
  if (known.difference < LEAST) notices.say(`The picked colour is almost grey (colour difference ${(known.difference * 100).toFixed(1)} %, a screen has 10 % or more). Pick a more saturated place.`, 'problem');
  const old = valueAt(pass.values['screen'] as Value<Colour[]>, bench.frame - layer.span.start);
  const screen = adding && old.length < MOST ? [...old, colour] : [colour];
  bench.editLayer((project, at) => setPassValue(project, at, pass.id, 'screen', screen.map((c) => c.map((v) => Math.min(1, Math.max(0, Math.round(v * 10000) / 10000))))));
  if (!adding) bench.picking = false;
}
</script>

<template>
  <div class="pick" aria-label="Pick the screen colour on the picture" role="application" @pointerdown="down" @pointermove="move" @pointerup="up" @keydown.esc="bench.picking = false">
    <span class="hint">Pick the screen: click, or drag over an area. Shift adds a sample.</span>
    <span v-if="area" class="area" :style="{ left: `${area.x}px`, top: `${area.y}px`, width: `${area.w}px`, height: `${area.h}px`, borderColor: HANDLE.line }" />
  </div>
</template>

<style scoped>
.pick {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
}
.hint {
  position: absolute;
  left: 50%;
  top: 8px;
  transform: translateX(-50%);
  padding: 3px 10px;
  background: rgb(20 20 20 / 85%);
  border: 1px solid var(--brass);
  border-radius: 3px;
  color: #eee;
  font-size: 12px;
  pointer-events: none;
  white-space: nowrap;
}
.area {
  position: absolute;
  border: 1px solid;
  background: rgb(255 255 255 / 12%);
  pointer-events: none;
}
</style>
