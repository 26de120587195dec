<script setup lang="ts">
import { mdiThemeLightDark } from '@mdi/js';
import IconButton from '../controls/IconButton.vue';
import { useLook } from '../theme/look';
import Mark from './Mark.vue';

const { toggle } = useLook();
</script>

<template>
  <div class="site">
    <header>
      <router-link to="/" class="brand"><Mark /> Jackplane</router-link>
      <nav aria-label="Pages">
        <router-link to="/">Projects</router-link>
        <router-link to="/renders">Renders</router-link>
        <router-link to="/guide">Guide</router-link>
      </nav>
      <IconButton label="Evening or daylight look" :icon="mdiThemeLightDark" @click="toggle" />
    </header>
    <div class="body" tabindex="0"><slot /></div>
  </div>
</template>

<style scoped>
.site {
  display: grid;
  grid-template-rows: auto 1fr;
  height: 100vh;
}
header {
  display: flex;
  align-items: center;
  gap: 28px;
  flex-wrap: wrap;
  padding: 0 14px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
}
.brand {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 1.5rem;
  font-weight: 650;
  font-size: 0.9375rem;
  color: var(--text);
  text-decoration: none;
}
nav {
  display: flex;
  gap: 20px;
  flex: 1;
}
nav a {
  color: var(--dim);
  text-decoration: none;
  line-height: 2.625rem;
  border-bottom: 2px solid transparent;
}
nav a.router-link-exact-active {
  color: var(--text);
  border-color: var(--brass);
}
.body {
  overflow: auto;
}
</style>
