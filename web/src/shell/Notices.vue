<script setup lang="ts">
import { mdiAlertOctagonOutline, mdiCheckCircleOutline, mdiClose } from '@mdi/js'
import { drop, notices } from './notices'

/** The one place where the program speaks: below the top bar on the left of the details, over the paper's upper edge. */
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
  top: 102px;
  transform: translateX(-50%);
  z-index: 3000;
  display: flex;
  flex-direction: column;
  gap: 6px;
  max-width: 460px;
}
.notice :deep(.v-alert__border) {
  opacity: 1;
}
.notice.v-alert {
  padding: 7px 8px 7px 14px;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
  box-shadow: 0 6px 24px rgba(0, 0, 0, 0.28);
  font-size: 13px;
}
</style>
