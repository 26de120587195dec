<script setup lang="ts">
import { inject, type Component } from 'vue';
import type { Param } from '../../core/params/registry';
import { SIBLINGS } from './siblings';

/** Some of the dials of something declared. @param path of its values */
defineProps<{ dials: readonly { name: string; param: Param; dial: Component }[]; path: string; disabled: boolean }>();
const beside = inject(SIBLINGS)!;
</script>

<template>
  <component
    :is="dial"
    v-for="{ name, param, dial } in dials"
    :key="name"
    :name="name"
    :param="param"
    :value="beside.now(name)"
    :path="`${path}.${name}`"
    :disabled="disabled"
    @change="(value: unknown, dragging?: boolean) => beside.change(name, value, dragging ?? false)"
    @end="beside.end()"
  />
</template>
