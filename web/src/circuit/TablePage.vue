<script setup lang="ts">
/** What the tables of the circuit share: the page with its head, a filter, what is shown of how much, and what can be done. */
defineProps<{ title: string; label: string; hint: string; name: string }>()
const filter = defineModel<string>('filter', { required: true })
</script>

<template>
  <div class="table-page">
    <h2 class="head">{{ title }}</h2>
    <div class="bar">
      <input v-model="filter" class="filter" :placeholder="hint" :aria-label="label" :data-test="name" />
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
.table-page .filter {
  padding: 4px 9px;
  border-radius: 7px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  color: inherit;
  background: transparent;
  width: 250px;
}
.table-page .grow {
  flex: 1;
}
.table-page .none {
  padding: 15px;
}
.table-page .answer {
  position: absolute;
  right: 16px;
  top: 90px;
  padding: 14px;
  z-index: 9;
}
.table-page .answer h3 {
  font-size: 14px;
  margin-bottom: 6px;
}
</style>
