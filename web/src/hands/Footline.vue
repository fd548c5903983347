<script setup lang="ts">
import { computed } from 'vue'
import { format } from '../live/units'
import { useTaste } from '../shell/taste'
import type { useStage } from './useStage'

/** The line below a drawing: where the hand is, its grid, and what can be done. It alone follows each motion of the hand. */
const props = defineProps<{ hand: ReturnType<typeof useStage>; grid: number; hint?: string }>()
defineEmits<{ grid: [] }>()
const taste = useTaste()
const at = computed(() => props.hand.at.value)
const fixed = (v: number) => {
  const [unit, digits] = { mm: [1e6, 3], in: [25.4e6, 4], mil: [25400, 1] }[taste.unit]
  return (v / unit).toFixed(digits)
}
const away = computed(() => {
  const from = props.hand.lastClick.value
  return at.value && from ? fixed(Math.hypot(at.value.x - from.x, at.value.y - from.y)) : '–'
})
</script>

<template>
  <footer class="foot">
    <span class="mono pos">x {{ at ? fixed(at.x) : '–' }}</span>
    <span class="mono pos">y {{ at ? fixed(at.y) : '–' }}</span>
    <span class="mono pos" title="Distance from the last click">↔ {{ away }}</span>
    <v-btn size="x-small" class="mono grid" title="Grid: click for the next pitch, G switches it" @click="$emit('grid')">
      grid {{ taste.gridOn ? format(grid, taste.unit, 4) + ' ' + taste.unit : 'off' }}
    </v-btn>
    <span class="hint">{{ hint ?? hand.hint.value }}</span>
  </footer>
</template>

<style scoped>
.foot {
  contain: strict;
  height: 28px;
  flex: none;
  display: flex;
  align-items: center;
  gap: 18px;
  padding: 0 14px;
  background: rgb(var(--v-theme-surface));
  border-top: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  font-size: 12px;
}
.mono {
  font-size: 11.5px;
}
.pos {
  min-width: 84px;
  white-space: pre;
}
.grid {
  padding: 0 6px;
}
.hint {
  margin-left: auto;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
