<script setup lang="ts">
import { computed } from 'vue'
import type { StackLayer } from '../../live/wire.gen'
import { bandsOf, coloursOf } from './bands'

/** The stack in section: a band for each layer, its thickness as a dimension whose line leads to the field beside it. */
const props = defineProps<{ layers: StackLayer[]; row: number; even: boolean; lit: number; barrels: { from: number; to: number; laser?: boolean }[] }>() // prettier-ignore
const emit = defineEmits<{ point: [id: number] }>()
const width = 172
const bands = computed(() => bandsOf(props.layers, props.row, props.even))
const colours = computed(() => coloursOf(props.layers))
const height = computed(() => props.layers.length * props.row)
/** The dimension of a layer: from its upper to its lower edge, and from there to its field. */
const dims = computed(() =>
  bands.value.map((b) => {
    const mid = b.y + b.h / 2
    return { y: b.y, low: b.y + b.h, leader: `M118 ${mid} H126 L152 ${b.line} H${width}`, mid, thin: b.h < 12 }
  }),
)
const shown = computed(() =>
  props.barrels.slice(0, 7).map((b, i) => {
    const [up, low] = [bands.value[b.from], bands.value[b.to]]
    return { x: 18 + i * 12, y: up.y, h: low.y + low.h - up.y, laser: b.laser }
  }),
)
</script>

<template>
  <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" role="img" aria-label="The stack in section">
    <defs>
      <pattern id="glass" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(60)">
        <path d="M0 0V6" stroke="#000" stroke-opacity="0.22" stroke-width="2" />
      </pattern>
    </defs>
    <g v-for="(l, i) in layers" :key="l.id" @mouseenter="emit('point', l.id)" @mouseleave="emit('point', 0)">
      <rect x="10" :y="bands[i].y" width="100" :height="bands[i].h" :fill="colours[i]" :class="{ lit: l.id === lit }" />
      <rect v-if="l.kind === 'prepreg'" x="10" :y="bands[i].y" width="100" :height="bands[i].h" fill="url(#glass)" />
    </g>
    <g v-for="(b, i) in shown" :key="'b' + i" class="hole">
      <rect :x="b.x" :y="b.y" :width="b.laser ? 6 : 9" :height="b.h" class="plated" />
      <rect :x="b.x + 2" :y="b.y" :width="b.laser ? 2 : 5" :height="b.h" class="bore" />
    </g>
    <g v-for="(d, i) in dims" :key="'d' + i" class="dim" :class="{ on: layers[i].id === lit }">
      <path :d="`M112 ${d.y}H122M112 ${d.low}H122`" />
      <path v-if="!d.thin" :d="`M118 ${d.y}V${d.low}`" />
      <path :d="d.leader" />
    </g>
  </svg>
</template>

<style scoped>
rect.lit {
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1.5;
}
.dim path {
  fill: none;
  stroke: rgba(var(--v-theme-on-surface), 0.45);
}
.dim.on path {
  stroke: rgb(var(--v-theme-primary));
}
.plated {
  fill: #d9906f;
}
.bore {
  fill: #100c16;
}
</style>
