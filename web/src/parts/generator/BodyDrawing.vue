<script setup lang="ts">
import { computed, ref } from 'vue'
import { useElementSize } from '@vueuse/core'
import { type Box, boxOf, union } from '../../canvas/viewport'
import type { BodyView, DimLine, Range } from '../../live/wire.gen'
import EntryField from '../../shell/fields/EntryField.vue'
import { useTaste } from '../../shell/taste'
import { rangeWriting } from '../range'

/** A body, or a section through a joint, drawn with its dimension lines. Where a line has a key, the dimension is typed at it. */
const props = defineProps<{ view: BodyView; dims?: Record<string, Range>; wrong?: string; small?: boolean; named?: boolean }>()
const emit = defineEmits<{ keep: [string, Range] }>()
const taste = useTaste()
const root = ref<HTMLDivElement>()
const { width, height } = useElementSize(root)
const writing = computed(() => rangeWriting(taste.unit))
const add = (a: { x: number; y: number }, b: { x: number; y: number }) => ({ x: a.x + b.x, y: a.y + b.y })

/** What the drawing takes, without the fields. */
const room = computed<Box>(() => {
  let b: Box | null = null
  for (const s of props.view.strokes) b = union(b, boxOf(s.pts, s.r ?? 0))
  for (const d of props.view.dims) b = union(b, boxOf([add(d.a, d.off), add(d.b, d.off)]))
  return b ?? { minX: -1e6, minY: -1e6, maxX: 1e6, maxY: 1e6 }
})
const margin = computed(() => (props.small ? { x: 34, y: 24 } : props.named ? { x: 76, y: 40 } : { x: 62, y: 26 }))
const scale = computed(() => {
  const [w, h] = [room.value.maxX - room.value.minX, room.value.maxY - room.value.minY]
  return Math.max(1e-9, Math.min((width.value - 2 * margin.value.x) / Math.max(w, 1e5), (height.value - 2 * margin.value.y) / Math.max(h, 1e5))) // prettier-ignore
})
const onScreen = (p: { x: number; y: number }) => ({
  x: width.value / 2 + (p.x - (room.value.minX + room.value.maxX) / 2) * scale.value,
  y: height.value / 2 - (p.y - (room.value.minY + room.value.maxY) / 2) * scale.value,
})
const path = (pts: { x: number; y: number }[]) => pts.map((p) => Object.values(onScreen(p)).map((v) => v.toFixed(1)).join(',')).join(' ') // prettier-ignore

interface Line {
  d: DimLine
  a: { x: number; y: number }
  b: { x: number; y: number }
  footA: { x: number; y: number }
  footB: { x: number; y: number }
  label: { x: number; y: number }
}
/** The dimension lines on the screen, their labels moved apart where they would lie over each other. */
const lines = computed<Line[]>(() => {
  const out: Line[] = props.view.dims.map((d) => {
    const [a, b] = [onScreen(add(d.a, d.off)), onScreen(add(d.b, d.off))]
    return { d, a, b, footA: onScreen(d.a), footB: onScreen(d.b), label: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 } }
  })
  const [w, h] = props.small ? [70, 18] : props.named ? [134, 44] : [104, 26]
  for (const l of out) {
    // a field that would hide what it is of stands beyond the line
    const level = Math.abs(l.a.y - l.b.y) < 1
    const room = Math.hypot(l.a.x - l.b.x, l.a.y - l.b.y)
    if (props.small || room > (level ? w + 24 : h + 24)) continue
    if (level) l.label.y += l.d.off.y >= 0 ? -(h / 2 + 5) : h / 2 + 5
    else l.label.x += l.d.off.x >= 0 ? w / 2 + 6 : -(w / 2 + 6)
  }
  for (const l of out) {
    l.label.x = Math.max(w / 2 + 2, Math.min(width.value - w / 2 - 2, l.label.x))
    l.label.y = Math.max(h / 2 + 2, Math.min(height.value - h / 2 - 2, l.label.y))
  }
  for (let round = 0; round < 40; round++) {
    let moved = false
    for (let i = 0; i < out.length; i++)
      for (let k = 0; k < i; k++) {
        const [p, q] = [out[i].label, out[k].label]
        const [dx, dy] = [w + 4 - Math.abs(p.x - q.x), h + 4 - Math.abs(p.y - q.y)]
        if (dx <= 0 || dy <= 0) continue
        moved = true
        if (dy <= dx) {
          const way = p.y >= q.y ? 1 : -1
          p.y += (way * dy) / 2
          q.y -= (way * dy) / 2
        } else {
          const way = p.x >= q.x ? 1 : -1
          p.x += (way * dx) / 2
          q.x -= (way * dx) / 2
        }
        for (const s of [p, q]) {
          s.x = Math.max(w / 2 + 2, Math.min(width.value - w / 2 - 2, s.x))
          s.y = Math.max(h / 2 + 2, Math.min(height.value - h / 2 - 2, s.y))
        }
      }
    if (!moved) break
  }
  return out
})
function arrow(at: { x: number; y: number }, from: { x: number; y: number }) {
  const angle = Math.atan2(from.y - at.y, from.x - at.x)
  const tip = (off: number) => `${(at.x + 7 * Math.cos(angle + off)).toFixed(1)},${(at.y + 7 * Math.sin(angle + off)).toFixed(1)}`
  return `${tip(0.36)} ${at.x.toFixed(1)},${at.y.toFixed(1)} ${tip(-0.36)}`
}
</script>

<template>
  <figure class="body-view" :class="{ small }">
    <figcaption>{{ view.name }}</figcaption>
    <div ref="root" class="paper">
      <svg :width="width" :height="height" aria-hidden="true">
        <template v-for="(s, i) in view.strokes" :key="i">
          <circle
            v-if="s.form === 'circle'"
            :class="s.style"
            :cx="onScreen(s.pts[0]).x"
            :cy="onScreen(s.pts[0]).y"
            :r="(s.r ?? 0) * scale"
          />
          <polyline v-else-if="s.form === 'line'" :class="s.style" :points="path(s.pts)" />
          <polygon v-else :class="s.style" :points="path(s.pts)" />
        </template>
        <g v-for="(l, i) in lines" :key="'d' + i" class="dim" :class="{ wrong: l.d.key && l.d.key === wrong }">
          <line :x1="l.footA.x" :y1="l.footA.y" :x2="l.a.x" :y2="l.a.y" />
          <line :x1="l.footB.x" :y1="l.footB.y" :x2="l.b.x" :y2="l.b.y" />
          <line :x1="l.a.x" :y1="l.a.y" :x2="l.b.x" :y2="l.b.y" />
          <polyline :points="arrow(l.a, l.b)" />
          <polyline :points="arrow(l.b, l.a)" />
          <line
            v-if="Math.hypot(l.label.x - (l.a.x + l.b.x) / 2, l.label.y - (l.a.y + l.b.y) / 2) > 70"
            class="lead"
            :x1="(l.a.x + l.b.x) / 2"
            :y1="(l.a.y + l.b.y) / 2"
            :x2="l.label.x"
            :y2="l.label.y"
          />
          <text v-if="!l.d.key" :x="l.label.x" :y="l.label.y + (small ? 16 : 4)" class="mono">
            {{ l.d.words }} {{ l.d.text }}
          </text>
        </g>
      </svg>
      <div
        v-for="l in lines.filter((l) => l.d.key)"
        :key="l.d.key"
        class="entry"
        :class="{ wrong: l.d.key === wrong, named }"
        :style="{ left: l.label.x + 'px', top: l.label.y + 'px' }"
        :title="l.d.words"
      >
        <span v-if="named" class="name">{{ l.d.words }}</span>
        <EntryField
          :label="l.d.words"
          :says="l.d.words"
          :value="dims?.[l.d.key!] ?? null"
          :writing="writing"
          empty="–"
          figures
          bare
          @keep="emit('keep', l.d.key!, $event)"
        />
      </div>
    </div>
  </figure>
</template>

<style scoped>
.body-view {
  margin: 0;
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
figcaption {
  font-size: 12px;
  opacity: 0.8;
  padding: 0 2px 2px;
}
.paper {
  position: relative;
  flex: 1;
  min-height: 0;
  border-radius: 10px;
  background: rgba(var(--v-border-color), 0.08);
  overflow: hidden;
}
svg {
  position: absolute;
  inset: 0;
  display: block;
}
.body {
  fill: #4a4356;
  stroke: #7d7390;
}
.lead {
  fill: #b9bfc9;
  stroke: #8d95a3;
}
.mask {
  fill: rgba(123, 92, 190, 0.35);
  stroke: #9a7fd6;
}
.paste {
  fill: none;
  stroke: #c9ced8;
  stroke-dasharray: 4 3;
}
.silk {
  fill: #f4ecdc;
}
.hole {
  fill: #0e0b13;
  stroke: #d9906f;
}
.copper {
  fill: #e7b549;
  stroke: none;
}
.solder {
  fill: #cfd6df;
  stroke: #8f99a8;
}
.board {
  fill: #4c6b4f;
  stroke: none;
}
.line {
  fill: none;
  stroke: currentColor;
  stroke-opacity: 0.55;
}
.dim line,
.dim polyline {
  stroke: rgb(var(--v-theme-info));
  stroke-width: 1;
  fill: none;
}
.dim .lead {
  stroke-dasharray: 2 3;
}
.dim.wrong line,
.dim.wrong polyline {
  stroke: rgb(var(--v-theme-error));
  stroke-width: 1.6;
}
.dim text {
  fill: currentColor;
  font-size: 11px;
  text-anchor: middle;
}
.entry {
  position: absolute;
  width: 104px;
  transform: translate(-50%, -50%);
  background: rgb(var(--v-theme-surface));
  border-radius: 6px;
  z-index: 1;
}
.entry.named {
  width: 134px;
}
.name {
  display: block;
  text-align: center;
  font-size: 11px;
  line-height: 15px;
  white-space: nowrap;
}
.ground {
  fill: rgba(var(--v-border-color), 0.16);
  stroke: currentColor;
  stroke-width: 1.5;
}
.entry.wrong {
  box-shadow: 0 0 0 2px rgb(var(--v-theme-error));
}
.entry :deep(input) {
  text-align: center;
  padding-left: 2px;
  padding-right: 2px;
}
.entry:focus-within {
  z-index: 3;
}
</style>
