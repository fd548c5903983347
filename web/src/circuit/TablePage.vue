<script setup lang="ts">
import FilterField from '../shell/table/FilterField.vue'

/** What the tables share: the page with its head, a filter, what is shown of how much, and what can be done. */
defineProps<{ title: string; label: string; hint: string }>()
const filter = defineModel<string>('filter', { required: true })
</script>

<template>
  <div class="table-page">
    <h2 class="head">{{ title }}</h2>
    <div class="bar">
      <FilterField v-model="filter" :label="label" :hint="hint" />
      <span class="quiet"><slot name="count" /></span>
      <span class="grow" />
      <slot name="actions" />
    </div>
    <slot />
  </div>
</template>

<style>
.table-page {
  position: absolute;
  inset: 0;
  padding: 52px 12px 8px;
  background: rgb(var(--v-theme-background));
  display: flex;
  flex-direction: column;
  z-index: 5;
}
.table-page > .head {
  position: absolute;
  left: 14px;
  top: 15px;
  font-size: 17px;
}
.table-page .bar {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
  font-size: 12.5px;
}
.table-page .grow {
  flex: 1;
}
</style>
