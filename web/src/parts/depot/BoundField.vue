<script setup lang="ts">
import { computed } from 'vue'
import EntryField from '../../shell/fields/EntryField.vue'
import type { Writing } from '../../shell/fields/entry'
import { readValue, showValue } from './values'

/** The least or the most of a property; nothing in it bounds nothing. */
const props = defineProps<{ label: string; short: string; unit: string; value: number | null }>()
const emit = defineEmits<{ keep: [number | null] }>()
const writing = computed<Writing<number | null>>(() => ({
  show: (v) => (v === null ? '' : showValue(v, props.unit)),
  read: (text) => (text.trim() ? readValue(text, props.unit) : null),
}))
</script>

<template>
  <EntryField
    :label="label"
    :value="value"
    :writing="writing"
    :empty="short"
    bare
    figures
    :on-keep="(v: number | null) => emit('keep', v)"
  />
</template>
