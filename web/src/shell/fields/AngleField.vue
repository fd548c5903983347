<script setup lang="ts">
import QuantityField from './QuantityField.vue'

/** A field for an angle in degrees, kept in millidegrees from 0 to below a full turn. */
const props = defineProps<{
  label: string
  value: number | null
  onKeep?: (v: number) => unknown
  disabled?: boolean
  tight?: boolean
}>()
const turn = (v: number) => props.onKeep?.(((v % 360_000) + 360_000) % 360_000)
</script>

<template>
  <QuantityField v-bind="props" unit="°" :small="1000" :step="1" :on-keep="turn" />
</template>
