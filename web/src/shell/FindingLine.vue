<script setup lang="ts">
import { mdiAlertOctagonOutline, mdiAlertOutline, mdiProgressWrench } from '@mdi/js'
import { computed } from 'vue'
import { format } from '../live/units'
import type { Finding } from '../live/wire.gen'
import { useTaste } from './taste'

/** A finding as a line of a list: what, where, which rule and by how much. */
const props = defineProps<{ finding: Finding }>()
const taste = useTaste()
const sign = computed(
  () =>
    ({
      fault: { icon: mdiAlertOctagonOutline, colour: 'error', word: 'Fault' },
      warning: { icon: mdiAlertOutline, colour: 'primary', word: 'Warning' },
      todo: { icon: mdiProgressWrench, colour: 'info', word: 'To do' },
    })[props.finding.severity]!,
)
const length = (nm: number) => `${format(nm, taste.unit, 4)} ${taste.unit}`
</script>

<template>
  <v-list-item class="finding" :data-finding="finding.kind">
    <template #prepend>
      <v-icon :icon="sign.icon" :color="sign.colour" size="17" :aria-label="sign.word" role="img" />
    </template>
    <span>{{ finding.text }}</span>
    <span class="quiet small">
      <template v-if="finding.place">{{ finding.place }} · </template>{{ finding.rule
      }}<template v-if="finding.required">
        · <span class="mono">{{ length(finding.measured ?? 0) }}</span> of
        <span class="mono">{{ length(finding.required) }}</span></template
      >
    </span>
    <span v-if="finding.lapsed" class="quiet small">It was excused (“{{ finding.lapsed }}”) and has changed since.</span>
  </v-list-item>
</template>

<style scoped>
.finding {
  padding-block: 5px;
  font-size: 13px;
  line-height: 1.35;
}
.finding :deep(.v-list-item__content) {
  display: flex;
  flex-direction: column;
}
.finding :deep(.v-list-item__prepend) {
  align-self: start;
  width: 25px;
  padding-top: 1px;
}
.small {
  font-size: 11.5px;
}
</style>
