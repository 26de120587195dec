<script setup lang="ts">
import { rem } from '../controls/rem';
import { followPointer } from '../controls/pointer';
import { ROW, useRows } from '../stores/rows';

/** The lower edge of a row: dragged, or moved by arrow keys, it makes the row higher; Enter and a double-click grow it into a curve and back. */
const props = defineProps<{ row: string; name: string }>();
const rows = useRows();

function drag(event: PointerEvent): void {
  const begun = rows.height(props.row);
  followPointer(event, (now) => rows.setHeight(props.row, begun + (now.clientY - event.clientY) / rem(1)));
}
const nudge = (by: number): void => rows.setHeight(props.row, rows.height(props.row) + by);
</script>

<template>
  <div
    class="edge"
    role="separator"
    tabindex="0"
    aria-orientation="horizontal"
    :aria-label="`Height of ${name}: drag, arrow keys, or Enter`"
    :aria-valuenow="rows.height(row)"
    :aria-valuemin="ROW.rest"
    :aria-valuemax="ROW.most"
    @pointerdown.stop.prevent="drag"
    @dblclick.stop="rows.grow(row)"
    @keydown.enter.stop.prevent="rows.grow(row)"
    @keydown.up.stop.prevent="nudge(-12)"
    @keydown.down.stop.prevent="nudge(12)"
  />
</template>

<style scoped>
.edge {
  position: absolute;
  z-index: 3;
  right: 0;
  bottom: 0;
  left: 0;
  height: 5px;
  cursor: ns-resize;
  touch-action: none;
}
.edge:hover,
.edge:focus-visible {
  background: color-mix(in srgb, var(--brass) 45%, transparent);
}
</style>
