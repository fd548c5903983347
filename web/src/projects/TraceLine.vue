<script setup lang="ts">
import { computed } from 'vue'
import type { Glance } from '../live/wire.gen'

/** How far a project is, as the trace shows it: a pad a stage, hollow, half or solid. */
const props = defineProps<{ glance: Glance }>()
const pads = computed(() => {
  const g = props.glance
  const checks = g.circuit === 'none' ? 'none' : g.faults + g.warnings ? 'work' : g.board === 'pending' ? 'pending' : 'done'
  return [
    { name: 'Circuit', state: g.circuit, count: 0 },
    { name: 'Board', state: g.board, count: 0, broken: g.board !== 'none' && g.differences > 0 },
    { name: 'Checks', state: checks, count: g.faults + g.warnings },
    { name: 'Handoff', state: g.handoff, count: 0, broken: g.handoff === 'work' },
  ]
})
const words: Record<string, string> = { none: 'nothing yet', work: 'in work', done: 'done', pending: 'not known yet' }
const said = computed(() =>
  pads.value
    .map((p) => `${p.name} ${words[p.state]}${p.broken ? ', out of date' : ''}${p.count ? `, ${p.count} findings` : ''}`)
    .join('; '),
)
</script>

<template>
  <svg class="trace" viewBox="0 0 132 18" role="img" :aria-label="said">
    <title>{{ said }}</title>
    <template v-for="(p, i) in pads" :key="p.name">
      <line v-if="i" :x1="i * 36 - 21" :x2="i * 36 + 3" y1="9" y2="9" class="line" :class="{ broken: p.broken }" />
      <circle :cx="i * 36 + 9" cy="9" r="5.2" class="ring" :class="p.state" />
      <path v-if="p.state === 'work'" :d="`M${i * 36 + 3.8} 9a5.2 5.2 0 0 0 10.4 0z`" class="full" />
      <circle v-else-if="p.state === 'done'" :cx="i * 36 + 9" cy="9" r="5.2" class="full" />
      <circle v-if="p.count" :cx="i * 36 + 15" cy="4" r="3.4" class="count" />
    </template>
  </svg>
</template>

<style scoped>
.trace {
  width: 132px;
  height: 18px;
  flex: none;
}
.line,
.ring {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 1.8;
  fill: none;
}
.broken {
  stroke-dasharray: 3 3;
}
.ring.pending {
  stroke-dasharray: 2 2;
}
.full {
  fill: rgb(var(--v-theme-primary));
}
.count {
  fill: rgb(var(--v-theme-error));
}
</style>
