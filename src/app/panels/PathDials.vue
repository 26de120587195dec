<script setup lang="ts">
import { computed } from 'vue';
import { appendVertex, drawnByMasks, insertVertex, setPath } from '../../core/document/edits/masks';
import { converted, corner, isSmooth, type Vertex } from '../../core/masks/path';
import NumberField from '../controls/NumberField.vue';
import Peg from '../controls/Peg.vue';
import Choice from '../controls/Choice.vue';
import Check from '../controls/Check.vue';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { useProject } from '../stores/project';
import CarryOn from '../track/CarryOn.vue';
import { usePullToEdges } from '../viewer/edges';

/** The dials of a mask that is a path: drawing it, its keyframes, its chosen vertices. */
const bench = useBench();
const edits = useEdits();
const store = useProject();
const masking = useMasking();
const pulled = usePullToEdges();
const mask = computed(() => masking.mask!);
const closed = computed(() => mask.value.shape.kind === 'path' && mask.value.shape.closed);
/** whether it is a line of a shape as long as it is open */
const lined = computed(() => drawnByMasks(bench.layer!, mask.value.id));
const locked = computed(() => bench.layer!.locked || store.readOnly);

/** The one chosen vertex, for its exact numbers. */
const vertex = computed(() => {
  const [i, ...more] = masking.vertices;
  return i !== undefined && !more.length && masking.path[i] ? { i, v: masking.path[i]! } : null;
});
function writeVertices(next: (v: Vertex, i: number) => Vertex, dragging = false): void {
  const { id } = mask.value;
  const path = masking.path.map((v, i) => (masking.vertices.has(i) ? next(v, i) : v));
  edits.editLayer(
    (project, where) => setPath(project, where, id, path, masking.pathReach),
    dragging ? `vertex ${id}` : undefined,
  );
}
const setPart = (part: number, value: number, dragging: boolean): void =>
  writeVertices((v) => v.map((old, k) => (k === part ? value : old)) as unknown as Vertex, dragging);
const convert = (to: 'smooth' | 'corner'): void => writeVertices((_, i) => converted(masking.path, i, to));
function addPoint(): void {
  const { id } = mask.value;
  masking.tool = 'points';
  edits.editLayer((project, where) => appendVertex(project, where, id, corner(0, 0)));
  masking.vertices = new Set([masking.path.length - 1]);
}
function insertAfter(): void {
  const { id } = mask.value;
  const i = vertex.value!.i;
  edits.editLayer((project, where) => insertVertex(project, where, id, i, 0.5));
  masking.vertices = new Set([i + 1]);
}
async function pullNow(): Promise<void> {
  const { id } = mask.value;
  const next = await pulled(masking.path, masking.vertices.size ? masking.vertices : new Set(masking.path.keys()));
  if (next) edits.editLayer((project, where) => setPath(project, where, id, next, masking.pathReach));
}
const keysText = computed(() => {
  const { count, back, on } = masking.toKeys;
  if (!count) return 'No shape keyframes yet.';
  if (back === 0) return `On a shape keyframe; ${count} in all.`;
  return `Nearest shape keyframe: ${[back === null ? null : `${back} f back`, on === null ? null : `${on} f on`].filter(Boolean).join(', ')}; ${count} in all.`;
});
const REACHES = [
  { value: 'here' as const, title: 'this frame' },
  { value: 'all' as const, title: 'all keyframes' },
  { value: 'range' as const, title: 'keyframes from in to out' },
];
</script>

<template>
  <div>
    <div v-if="!closed" class="dim note">
      {{
        masking.tool === 'freehand'
          ? 'Draw round it on the picture in one go.'
          : masking.path.length < 3
            ? 'Click points on the picture; drag to curve them.'
            : `Click the first point or press Enter to close the path. Esc keeps it as ${lined ? 'a line' : 'a draft'}.`
      }}
    </div>
    <div v-if="!closed && masking.tool !== 'freehand'" class="buttons">
      <v-btn v-if="masking.tool === 'edit'" size="small" :disabled="locked" @click="masking.tool = 'points'">
        Go on drawing
      </v-btn>
      <v-btn
        size="small"
        :disabled="locked"
        title="Puts a point in the middle; its place can be typed, or moved with the arrow keys"
        @click="addPoint"
      >
        Add a point
      </v-btn>
      <v-btn v-if="masking.path.length >= 3" size="small" :disabled="locked" @click="masking.closeDrawn()">
        Close the path
      </v-btn>
    </div>
    <template v-if="closed">
      <div class="dial-row">
        A move changes
        <Choice
          label="A move changes"
          :value="masking.reach"
          :options="REACHES"
          @change="(reach) => (masking.reach = reach)"
        />
      </div>
      <div class="dial-row">
        <span class="dim note">{{ keysText }}</span><Peg :path="`mask.${mask.id}.path`" />
      </div>
      <Check label="Onion skin" :value="masking.onion" @change="(on) => (masking.onion = on)" />
      <Check label="Pull to edges when moved" :value="masking.pull" @change="(on) => (masking.pull = on)" />
      <div class="buttons">
        <v-btn size="small" :disabled="locked" @click="pullNow">Pull to edges now</v-btn>
        <v-btn size="small" @click="masking.vertices = new Set(masking.path.keys())">Choose all</v-btn>
      </div>
    </template>
    <CarryOn v-if="closed && !masking.carried" />
    <template v-if="masking.vertices.size">
      <div v-if="vertex" class="dial-row">
        Vertex {{ vertex.i + 1 }}
        <span class="pair">
          <NumberField
            label="Vertex x"
            unit="px"
            :value="vertex.v[0]"
            :digits="1"
            :disabled="locked"
            @change="(v, d) => setPart(0, v, d)"
            @end="store.endGesture"
          />
          <NumberField
            label="Vertex y"
            unit="px"
            :value="vertex.v[1]"
            :digits="1"
            :disabled="locked"
            @change="(v, d) => setPart(1, v, d)"
            @end="store.endGesture"
          />
        </span>
      </div>
      <div v-else class="dim note">
        {{ masking.vertices.size }} vertices chosen. Drag them, or the corners and the arm of their box.
      </div>
      <div v-if="vertex" class="dial-row">
        Softer here
        <NumberField
          label="Softer here"
          unit="px"
          :value="vertex.v[6]"
          :min="0"
          :max="2000"
          :disabled="locked"
          @change="(v, d) => setPart(6, v, d)"
          @end="store.endGesture"
        />
      </div>
      <div class="buttons">
        <v-btn size="small" :disabled="locked || (!!vertex && isSmooth(vertex.v))" @click="convert('smooth')">
          Smooth
        </v-btn>
        <v-btn size="small" :disabled="locked || (!!vertex && !isSmooth(vertex.v))" @click="convert('corner')">
          Corner
        </v-btn>
        <v-btn v-if="vertex" size="small" :disabled="locked" @click="insertAfter">Add after</v-btn>
        <v-btn size="small" :disabled="locked" @click="masking.remove()">Remove</v-btn>
      </div>
    </template>
  </div>
</template>

<style scoped>
.pair,
.buttons {
  display: flex;
  gap: 4px;
  align-items: center;
}
.pair :deep(.number) {
  width: 4.75rem;
}
.buttons {
  flex-wrap: wrap;
  padding: 3px 0;
}
.note {
  font-size: 0.75rem;
  line-height: 1.45;
}
</style>
