<script setup lang="ts">
import { onMounted, ref, watch } from 'vue';

/** One step of the passes line: the picture after it, its name, and what can be done with it. */
const props = defineProps<{
  title: string;
  picture?: ImageBitmap | undefined;
  chosen: boolean;
  fixed?: boolean;
  off?: boolean;
  last?: boolean;
  area?: 'inside' | 'outside' | undefined;
  /** belongs to the layer's clip */
  ofClip?: boolean;
}>();
defineEmits<{ choose: []; left: []; right: []; remove: []; hold: []; release: [] }>();
const canvas = ref<HTMLCanvasElement>();

function paint(): void {
  const { picture } = props;
  if (!canvas.value || picture?.width === 0) return;
  const { width, height } = canvas.value;
  if (!picture) return canvas.value.getContext('2d')!.clearRect(0, 0, width, height);
  canvas.value.width = picture.width;
  canvas.value.height = picture.height;
  canvas.value.getContext('2d')!.drawImage(picture, 0, 0);
}
onMounted(paint);
watch(() => props.picture, paint);
</script>

<template>
  <div class="tile" :class="{ chosen, fixed, off, last }">
    <button
      class="face"
      :aria-label="`${title}${ofClip ? ' of the clip' : ''}${off ? ', off' : ''}`"
      :aria-pressed="chosen"
      :title="
        fixed
          ? title
          : ofClip
            ? `${title} of the clip: every layer made from it shows it, in every shot`
            : `${title}. Drag to reorder, or Ctrl+← and Ctrl+→; hold Alt and press to see the picture up to here`
      "
      @click="!$event.altKey && $emit('choose')"
      @pointerdown.alt.stop.prevent="$emit('hold')"
      @pointerup="$emit('release')"
      @pointerleave="$emit('release')"
      @keydown.alt.exact="$emit('hold')"
      @keyup="$emit('release')"
      @blur="$emit('release')"
      @keydown.ctrl.left.stop.prevent="$emit('left')"
      @keydown.ctrl.right.stop.prevent="$emit('right')"
      @keydown.delete.stop.prevent="$emit('remove')"
    >
      <canvas ref="canvas" width="184" height="104" aria-hidden="true" />
      <span class="name">{{ title }}</span>
      <span v-if="ofClip" class="clip" aria-hidden="true">clip</span>
      <svg v-if="area" class="area" viewBox="0 0 18 14" role="img" :aria-label="`only ${area} its masks`">
        <path v-if="area === 'inside'" d="M4 4.5C6 1.5 13 2 14 5s-1 6-5 6-7-3.500-5-6.500z" />
        <path v-else fill-rule="evenodd" d="M1 1h16v12H1zM4 4.500C6 1.500 13 2 14 5s-1 6-5 6-7-3.500-5-6.500z" />
      </svg>
    </button>
    <span class="tools"><slot /></span>
  </div>
</template>

<style scoped>
.tile {
  position: relative;
  flex: none;
  width: 5.75rem;
  margin-right: 14px;
  background: var(--well);
  border: 1px solid var(--line);
  border-radius: 3px;
}
.tile:not(.last)::after {
  content: '';
  position: absolute;
  left: calc(100% + 1px);
  top: 50%;
  width: 0.875rem;
  border-top: 1px solid var(--dim);
}
.fixed {
  border-style: dashed;
}
.chosen {
  border: 1px solid var(--brass);
  box-shadow: 0 0 0 1px var(--brass);
}
.face {
  display: block;
  width: 100%;
  text-align: left;
}
canvas {
  display: block;
  width: 5.625rem;
  height: 3.1875rem;
  object-fit: contain;
  background: repeating-conic-gradient(#7a7a7a 0 25%, #6a6a6a 0 50%) 0 0 / 10px 10px;
}
.area {
  position: absolute;
  left: 3px;
  top: 3px;
  width: 1.125rem;
  padding: 1px;
  background: rgb(20 20 20 / 80%);
  border-radius: 2px;
}
.clip {
  position: absolute;
  left: 3px;
  top: 3px;
  padding: 0 4px;
  background: rgb(20 20 20 / 80%);
  border-radius: 2px;
  color: var(--brass);
  font-size: 0.625rem;
}
.area path {
  fill: var(--brass);
}
.off canvas {
  opacity: 0.35;
}
.name {
  display: block;
  padding: 2px 6px 3px;
  font-size: 0.75rem;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.off .name {
  text-decoration: line-through;
  color: var(--dim);
}
.tools {
  position: absolute;
  right: 2px;
  top: 2px;
  display: flex;
  opacity: 0;
  background: var(--panel);
  border-radius: 3px;
}
.tile:hover .tools,
.tile:focus-within .tools,
.off .tools {
  opacity: 1;
}
</style>
