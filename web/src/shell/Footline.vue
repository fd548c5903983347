<script setup lang="ts">
import { computed } from 'vue'
import { format, type Unit } from '../live/units'

const props = defineProps<{
  at: { x: number; y: number } | null
  from: { x: number; y: number } | null
  grid: number
  gridOn: boolean
  unit: Unit
  hint: string
}>()
defineEmits<{ grid: [] }>()
const digits = computed(() => (props.unit === 'in' ? 4 : props.unit === 'mil' ? 1 : 3))
const fixed = (v: number) => (v / { mm: 1e6, in: 25.4e6, mil: 25400 }[props.unit]).toFixed(digits.value)
const away = computed(() =>
  props.at && props.from ? fixed(Math.hypot(props.at.x - props.from.x, props.at.y - props.from.y)) : '–',
)
</script>

<template>
  <footer class="foot">
    <span class="mono pos">x {{ at ? fixed(at.x) : '–' }}</span>
    <span class="mono pos">y {{ at ? fixed(at.y) : '–' }}</span>
    <span class="mono pos" title="Distance from the last click">↔ {{ away }}</span>
    <v-btn size="x-small" class="mono grid" title="Grid: click for the next pitch, G switches it" @click="$emit('grid')">
      grid {{ gridOn ? format(grid, unit, 4) + ' ' + unit : 'off' }}
    </v-btn>
    <span class="hint">{{ hint }}</span>
  </footer>
</template>

<style scoped>
.foot {
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
