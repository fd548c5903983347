<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { call } from '../live/http'
import type { Item } from '../live/wire.gen'
import { circuitColours } from '../shell/tokens'
import { useTaste } from '../shell/taste'
import { drawSymbol, symbolBox } from './draw'
import { drawFootprint } from '../board/draw'
import type { Pen } from '../canvas/scene'

const emit = defineEmits<{ choose: [Item]; close: [] }>()
const taste = useTaste()
const query = ref('')
const found = ref<Item[]>([])
const chosen = ref(0)
const input = ref<HTMLInputElement>()
const symbolCanvas = ref<HTMLCanvasElement>()
const footCanvas = ref<HTMLCanvasElement>()
const now = computed(() => found.value[chosen.value])

let asked = 0
async function search() {
  const mine = ++asked
  const list = await call<Item[]>('GET', '/library?q=' + encodeURIComponent(query.value)).catch(() => [] as Item[])
  if (mine === asked) {
    found.value = list ?? []
    chosen.value = 0
  }
}
watch(query, search)
onMounted(() => {
  void search()
  void nextTick(() => input.value?.focus())
})

function pen(c: HTMLCanvasElement, box: { minX: number; minY: number; maxX: number; maxY: number }): Pen {
  const ctx = c.getContext('2d')!
  const mm = Math.min(c.width / ((box.maxX - box.minX) / 1e6 + 3), c.height / ((box.maxY - box.minY) / 1e6 + 3), 24)
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.clearRect(0, 0, c.width, c.height)
  ctx.setTransform(
    mm,
    0,
    0,
    -mm,
    c.width / 2 - ((box.minX + box.maxX) / 2e6) * mm,
    c.height / 2 + ((box.minY + box.maxY) / 2e6) * mm,
  )
  ctx.lineCap = ctx.lineJoin = 'round'
  return {
    ctx,
    px: 1 / mm,
    text(s, x, y, size, o = {}) {
      ctx.save()
      ctx.translate(x, y)
      ctx.scale(1, -1)
      ctx.font = `${size}px 'JetBrains Mono'`
      ctx.textAlign = o.align ?? 'center'
      ctx.textBaseline = 'middle'
      ctx.fillStyle = o.colour ?? '#000'
      ctx.fillText(s, 0, 0)
      ctx.restore()
    },
  }
}
watch([now, () => taste.circuitShade, () => taste.boardShade], async () => {
  await nextTick()
  const it = now.value
  if (!it?.symbol || !it.footprint || !symbolCanvas.value || !footCanvas.value) return
  const at = { at: { x: 0, y: 0 }, turn: 0, mirror: false }
  drawSymbol(pen(symbolCanvas.value, symbolBox(at, it.symbol)), at, it.symbol, circuitColours[taste.circuitShade])
  const xs = it.footprint.courtyard
  drawFootprint(pen(footCanvas.value, { minX: Math.min(...xs.map((p) => p.x)), maxX: Math.max(...xs.map((p) => p.x)), minY: Math.min(...xs.map((p) => p.y)), maxY: Math.max(...xs.map((p) => p.y)) }), it.footprint, taste.boardShade) // prettier-ignore
})

function press(e: KeyboardEvent) {
  if (e.key === 'ArrowDown') chosen.value = Math.min(found.value.length - 1, chosen.value + 1)
  else if (e.key === 'ArrowUp') chosen.value = Math.max(0, chosen.value - 1)
  else if (e.key === 'Enter' && now.value) emit('choose', now.value)
  else if (e.key === 'Escape') emit('close')
  else return
  e.preventDefault()
  e.stopPropagation()
  document.querySelector('.finder .on')?.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <div class="float finder" @keydown="press">
    <input
      ref="input"
      v-model="query"
      placeholder="Find a part: resistor, 0805, led …"
      aria-label="Find a part"
      data-test="part-search"
    />
    <div class="cols">
      <div class="list" role="listbox" aria-label="Parts">
        <button
          v-for="(it, i) in found"
          :key="it.part!.name"
          role="option"
          :aria-selected="i === chosen"
          :class="{ on: i === chosen }"
          @click="emit('choose', it)"
          @mousemove="chosen = i"
        >
          <span>{{ it.part!.name }}</span><span class="quiet small">{{ it.part!.footprint }}</span>
        </button>
        <p v-if="!found.length" class="quiet none">No part of the library bears that name.</p>
      </div>
      <div v-if="now" class="look">
        <canvas ref="symbolCanvas" width="200" height="120" :class="taste.circuitShade" role="img" aria-label="Symbol" />
        <canvas
          ref="footCanvas"
          width="200"
          height="120"
          :class="'board-' + taste.boardShade"
          role="img"
          aria-label="Footprint"
        />
        <p>{{ now.part!.description }}</p>
      </div>
    </div>
    <p class="quiet hint"><kbd>↑</kbd> <kbd>↓</kbd> choose, <kbd>Enter</kbd> takes it to the cursor, <kbd>Esc</kbd> closes</p>
  </div>
</template>

<style scoped>
.finder {
  position: absolute;
  bottom: 86px;
  left: 50%;
  transform: translateX(-50%);
  width: 560px;
  z-index: 6;
  padding: 10px;
}
input {
  width: 100%;
  padding: 7px 12px;
  border-radius: 8px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  color: inherit;
  font-size: 14px;
}
.cols {
  display: grid;
  grid-template-columns: 1fr 210px;
  gap: 10px;
  margin-top: 8px;
}
.list {
  height: 268px;
  overflow-y: auto;
}
.list button {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  padding: 4px 9px;
  border: 0;
  border-radius: 6px;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
.list .on {
  background: rgba(var(--v-theme-primary), 0.22);
}
.small {
  font-size: 11.5px;
}
.look canvas {
  display: block;
  width: 200px;
  height: 120px;
  border-radius: 8px;
  margin-bottom: 6px;
  background: #eef1f5;
}
.look canvas.dark {
  background: #1c1825;
}
.look canvas.board-dark {
  background: #17131e;
}
.look canvas.board-light {
  background: #e4e8ee;
}
.hint {
  font-size: 12px;
  margin: 6px 2px 0;
}
.none {
  padding: 8px;
}
</style>
