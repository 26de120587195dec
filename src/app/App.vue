<script setup lang="ts">
import { onMounted } from 'vue';
import { mdiClose } from '@mdi/js';
import IconButton from './controls/IconButton.vue';
import ShortcutList from './keyboard/ShortcutList.vue';
import { missingAbilities } from '../engine/client';
import { useNotices } from './stores/notices';
import { useLook } from './theme/look';

const notices = useNotices();
useLook();
onMounted(() => missingAbilities().forEach((sentence) => notices.say(sentence, 'problem')));
</script>

<template>
  <v-app>
    <router-view />
    <ShortcutList />
    <div class="notices" role="status" aria-live="polite">
      <div v-for="notice in notices.notices" :key="notice.id" class="notice" :class="notice.kind">
        <span>{{ notice.text }}</span>
        <v-btn v-if="notice.action" size="small" @click="(notice.action.run(), notices.close(notice.id))">{{
          notice.action.label
        }}</v-btn>
        <IconButton label="Close this message" :icon="mdiClose" @click="notices.close(notice.id)" />
      </div>
    </div>
  </v-app>
</template>

<style scoped>
.notices {
  position: fixed;
  z-index: 3000;
  left: 50%;
  bottom: 16px;
  transform: translateX(-50%);
  display: grid;
  gap: 8px;
  max-width: min(640px, 90vw);
}
.notice {
  display: flex;
  align-items: start;
  gap: 12px;
  padding: 10px 10px 10px 14px;
  background: var(--raised);
  border: 1px solid var(--line);
  border-left: 3px solid var(--chalk);
  border-radius: 3px;
  line-height: 1.4;
}
.notice.problem {
  border-left-color: var(--red);
  color: var(--text);
}
.notice span {
  padding-top: 2px;
}
</style>
