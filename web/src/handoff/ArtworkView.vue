<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { ref, watch } from 'vue'
import { Viewport } from '../canvas/viewport'
import type { Drawing } from '../live/wire.gen'
import { type Entry, openMenu } from '../shell/menu'
import { paintDrawing, roleColour } from './artwork'

/** Lays artwork and drill files over each other, drawn from the files themselves. */
const props = defineProps<{ drawings: Drawing[]; layers: number; entries?: Entry[] }>()
const canvas = ref<HTMLCanvasElement>()
const view = new Viewport()
const layer = document.createElement('canvas')
let frame = 0
let panning: { x: number; y: number } | null = null
const dpr = Math.min(2, window.devicePixelRatio || 1)

function paint() {
  frame = 0
  const c = canvas.value
  if (!c) return
  const ctx = c.getContext('2d')!
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.fillStyle = '#17131E'
  ctx.fillRect(0, 0, c.width, c.height)
  for (const d of props.drawings) {
    layer.width = c.width
    layer.height = c.height
    const l = layer.getContext('2d')!
    const mm = view.scale * 1e6
    l.setTransform(
      mm * dpr,
      0,
      0,
      -mm * dpr,
      (view.width / 2 - view.cx * view.scale) * dpr,
      (view.height / 2 + view.cy * view.scale) * dpr,
    )
    paintDrawing(l, d, roleColour(d.role, props.layers))
    ctx.globalAlpha = props.drawings.length > 1 ? 0.78 : 1
    ctx.drawImage(layer, 0, 0)
    ctx.globalAlpha = 1
  }
}
const request = () => (frame ||= requestAnimationFrame(paint))
function fit() {
  const b = props.drawings.map((d) => d.box).filter((b) => b.max.x > b.min.x || b.max.y > b.min.y)
  if (b.length)
    view.frame(
      {
        minX: Math.min(...b.map((x) => x.min.x)),
        minY: Math.min(...b.map((x) => x.min.y)),
        maxX: Math.max(...b.map((x) => x.max.x)),
        maxY: Math.max(...b.map((x) => x.max.y)),
      },
      40,
      0,
      1e-4,
    )
}
let held = false // once a hand has moved the view it stays
watch(
  () => props.drawings,
  () => {
    if (!held) fit()
    request()
  },
)
useResizeObserver(canvas, () => {
  const r = canvas.value!.getBoundingClientRect()
  view.width = r.width
  view.height = r.height
  canvas.value!.width = Math.round(r.width * dpr)
  canvas.value!.height = Math.round(r.height * dpr)
  if (!held) fit()
  request()
})
function menu(e: MouseEvent) {
  const all = () => ((held = false), fit(), request())
  openMenu({ x: e.clientX, y: e.clientY }, [{ title: 'Frame all', run: all }, null, ...(props.entries ?? [])])
}
function wheel(e: WheelEvent) {
  held = true
  const r = canvas.value!.getBoundingClientRect()
  view.zoom(Math.exp(-Math.max(-120, Math.min(120, e.deltaY)) * 0.0022), e.clientX - r.left, e.clientY - r.top)
  request()
}
function move(e: PointerEvent) {
  if (!panning) return
  held = true
  view.pan(e.clientX - panning.x, e.clientY - panning.y)
  panning = { x: e.clientX, y: e.clientY }
  request()
}
</script>

<template>
  <canvas
    ref="canvas"
    class="art"
    role="img"
    aria-label="The files, drawn from what stands in them"
    @wheel.prevent="wheel"
    @pointerdown="panning = { x: $event.clientX, y: $event.clientY }"
    @pointermove="move"
    @pointerup="panning = null"
    @pointerleave="panning = null"
    @contextmenu.prevent="menu"
  />
</template>

<style scoped>
.art {
  width: 100%;
  height: 100%;
  display: block;
}
</style>
