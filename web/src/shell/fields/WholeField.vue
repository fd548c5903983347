<script setup lang="ts">
import { computed } from 'vue'
import { evaluate } from '../../live/expression'
import EntryField from './EntryField.vue'
import type { Writing } from './entry'

/** A field for a whole number within limits. */
const props = defineProps<{
  label: string
  value: number | null
  least?: number
  most?: number
  onKeep?: (v: number) => unknown
  disabled?: boolean
  tight?: boolean
  bare?: boolean
}>()
const least = computed(() => props.least ?? 0)
const most = computed(() => props.most ?? 1_000_000)
const writing = computed<Writing<number>>(() => ({
  show: (v) => String(v),
  read: (text) => {
    const v = evaluate(text, { noun: 'number', factors: { '': 1 }, unit: '' })
    if (!Number.isInteger(v) || v < least.value || v > most.value) throw new Error(`“${text.trim()}” is not a whole number from ${least.value} to ${most.value}.`) // prettier-ignore
    return v
  },
  scrub: (v, steps) => Math.min(most.value, Math.max(least.value, v + steps)),
}))
const fields = computed(() => ({ label: props.label, value: props.value, onKeep: props.onKeep, disabled: props.disabled, tight: props.tight, bare: props.bare })) // prettier-ignore
</script>

<template>
  <EntryField v-bind="fields" :writing="writing" figures />
</template>
