<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ stage: string }>()
const texts: Record<string, [string, string]> = {
  parts: [
    'Parts',
    'Here you will draw symbols and footprints from datasheets and tie them together. Until then the shipped library serves the circuit.',
  ],
  signals: [
    'Signals',
    'Here the impedance, coupling and waveforms of the board’s tracks will be computed from their real cross-sections.',
  ],
  panel: [
    'Panel',
    'Here several boards will be put into one panel with rails, fiducials and scored lines. Until then the handoff is for a single board.',
  ],
}
const text = computed(() => texts[props.stage] ?? ['Not here', 'There is no stage at this address.'])
</script>

<template>
  <div class="coming">
    <span class="pad" />
    <h2>{{ text[0] }}</h2>
    <p>{{ text[1] }}</p>
  </div>
</template>

<style scoped>
.coming {
  position: absolute;
  inset: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 12px;
  text-align: center;
}
.pad {
  width: 40px;
  height: 40px;
  border-radius: 50%;
  border: 6px solid rgb(var(--v-theme-primary));
}
p {
  max-width: 460px;
  font-size: 15px;
}
</style>
