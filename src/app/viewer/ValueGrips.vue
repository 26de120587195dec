<script setup lang="ts">
import { computed, ref } from 'vue';
import { arrowWay } from '../controls/arrows';
import { followOf } from '../../core/document/edits/follow';
import { setSourceValue } from '../../core/document/edits/layers';
import { setTransitionValue, titleAt, transitionAt } from '../../core/document/edits/ends';
import { transitionOf } from '../../core/transitions/registry';
import { setPassValue } from '../../core/document/edits/passes';
import type { Value } from '../../core/base/value';
import { counts, type Place } from '../../core/params/define';
import { gripOf, type Param } from '../../core/params/registry';
import { paramsOf, titleOf } from '../../core/passes/registry';
import { sourceOf } from '../../core/sources/registry';
import { plainFor, steadyAt, valueAt } from '../../core/time/values';
import { followPointer } from '../controls/pointer';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';
import { HANDLE, type ViewFrame, type XY } from './frame';
import GripMark from './GripMark.vue';
import { useSourceSpace } from './source-space';

/** The values of the chosen pass or source that say where something is, on the picture: each by the grip of its kind. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const preview = usePreview();
const store = useProject();

const svg = ref<SVGElement>();
const space = useSourceSpace(
  () => props.frame,
  () => svg.value,
);
/** What is chosen that has values, and the pixels that they count in: the layer's own, or after Place the shot's. */
const shown = computed(() => {
  const layer = bench.layer!;
  if (bench.chosen === 'source')
    return {
      title: sourceOf(layer.source.type)?.title ?? '',
      params: sourceOf(layer.source.type)?.params ?? {},
      values: layer.source.values,
      inShot: false,
    };
  const declared = bench.end && transitionAt(layer, bench.end);
  if (declared)
    return {
      title: titleAt(layer, bench.end!),
      params: transitionOf(declared.type)?.params ?? {},
      values: declared.values,
      inShot: true,
    };
  const { pass } = bench;
  return pass
    ? { title: titleOf(pass.type), params: paramsOf(pass.type), values: pass.values, inShot: pass.space === 'shot' }
    : null;
});
const size = computed(() => (shown.value?.inShot ? { w: bench.shot!.width, h: bench.shot!.height } : bench.size!));

const toStage = (p: XY): XY => {
  if (!shown.value!.inShot) return space.toStage(p);
  const { x, y, scale } = props.frame;
  return [x + (p[0] + size.value.w / 2) * scale, y + (p[1] + size.value.h / 2) * scale];
};
function placeOf(event: PointerEvent): Place {
  if (!shown.value!.inShot) return space.at(event);
  const bounds = svg.value!.getBoundingClientRect();
  const { x, y, scale } = props.frame;
  return [
    (event.clientX - bounds.left - x) / scale - size.value.w / 2,
    (event.clientY - bounds.top - y) / scale - size.value.h / 2,
  ];
}

const grips = computed(() => {
  const { params } = shown.value ?? { params: {} };
  const values: Readonly<Record<string, Value<unknown>>> = shown.value?.values ?? {};
  // a place that is followed is seen where it is carried to; jitter is not shown, it would not hold still
  const now = (name: string): unknown =>
    values[name] &&
    (followOf(values[name]) ? valueAt(values[name], playhead.moment) : steadyAt(values[name], playhead.moment.frame));
  return Object.entries(params as Record<string, Param>).flatMap(([name, param]) => {
    if (!(name in values) || !counts(param, now)) return [];
    const grip = gripOf(param, now(name), { size: size.value, params, now });
    if (!grip) return [];
    const says = [now(name)].flat().map(String).join(', ');
    return [{ ...grip, name, label: `${shown.value!.title}: ${param.label.toLowerCase()}`, says }];
  });
});
type Shown = (typeof grips.value)[number];

function set(name: string, wanted: unknown, dragging: boolean): void {
  const { pass } = bench;
  const own = (shown.value?.values as Record<string, Value<unknown>>)[name]!;
  const value = followOf(own) ? plainFor(own, wanted, playhead.moment) : wanted;
  edits.editLayer(
    (project, at) =>
      bench.end
        ? setTransitionValue(project, at, bench.end, name, value)
        : pass
          ? setPassValue(project, at, pass.id, name, value)
          : setSourceValue(project, at, name, value),
    dragging ? `grip ${name}` : undefined,
  );
}
function drag(event: PointerEvent, grip: Shown): void {
  if (event.button !== 0) return;
  const begun = placeOf(event);
  const [dx, dy] = [grip.at[0] - begun[0], grip.at[1] - begun[1]];
  followPointer(
    event,
    (now) => {
      const [x, y] = placeOf(now);
      preview.touching = true;
      set(grip.name, grip.put([x + dx, y + dy]), true);
    },
    () => {
      preview.touching = false;
      store.endGesture();
    },
  );
}
function nudge(event: KeyboardEvent, { name, at, put }: Shown): void {
  const step = arrowWay(event);
  if (!step) return;
  event.stopPropagation();
  event.preventDefault();
  const far = event.shiftKey ? 10 : 1;
  set(name, put([at[0] + step[0] * far, at[1] + step[1] * far]), false);
}
const stage = (p: Place): string => toStage(p).join(',');
</script>

<template>
  <svg v-if="grips.length" ref="svg" class="grips" role="group" :aria-label="`${shown!.title} on the picture`">
    <template v-for="grip in grips" :key="grip.name">
      <polyline v-if="grip.line" class="under" :points="grip.line.map(stage).join(' ')" />
      <polyline
        v-if="grip.line"
        class="line"
        :style="{ stroke: HANDLE.line }"
        :points="grip.line.map(stage).join(' ')"
      />
    </template>
    <GripMark
      v-for="grip in grips"
      :key="grip.name"
      :at="toStage(grip.at)"
      :stroke="HANDLE.line"
      :aria-label="grip.label"
      :aria-description="grip.says"
      @pointerdown.stop="drag($event, grip)"
      @keydown="nudge($event, grip)"
    />
  </svg>
</template>

<style scoped>
.grips {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.under {
  stroke: rgb(0 0 0 / 60%);
  stroke-width: 3.5;
}
.line {
  stroke-width: 1.6;
}
</style>
