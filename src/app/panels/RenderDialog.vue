<script setup lang="ts">
import { computed, onMounted, ref } from 'vue';
import { canEncodeVideo } from 'mediabunny';
import { rangeOf } from '../../core/document/edits/markers';
import { bitrateFor, estimatedBytes, QUALITIES, type Quality, type VideoCodec } from '../../core/formats/bitrate';
import { withEnding } from '../../core/formats/names';
import { onNothing } from '../../core/plan/looks';
import { secondsAt } from '../../core/time/rate';
import type { RenderSettings } from '../../engine/types';
import { vFirstFocus } from '../controls/first-focus';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { useRenders } from '../stores/renders';

const emit = defineEmits<{ close: [] }>();
const store = useProject();
const bench = useBench();
const playhead = usePlayhead();
const renders = useRenders();
const notices = useNotices();
const KINDS = [
  { value: 'webm vp9', title: 'WebM, VP9 and Opus' },
  { value: 'webm vp8', title: 'WebM, VP8 and Opus' },
  { value: 'mp4 avc', title: 'MP4, H.264 and AAC' },
  { value: 'png', title: 'This frame as PNG' },
];
const shot = bench.shot!;
const range = rangeOf(shot);
const name = ref(shot.name);
const kind = ref('webm vp9');
const quality = ref<Quality>('good');
const sound = ref(true);
const clear = ref(false);
const offered = ref(KINDS);
const ending = computed(() => (kind.value === 'png' ? 'png' : kind.value.split(' ')[0]!));

const holdsAlpha = computed(() => kind.value === 'png' || kind.value.startsWith('webm'));
/** What becomes of the places where no layer is. */
const ground = computed(() => {
  if (!holdsAlpha.value)
    return shot.background
      ? null
      : 'H.264 holds no coverage: what is clear in the shot becomes black. Choose WebM or PNG to keep it clear.';
  if (shot.background && !clear.value) return 'The shot has a background, so nothing in this file will be clear.';
  return 'What no layer covers is clear in this file.';
});
const bitrate = computed(() =>
  bitrateFor(
    kind.value.split(' ')[1] as VideoCodec,
    quality.value,
    shot.width,
    shot.height,
    shot.rate.num / shot.rate.den,
  ),
);
const size = computed(() => {
  const bytes = estimatedBytes(bitrate.value, secondsAt(range.to - range.from, shot.rate), {
    sound: sound.value,
    alpha: holdsAlpha.value && (clear.value || !shot.background),
  });
  return `about ${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB, ${(bitrate.value / 1e6).toFixed(1)} Mb/s`;
});

/** An even number of pixels a side is what H.264 can hold. */
const problem = computed(() =>
  kind.value === 'mp4 avc' && (shot.width % 2 || shot.height % 2)
    ? 'H.264 needs an even width and height. Choose WebM, or change the shot’s size.'
    : null,
);

onMounted(async () => {
  const can = await Promise.all(
    KINDS.map(
      ({ value }) =>
        value === 'png' ||
        canEncodeVideo(value.split(' ')[1] as 'vp9', { width: shot.width & ~1, height: shot.height & ~1 }),
    ),
  );
  offered.value = KINDS.filter((_, i) => can[i]);
  if (!offered.value.some((entry) => entry.value === kind.value)) kind.value = offered.value[0]!.value;
});

async function start(): Promise<void> {
  if (problem.value || !store.project) return;
  if (kind.value === 'png') await writeFrame();
  else {
    const [container, video] = kind.value.split(' ') as [RenderSettings['container'], RenderSettings['video']];
    renders.queue(store.project, shot.id, name.value, {
      container,
      video,
      bitrate: bitrate.value,
      sound: sound.value,
      clear: holdsAlpha.value && clear.value,
    });
  }
  emit('close');
}

async function writeFrame(): Promise<void> {
  const project = store.current();
  await renders
    .writeFrame(clear.value ? onNothing(project, shot) : project, shot.id, playhead.frame, name.value)
    .catch(notices.problem);
}
</script>

<template>
  <v-dialog :model-value="true" aria-label="Render" @update:model-value="emit('close')">
    <v-card :title="`Render “${shot.name}”`">
      <v-card-text>
        <form class="form" @submit.prevent="start">
          <v-text-field
            v-model="name"
            v-first-focus
            label="File name"
            :hint="`Written as ${withEnding(name, ending)}`"
            persistent-hint
          />
          <v-select v-model="kind" label="Format" :items="offered" :error-messages="problem ?? ''" />
          <template v-if="kind !== 'png'">
            <v-select
              v-model="quality"
              label="Quality"
              :items="QUALITIES"
              item-value="name"
              :hint="size"
              persistent-hint
            />
            <v-checkbox v-model="sound" label="With sound" />
          </template>
          <v-checkbox
            v-if="holdsAlpha && shot.background"
            v-model="clear"
            label="Leave the background out of this file"
          />
          <p v-if="ground" role="note" class="ground">{{ ground }}</p>
          <p class="dim">
            {{ shot.width }}×{{ shot.height }},
            <template v-if="kind === 'png'">frame {{ playhead.frame }}, straight alpha.</template>
            <template v-else
              >{{ range.to - range.from }} frames{{
                shot.range ? `, from the in point at ${range.from} to the out point at ${range.to - 1}` : ''
              }}. The written file is opened again and checked.</template
            >
          </p>
          <div class="choices">
            <v-btn variant="text" @click="emit('close')">Cancel</v-btn>
            <v-btn type="submit" color="primary" variant="flat" :disabled="!!problem">{{
              kind === 'png' ? 'Write the frame' : 'Start'
            }}</v-btn>
          </div>
        </form>
      </v-card-text>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 14px;
}
.ground {
  padding-left: 8px;
  border-left: 2px solid var(--dim);
}
.choices {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
