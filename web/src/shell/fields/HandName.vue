<script setup lang="ts">
import { computed, ref } from 'vue'
import type { VTextField } from 'vuetify/components'

/** A name of what the hand is about to place: it changes as one types, names in use are offered. */
const props = defineProps<{ label: string; value: string; names: readonly string[]; empty?: string }>()
const emit = defineEmits<{ type: [string]; done: []; back: [] }>()
const field = ref<InstanceType<typeof VTextField>>()
const typing = ref(false)
const chosen = ref(-1)
const offers = computed(() => {
  const q = props.value.trim().toLowerCase()
  return q ? props.names.filter((n) => n.toLowerCase().includes(q) && n !== props.value).slice(0, 8) : []
})
const open = computed(() => typing.value && offers.value.length > 0)
defineExpose({
  select() {
    field.value?.focus()
    field.value?.select()
  },
})
function type(s: string) {
  typing.value = true
  chosen.value = -1
  emit('type', s)
}
function take(s: string) {
  typing.value = false
  emit('type', s)
  emit('done')
}
function press(e: KeyboardEvent) {
  if (e.key === 'Enter') {
    if (open.value && offers.value[chosen.value]) take(offers.value[chosen.value])
    else {
      typing.value = false
      emit('done')
    }
  } else if (e.key === 'Escape') {
    e.stopPropagation()
    if (open.value) typing.value = false
    else emit('back')
  } else if (open.value && (e.key === 'ArrowDown' || e.key === 'ArrowUp')) {
    e.preventDefault()
    const n = offers.value.length
    chosen.value = (chosen.value + (e.key === 'ArrowDown' ? 1 : n) + (chosen.value < 0 && e.key === 'ArrowUp' ? 1 : 0)) % n
  }
}
</script>

<template>
  <label class="hand-name"
    >{{ label }}
    <v-text-field
      ref="field"
      class="mono"
      :model-value="value"
      :placeholder="empty"
      :aria-label="label"
      hide-details
      @update:model-value="type"
      @keydown="press"
      @blur="typing = false"
    >
      <v-menu
        :model-value="open"
        activator="parent"
        location="top"
        :open-on-click="false"
        :scrim="false"
        persistent
        no-click-animation
      >
        <v-list role="listbox" :aria-label="`${label}: names in use`">
          <v-list-item
            v-for="(n, i) in offers"
            :key="n"
            class="mono"
            role="option"
            :aria-selected="i === chosen"
            :active="i === chosen"
            :title="n"
            tabindex="-1"
            @mousedown.prevent
            @click="take(n)"
          />
        </v-list>
      </v-menu>
    </v-text-field>
  </label>
</template>

<style>
.hand-name {
  display: flex;
  align-items: center;
  gap: 8px;
}
.hand-name .v-text-field {
  width: 128px;
}
</style>
