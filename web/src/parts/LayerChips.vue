<script setup lang="ts">
import { mdiEyeOffOutline, mdiEyeOutline } from '@mdi/js'

/** What of a drawing is seen: each a chip that is pressed to hide it. */
const props = defineProps<{ layers: { id: string; name: string; colour: string }[] }>()
const hidden = defineModel<string[]>('hidden', { required: true })
const toggle = (id: string) =>
  (hidden.value = hidden.value.includes(id) ? hidden.value.filter((h) => h !== id) : [...hidden.value, id])
</script>

<template>
  <div class="float chips" role="group" aria-label="What is seen">
    <v-btn
      v-for="l in props.layers"
      :key="l.id"
      size="small"
      class="chip"
      :class="{ off: hidden.includes(l.id) }"
      :aria-pressed="!hidden.includes(l.id)"
      :title="hidden.includes(l.id) ? `Show ${l.name.toLowerCase()}` : `Hide ${l.name.toLowerCase()}`"
      @click="toggle(l.id)"
    >
      <i class="swatch" :style="{ background: l.colour }" />{{ l.name }}
      <v-icon :icon="hidden.includes(l.id) ? mdiEyeOffOutline : mdiEyeOutline" size="14" />
    </v-btn>
  </div>
</template>

<style scoped>
.chips {
  position: absolute;
  left: 12px;
  top: 12px;
  z-index: 4;
  padding: 6px;
  display: flex;
  flex-direction: column;
  align-items: stretch;
}
.chip.v-btn {
  justify-content: flex-start;
  height: 24px;
  padding: 0 6px;
  font-weight: 400;
}
.chip :deep(.v-btn__content) {
  width: 100%;
  display: grid;
  grid-template-columns: 12px 1fr 16px;
  gap: 7px;
  text-align: left;
}
.off {
  opacity: 0.72;
  text-decoration: line-through;
}
.swatch {
  width: 11px;
  height: 11px;
  border-radius: 3px;
}
</style>
