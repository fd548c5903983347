<script setup lang="ts">
import FieldRow from './FieldRow.vue'

/** A field for yes or no; null is both. */
defineProps<{
  label: string
  value: boolean | null
  onKeep?: (v: boolean) => unknown
  disabled?: boolean
  tight?: boolean
}>()
</script>

<template>
  <FieldRow :label="label" :tight="tight">
    <v-checkbox
      :model-value="value === true"
      :indeterminate="value === null"
      :disabled="disabled"
      :aria-label="label"
      hide-details
      @update:model-value="(v: boolean | null) => onKeep?.(!!v)"
    />
  </FieldRow>
</template>
