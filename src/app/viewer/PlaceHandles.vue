<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue';
import type Konva from 'konva';
import { Circle as VCircle, Layer as VLayer, Rect as VRect, Stage as VStage, Transformer as VTransformer } from 'vue-konva';
import { setPlace } from '../../core/document/edits/layers';
import { steadyAt } from '../../core/time/values';
import { useBench } from '../stores/bench';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';
import { HANDLE, type ViewFrame } from './frame';

/** The chosen layer's box on the picture: drag to move, corners to scale, the stalk to rotate. */
const props = defineProps<{ frame: ViewFrame; stage: { width: number; height: number } }>();
const bench = useBench();
const store = useProject();
const player = usePlayer();
const box = ref<{ getNode(): Konva.Rect }>();
const transformer = ref<{ getNode(): Konva.Transformer }>();

const place = computed(() => {
  const layer = bench.layer!;
  const at = bench.frame - layer.span.start;
  const { place: p } = layer;
  return { position: steadyAt(p.position, at), scale: steadyAt(p.scale, at), rotation: steadyAt(p.rotation, at), anchor: steadyAt(p.anchor, at), flipX: p.flipX, flipY: p.flipY };
});
const centre = computed(() => ({ x: props.frame.x + props.frame.width / 2, y: props.frame.y + props.frame.height / 2 }));
const spot = computed(() => ({
  x: centre.value.x + place.value.position[0] * props.frame.scale,
  y: centre.value.y + place.value.position[1] * props.frame.scale,
}));
const config = computed(() => {
  const { w, h } = bench.size!;
  const p = place.value;
  return {
    ...spot.value,
    width: w,
    height: h,
    offsetX: w / 2 + p.anchor[0],
    offsetY: h / 2 + p.anchor[1],
    scaleX: p.scale[0] * props.frame.scale * (p.flipX ? -1 : 1),
    scaleY: p.scale[1] * props.frame.scale * (p.flipY ? -1 : 1),
    rotation: p.rotation,
    draggable: true,
    fill: 'transparent',
  };
});
const look = {
  flipEnabled: false,
  ignoreStroke: true,
  rotateAnchorOffset: 22,
  rotationSnaps: [0, 90, 180, 270],
  rotationSnapTolerance: 3,
  anchorSize: 9,
  anchorCornerRadius: 0,
  anchorStroke: HANDLE.line,
  anchorFill: HANDLE.fill,
  borderStroke: HANDLE.line,
};

const tenths = (value: number) => Math.round(value * 10) / 10;
/** Writes what the handles show. Only what changed, so that a move leaves the scale as it was typed. */
function write(what: 'Move' | 'Scale and turn'): void {
  const node = box.value!.getNode();
  player.touching = true;
  const position: [number, number] = [tenths((node.x() - centre.value.x) / props.frame.scale), tenths((node.y() - centre.value.y) / props.frame.scale)];
  const thousandths = (value: number) => Math.max(0.001, Math.round(Math.abs(value / props.frame.scale) * 1000) / 1000);
  const scale: [number, number] = [thousandths(node.scaleX()), thousandths(node.scaleY())];
  const change = what === 'Move' ? { position } : { position, scale, rotation: tenths(node.rotation()) };
  bench.editLayer((project, at) => setPlace(project, at, change, what), 'handles');
}
function done(): void {
  player.touching = false;
  store.endGesture();
}
const attach = () => nextTick(() => transformer.value?.getNode().nodes([box.value!.getNode()]));
onMounted(attach);
watch(() => bench.layerId, attach);
watch(config, () => nextTick(() => transformer.value?.getNode().forceUpdate()), { flush: 'post' });
</script>

<template>
  <VStage class="handles" :config="stage">
    <VLayer>
      <VRect ref="box" :config="config" @dragmove="write('Move')" @dragend="done" @transform="write('Scale and turn')" @transformend="done" />
      <VTransformer ref="transformer" :config="look" />
      <VCircle :config="{ ...spot, radius: 4, stroke: HANDLE.line, strokeWidth: 1.5, fill: HANDLE.fill, listening: false }" />
    </VLayer>
  </VStage>
</template>

<style scoped>
.handles {
  position: absolute;
  inset: 0;
}
</style>
