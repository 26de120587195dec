<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { followClip } from '../../core/document/edits/project';
import { conformLayer } from '../../core/document/edits/time';
import { stockIn } from '../../core/document/find';
import { stockOf, type Layer, type Shot } from '../../core/document/schema';
import { framesIn, rateLabel, sameRate } from '../../core/time/rate';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';

/**
 * When a clip of another size or rate than the shot is added, says so and offers the ways there are: for the first clip of an empty
 * shot as a question, for later ones in passing. Nothing changes unless it is chosen.
 */
const store = useProject();
const bench = useBench();
const notices = useNotices();
const asked = ref(false);

/** How a layer's clip differs from the shot; null when it does not. */
function differs(shot: Shot, layer: Layer) {
  const item = stockOf(layer);
  const clip = store.project && item ? stockIn(store.project, item) : null;
  const { width, height, rate, seconds } = clip?.facts ?? {};
  if (!clip || !width || !height || clip.kind !== 'video') return null;
  const clipRate = rate && rate !== 'variable' ? rate : shot.rate;
  const other = { size: width !== shot.width || height !== shot.height, rate: !sameRate(clipRate, shot.rate) };
  return other.size || other.rate
    ? { clip, width, height, rate: clipRate, length: framesIn(seconds ?? 1, clipRate), seconds: seconds ?? 1, other }
    : null;
}
const first = computed(() => (bench.shot?.layers.length === 1 ? bench.shot.layers[0]! : null));
const wanted = computed(() => (bench.shot && first.value ? differs(bench.shot, first.value) : null));
const facts = (of: { width: number; height: number; rate: { num: number; den: number } }) =>
  `${of.width}×${of.height} at ${rateLabel(of.rate)}`;

// only a clip that was just put onto the stack is spoken of
watch([() => bench.shotId, () => bench.shot?.layers], ([shot, layers], [oldShot, oldLayers]) => {
  if (shot !== oldShot || !layers || !oldLayers || layers.length !== oldLayers.length + 1)
    return void (asked.value &&= layers?.length === 1);
  if (layers.length === 1) return void (asked.value = wanted.value !== null);
  const known = new Set(oldLayers.map((layer) => layer.id));
  const added = layers.find((layer) => !known.has(layer.id))!;
  const other = differs(bench.shot!, added);
  const sibling = oldLayers.some((layer) => stockOf(layer) !== null && stockOf(layer) === stockOf(added));
  if (!other || sibling) return;
  const conform = other.other.rate ? { label: 'Every frame instead', run: () => conformNow(added) } : undefined;
  const pace = other.other.rate ? ' It plays at its own speed, so frames are left out or shown twice.' : '';
  notices.say(`“${other.clip.name}” is ${facts(other)}; the shot is ${facts(bench.shot!)}.${pace}`, 'news', conform);
});

function follow(): void {
  const { shot } = bench;
  if (!shot || !wanted.value || !first.value) return;
  const { width, height, rate, length } = wanted.value;
  store.edit(followClip(shot.id, first.value.id, { width, height, rate, length }));
  asked.value = false;
}
function conformNow(layer: Layer): void {
  const { shot } = bench;
  const other = shot && differs(shot, layer);
  if (other) store.edit(conformLayer(store.current(), { shot: shot.id, layer: layer.id }, other.rate, other.seconds));
  asked.value = false;
}
</script>

<template>
  <v-dialog
    v-if="asked && wanted && bench.shot && first"
    :model-value="true"
    aria-label="The clip differs from the shot"
    @update:model-value="asked = false"
  >
    <v-card title="The clip differs from the shot">
      <v-card-text>
        <p>
          “{{ wanted.clip.name }}” is <strong>{{ facts(wanted) }}</strong>, {{ wanted.length }} frames; the shot is
          <strong>{{ facts(bench.shot) }}</strong>, {{ bench.shot.length }} frames. Nothing changes unless you choose
          it.
        </p>
        <div class="choices">
          <v-btn color="primary" variant="flat" @click="asked = false"
            >Keep the shot; the clip plays at its own speed</v-btn
          >
          <v-btn v-if="wanted.other.rate" @click="conformNow(first)"
            >Keep the shot; show every frame of the clip, for {{ wanted.length }} frames</v-btn
          >
          <v-btn @click="follow">Make the shot {{ facts(wanted) }}, {{ wanted.length }} frames long</v-btn>
        </div>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.choices {
  display: grid;
  gap: 8px;
  margin-top: 16px;
}
</style>
