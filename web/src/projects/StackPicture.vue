<script setup lang="ts">
import { computed } from 'vue'
import { copperColour } from '../shell/tokens'

/** A board's cross-section as a template has it, small. */
const props = defineProps<{ kind: string }>()
const layers = computed(() => ({ oneSided: [1], twoSided: [0, 1], fourLayer: [0, 1, 2, 3] })[props.kind] ?? [])
const n = computed(() => (props.kind === 'fourLayer' ? 4 : 2))
const y = (i: number) => 7 + (layers.value.length === 1 ? 1 : i / (layers.value.length - 1)) * 26
</script>

<template>
  <svg viewBox="0 0 44 44" width="44" height="44" aria-hidden="true">
    <rect x="3" y="8" width="38" height="28" rx="2" class="core" :class="{ open: !layers.length }" />
    <rect v-for="(l, i) in layers" :key="l" x="3" :y="y(i)" width="38" height="4" rx="1" :fill="copperColour(l, n)" />
  </svg>
</template>

<style scoped>
.core {
  fill: rgba(var(--v-border-color), 0.3);
}
.core.open {
  fill: none;
  stroke: rgba(var(--v-border-color), 0.9);
  stroke-dasharray: 4 3;
}
</style>
