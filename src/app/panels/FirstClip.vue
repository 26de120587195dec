<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { setShot } from '../../core/document/edits/project';
import { stockIn } from '../../core/document/find';
import { framesIn, rateLabel, sameRate } from '../../core/time/rate';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** When the first clip of an empty shot has another size or rate than the shot, says so and offers both ways. */
const store = useProject();
const bench = useBench();
const asked = ref(false);

const clip = computed(() => {
  const { shot } = bench;
  const only = shot?.layers.length === 1 ? shot.layers[0]! : null;
  return store.project && only?.source.kind === 'stock' ? stockIn(store.project, only.source.stock) : null;
});
const wanted = computed(() => {
  const { shot } = bench;
  const { width, height, rate, seconds } = clip.value?.facts ?? {};
  if (!shot || !width || !height || clip.value?.kind !== 'video') return null;
  const clipRate = rate && rate !== 'variable' ? rate : shot.rate;
  if (width === shot.width && height === shot.height && sameRate(clipRate, shot.rate)) return null;
  return { width, height, rate: clipRate, length: framesIn(seconds ?? 1, clipRate) };
});

// only a clip that was just put onto an empty shot raises the question
watch([() => bench.shotId, () => bench.shot?.layers.length], ([shot, count], [oldShot, oldCount]) => {
  asked.value = shot === oldShot && oldCount === 0 && count === 1 && wanted.value !== null;
});

function follow(): void {
  const { shot } = bench;
  if (shot && wanted.value) store.edit(setShot(shot.id, wanted.value));
  asked.value = false;
}
const facts = (of: { width: number; height: number; rate: { num: number; den: number } }) => `${of.width}×${of.height} at ${rateLabel(of.rate)}`;
</script>

<template>
  <v-dialog v-if="asked && wanted && bench.shot" :model-value="true" persistent aria-label="The clip differs from the shot">
    <v-card title="The clip differs from the shot">
      <v-card-text>
        “{{ clip?.name }}” is <strong>{{ facts(wanted) }}</strong>; the shot is <strong>{{ facts(bench.shot) }}</strong>. Nothing is changed unless you say so.
        <div class="choices">
          <v-btn @click="asked = false">Keep the shot</v-btn>
          <v-btn color="primary" variant="flat" @click="follow">Make the shot {{ facts(wanted) }}</v-btn>
        </div>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.choices {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 16px;
}
</style>
