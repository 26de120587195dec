<script setup lang="ts">
import { computed, ref } from 'vue';
import { mdiPlus } from '@mdi/js';
import type { FontParam, FontValue } from '../../core/params/font';
import { FONTS } from '../../core/text/fonts';
import Choice from '../controls/Choice.vue';
import FilePick from '../controls/FilePick.vue';
import IconButton from '../controls/IconButton.vue';
import { useImports } from '../stores/imports';
import { useProject } from '../stores/project';
import type { DialEmits, DialProps } from './define';

/** Chooses a font: one that ships, one of the project's stock, or a file that becomes stock. */
const props = defineProps<DialProps<FontParam, FontValue>>();
const emit = defineEmits<DialEmits<FontValue>>();
const store = useProject();
const picker = ref<InstanceType<typeof FilePick>>();
const own = computed(() => (store.project?.stock ?? []).filter(({ kind }) => kind === 'font'));
/** What tells fonts of the stock from those that ship. */
const STOCK = 'stock ';
const value = computed(() => (typeof props.value === 'string' ? props.value : STOCK + props.value.stock));
const options = computed(() => [
  ...FONTS.map(({ value: name, label }) => ({ value: name as string, title: label as string })),
  ...own.value.map(({ id, name }) => ({ value: STOCK + id, title: name })),
]);
const choose = (next: string): void =>
  emit('change', next.startsWith(STOCK) ? { stock: next.slice(STOCK.length) } : (next as FontValue));
async function open(files: readonly File[]): Promise<void> {
  const [stock] = await useImports().take(files.slice(0, 1));
  if (stock?.kind === 'font') emit('change', { stock: stock.id });
}
</script>

<template>
  <div class="dial-row" :title="param.help">
    {{ param.label }}
    <span class="fonts">
      <Choice :label="param.label" :value="value" :options="options" :disabled="disabled" @change="choose" />
      <IconButton label="Font from a file" :icon="mdiPlus" :disabled="disabled" @click="picker?.pick()" />
    </span>
    <FilePick ref="picker" label="Font file" accept=".ttf,.otf,.ttc,.woff,.woff2" @files="open" />
  </div>
</template>

<style scoped>
.fonts {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px;
  align-items: center;
}
</style>
