<script setup lang="ts">
import { computed } from 'vue'
import EntryField from './EntryField.vue'
import type { Writing } from './entry'

/** A field for a text; null is several texts. */
const props = defineProps<{
  label: string
  value: string | null
  onKeep?: (v: string) => unknown
  /** What stands there while one types. */
  onTyping?: (v: string) => void
  disabled?: boolean
  empty?: string
  mono?: boolean
  tight?: boolean
  bare?: boolean
  /** Throws a sentence where a text cannot be. */
  check?: (text: string) => void
  /** What the field is called, where its label says less. */
  says?: string
}>()
const writing = computed<Writing<string>>(() => ({
  show: (v) => v,
  read: (text) => {
    props.check?.(text)
    return text
  },
}))
const fields = computed(() => ({ ...props, check: undefined }))
</script>

<template>
  <EntryField v-bind="fields" :writing="writing" />
</template>
