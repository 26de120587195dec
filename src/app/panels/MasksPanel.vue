<script setup lang="ts">
import { computed, ref, shallowRef } from 'vue';
import { VueDraggable } from 'vue-draggable-plus';
import { mdiClose, mdiContentCopy, mdiContentPaste, mdiDotsVertical, mdiEye, mdiEyeOff, mdiPlus } from '@mdi/js';
import { addPass, newPass } from '../../core/document/edits/passes';
import { drawnByMasks, orderMask, removeMask, setMask, usesMasks } from '../../core/document/edits/masks';
import { MASK_MODES, type Mask } from '../../core/document/mask';
import { isSeen, type PassId } from '../../core/document/schema';
import Icon from '../controls/Icon.vue';
import IconButton from '../controls/IconButton.vue';
import Check from '../controls/Check.vue';
import Choice from '../controls/Choice.vue';
import FilePick from '../controls/FilePick.vue';
import { newId } from '../base/ids';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import MaskMenu from '../masks/MaskMenu.vue';
import { OFFERED_MASKS } from '../masks/offered';
import { useMasking } from '../stores/masking';
import { useProject } from '../stores/project';
import { useMaskFiles } from './mask-files';
import { MASK_HUES } from '../theme/mask-hues';
import MaskDials from './MaskDials.vue';

/** The layer's masks: added, ordered, switched, and the dials of the chosen one. */
const bench = useBench();
const edits = useEdits();
const store = useProject();
const masking = useMasking();
const files = useMaskFiles();
const locked = computed(() => bench.layer!.locked || store.readOnly);
const order = computed({ get: () => [...masking.masks], set: () => undefined });
const drawn = computed(() => drawnByMasks(bench.layer!));
const unused = computed(
  () => masking.masks.length > 0 && !drawn.value && !bench.layer!.passes.some((pass) => usesMasks(pass)),
);
const MODE_LABELS = { add: 'adds', subtract: 'subtracts', intersect: 'intersects', exclude: 'excludes' } as const;

/** the mask whose menu is open, and where */
const asked = shallowRef<{ mask: Mask; at: [number, number] } | null>(null);
const pictures = computed(() => (store.project?.stock ?? []).filter(isSeen));
const svgInput = ref<InstanceType<typeof FilePick>>();
const pngInput = ref<InstanceType<typeof FilePick>>();
const jigInput = ref<InstanceType<typeof FilePick>>();

function reordered({ oldIndex, newIndex }: { oldIndex?: number; newIndex?: number }): void {
  const mask = masking.masks[oldIndex ?? -1];
  if (mask && newIndex !== undefined) edits.editLayer((project, at) => orderMask(project, at, mask.id, newIndex));
}
const change = (mask: Mask, part: Parameters<typeof setMask>[3]): void =>
  edits.editLayer((project, at) => setMask(project, at, mask.id, part));
/** A Mask pass at the end of the line, cutting by all masks. */
function cut(): void {
  const pass = newPass(newId<PassId>(), 'mask', null, { side: 'inside' });
  edits.editLayer((_, at) => addPass(at, pass));
}
const addPicture = (stock: string, title: string): void =>
  void masking.add({ kind: 'picture', stock: stock as never, channel: 'brightness' }, title);
</script>

<template>
  <div>
    <div class="adding">
      <v-menu>
        <template #activator="{ props: menu }">
          <v-btn size="small" v-bind="menu" class="add" :disabled="locked"><Icon :path="mdiPlus" /> Add a mask</v-btn>
        </template>
        <v-list>
          <v-list-item
            v-for="shape in OFFERED_MASKS"
            :key="shape.title"
            :title="shape.title"
            :subtitle="shape.help"
            @click="masking.addShape(shape.kind, shape.tool)"
          />
          <v-list-item
            title="Smart selection"
            subtitle="Strokes over what to keep and what to drop"
            @click="masking.addSelection()"
          />
          <v-divider />
          <v-list-item
            v-for="item in pictures"
            :key="item.id"
            :title="`Picture: ${item.name}`"
            @click="addPicture(item.id, item.name)"
          />
          <v-divider />
          <v-list-item title="Paths from an SVG file…" @click="svgInput?.pick()" />
          <v-list-item title="Drawn matte from a PNG file…" @click="pngInput?.pick()" />
          <v-list-item title="Masks from a jig…" @click="jigInput?.pick()" />
        </v-list>
      </v-menu>
      <span class="tools">
        <IconButton
          label="Paste masks"
          :icon="mdiContentPaste"
          :disabled="locked || !masking.clipboard.length"
          @click="masking.paste()"
        />
        <v-menu v-if="masking.masks.length">
          <template #activator="{ props: menu }"
            ><IconButton v-bind="menu" label="More for masks" :icon="mdiDotsVertical"
          /></template>
          <v-list>
            <v-list-item title="Copy all masks" @click="masking.copy(masking.masks)" />
            <v-list-item title="Save paths as SVG" @click="files.saveSvg()" />
            <v-list-item title="Save this frame’s coverage as PNG" @click="files.savePng()" />
            <v-list-item title="Save masks as a jig" @click="files.saveJig()" />
          </v-list>
        </v-menu>
      </span>
      <FilePick
        ref="svgInput"
        label="SVG file with paths"
        accept=".svg"
        @files="([file]) => void files.openSvg(file!)"
      />
      <FilePick
        ref="pngInput"
        label="PNG file with a matte"
        accept=".png"
        @files="([file]) => void files.openPng(file!)"
      />
      <FilePick
        ref="jigInput"
        label="Jig file with masks"
        accept=".json"
        @files="([file]) => void files.openJig(file!)"
      />
    </div>
    <p v-if="!masking.masks.length" class="dim">
      {{
        drawn
          ? 'This shape has nothing to be drawn by yet. Add a path, a rectangle or an ellipse.'
          : 'This layer has no masks. A mask cuts the layer by a Mask pass, or limits any pass to an area.'
      }}
    </p>
    <VueDraggable
      v-model="order"
      tag="ul"
      class="chosen-list"
      aria-label="Masks"
      handle=".name"
      :disabled="locked"
      :animation="120"
      @end="reordered"
    >
      <li
        v-for="mask in masking.masks"
        :key="mask.id"
        :class="{ chosen: mask.id === masking.maskId, off: !mask.on }"
        @contextmenu.prevent="asked = { mask, at: [$event.clientX, $event.clientY] }"
      >
        <button class="name" :aria-pressed="mask.id === masking.maskId" @click="masking.show(mask.id)">
          <span class="dot" :style="{ background: MASK_HUES[mask.colour] }" />{{ mask.name }}
        </button>
        <Choice
          :label="`Mode of ${mask.name}`"
          :value="mask.mode"
          :options="MASK_MODES.map((mode) => ({ value: mode, title: MODE_LABELS[mode] }))"
          :disabled="locked"
          @change="(mode) => change(mask, { mode })"
        />
        <IconButton
          :label="`${mask.on ? 'Switch off' : 'Switch on'} mask ${mask.name}`"
          :icon="mask.on ? mdiEye : mdiEyeOff"
          :disabled="locked"
          @click="change(mask, { on: !mask.on })"
        />
        <IconButton :label="`Copy mask ${mask.name}`" :icon="mdiContentCopy" @click="masking.copy([mask])" />
        <IconButton
          :label="`Delete mask ${mask.name}`"
          :icon="mdiClose"
          :disabled="locked"
          @click="edits.editLayer((project, at) => removeMask(project, at, mask.id))"
        />
      </li>
    </VueDraggable>
    <MaskMenu v-if="asked" v-bind="asked" @close="asked = null" />
    <div v-if="masking.mask" class="tracing">
      <Check
        label="Layer uncut while tracing"
        title="Shows the layer without its keys and masks, while its masks are open"
        :value="masking.uncut"
        @change="(on) => (masking.uncut = on)"
      />
      <div v-if="masking.uncut" class="dial-row">
        Layers above show
        <v-slider
          v-model="masking.through"
          hide-details
          density="compact"
          thumb-size="10"
          :min="0"
          :max="1"
          :step="0.05"
          aria-label="How much of the layers above shows"
          @keydown.stop
        />
      </div>
    </div>
    <p v-if="drawn && masking.masks.length" class="dim">
      The shape is drawn by these. One that is not closed is a line.
      <v-btn size="small" @click="masking.open = false">Its fill and line</v-btn>
    </p>
    <p v-if="unused" class="unused">
      No pass uses these masks yet.
      <v-btn size="small" :disabled="locked" @click="cut">Cut the layer</v-btn> or choose an area in the dials of a
      pass.
    </p>
    <MaskDials v-if="masking.mask" :key="masking.mask.id" />
  </div>
</template>

<style scoped>
.adding {
  display: flex;
  justify-content: space-between;
  margin-bottom: 8px;
}
.add {
  display: flex;
  gap: 6px;
  align-items: center;
}
.add svg {
  width: 0.875rem;
  fill: currentColor;
}
.tools {
  display: flex;
}
li.off .name {
  color: var(--dim);
  text-decoration: line-through;
}
.dot {
  display: inline-block;
  width: 9px;
  height: 9px;
  margin-right: 7px;
  border-radius: 2px;
}
select {
  width: 4.875rem;
  height: 1.5rem;
  background: var(--well);
  border: 1px solid var(--line);
  border-radius: 3px;
  color: inherit;
  font-size: 0.75rem;
}
.unused {
  padding: 6px 8px;
  margin-bottom: 8px;
  border: 1px solid var(--line);
  font-size: 0.75rem;
  line-height: 1.7;
}
</style>
