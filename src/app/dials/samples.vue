<script setup lang="ts">
import { mdiClose, mdiEyedropper } from '@mdi/js';
import type { Colour } from '../../core/params/define';
import type { SamplesParam } from '../../core/params/samples';
import { setPassValue } from '../../core/document/edits/passes';
import type { PassId } from '../../core/document/schema';
import IconButton from '../controls/IconButton.vue';
import Icon from '../controls/Icon.vue';
import Peg from '../controls/Peg.vue';
import ColourField from '../controls/ColourField.vue';
import { usePlayhead } from '../stores/playhead';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { colourWithout } from '../viewer/shot-colour';
import type { DialEmits, DialProps } from './define';
import { readInto, screenBefore } from '../stores/read-plate';

/** Picked colours of a pass: swatches, picking on the picture, and for a single colour the browser's own chooser. */
const props = defineProps<DialProps<SamplesParam, Colour[]>>();
const emit = defineEmits<DialEmits<Colour[]>>();
const bench = useBench();
const playhead = usePlayhead();
const store = useProject();
const notices = useNotices();
const css = (colour: Colour) => `rgb(${colour.map((v) => Math.round(v * 255)).join(' ')})`;
const WHITE: Colour = [1, 1, 1];
const pick = (): void => void (bench.picking = bench.picking === props.name ? null : props.name);
/** Sets the samples of the pass that was open when the work began, whatever is chosen by now. */
async function measured(work: (id: PassId) => Promise<Colour[] | null>): Promise<void> {
  const { id } = bench.pass!;
  const at = playhead.at!;
  try {
    const found = await work(id);
    if (found && props.param.reads) await readInto(id, props.param.reads, found, false);
    else if (found) store.edit(setPassValue(store.current(), at, id, props.name, found));
    if (found && bench.pass?.id === id) bench.picking = null;
  } catch (error) {
    notices.problem(error);
  }
}
const find = (): Promise<void> => measured(screenBefore);
/** Takes the mean colour of the shot without the layer, as it is at this frame. */
const background = (): Promise<void> =>
  measured(async () => {
    const colour = await colourWithout(store.current(), bench.shot!, bench.layerId!, playhead.frame);
    return [colour.map((v) => Math.round(v * 10000) / 10000) as unknown as Colour];
  });
</script>

<template>
  <div class="samples" role="group" :aria-label="param.label" :title="param.help">
    <template v-if="param.most === 1">
      <span class="label">{{ param.label }}</span>
      <ColourField
        :label="param.label"
        :value="value[0] ?? WHITE"
        :disabled="disabled"
        @change="(colour) => emit('change', [colour], true)"
        @end="emit('end')"
      />
    </template>
    <template v-else>
      <span v-for="(colour, i) in value" :key="i" class="swatch" :style="{ background: css(colour) }">
        <IconButton
          :label="`Remove sample ${i + 1}`"
          :icon="mdiClose"
          :disabled="disabled"
          @click="
            emit(
              'change',
              value.filter((_, k) => k !== i),
            )
          "
        />
      </span>
    </template>
    <v-btn size="small" class="pick" :aria-pressed="bench.picking === name" :disabled="disabled" @click="pick">
      <Icon :path="mdiEyedropper" /> Pick
    </v-btn>
    <v-btn size="small" v-if="param.finds" class="pick" :disabled="disabled" @click="find">Find the screen</v-btn>
    <v-btn
      size="small"
      v-if="param.from === 'shot'"
      class="pick"
      :disabled="disabled"
      title="The mean colour of the shot without this layer"
      @click="background"
    >
      Of the background
    </v-btn>
    <span class="peg"><Peg :path="path" /></span>
    <p v-if="!value.length && param.most > 1" class="dim">
      {{ param.picks?.empty ?? 'Nothing is keyed yet. Choose Pick, then click on the screen in the picture.' }}
    </p>
  </div>
</template>

<style scoped>
.samples {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  align-items: center;
  margin-bottom: 8px;
}
.samples p {
  flex-basis: 100%;
}
.label {
  flex: 1;
}
.swatch {
  position: relative;
  width: 1.75rem;
  height: 1.5rem;
  border: 1px solid var(--line);
}
.swatch :deep(button) {
  position: absolute;
  inset: -1px;
  display: grid;
  place-items: center;
  opacity: 0;
  color: #fff;
  background: rgb(0 0 0 / 40%);
}
.swatch :deep(button:hover),
.swatch :deep(button:focus-visible) {
  opacity: 1;
}
.swatch :deep(svg) {
  width: 12px;
  fill: currentColor;
}
.pick.v-btn {
  flex: none;
  padding: 2px 7px;
}
.pick[aria-pressed='true'] {
  border-color: var(--brass);
  color: var(--brass);
}
.peg {
  margin-left: auto;
}
.pick svg {
  width: 13px;
  margin-right: 5px;
  fill: currentColor;
}
</style>
