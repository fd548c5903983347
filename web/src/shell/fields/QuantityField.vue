<script setup lang="ts">
import { computed } from 'vue'
import { type QuantityUnit, readQuantity, showQuantity } from '../../live/quantities'
import EntryField from './EntryField.vue'
import type { Writing } from './entry'

/**
 * A field for a current, voltage, impedance, capacitance, inductance, temperature or angle. The value is kept in
 * whole parts of the unit: small of them are one unit.
 */
const props = defineProps<{
  label: string
  value: number | null
  unit: QuantityUnit
  small?: number
  /** What a step of scrubbing is, in the unit. */
  step?: number
  /** Nothing in the field says nothing, which is kept as 0. */
  optional?: boolean
  onKeep?: (v: number) => unknown
  disabled?: boolean
  empty?: string
  tight?: boolean
}>()
const writing = computed<Writing<number>>(() => {
  const small = props.small ?? 1
  return {
    show: (v) => (props.optional && !v ? '' : showQuantity(v / small, props.unit)),
    read: (text) => (props.optional && !text.trim() ? 0 : Math.round(readQuantity(text, props.unit) * small)),
    ...(props.step ? { scrub: (v: number, steps: number) => Math.round(v + steps * props.step! * small) } : {}),
  }
})
const fields = computed(() => ({ label: props.label, value: props.value, onKeep: props.onKeep, disabled: props.disabled, empty: props.empty, tight: props.tight })) // prettier-ignore
</script>

<template>
  <EntryField v-bind="fields" :writing="writing" figures />
</template>
