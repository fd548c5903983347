<script setup lang="ts">
import { computed } from 'vue'
import { format, parse } from '../../live/units'
import { useTaste } from '../taste'
import EntryField from './EntryField.vue'
import type { Writing } from './entry'

/** A field for a length in the person's unit; it is kept in nanometres. */
const props = defineProps<{
  label: string
  value: number | null
  /** What a step of scrubbing is, in nanometres. */
  step?: number
  /** What it lies between, in nanometres. */
  least?: number
  most?: number
  onKeep?: (v: number) => unknown
  disabled?: boolean
  empty?: string
  tight?: boolean
  bare?: boolean
  says?: string
  onEntered?: () => void
}>()
const taste = useTaste()
const writing = computed<Writing<number>>(() => ({
  show: (v) => format(v, taste.unit, taste.unit === 'mm' ? 4 : 5),
  read: (text) => {
    const v = parse(text, taste.unit)
    const { least = -Infinity, most = Infinity } = props
    const say = (nm: number) => `${format(nm, taste.unit, 4)} ${taste.unit}`
    if (v < least) throw new Error(`${props.says ?? props.label}: ${say(least)} is the least.`)
    if (v > most) throw new Error(`${props.says ?? props.label}: ${say(most)} is the most.`)
    return v
  },
  scrub: (v, steps) => Math.min(Math.max(v + steps * (props.step ?? 100_000), props.least ?? -Infinity), props.most ?? Infinity),
}))
const fields = computed(() => ({ label: props.label, value: props.value, onKeep: props.onKeep, disabled: props.disabled, empty: props.empty, tight: props.tight, bare: props.bare, says: props.says, onEntered: props.onEntered })) // prettier-ignore
</script>

<template>
  <EntryField v-bind="fields" :writing="writing" :unit="taste.unit" figures />
</template>
