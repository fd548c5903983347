<script setup lang="ts">
import { mdiFilterOutline } from '@mdi/js'

/** The filter over a table: words, each anywhere in a row or, as "column:word", in one column. */
defineProps<{ label: string; hint: string }>()
const filter = defineModel<string>({ required: true })
</script>

<template>
  <v-text-field
    :model-value="filter"
    class="table-filter"
    :placeholder="hint"
    :aria-label="label"
    :prepend-inner-icon="mdiFilterOutline"
    clearable
    @update:model-value="filter = $event ?? ''"
  />
</template>

<style scoped>
.table-filter {
  flex: none;
  width: 300px;
}
</style>
