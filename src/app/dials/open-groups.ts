import { ref } from 'vue';

/** Titles of the groups of dials that are open; they stay so from one pass to the next. */
export const openGroups = ref<string[]>([]);
