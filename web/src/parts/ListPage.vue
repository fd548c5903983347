<script setup lang="ts">
import SidePanel from '../shell/SidePanel.vue'

/** A list with a bar above it, details beside it, and panels over both. */
</script>

<template>
  <div class="drawing-middle page">
    <div class="list-side">
      <div class="bar"><slot name="bar" /></div>
      <slot />
    </div>
    <slot name="over" />
    <SidePanel v-if="$slots.side"><slot name="side" /></SidePanel>
  </div>
</template>

<style scoped>
.page {
  position: absolute;
  inset: 0;
}
.list-side {
  position: relative;
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  padding: 52px 12px 8px;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
  font-size: 12.5px;
}
</style>
