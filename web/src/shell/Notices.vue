<script setup lang="ts">
import { mdiAlertOctagonOutline, mdiCheckCircleOutline, mdiClose } from '@mdi/js'
import { drop, notices } from './notices'

/** The one place where the program speaks: over the top bar, so that nothing one works on is covered. */
</script>

<template>
  <div class="notices" aria-live="polite" role="status">
    <v-alert
      v-for="n in notices"
      :key="n.id"
      class="notice"
      density="compact"
      border="start"
      :icon="n.tone === 'error' ? mdiAlertOctagonOutline : mdiCheckCircleOutline"
      :border-color="n.tone === 'error' ? 'error' : 'secondary'"
      @mouseenter="n.held = true"
      @mouseleave="n.held = false"
    >
      {{ n.text }}
      <template #append>
        <v-btn v-if="n.action" size="small" color="primary" @click="(n.action.run(), drop(n.id))">{{ n.action.label }}</v-btn>
        <v-btn :icon="mdiClose" size="x-small" aria-label="Dismiss" @click="drop(n.id)" />
      </template>
    </v-alert>
  </div>
</template>

<style scoped>
.notices {
  position: fixed;
  left: 50%;
  top: 5px;
  transform: translateX(-50%);
  z-index: 3000;
  display: flex;
  flex-direction: column;
  gap: 6px;
  width: max-content;
  max-width: min(680px, 80vw);
}
.notice :deep(.v-alert__border) {
  opacity: 1;
}
.notice.v-alert {
  padding: 4px 8px 4px 14px;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
  box-shadow: 0 6px 24px rgba(0, 0, 0, 0.28);
  font-size: 13px;
}
</style>
