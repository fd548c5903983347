<script setup lang="ts">
import { ref } from 'vue'
import type { VCombobox } from 'vuetify/components'

/** A name of what the hand is about to place: it changes as one types, names in use are offered. */
defineProps<{ label: string; value: string; names: readonly string[]; empty?: string; name?: string }>()
const emit = defineEmits<{ type: [string]; done: []; back: [] }>()
const field = ref<InstanceType<typeof VCombobox>>()
defineExpose({
  select() {
    field.value?.focus()
    field.value?.select()
  },
})
function press(e: KeyboardEvent) {
  if (e.key === 'Enter') emit('done')
  else if (e.key === 'Escape') {
    e.stopPropagation()
    emit('back')
  }
}
</script>

<template>
  <label class="hand-name"
    >{{ label }}
    <v-combobox
      ref="field"
      class="mono"
      :model-value="value"
      :search="value"
      :items="names"
      :placeholder="empty"
      :aria-label="label"
      :data-field="name"
      hide-details
      @update:search="(v: string | null) => emit('type', v ?? '')"
      @keydown="press"
    />
  </label>
</template>

<style>
.hand-name {
  display: flex;
  align-items: center;
  gap: 8px;
}
.hand-name .v-combobox {
  width: 168px;
}
</style>
