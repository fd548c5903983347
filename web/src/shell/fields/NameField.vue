<script setup lang="ts">
import { ref, watch } from 'vue'
import { VAutocomplete, VCombobox } from 'vuetify/components'
import FieldRow from './FieldRow.vue'

/** A field for a name, completed from those there are as one types; null is several names. */
const props = defineProps<{
  label: string
  value: string | null
  names: readonly string[]
  /** Only one of the names will do. */
  only?: boolean
  onKeep?: (v: string) => unknown
  disabled?: boolean
  empty?: string
  mono?: boolean
  tight?: boolean
}>()
const text = ref('')
const restore = () => (text.value = props.value ?? '')
watch(() => props.value, restore, { immediate: true })
function keep(v: unknown) {
  const now = String(v ?? '').trim()
  text.value = now
  if (now === (props.value ?? '') || (props.only && now && !props.names.includes(now))) return
  const answer = props.onKeep?.(now)
  if (answer instanceof Promise) void answer.then((done: unknown) => done === undefined && restore())
}
function press(e: KeyboardEvent) {
  if (e.key !== 'Escape' || (e.target as HTMLInputElement).value === (props.value ?? '')) return
  e.stopPropagation()
  restore()
  ;(e.target as HTMLElement).blur()
}
</script>

<template>
  <FieldRow :label="label" :tight="tight">
    <component
      :is="only ? VAutocomplete : VCombobox"
      :model-value="text"
      :items="names"
      :class="{ mono }"
      :placeholder="empty ?? (value === null ? 'mixed' : '')"
      :disabled="disabled"
      :aria-label="label"
      hide-details
      @update:model-value="keep"
      @keydown="press"
    />
  </FieldRow>
</template>
