<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight } from '@mdi/js'
import { useTaste } from './taste'

/** The details beside a drawing or a list, which fold away; bare: what is in it brings its own room. */
defineProps<{ bare?: boolean }>()
const taste = useTaste()
</script>

<template>
  <aside class="details" :class="{ folded: !taste.detailsOpen, bare }" aria-label="Details">
    <v-btn
      class="fold"
      size="x-small"
      :aria-label="taste.detailsOpen ? 'Fold details away' : 'Show details'"
      @click="taste.detailsOpen = !taste.detailsOpen"
    >
      <v-icon :icon="taste.detailsOpen ? mdiChevronRight : mdiChevronLeft" size="16" />
    </v-btn>
    <slot v-if="taste.detailsOpen && bare" />
    <div v-else-if="taste.detailsOpen" class="inner"><slot /></div>
  </aside>
</template>

<style scoped>
.details {
  position: relative;
  width: 320px;
  flex: none;
  background: rgb(var(--v-theme-surface));
  border-left: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
}
.details.bare {
  width: 300px;
}
.details.folded {
  width: 20px;
}
.fold.v-btn {
  position: absolute;
  left: -1px;
  top: 50%;
  min-width: 18px;
  width: 18px;
  height: 44px;
  padding: 0;
  border-radius: 0 8px 8px 0;
  background: rgba(var(--v-border-color), 0.16);
  z-index: 2;
}
.inner {
  height: 100%;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 12px 12px 16px 22px;
}
.inner > :deep(.v-table) {
  flex: none;
  background: none;
}
.inner > :deep(.v-input) {
  flex: none;
}
</style>
