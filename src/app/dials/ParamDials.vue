<script setup lang="ts">
import { mdiEye, mdiEyeOff } from '@mdi/js';
import { computed, provide, type Component } from 'vue';
import type { Value } from '../../core/base/value';
import { same } from '../../core/document/same';
import { counts as effective } from '../../core/params/define';
import { beginningOf, type Param, type Params } from '../../core/params/registry';
import { steadyAt } from '../../core/time/values';
import IconButton from '../controls/IconButton.vue';
import { dialOf } from './define';
import { openGroups } from './open-groups';
import ParamList from './ParamList.vue';
import { SIBLINGS } from './siblings';
import { usePlayhead } from '../stores/playhead';
import { usePreview } from '../stores/preview';
import { useProject } from '../stores/project';

/** The dials of something declared, each made by the kind of its parameter; those of a group open together. @param path of its values */
const props = defineProps<{
  params: Params;
  values: Readonly<Record<string, Value<unknown>>>;
  path: string;
  disabled: boolean;
  /** groups that are left out; undefined where that cannot be */
  out?: readonly string[] | undefined;
}>();
const emit = defineEmits<{ change: [name: string, value: unknown, dragging: boolean]; bypass: [group: string] }>();
const playhead = usePlayhead();
const store = useProject();
const preview = usePreview();

const valueOf = (name: string): unknown => {
  const value = props.values[name];
  return value && steadyAt(value, playhead.moment.frame);
};
const isNew = (name: string, param: Param): boolean =>
  'still' in props.values[name]! && same(valueOf(name), beginningOf(param));
interface Shown {
  name: string;
  param: Param;
  dial: Component;
}
/** Those that have an effect at this frame and are set here. */
const shown = computed<Shown[]>(() =>
  Object.entries(props.params).flatMap(([name, param]) => {
    const dial = dialOf(param.kind);
    const counts =
      name in props.values && !param.within && effective(param, valueOf) && !(param.retired && isNew(name, param));
    return dial && counts ? [{ name, param, dial }] : [];
  }),
);
const always = computed(() => shown.value.filter(({ param }) => !param.group));
const groups = computed(() =>
  [...new Set(shown.value.flatMap(({ param }) => param.group ?? []))].map((title) => ({
    title,
    shown: shown.value.filter(({ param }) => param.group === title),
    isNew: Object.entries(props.params).every(
      ([name, param]) => param.group !== title || !(name in props.values) || isNew(name, param),
    ),
  })),
);

function change(name: string, value: unknown, dragging: boolean): void {
  if (dragging) preview.touching = true;
  emit('change', name, value, dragging);
}
function end(): void {
  preview.touching = false;
  store.endGesture();
}
provide(SIBLINGS, {
  get params() {
    return props.params;
  },
  now: valueOf,
  change,
  end,
});
</script>

<template>
  <div>
    <ParamList :dials="always" :path="path" :disabled="disabled" />
    <v-expansion-panels v-if="groups.length" v-model="openGroups" multiple flat class="groups">
      <v-expansion-panel v-for="group in groups" :key="group.title" :value="group.title">
        <v-expansion-panel-title :class="{ out: out?.includes(group.title) }">{{
          group.title
        }}</v-expansion-panel-title>
        <IconButton
          v-if="out && (out.includes(group.title) || !group.isNew)"
          class="bypass"
          :label="`${out.includes(group.title) ? 'Take back' : 'Leave out'} ${group.title.toLowerCase()}`"
          :icon="out.includes(group.title) ? mdiEyeOff : mdiEye"
          :disabled="disabled"
          @click="emit('bypass', group.title)"
        />
        <v-expansion-panel-text :class="{ out: out?.includes(group.title) }">
          <slot :name="group.title" />
          <ParamList :dials="group.shown" :path="path" :disabled="disabled" />
        </v-expansion-panel-text>
      </v-expansion-panel>
    </v-expansion-panels>
  </div>
</template>

<style scoped>
.groups :deep(.v-expansion-panel-title) {
  min-height: 1.75rem;
  padding: 2px 0;
  font-size: 0.8125rem;
  border-top: 1px solid var(--line);
}
.bypass {
  position: absolute;
  right: 1.75rem;
  top: 2px;
  z-index: 1;
}
.out {
  opacity: 0.55;
}
.out.v-expansion-panel-title {
  text-decoration: line-through;
}
.groups :deep(.v-expansion-panel-text__wrapper) {
  padding: 0 0 8px;
}
.groups :deep(.v-expansion-panel) {
  margin: 0 !important;
  color: inherit;
  background: transparent;
}
</style>
