<script setup lang="ts">
import { computed } from 'vue'
import { evaluate } from '../../live/expression'
import EntryField from './EntryField.vue'
import type { Writing } from './entry'

/** A field for a plain number that is kept in whole hundredths. */
const props = defineProps<{
  label: string
  value: number | null
  most: number
  unit?: string
  onKeep?: (v: number) => unknown
  tight?: boolean
  bare?: boolean
}>()
const writing = computed<Writing<number>>(() => ({
  show: (v) => (v / 100).toFixed(2),
  read: (text) => {
    const v = Math.round(evaluate(text, { noun: 'number', factors: { '': 1 }, unit: '' }) * 100)
    if (!(v >= 0 && v <= props.most)) throw new Error(`“${text.trim()}” is not a number from 0 to ${props.most / 100}.`)
    return v
  },
  scrub: (v, steps) => Math.min(props.most, Math.max(0, v + steps)),
}))
const fields = computed(() => ({ label: props.label, value: props.value, onKeep: props.onKeep, unit: props.unit, tight: props.tight, bare: props.bare })) // prettier-ignore
</script>

<template>
  <EntryField v-bind="fields" :writing="writing" figures />
</template>
