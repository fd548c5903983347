<script setup lang="ts" generic="V">
import { useEntry, type Writing } from './entry'
import FieldRow from './FieldRow.vue'

/** A field of one line; the fields of texts, lengths and quantities are made of it. */
const props = defineProps<{
  label: string
  value: V | null
  writing: Writing<V>
  onKeep?: (v: V) => unknown
  /** What stands there while one types. */
  onTyping?: (text: string) => void
  unit?: string
  disabled?: boolean
  /** What stands in the field while it is empty. */
  empty?: string
  mono?: boolean
  figures?: boolean
  tight?: boolean
  /** Without its label beside it. */
  bare?: boolean
  /** What the field is called, where its label says less. */
  says?: string
  /** Enter was pressed, and what stands there was kept. */
  onEntered?: () => void
}>()
const entry = useEntry<V>(
  () => props.value,
  () => props.writing,
  (v) => props.onKeep?.(v),
  () => !!props.disabled,
)
const { text, trouble, scrubs } = entry
function type(s: string) {
  entry.type(s)
  props.onTyping?.(s)
}
function press(e: KeyboardEvent) {
  entry.press(e)
  if (e.key === 'Escape') props.onTyping?.(text.value) // what stood there before stands there again
  if (e.key === 'Enter' && !trouble.value) props.onEntered?.()
}
</script>

<template>
  <FieldRow
    :label="label"
    :trouble="trouble"
    :scrubs="scrubs"
    :tight="tight"
    :bare="bare"
    @grab="entry.grab"
    @drag="entry.drag"
    @drop="entry.drop"
    @give="entry.give"
  >
    <v-text-field
      :model-value="text"
      :class="{ mono: mono || figures, figures }"
      :suffix="unit"
      :placeholder="empty ?? (value === null ? 'mixed' : '')"
      :disabled="disabled"
      :error="!!trouble"
      :aria-label="says ?? (unit ? `${label}, ${unit}` : label)"
      hide-details
      @update:model-value="type"
      @keydown="press"
      @focus="entry.come"
      @click="figures && entry.click($event)"
      @blur="entry.leave"
    />
  </FieldRow>
</template>
