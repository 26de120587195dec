<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { layerProjection } from '../../core/place/projection';
import { planCoverage } from '../../core/plan/masks';
import { steadyAt } from '../../core/time/values';
import { useEngine } from '../../engine/client';
import { latestOnly } from '../base/latest';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { MASK_HUES } from '../theme/mask-hues';
import type { ViewFrame } from './frame';

/** What the chosen mask covers, tinted in its colour over the picture, as it lies on the layer. */
const props = defineProps<{ frame: ViewFrame }>();
/** Alpha of the tint where the mask is solid, 0…255. */
const STRENGTH = 120;
/** Most pixels of the tint along a side. */
const MOST_SIDE = 960;

const bench = useBench();
const playhead = usePlayhead();
const masking = useMasking();
const notices = useNotices();
const store = useProject();
const canvas = ref<HTMLCanvasElement>();

/** The mask by itself, however it goes together with others. */
const plan = computed(() => {
  const { layer, shot, size } = bench;
  if (!masking.mask || !layer || !shot || !size || !store.project) return null;
  const reduction = Math.max(1, Math.ceil(Math.max(size.w, size.h) / MOST_SIDE));
  const own = planCoverage({ ...playhead.moment, frame: masking.frame }, [masking.mask.id], size);
  const small = { scale: 1 / reduction, centre: [size.w / reduction / 2, size.h / reduction / 2] as const };
  return { ...own, ...small, masks: own.masks.map((mask) => ({ ...mask, mode: 'add' as const })) };
});
const box = computed(() => {
  const [a, b, c, d, e, f, g, h, i] = layerProjection(playhead.moment, bench.size!);
  return {
    width: `${bench.size!.w}px`,
    height: `${bench.size!.h}px`,
    transform: `translate(${props.frame.x}px, ${props.frame.y}px) scale(${props.frame.scale}) matrix3d(${[a, d, 0, g, b, e, 0, h, 0, 0, 1, 0, c, f, 0, i].join(',')})`,
  };
});

const draw = latestOnly(
  async () => {
    const engine = await useEngine();
    if (!plan.value) return;
    const { w, h, values } = await engine.measure(null, 'coverage', plan.value);
    paint(w, h, values);
  },
  (error) => notices.problem(error),
);
function paint(w: number, h: number, values: Uint8Array): void {
  if (!canvas.value || !masking.mask) return;
  const [r, g, b] = MASK_HUES[masking.mask.colour].match(/[0-9a-f]{2}/g)!.map((part) => parseInt(part, 16)) as [
    number,
    number,
    number,
  ];
  const image = new ImageData(w, h);
  const whole = new Uint32Array(image.data.buffer);
  const colour = r | (g << 8) | (b << 16);
  const selected = masking.mask.shape.kind === 'matte' && masking.mask.shape.hints.length > 0;
  for (let i = 0; i < values.length; i++) whole[i] = colour | (((values[i]! * STRENGTH) / 255) << 24);
  if (selected) edge(values, w, h, whole, EDGE.least + (EDGE.most - EDGE.least) * confidence());
  canvas.value.width = w;
  canvas.value.height = h;
  canvas.value.getContext('2d')!.putImageData(image, 0, 0);
}
/** How thick the edge of a selection is drawn, in pixels of the tint: thin where it is guessed, thick where it is known well. */
const EDGE = { least: 0.5, most: 3 };
const confidence = (): number => {
  const { shape } = masking.mask!;
  return shape.kind === 'matte' ? steadyAt(shape.confidence, masking.frame) : 1;
};
/** The border of what is covered, in chalk on a dark line, so that it shows on every ground. */
function edge(values: Uint8Array, w: number, h: number, out: Uint32Array, thick: number): void {
  const far = Math.ceil(thick + 1);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const inside = values[i]! > 127;
      const crosses = (x + 1 < w && values[i + 1]! > 127 !== inside) || (y + 1 < h && values[i + w]! > 127 !== inside);
      if (!crosses) continue;
      for (let v = Math.max(0, y - far); v <= Math.min(h - 1, y + far); v++)
        for (let u = Math.max(0, x - far); u <= Math.min(w - 1, x + far); u++) {
          const away = Math.hypot(u - x, v - y);
          if (away <= thick) out[v * w + u] = LIGHT;
          else if (away <= thick + 1 && out[v * w + u] !== LIGHT) out[v * w + u] = DARK;
        }
    }
}
/** Colours of the edge, as the canvas holds them. */
const LIGHT = 0xffe6f1f4;
const DARK = 0xb0000000;
watch([plan, () => masking.mask?.colour, canvas], draw, { immediate: true });
</script>

<template>
  <canvas ref="canvas" class="tint" :style="box" role="img" :aria-label="`What ${masking.mask?.name} covers`" />
</template>

<style scoped>
.tint {
  position: absolute;
  top: 0;
  left: 0;
  transform-origin: 0 0;
  pointer-events: none;
}
</style>
