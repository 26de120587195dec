<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import { addShot, newShot, setShot } from '../../core/document/edits/project';
import type { Shot, ShotId } from '../../core/document/schema';
import { parseQuantity } from '../../core/time/quantity';
import { FRAME_RATES, sameRate, rateLabel } from '../../core/time/rate';
import { vFirstFocus } from '../controls/first-focus';
import { newId } from '../base/ids';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';

/** The form of a shot's settings, for a new one or one that is there. */
const props = defineProps<{ shot?: Shot; first?: boolean }>();
const emit = defineEmits<{ close: [] }>();
const store = useProject();
const bench = useBench();

const SIZES = [
  { title: '1280 × 720', value: [1280, 720] },
  { title: '1920 × 1080', value: [1920, 1080] },
  { title: '3840 × 2160', value: [3840, 2160] },
  { title: '1080 × 1920 upright', value: [1080, 1920] },
  { title: '1080 × 1080 square', value: [1080, 1080] },
];
const name = ref(props.shot?.name ?? `Shot ${(store.project?.shots.length ?? 0) + 1}`);
const width = ref(String(props.shot?.width ?? 1280));
const height = ref(String(props.shot?.height ?? 720));
const rates = FRAME_RATES.map(({ label, rate }) => ({ title: label, value: rate }));
const known = props.shot && FRAME_RATES.find((entry) => sameRate(entry.rate, props.shot!.rate));
if (props.shot && !known) rates.push({ title: rateLabel(props.shot.rate), value: props.shot.rate });
const rate = shallowRef(known?.rate ?? props.shot?.rate ?? FRAME_RATES[1]!.rate);
const length = ref(props.shot ? `${props.shot.length}f` : '5s');
const clear = ref(props.shot?.background === null);
const linear = ref(props.shot?.light === 'linear');

const frames = computed(() => parseQuantity(length.value, { current: 0, rate: rate.value }));
const problems = computed(() => {
  const side = (text: string) => {
    const value = parseQuantity(text, { current: 0 });
    return value !== null && Number.isInteger(value) && value >= 16 && value <= 8192
      ? ''
      : 'A whole number from 16 to 8192';
  };
  const even =
    frames.value !== null && frames.value >= 1 && frames.value <= 1_000_000 && Number.isInteger(frames.value);
  return {
    name: name.value.trim() ? '' : 'A shot needs a name',
    width: side(width.value),
    height: side(height.value),
    length: even ? '' : 'Frames or seconds, such as 120f or 5s',
  };
});
/** What a new length does to what is there already, said before it is done. */
const beyond = computed(() => {
  const { shot } = props;
  if (!shot || frames.value === null || problems.value.length) return null;
  const cut = shot.layers.filter(
    (layer) =>
      layer.span.start + layer.span.length > frames.value! && layer.span.start + layer.span.length <= shot.length,
  ).length;
  const less = frames.value < shot.length ? `The shot gets ${shot.length - frames.value} frames shorter` : null;
  if (!sameRate(rate.value, shot.rate))
    return 'Layers and keyframes keep their frame numbers, so everything runs at another pace.';
  return (
    less &&
    (cut
      ? `${less}; ${cut === 1 ? 'one layer goes' : `${cut} layers go`} on beyond its end and will not be seen there.`
      : `${less}.`)
  );
});
const fine = computed(() => Object.values(problems.value).every((text) => !text));

function useSize([w, h]: number[]): void {
  width.value = String(w);
  height.value = String(h);
}
function submit(): void {
  if (!fine.value) return;
  const settings = {
    name: name.value.trim(),
    width: parseQuantity(width.value, { current: 0 })!,
    height: parseQuantity(height.value, { current: 0 })!,
    rate: { ...rate.value },
    length: frames.value!,
    background: clear.value ? null : (props.shot?.background ?? ([0, 0, 0] as [number, number, number])),
    light: linear.value ? ('linear' as const) : ('display' as const),
  };
  if (props.shot) store.edit(setShot(props.shot.id, settings));
  else {
    const id = newId<ShotId>();
    store.edit(addShot(newShot(id, settings)));
    bench.openShot(id);
  }
  close();
}
const close = (): void => emit('close');
</script>

<template>
  <v-card :title="shot ? 'Shot settings' : first ? 'The first shot' : 'New shot'">
    <v-card-text>
      <form class="form" @submit.prevent="submit">
        <v-text-field v-model="name" v-first-focus class="all" label="Name" :error-messages="problems.name" />
        <v-text-field v-model="width" label="Width, px" :error-messages="problems.width" />
        <v-text-field v-model="height" label="Height, px" :error-messages="problems.height" />
        <div class="all sizes">
          <v-btn v-for="size in SIZES" :key="size.title" size="small" @click="useSize(size.value)">{{
            size.title
          }}</v-btn>
        </div>
        <v-select v-model="rate" label="Frames a second" :items="rates" />
        <v-text-field
          v-model="length"
          label="Length"
          :hint="frames === null ? '' : `${frames} frames`"
          persistent-hint
          :error-messages="problems.length"
        />
        <p v-if="beyond" class="all" role="note">{{ beyond }}</p>
        <v-checkbox v-model="clear" label="Clear background (keeps alpha)" />
        <v-checkbox v-model="linear" label="Mix in linear light" />
        <div class="all choices">
          <v-btn v-if="!first" variant="text" @click="close">Cancel</v-btn>
          <v-btn type="submit" color="primary" variant="flat" :disabled="!fine">{{
            shot ? 'Change it' : 'Make it'
          }}</v-btn>
        </div>
      </form>
    </v-card-text>
  </v-card>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.all {
  grid-column: 1 / -1;
}
.sizes {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.choices {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
