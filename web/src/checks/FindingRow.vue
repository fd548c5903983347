<script setup lang="ts">
import { mdiAlertOctagonOutline, mdiAlertOutline, mdiProgressWrench } from '@mdi/js'
import { computed } from 'vue'
import type { Finding } from '../live/wire.gen'
import { format } from '../live/units'
import { useTaste } from '../shell/taste'

const props = defineProps<{ finding: Finding }>()
const taste = useTaste()
const icon = computed(
  () => ({ fault: mdiAlertOctagonOutline, warning: mdiAlertOutline, todo: mdiProgressWrench })[props.finding.severity],
)
const word = computed(() => ({ fault: 'Fault', warning: 'Warning', todo: 'To do' })[props.finding.severity])
const length = (nm: number) => `${format(nm, taste.unit, 4)} ${taste.unit}`
</script>

<template>
  <button class="finding" :class="finding.severity" :data-finding="finding.kind">
    <v-icon :icon="icon" size="17" :aria-label="word" role="img" />
    <span class="body">
      <span>{{ finding.text }}</span>
      <span class="quiet small">
        <template v-if="finding.place">{{ finding.place }} · </template>{{ finding.rule
        }}<template v-if="finding.required">
          · <span class="mono">{{ length(finding.measured ?? 0) }}</span> of
          <span class="mono">{{ length(finding.required) }}</span></template
        >
      </span>
      <span v-if="finding.lapsed" class="quiet small">It was excused (“{{ finding.lapsed }}”) and has changed since.</span>
    </span>
  </button>
</template>

<style scoped>
.finding {
  display: flex;
  gap: 8px;
  width: 100%;
  padding: 6px;
  border: 0;
  border-radius: 6px;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}
.finding:hover {
  background: rgba(var(--v-border-color), 0.16);
}
.body {
  display: flex;
  flex-direction: column;
}
.small {
  font-size: 11.5px;
}
.fault .v-icon {
  color: rgb(var(--v-theme-error));
}
.warning .v-icon {
  color: rgb(var(--v-theme-primary));
}
.todo .v-icon {
  color: rgb(var(--v-theme-info));
}
</style>
