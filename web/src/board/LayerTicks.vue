<script setup lang="ts">
import type { BoardEditor } from './editor'

/** Ticks for the copper layers that something lies on; one stays ticked. */
const props = defineProps<{ editor: BoardEditor; layers: number[]; onKeep?: (layers: number[]) => unknown }>()
function tick(id: number, on: boolean) {
  const next = on ? [...props.layers, id] : props.layers.filter((l) => l !== id)
  if (next.length) props.onKeep?.(props.editor.copper.map((l) => l.id).filter((l) => next.includes(l)))
}
</script>

<template>
  <h4>On</h4>
  <v-checkbox
    v-for="l in editor.copper"
    :key="l.id"
    :label="l.name"
    :model-value="layers.includes(l.id)"
    :disabled="layers.length === 1 && layers.includes(l.id)"
    hide-details
    density="compact"
    @update:model-value="tick(l.id, !!$event)"
  />
</template>
