<script setup lang="ts">
import { computed } from 'vue'
import EntryField from '../../shell/fields/EntryField.vue'
import type { Writing } from '../../shell/fields/entry'

/** A field without its label for a number of a unit that is kept in whole parts of it: so many are one. 0 is not said. */
const props = defineProps<{
  label: string
  says: string
  value: number
  unit: string
  whole: number
  disabled?: boolean
  onKeep?: (v: number) => unknown
}>()
const writing = computed<Writing<number>>(() => ({
  show: (v) => (v ? String(Number((v / props.whole).toPrecision(4))) : ''),
  read: (text) => {
    const v = Number(text.trim().replace(',', '.'))
    if (!Number.isFinite(v) || v < 0) throw new Error('A number is meant.')
    return Math.round(v * props.whole)
  },
}))
const fields = computed(() => ({ label: props.label, says: props.says, value: props.value, unit: props.unit, disabled: props.disabled, onKeep: props.onKeep })) // prettier-ignore
</script>

<template>
  <EntryField v-bind="fields" :writing="writing" bare figures empty="–" />
</template>
