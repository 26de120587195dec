<script setup lang="ts">
import { computed, ref, watchPostEffect } from 'vue';
import { useTheme } from 'vuetify';
import { glow, VECTOR_SIDE, vectorOf, WAVE_COLUMNS, type ScopeReading } from '../../core/scopes/read';
import type { ScopeKind, WaveKind } from '../stores/scopes';

/** One scope, drawn from counts on a ground of its own. */
const props = defineProps<{ kind: ScopeKind; waves: WaveKind; reading: ScopeReading }>();
const theme = useTheme();
const canvas = ref<HTMLCanvasElement>();
const INKS = {
  dark: [
    [235, 96, 84],
    [112, 196, 118],
    [104, 152, 240],
    [214, 214, 208],
  ],
  light: [
    [190, 44, 34],
    [24, 122, 40],
    [36, 82, 190],
    [52, 52, 50],
  ],
};
const inks = computed(() => (theme.global.current.value.dark ? INKS.dark : INKS.light));
/** The colours that stand at a third of a turn from each other, and between them. */
const MARKS = (
  [
    ['red', 1, 0, 0],
    ['yellow', 1, 1, 0],
    ['green', 0, 1, 0],
    ['cyan', 0, 1, 1],
    ['blue', 0, 0, 1],
    ['magenta', 1, 0, 1],
  ] as const
).map(([name, r, g, b]) => ({
  name,
  place: vectorOf(r, g, b),
  css: `rgb(${r * 200 + 30} ${g * 200 + 30} ${b * 200 + 30})`,
}));

/** Counts of a plane laid on an image, each channel in its ink. */
function lay(image: ImageData, x: number, y: number, [r, g, b]: readonly number[], light: number): void {
  const at = (y * image.width + x) * 4;
  const { data } = image;
  const a = light * 255;
  if (data[at + 3]! >= a) return;
  data[at] = r!;
  data[at + 1] = g!;
  data[at + 2] = b!;
  data[at + 3] = a;
}
function wave(context: CanvasRenderingContext2D): void {
  const channels = props.waves === 'luma' ? [3] : [0, 1, 2];
  const parade = props.waves === 'parade';
  const wide = parade ? WAVE_COLUMNS * 3 : WAVE_COLUMNS;
  const image = fitted(context, wide, 256);
  const most = props.reading.pixels / WAVE_COLUMNS / 24;
  for (const channel of channels) {
    const counts = props.reading.wave[channel]!;
    for (let x = 0; x < WAVE_COLUMNS; x++)
      for (let v = 0; v < 256; v++) {
        const light = glow(counts[x * 256 + v]!, most);
        if (light) lay(image, x + (parade ? channel * WAVE_COLUMNS : 0), 255 - v, inks.value[channel]!, light);
      }
  }
  context.putImageData(image, 0, 0);
}
function histogram(context: CanvasRenderingContext2D): void {
  const image = fitted(context, 256, 128);
  // the ends may hold much more than all else, and are drawn to the top
  const most = Math.max(...props.reading.histogram.flatMap((list) => Array.from(list.subarray(2, 254)))) || 1;
  props.reading.histogram.forEach((counts, channel) => {
    for (let v = 0; v < 256; v++) {
      const tall = Math.min(128, Math.round((counts[v]! / most) * 120));
      for (let y = 0; y < tall; y++)
        lay(image, v, 127 - y, inks.value[channel]!, channel === 3 ? 0.35 : y > tall - 3 ? 0.95 : 0.3);
    }
  });
  context.putImageData(image, 0, 0);
}
function vector(context: CanvasRenderingContext2D): void {
  const image = fitted(context, VECTOR_SIDE, VECTOR_SIDE);
  const most = props.reading.pixels / 200;
  props.reading.vector.forEach((count, i) => {
    const light = glow(count, most);
    if (light) lay(image, i % VECTOR_SIDE, Math.floor(i / VECTOR_SIDE), inks.value[3]!, light);
  });
  context.putImageData(image, 0, 0);
}
function fitted(context: CanvasRenderingContext2D, w: number, h: number): ImageData {
  if (context.canvas.width !== w || context.canvas.height !== h) Object.assign(context.canvas, { width: w, height: h });
  return context.createImageData(w, h);
}
watchPostEffect(() => {
  const context = canvas.value?.getContext('2d');
  if (context) ({ waveform: wave, histogram, vector })[props.kind](context);
});

const percent = (v: number): string =>
  v > 0 && v < 0.001 ? 'under 0.1 %' : `${(v * 100).toFixed(v > 0 && v < 0.1 ? 1 : 0)} %`;
/** The brightest and the darkest luma that more than a thousandth of the picture lies beyond, and the middle one. */
const levels = computed(() => {
  const { histogram: all, pixels } = props.reading;
  const at = (share: number): number => {
    let sum = 0;
    return all[3].findIndex((count) => (sum += count) >= share * pixels);
  };
  return [0.001, 0.5, 0.999].map((share) => Math.round((at(share) / 255) * 100));
});
const said = computed(() => {
  const [low, middle, high] = levels.value;
  const { low: dark, high: bright } = props.reading.beyond;
  return `Darkest ${low} %, middle ${middle} %, brightest ${high} %. ${beyond.value}: ${percent(dark)} dark, ${percent(bright)} bright.`;
});
const beyond = computed(() => (props.reading.beyond.limits === 'video' ? 'Beyond video range' : 'Clipped'));
</script>

<template>
  <figure>
    <div class="ground" :class="kind">
      <canvas ref="canvas" role="img" :aria-label="said" />
      <template v-if="kind === 'waveform'">
        <span v-for="level in [0, 25, 50, 75, 100]" :key="level" class="level" :style="{ bottom: `${level}%` }"
          ><small>{{ level }}</small></span
        >
      </template>
      <template v-else-if="kind === 'vector'">
        <svg viewBox="-1.08 -1.08 2.16 2.16" aria-hidden="true">
          <circle r="1" />
          <circle r="0.5" />
          <circle
            v-for="mark in MARKS"
            :key="mark.name"
            class="mark"
            r="0.045"
            :cx="mark.place[0] * 0.75"
            :cy="-mark.place[1] * 0.75"
            :style="{ fill: mark.css }"
          />
        </svg>
      </template>
    </div>
    <figcaption class="mono dim" :title="said">
      {{ levels.join(' · ') }} % · {{ beyond === 'Clipped' ? 'clipped' : 'beyond' }} {{ percent(reading.beyond.low) }},
      {{ percent(reading.beyond.high) }}
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  display: grid;
  gap: 4px;
}
.ground {
  position: relative;
  height: 7.5rem;
  background: var(--well);
  border: 1px solid var(--line);
}
.ground.vector {
  justify-self: center;
  width: 7.5rem;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.vector canvas {
  inset: 3.7%;
  width: 92.6%;
  height: 92.6%;
}
.level {
  position: absolute;
  left: 0;
  right: 0;
  border-top: 1px dashed var(--line);
}
.level small {
  position: absolute;
  right: 2px;
  bottom: 0;
  font-size: 0.5625rem;
  color: var(--dim);
}
.level:nth-of-type(5) small {
  bottom: auto;
}
svg {
  position: absolute;
  inset: 0;
}
circle {
  fill: none;
  stroke: var(--line);
  stroke-width: 0.012;
}
.mark {
  stroke: none;
}
figcaption {
  font-size: 0.6875rem;
  line-height: 1.35;
}
</style>
