<script setup lang="ts">
import { ref, watch } from 'vue';
import { useThrottleFn } from '@vueuse/core';
import { sourcePlan } from '../../core/plan/looks';
import { planLayer } from '../../core/plan/plan';
import { useEngine } from '../../engine/client';
import { usePreview } from '../stores/preview';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import type { ViewFrame } from './frame';
import { placeInLayer } from './layer-place';

/** What the pixel under the pointer is in the chosen layer's source and after its passes. */
const props = defineProps<{ frame: ViewFrame; pointer: { x: number; y: number } | null }>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const text = ref('');
const INTERVAL = 60;

const rgb = ([r, g, b]: readonly number[]) =>
  [r!, g!, b!].map((v) => String(Math.round(v * 255)).padStart(3, ' ')).join(' ');
async function read(): Promise<void> {
  const { pointer, frame } = props;
  const { shot, layer } = bench;
  if (!pointer || !shot || !layer || !store.project) return void (text.value = '');
  const { reduction } = usePreview();
  const after = planLayer(store.project, shot, layer, playhead.frame, reduction);
  const before = sourcePlan(store.project, shot, layer, playhead.frame, reduction);
  if (!after || !before) return void (text.value = '');
  const by = frame.scale * reduction;
  const there = placeInLayer(after, [(pointer.x - frame.x) / by, (pointer.y - frame.y) / by]);
  if (!there) return void (text.value = `${layer.name} is not here`);
  const [x, y] = there;
  const part = { x: Math.floor(x), y: Math.floor(y), w: 1, h: 1 };
  const engine = await useEngine();
  try {
    const [source, result] = [await engine.measure(before, 'mean', part), await engine.measure(after, 'mean', part)];
    text.value = `x ${Math.floor(x * reduction)}  y ${Math.floor(y * reduction)} · source ${rgb(source)} · after ${rgb(result)} · alpha ${(result[3]! * 100).toFixed(1)} %`;
  } catch {
    text.value = ''; // what went wrong with the layer is said in the viewer
  }
}
const readSoon = useThrottleFn(read, INTERVAL, true);
watch([() => props.pointer, () => playhead.frame, () => store.project], readSoon, { immediate: true });
</script>

<template>
  <output v-if="text" class="readout mono" aria-label="Pixel values">{{ text }}</output>
</template>

<style scoped>
.readout {
  position: absolute;
  right: 8px;
  top: 8px;
  padding: 3px 8px;
  background: rgb(20 20 20 / 88%);
  border: 1px solid var(--line);
  border-radius: 3px;
  color: #eee;
  font-size: 0.6875rem;
  white-space: pre;
  pointer-events: none;
}
</style>
