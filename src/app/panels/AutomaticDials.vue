<script setup lang="ts">
import { ref } from 'vue';
import { meanReading, type AutoReading } from '../../core/analysis/automatic';
import { setPassValues } from '../../core/document/edits/passes';
import { passOf, titleOf } from '../../core/passes/registry';
import { planBefore } from '../../core/plan/looks';
import { valuesAt } from '../../core/time/values';
import { useEngine } from '../../engine/client';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';

/** Takes the chosen pass's values from what comes into it, on this frame or over the whole layer. They are ordinary values then. */
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const notices = useNotices();
/** Frames of a layer that are looked at. */
const LOOKS = 10;
const going = ref<{ done: number; of: number } | null>(null);
let stopped = false;

async function take(frames: readonly number[]): Promise<void> {
  const { pass, layer, shot } = bench;
  const { at } = playhead;
  const sets = pass && passOf(pass.type)?.automatic;
  if (!pass || !layer || !shot || !at || !sets || going.value) return;
  stopped = false;
  going.value = { done: 0, of: frames.length };
  try {
    const engine = await useEngine();
    const readings: AutoReading[] = [];
    for (const frame of frames) {
      const plan = planBefore(store.current(), shot, layer, pass.id, frame);
      const reading = plan && (await engine.measure(plan, 'automatic', null));
      if (stopped) return;
      if (reading) readings.push(reading);
      going.value = { done: going.value.done + 1, of: frames.length };
    }
    if (!readings.length)
      return notices.say(`Nothing solid of ${layer.name} shows here, so there is nothing to go by.`, 'problem');
    const values = sets(meanReading(readings), valuesAt(pass.values, playhead.moment) as never) as Record<
      string,
      unknown
    >;
    store.edit(setPassValues(store.current(), at, pass.id, values, `automatic ${titleOf(pass.type).toLowerCase()}`));
  } catch (error) {
    notices.problem(error);
  } finally {
    going.value = null;
  }
}
const here = () => take([playhead.frame]);
function whole(): Promise<void> {
  const { start, length } = bench.layer!.span;
  const count = Math.min(LOOKS, length);
  return take(Array.from({ length: count }, (_, i) => start + Math.floor(((i + 0.5) * length) / count)));
}
</script>

<template>
  <div class="automatic" role="group" aria-label="Automatic">
    <template v-if="!going">
      Automatic
      <v-btn size="small" :disabled="bench.layer!.locked || store.readOnly" @click="here">this frame</v-btn>
      <v-btn size="small" :disabled="bench.layer!.locked || store.readOnly" @click="whole">whole layer</v-btn>
    </template>
    <template v-else>
      <span role="status">Reading frame {{ going.done + 1 }} of {{ going.of }}</span>
      <v-btn size="small" @click="stopped = true">Stop</v-btn>
    </template>
  </div>
</template>

<style scoped>
.automatic {
  display: flex;
  gap: 6px;
  align-items: center;
  padding-bottom: 8px;
}
</style>
