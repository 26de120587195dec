<script setup lang="ts">
import { mdiClose, mdiEyedropper } from '@mdi/js';
import type { Colour, SamplesParam } from '../../core/passes/define';
import Icon from './Icon.vue';
import Peg from './Peg.vue';
import { useBench } from '../stores/bench';

/** Picked colours of a pass: swatches, picking on the picture, and for a single colour the browser's own chooser. */
const props = defineProps<{
  name: string;
  param: SamplesParam;
  colours: readonly Colour[];
  path: string;
  disabled: boolean;
}>();
const emit = defineEmits<{ change: [colours: Colour[]]; find: []; background: [] }>();
const bench = useBench();
const css = (colour: Colour) => `rgb(${colour.map((v) => Math.round(v * 255)).join(' ')})`;
const hex = (colour: Colour | undefined) =>
  `#${(colour ?? [1, 1, 1])
    .map((v) =>
      Math.round(v * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
const fromHex = (text: string): Colour =>
  [1, 3, 5].map((i) => parseInt(text.slice(i, i + 2), 16) / 255) as unknown as Colour;
const pick = (): void => void (bench.picking = bench.picking === props.name ? null : props.name);
</script>

<template>
  <div class="samples" role="group" :aria-label="param.label" :title="param.help">
    <template v-if="param.most === 1">
      <span class="label">{{ param.label }}</span>
      <input
        type="color"
        :value="hex(colours[0])"
        :disabled="disabled"
        :aria-label="param.label"
        @change="emit('change', [fromHex(($event.target as HTMLInputElement).value)])"
      />
    </template>
    <template v-else>
      <span v-for="(colour, i) in colours" :key="i" class="swatch" :style="{ background: css(colour) }">
        <button
          :aria-label="`Remove sample ${i + 1}`"
          :disabled="disabled"
          @click="
            emit(
              'change',
              colours.filter((_, k) => k !== i),
            )
          "
        >
          <Icon :path="mdiClose" />
        </button>
      </span>
    </template>
    <button class="pick" :aria-pressed="bench.picking === name" :disabled="disabled" @click="pick">
      <Icon :path="mdiEyedropper" /> Pick
    </button>
    <button v-if="name === 'screen'" class="pick" :disabled="disabled" @click="emit('find')">Find the screen</button>
    <button
      v-if="param.from === 'shot'"
      class="pick"
      :disabled="disabled"
      title="The mean colour of the shot without this layer"
      @click="emit('background')"
    >
      Of the background
    </button>
    <span class="peg"><Peg :path="path" /></span>
    <p v-if="!colours.length && param.most > 1" class="dim">
      Nothing is keyed yet. Choose Pick, then click on the screen in the picture.
    </p>
  </div>
</template>

<style scoped>
.samples {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin-bottom: 8px;
}
.samples p {
  flex-basis: 100%;
}
.label {
  flex: 1;
}
input {
  width: 2.5rem;
  height: 1.5rem;
}
.swatch {
  position: relative;
  width: 1.75rem;
  height: 1.5rem;
  border: 1px solid var(--line);
}
.swatch button {
  position: absolute;
  inset: -1px;
  display: grid;
  place-items: center;
  opacity: 0;
  color: #fff;
  background: rgb(0 0 0 / 40%);
}
.swatch button:hover,
.swatch button:focus-visible {
  opacity: 1;
}
.swatch svg {
  width: 12px;
  fill: currentColor;
}
.pick {
  display: flex;
  align-items: center;
  gap: 5px;
  padding: 2px 9px;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--raised);
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
  fill: currentColor;
}
</style>
