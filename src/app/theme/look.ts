import { useStorage } from '@vueuse/core';
import { watch } from 'vue';
import { useTheme } from 'vuetify';

const look = useStorage<'evening' | 'daylight'>('jackplane look', 'evening');

/** The chosen of the two themes, kept in the browser. Call in a component. */
export function useLook() {
  const theme = useTheme();
  watch(look, (name) => theme.change(name), { immediate: true });
  return { look, toggle: () => (look.value = look.value === 'evening' ? 'daylight' : 'evening') };
}
