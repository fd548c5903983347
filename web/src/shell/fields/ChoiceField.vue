<script setup lang="ts" generic="V extends string | number">
import { computed } from 'vue'
import FieldRow from './FieldRow.vue'

/** A field for one of a few; null is several. A choice may bear a colour. */
const props = defineProps<{
  label: string
  value: V | null
  options: readonly (V | { value: V; title: string; swatch?: string })[]
  onKeep?: (v: V) => unknown
  disabled?: boolean
  tight?: boolean
  /** Without its label beside it. */
  bare?: boolean
  /** What the field is called, where its label says less. */
  says?: string
}>()
interface Option {
  value: V
  title: string
  swatch?: string
}
const items = computed<Option[]>(() =>
  props.options.map((o) => (typeof o === 'object' ? o : { value: o, title: String(o) || 'none' })),
)
</script>

<template>
  <FieldRow :label="label" :tight="tight" :bare="bare">
    <v-select
      :model-value="value"
      :items="items"
      :placeholder="value === null ? 'mixed' : ''"
      :persistent-placeholder="value === null"
      :disabled="disabled"
      :aria-label="says ?? label"
      hide-details
      @update:model-value="(v: V) => v !== value && onKeep?.(v)"
    >
      <template v-if="items.some((o) => o.swatch !== undefined)" #selection="{ item }">
        <i class="swatch" :style="{ background: (item as Option).swatch }" />{{ (item as Option).title }}
      </template>
      <template v-if="items.some((o) => o.swatch !== undefined)" #item="{ props: own, item }">
        <v-list-item v-bind="own">
          <template #prepend><i class="swatch" :style="{ background: (item as Option).swatch }" /></template>
        </v-list-item>
      </template>
    </v-select>
  </FieldRow>
</template>
