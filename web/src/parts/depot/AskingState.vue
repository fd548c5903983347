<script setup lang="ts">
import { mdiAlertOutline } from '@mdi/js'

/** How it stands with what the depot was asked: on its way and to be stopped, in trouble and to be tried again, or what is in the slot. */
defineProps<{ slow: boolean; trouble: string; before: string }>()
const emit = defineEmits<{ stop: []; again: [] }>()
</script>

<template>
  <div class="state">
    <v-progress-linear v-if="slow" indeterminate aria-label="Asking the depot" />
    <span v-if="slow">
      The depot is being asked … <v-btn size="small" density="compact" variant="text" @click="emit('stop')">Stop</v-btn>
    </span>
    <span v-else-if="trouble" class="trouble" role="alert">
      <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="mdiAlertOutline" /></svg>{{ trouble }} {{ before }}
      <v-btn size="small" density="compact" variant="outlined" @click="emit('again')">Try again</v-btn>
    </span>
    <span v-else class="quiet" role="status"><slot /></span>
    <slot name="right" />
  </div>
</template>

<style scoped>
.state {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 28px;
  margin-bottom: 6px;
  font-size: 12.5px;
  position: relative;
}
.state :deep(.v-progress-linear) {
  position: absolute;
  top: -4px;
}
.trouble {
  display: flex;
  gap: 6px;
  align-items: center;
}
.trouble svg {
  width: 16px;
  fill: rgb(var(--v-theme-warning));
}
</style>
