<script setup lang="ts">
import { mdiAlertOctagonOutline, mdiAlertOutline, mdiClose, mdiInformationOutline } from '@mdi/js'
import { drop, hold, notices, shown } from './notices'

/** The one place where the program speaks: within the top bar, so that nothing one works on is covered. */
const looks = {
  error: { icon: mdiAlertOctagonOutline, colour: 'error' },
  warning: { icon: mdiAlertOutline, colour: 'primary' },
  plain: { icon: mdiInformationOutline, colour: 'info' },
}
</script>

<template>
  <div class="notices" aria-live="polite" role="status">
    <v-alert
      v-if="shown"
      :key="shown.id"
      class="notice"
      density="compact"
      border="start"
      :icon="looks[shown.tone].icon"
      :border-color="looks[shown.tone].colour"
      @mouseenter="hold(true)"
      @mouseleave="hold(false)"
      @focusin="hold(true)"
      @focusout="hold(false)"
    >
      {{ shown.text }}
      <template #append>
        <v-btn v-if="shown.action" size="small" color="primary" @click="(shown!.action!.run(), drop(shown!.id))">{{
          shown.action.label
        }}</v-btn>
        <v-btn
          v-if="notices.length > 1"
          size="small"
          :title="`${notices.length - 1} earlier; this one goes`"
          @click="drop(shown!.id)"
          >{{ notices.length - 1 }} more</v-btn
        >
        <v-btn v-else :icon="mdiClose" size="x-small" aria-label="Dismiss" @click="drop(shown!.id)" />
      </template>
    </v-alert>
  </div>
</template>

<style scoped>
.notices {
  position: fixed;
  left: 50%;
  top: 2px;
  transform: translateX(-50%);
  z-index: 3000;
  width: max-content;
  max-width: min(860px, 94vw);
}
.notice :deep(.v-alert__border) {
  opacity: 1;
}
.notice :deep(.v-alert__prepend),
.notice :deep(.v-alert__append) {
  align-self: center;
}
.notice.v-alert {
  align-items: center;
  min-height: 38px;
  padding: 1px 6px 1px 14px;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
  box-shadow: 0 4px 12px rgba(0, 0, 0, 0.28);
  font-size: 13px;
  line-height: 17px;
}
</style>
