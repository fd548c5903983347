<script setup lang="ts">
import { computed } from 'vue'
import { evaluate } from '../../live/expression'
import EntryField from './EntryField.vue'
import type { Writing } from './entry'

/** A field for a whole number within limits, or for whole hundredths of what is shown. */
const props = defineProps<{
  label: string
  value: number | null
  least?: number
  most?: number
  onKeep?: (v: number) => unknown
  disabled?: boolean
  tight?: boolean
  bare?: boolean
  hundredths?: boolean
  unit?: string
}>()
const least = computed(() => props.least ?? 0)
const most = computed(() => props.most ?? 1_000_000)
const writing = computed<Writing<number>>(() => ({
  show: (v) => (props.hundredths ? (v / 100).toFixed(2) : String(v)),
  read: (text) => {
    const n = evaluate(text, { noun: 'number', factors: { '': 1 }, unit: '' })
    const v = props.hundredths ? Math.round(n * 100) : n
    const of = props.hundredths ? 100 : 1
    if (!Number.isInteger(v) || v < least.value || v > most.value) throw new Error(`“${text.trim()}” is not a ${of > 1 ? '' : 'whole '}number from ${least.value / of} to ${most.value / of}.`) // prettier-ignore
    return v
  },
  scrub: (v, steps) => Math.min(most.value, Math.max(least.value, v + steps)),
}))
const fields = computed(() => ({ label: props.label, value: props.value, onKeep: props.onKeep, disabled: props.disabled, unit: props.unit, tight: props.tight, bare: props.bare })) // prettier-ignore
</script>

<template>
  <EntryField v-bind="fields" :writing="writing" figures />
</template>
