<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { drop, notices } from './notices'
</script>

<template>
  <div class="notices" aria-live="polite" role="status">
    <div v-for="n in notices" :key="n.id" class="float notice" :class="n.tone">
      <span>{{ n.text }}</span>
      <v-btn v-if="n.action" size="small" color="primary" @click="(n.action.run(), drop(n.id))">{{ n.action.label }}</v-btn>
      <v-btn :icon="mdiClose" size="x-small" aria-label="Dismiss" @click="drop(n.id)" />
    </div>
  </div>
</template>

<style scoped>
.notices {
  position: fixed;
  left: 50%;
  top: 102px;
  transform: translateX(-50%);
  z-index: 3000;
  display: flex;
  flex-direction: column;
  gap: 6px;
  max-width: 440px;
}
.notice {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 6px 6px 12px;
  border-left: 3px solid rgb(var(--v-theme-secondary));
}
.notice.error {
  border-left-color: rgb(var(--v-theme-error));
}
.notice span {
  flex: 1;
}
</style>
