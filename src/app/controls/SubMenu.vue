<script setup lang="ts">
/** An entry of a menu that opens a list of choices beside it. */
export interface SubItem {
  title: string;
  subtitle?: string;
  run(): void;
}
defineProps<{ title: string; items: readonly SubItem[]; disabled?: boolean }>();
</script>

<template>
  <v-list-item :title="title" :disabled="disabled">
    <v-menu activator="parent" location="end" submenu>
      <v-list>
        <v-list-item
          v-for="(item, i) in items"
          :key="i"
          :title="item.title"
          :subtitle="item.subtitle"
          @click="item.run()"
        />
      </v-list>
    </v-menu>
  </v-list-item>
</template>
