<script setup lang="ts">
import EntryField from './EntryField.vue'
import type { Writing } from './entry'

/** A field for a text; null is several texts. */
defineProps<{
  label: string
  value: string | null
  onKeep?: (v: string) => unknown
  disabled?: boolean
  empty?: string
  mono?: boolean
  tight?: boolean
  bare?: boolean
  /** What the field is called, where its label says less. */
  says?: string
}>()
const writing: Writing<string> = { show: (v) => v, read: (text) => text }
</script>

<template>
  <EntryField v-bind="$props" :writing="writing" />
</template>
