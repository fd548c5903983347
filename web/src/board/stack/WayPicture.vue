<script setup lang="ts">
import { computed } from 'vue'
import type { Barrel, DesignWay, StackLayer } from '../../live/wire.gen'
import { copperColour } from '../../shell/tokens'

/** A way from layer to layer in section: its holes from left to right, those that stand on each other in one place. */
const props = defineProps<{ way: DesignWay; layers: StackLayer[]; barrels: Barrel[] }>()
const copper = computed(() => props.layers.filter((l) => l.kind === 'copper'))
const row = computed(() => Math.max(6, Math.min(14, 84 / Math.max(copper.value.length - 1, 1))))
const y = (id: number) => 5 + copper.value.findIndex((l) => l.id === id) * row.value
const height = computed(() => 10 + (copper.value.length - 1) * row.value)
const holes = computed(() => {
  let x = 30
  return props.way.steps.map((s, i) => {
    if (i && s.stepped) x += 24
    const b = props.barrels.find((b) => b.id === s.barrel)
    const from = b?.from ?? copper.value[0].id
    const to = b?.to ?? copper.value[copper.value.length - 1].id
    return { x, y: y(from), h: y(to) - y(from), laser: b?.kind === 'laser' }
  })
})
/** What joins holes that stand beside each other. */
const joints = computed(() =>
  holes.value.slice(1).flatMap((h, i) => {
    const before = holes.value[i]
    return h.x === before.x ? [] : [{ x: before.x, w: h.x - before.x, y: before.y + before.h }]
  }),
)
const end = computed(() => holes.value[holes.value.length - 1]?.x ?? 30)
</script>

<template>
  <svg width="132" :height="height" :viewBox="`0 0 132 ${height}`" aria-hidden="true">
    <line
      v-for="(l, i) in copper"
      :key="l.id"
      x1="2"
      x2="130"
      :y1="y(l.id)"
      :y2="y(l.id)"
      :stroke="copperColour(i, copper.length)"
      stroke-opacity="0.4"
    />
    <line x1="6" x2="30" :y1="y(way.from)" :y2="y(way.from)" class="track" />
    <line :x1="end" :x2="end + 24" :y1="y(way.to)" :y2="y(way.to)" class="track" />
    <line v-for="(j, i) in joints" :key="'j' + i" :x1="j.x" :x2="j.x + j.w" :y1="j.y" :y2="j.y" class="track" />
    <g v-for="(h, i) in holes" :key="i">
      <path v-if="h.laser" :d="`M${h.x - 5} ${h.y}h10l-2 ${h.h}h-6z`" class="plated" />
      <rect v-else :x="h.x - 5" :y="h.y - 1" width="10" :height="h.h + 2" class="plated" />
      <rect v-if="!h.laser" :x="h.x - 2.5" :y="h.y - 1" width="5" :height="h.h + 2" class="bore" />
    </g>
  </svg>
</template>

<style scoped>
.track {
  stroke: #d9906f;
  stroke-width: 3;
}
.plated {
  fill: #d9906f;
}
.bore {
  fill: #100c16;
}
</style>
