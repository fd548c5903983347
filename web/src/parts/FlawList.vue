<script setup lang="ts">
import { mdiAlertOctagonOutline, mdiAlertOutline, mdiCheckCircleOutline, mdiProgressWrench } from '@mdi/js'
import type { Flaw } from '../live/wire.gen'

/** What was found in a part, each line leading to its pin or pads. */
defineProps<{ flaws: Flaw[]; clean: string }>()
const emit = defineEmits<{ go: [Flaw] }>()
const signs: Record<string, { icon: string; colour: string; word: string }> = {
  fault: { icon: mdiAlertOctagonOutline, colour: 'error', word: 'Fault' },
  warning: { icon: mdiAlertOutline, colour: 'primary', word: 'Warning' },
  todo: { icon: mdiProgressWrench, colour: 'info', word: 'To do' },
}
</script>

<template>
  <h3>
    Findings <span v-if="flaws.length" class="mono count">{{ flaws.length }}</span>
  </h3>
  <p v-if="!flaws.length" class="clean"><v-icon :icon="mdiCheckCircleOutline" size="16" color="secondary" /> {{ clean }}</p>
  <v-list v-else density="compact" class="flaws" aria-label="Findings">
    <v-list-item v-for="(f, i) in flaws" :key="i" :data-flaw="f.kind" @click="emit('go', f)">
      <template #prepend>
        <v-icon
          :icon="signs[f.severity].icon"
          :color="signs[f.severity].colour"
          size="16"
          :aria-label="signs[f.severity].word"
          role="img"
        />
      </template>
      <span>{{ f.text }}</span>
    </v-list-item>
  </v-list>
</template>

<style scoped>
.count {
  font-weight: 400;
  font-size: 12px;
}
.clean {
  display: flex;
  gap: 6px;
  align-items: center;
}
.flaws {
  padding: 0;
  font-size: 12.5px;
  line-height: 1.3;
  flex: none;
}
.flaws :deep(.v-list-item) {
  padding-inline: 2px;
}
.flaws :deep(.v-list-item__spacer) {
  width: 8px;
}
</style>
