<script setup lang="ts">
import { computed, ref } from 'vue';
import { mdiFlipHorizontal, mdiFlipVertical, mdiLink, mdiLinkOff } from '@mdi/js';
import {
  framingToKeys,
  setBlend,
  setFraming,
  setOpacity,
  setPlace,
  type PlaceChange,
} from '../../core/document/edits/layers';
import { placeAt } from '../../core/place/place';
import { BLEND_MODES, blendLabel } from '../../core/picture/blend';
import { isKeyed } from '../../core/document/edits/values';
import { steadyAt } from '../../core/time/values';
import FollowTrack from '../track/FollowTrack.vue';
import AlignBar from './AlignBar.vue';
import DepthDials from './DepthDials.vue';
import Placements from './Placements.vue';
import FollowDials from './FollowDials.vue';
import MatteDials from './MatteDials.vue';
import Dial from '../controls/Dial.vue';
import IconButton from '../controls/IconButton.vue';
import NumberField from '../controls/NumberField.vue';
import Peg from '../controls/Peg.vue';
import Choice from '../controls/Choice.vue';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';

/** Where a layer lies in the shot, and how it mixes with what is below. */
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const preview = usePreview();
const BLENDS = BLEND_MODES.map((mode) => ({ value: mode, title: blendLabel(mode) }));
const linked = ref(true);
const layer = computed(() => bench.layer!);
const at = computed(() => playhead.frame - layer.value.span.start);
const locked = computed(() => layer.value.locked || store.readOnly);
const framed = computed(() => !!layer.value.place.framing);
const shown = computed(() => placeAt(playhead.moment));
const position = computed(() => (framed.value ? shown.value.position : steadyAt(layer.value.place.position, at.value)));
const scale = computed(() => (framed.value ? shown.value.scale : steadyAt(layer.value.place.scale, at.value)));
const anchor = computed(() => steadyAt(layer.value.place.anchor, at.value));
const tilt = computed(() => steadyAt(layer.value.place.tilt, at.value));
/** It lies in depth here, or at another time. */
const deep = computed(() => {
  const { tilt: turned, depth } = layer.value.place;
  return (
    tilt.value.some((v) => v) || isKeyed(turned) || (!!depth && (steadyAt(depth, at.value) !== 0 || isKeyed(depth)))
  );
});
const rotation = computed(() => steadyAt(layer.value.place.rotation, at.value));

function set(change: PlaceChange, dragging: boolean, what = 'Place'): void {
  if (dragging) preview.touching = true;
  edits.editLayer(
    (project, where) => setPlace(project, where, change, what),
    dragging ? `place ${Object.keys(change).join()}` : undefined,
  );
}
function setScale(axis: 0 | 1, percent: number, dragging: boolean): void {
  const share = percent / 100;
  const pair: [number, number] = [...scale.value];
  if (linked.value)
    pair[1 - axis] = scale.value[axis] > 0 ? (scale.value[1 - axis]! * share) / scale.value[axis]! : share;
  pair[axis] = share;
  set({ scale: pair }, dragging, 'Scale');
}
function opacity(percent: number, dragging: boolean): void {
  if (dragging) preview.touching = true;
  edits.editLayer((project, where) => setOpacity(project, where, percent / 100), dragging ? 'opacity' : undefined);
}
function end(): void {
  preview.touching = false;
  store.endGesture();
}
const fields = computed(() => ({ min: -1e6, max: 1e6, digits: 1, disabled: locked.value }));
</script>

<template>
  <div>
    <p v-if="framed" class="hint" role="note">
      Position and scale follow from the framing.
      <v-btn size="small" :disabled="locked" @click="edits.editLayer(framingToKeys)">As keyframes</v-btn>
      <v-btn
        size="small"
        :disabled="locked"
        @click="edits.editLayer((project, where) => setFraming(project, where, []))"
        >No framing</v-btn
      >
    </p>
    <div class="row">
      <span>Position</span>
      <NumberField
        label="Position x"
        unit="x"
        :value="position[0]"
        v-bind="fields"
        :disabled="locked || framed"
        @change="(v, d) => set({ position: [v, position[1]] }, d, 'Move')"
        @end="end"
      />
      <NumberField
        label="Position y"
        unit="y"
        :value="position[1]"
        v-bind="fields"
        :disabled="locked || framed"
        @change="(v, d) => set({ position: [position[0], v] }, d, 'Move')"
        @end="end"
      />
      <Peg path="place.position" />
    </div>
    <div class="row">
      <span class="with"
        >Scale<IconButton
          :label="linked ? 'Width and height together' : 'Width and height apart'"
          :pressed="linked"
          :icon="linked ? mdiLink : mdiLinkOff"
          @click="linked = !linked"
      /></span>
      <NumberField
        label="Scale width"
        unit="%"
        :value="scale[0] * 100"
        :min="0"
        :max="100000"
        :digits="1"
        :disabled="locked || framed"
        @change="(v, d) => setScale(0, v, d)"
        @end="end"
      />
      <NumberField
        label="Scale height"
        unit="%"
        :value="scale[1] * 100"
        :min="0"
        :max="100000"
        :digits="1"
        :disabled="locked || framed"
        @change="(v, d) => setScale(1, v, d)"
        @end="end"
      />
      <Peg path="place.scale" />
    </div>
    <div class="row">
      <span class="with two">
        Rotation
        <IconButton
          label="Flip sideways"
          :pressed="layer.place.flipX"
          :icon="mdiFlipHorizontal"
          @click="set({ flipX: !layer.place.flipX }, false, 'Flip')"
        />
        <IconButton
          label="Flip upside down"
          :pressed="layer.place.flipY"
          :icon="mdiFlipVertical"
          @click="set({ flipY: !layer.place.flipY }, false, 'Flip')"
        />
      </span>
      <NumberField
        label="Rotation"
        unit="°"
        :value="rotation"
        v-bind="fields"
        @change="(v, d) => set({ rotation: v }, d, 'Turn')"
        @end="end"
      />
      <Peg path="place.rotation" />
    </div>
    <div
      class="row"
      title="The point that position places, and that scale and rotation turn about; from the source’s centre"
    >
      <span>Anchor</span>
      <NumberField
        label="Anchor x"
        unit="x"
        :value="anchor[0]"
        v-bind="fields"
        @change="(v, d) => set({ anchor: [v, anchor[1]] }, d, 'Anchor of')"
        @end="end"
      />
      <NumberField
        label="Anchor y"
        unit="y"
        :value="anchor[1]"
        v-bind="fields"
        @change="(v, d) => set({ anchor: [anchor[0], v] }, d, 'Anchor of')"
        @end="end"
      />
      <Peg path="place.anchor" />
    </div>
    <div class="row" title="Turns the layer out of the picture plane about its anchor">
      <span>Tilt</span>
      <NumberField
        label="Tilt x"
        unit="x°"
        :value="tilt[0]"
        v-bind="fields"
        :min="-3600"
        :max="3600"
        @change="(v, d) => set({ tilt: [v, tilt[1]] }, d, 'Tilt')"
        @end="end"
      />
      <NumberField
        label="Tilt y"
        unit="y°"
        :value="tilt[1]"
        v-bind="fields"
        :min="-3600"
        :max="3600"
        @change="(v, d) => set({ tilt: [tilt[0], v] }, d, 'Tilt')"
        @end="end"
      />
      <Peg path="place.tilt" />
    </div>
    <Dial
      v-if="deep"
      path="place.perspective"
      label="Perspective"
      unit="%"
      help="How strongly a tilted layer narrows with distance."
      :value="steadyAt(layer.place.perspective, at) * 100"
      :reset="50"
      :min="0"
      :max="100"
      :slider="[0, 100]"
      :disabled="locked"
      @change="(v, d) => set({ perspective: v / 100 }, d, 'Perspective of')"
      @end="end"
    />
    <DepthDials
      :deep="deep"
      :at="at"
      :locked="locked"
      @change="(depth, d) => set({ depth }, d, 'Depth of')"
      @end="end"
    />
    <AlignBar />
    <Placements />
    <hr />
    <Dial
      path="opacity"
      label="Opacity"
      unit="%"
      help="How much of the layer shows."
      :value="steadyAt(layer.opacity, at) * 100"
      :reset="100"
      :min="0"
      :max="100"
      :slider="[0, 100]"
      :disabled="locked"
      @change="opacity"
      @end="end"
    />
    <div class="dial-row">
      Blend mode
      <Choice
        label="Blend mode"
        :value="layer.blend"
        :options="BLENDS"
        :disabled="locked"
        @change="(mode) => edits.editLayer((project, where) => setBlend(project, where, mode))"
      />
    </div>
    <FollowTrack :paths="['place.position', 'place.rotation', 'place.scale']" />
    <FollowDials />
    <MatteDials />
  </div>
</template>

<style scoped>
.hint {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 6px 8px;
  margin-bottom: 6px;
  border-left: 2px solid var(--chalk);
  font-size: 0.75rem;
}
.row {
  display: grid;
  grid-template-columns: minmax(3.75rem, 1fr) 4.3rem 4.3rem 3rem;
  align-items: center;
  gap: 4px;
  padding: 3px 0;
}
.row > :deep(.number) {
  width: 100%;
}
.with {
  display: flex;
  align-items: center;
  gap: 2px;
}
.two {
  grid-column: span 2;
}
</style>
