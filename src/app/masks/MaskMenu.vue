<script setup lang="ts">
import { pasteMasks, removeMask, setMask } from '../../core/document/edits/masks';
import { shapeOfMask } from '../../core/document/edits/figures';
import type { Mask, MaskId } from '../../core/document/mask';
import type { LayerId } from '../../core/document/schema';
import { newId } from '../base/ids';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useMasking } from '../stores/masking';
import { useProject } from '../stores/project';

/** What can be done with a mask, where it was pointed at. */
const props = defineProps<{ mask: Mask; at: [number, number] }>();
const emit = defineEmits<{ close: [] }>();
const bench = useBench();
const edits = useEdits();
const masking = useMasking();
const store = useProject();
const change = (part: Parameters<typeof setMask>[3]): void =>
  edits.editLayer((project, at) => setMask(project, at, props.mask.id, part));
const duplicate = (): void =>
  edits.editLayer((_, at) => pasteMasks(at, [{ ...props.mask, name: `${props.mask.name} 2` }], newId));
const canBeShape = ['path', 'rectangle', 'ellipse'].includes(props.mask.shape.kind);
function makeShape(): void {
  const ids = { layer: newId<LayerId>(), mask: newId<MaskId>() };
  edits.editLayer((project, at) => shapeOfMask(project, at, props.mask, ids));
  bench.choose(ids.layer, 'source');
}
</script>

<template>
  <v-menu :model-value="true" :target="at" :aria-label="mask.name" @update:model-value="emit('close')">
    <v-list>
      <v-list-item title="Copy, for other layers" @click="masking.copy([mask])" />
      <v-list-item
        v-if="masking.clipboard.length"
        title="Paste masks"
        :disabled="bench.layer?.locked || store.readOnly"
        @click="masking.paste()"
      />
      <template v-if="!bench.layer?.locked && !store.readOnly">
        <v-list-item title="Duplicate" @click="duplicate" />
        <v-list-item v-if="canBeShape" title="Make a shape of it" @click="makeShape" />
        <v-list-item :title="mask.on ? 'Switch off' : 'Switch on'" @click="change({ on: !mask.on })" />
        <v-list-item
          :title="mask.invert ? 'Cover what is inside' : 'Cover what is outside'"
          @click="change({ invert: !mask.invert })"
        />
        <v-list-item title="Delete" @click="edits.editLayer((project, where) => removeMask(project, where, mask.id))" />
      </template>
    </v-list>
  </v-menu>
</template>
