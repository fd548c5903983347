<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref } from 'vue'
import type { Point } from '../live/wire.gen'
import type { Pen, Scene } from './scene'
import { type Box, union, Viewport } from './viewport'

/** What happens on a canvas, as tools see it. */
export interface Hand {
  at: Point
  x: number
  y: number
  event: PointerEvent | MouseEvent
}
const props = defineProps<{
  scene: Scene
  label: string
  paper: (ctx: CanvasRenderingContext2D, view: Viewport) => void
  alpha?: (layer: string) => number
  overlay: (pen: Pen, view: Viewport) => void
  cursor?: string
}>()
const emit = defineEmits<{ move: [Hand]; down: [Hand]; up: [Hand]; double: [Hand]; leave: []; ready: []; menu: [Hand] }>()

const root = ref<HTMLDivElement>()
const base = ref<HTMLCanvasElement>()
const over = ref<HTMLCanvasElement>()
const view = new Viewport()
let drawn = view.copy()
let frame = 0
let wantBase = true
let wantOver = true
let late = 0
let lastCost = 0
let panning: { x: number; y: number } | null = null
let spaceHeld = false
const dpr = Math.min(2, window.devicePixelRatio || 1)

function pen(ctx: CanvasRenderingContext2D, v: Viewport): Pen {
  const mm = v.scale * 1e6
  ctx.setTransform(mm * dpr, 0, 0, -mm * dpr, (v.width / 2 - v.cx * v.scale) * dpr, (v.height / 2 + v.cy * v.scale) * dpr)
  ctx.lineCap = 'round'
  ctx.lineJoin = 'round'
  const px = 1 / mm
  return {
    ctx,
    px,
    text(s, x, y, size, o = {}) {
      if (size / px < 3.5) return // too small to read
      ctx.save()
      ctx.translate(x, y)
      if (o.angle) ctx.rotate((o.angle * Math.PI) / 180)
      const k = size / 20
      ctx.scale(k, -k)
      ctx.font = `${o.weight ?? 400} 20px ${o.mono === false ? 'Barlow' : "'JetBrains Mono'"}`
      ctx.textAlign = o.align ?? 'center'
      ctx.textBaseline = 'middle'
      if (o.colour) ctx.fillStyle = o.colour
      ctx.fillText(s, 0, 1)
      ctx.restore()
    },
  }
}

function paintBase(area: Box | null) {
  const ctx = base.value!.getContext('2d')!
  const started = performance.now()
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.save()
  if (area) {
    const a = view.toScreen({ x: area.minX, y: area.maxY })
    const b = view.toScreen({ x: area.maxX, y: area.minY })
    const [x, y] = [Math.floor((a.x - 3) * dpr), Math.floor((a.y - 3) * dpr)]
    ctx.beginPath()
    ctx.rect(x, y, Math.ceil((b.x + 3) * dpr) - x, Math.ceil((b.y + 3) * dpr) - y)
    ctx.clip()
  }
  props.paper(ctx, view)
  const p = pen(ctx, view)
  const grow = 4 / view.scale
  const box = area ? { minX: area.minX - grow, minY: area.minY - grow, maxX: area.maxX + grow, maxY: area.maxY + grow } : view.box
  for (const item of props.scene.within(box)) {
    ctx.globalAlpha = props.alpha?.(item.layer) ?? 1
    if (ctx.globalAlpha > 0) item.draw(p)
  }
  ctx.globalAlpha = 1
  ctx.restore()
  if (!area) lastCost = performance.now() - started
}

function tick() {
  frame = 0
  if (!base.value) return
  const moved = drawn.cx !== view.cx || drawn.cy !== view.cy || drawn.scale !== view.scale
  if (wantBase || moved) {
    if (moved && lastCost > 12 && !wantBase) {
      // the kept picture follows the hand; it is refined when the hand rests
      const k = view.scale / drawn.scale
      const c = view.toScreen({ x: drawn.cx, y: drawn.cy })
      base.value.style.transform = `translate(${c.x - view.width / 2}px, ${c.y - view.height / 2}px) scale(${k})`
      clearTimeout(late)
      late = window.setTimeout(() => {
        wantBase = true
        request()
      }, 90)
    } else {
      const dirty = props.scene.dirty
      if (moved || dirty === null || dirty.length > 400) paintBase(null)
      else if (dirty.length) {
        const all = dirty.reduce<Box | null>((a, b) => union(a, b), null)!
        paintBase(all)
      }
      props.scene.dirty = []
      base.value.style.transform = ''
      drawn = view.copy()
      wantBase = false
    }
  }
  if (wantOver || moved) {
    const ctx = over.value!.getContext('2d')!
    ctx.setTransform(1, 0, 0, 1, 0, 0)
    ctx.clearRect(0, 0, over.value!.width, over.value!.height)
    props.overlay(pen(ctx, view), view)
    wantOver = false
    root.value!.dataset.view = [view.cx, view.cy, view.scale].join(' ') // where a place of the drawing stands on the screen
  }
}

function request() {
  if (!frame) frame = requestAnimationFrame(tick)
}
function redraw() {
  wantOver = true
  request()
}
props.scene.onDirty = () => {
  wantBase = true
  wantOver = true
  request()
}

function hand(e: PointerEvent | MouseEvent): Hand {
  const r = root.value!.getBoundingClientRect()
  const x = e.clientX - r.left
  const y = e.clientY - r.top
  return { at: view.toWorld(x, y), x, y, event: e }
}

function down(e: PointerEvent) {
  root.value!.focus({ preventScroll: true })
  if (e.button === 1 || (e.button === 0 && spaceHeld)) {
    panning = { x: e.clientX, y: e.clientY }
    root.value!.setPointerCapture(e.pointerId)
    e.preventDefault()
    return
  }
  if (e.button === 0) {
    root.value!.setPointerCapture(e.pointerId)
    emit('down', hand(e))
  }
}
function move(e: PointerEvent) {
  if (panning) {
    view.pan(e.clientX - panning.x, e.clientY - panning.y)
    panning = { x: e.clientX, y: e.clientY }
    request()
  }
  emit('move', hand(e))
}
function up(e: PointerEvent) {
  if (panning) panning = null
  else if (e.button === 0) emit('up', hand(e))
}
function wheel(e: WheelEvent) {
  const h = hand(e)
  view.zoom(Math.exp(-Math.max(-120, Math.min(120, e.deltaY)) * 0.0022), h.x, h.y)
  request()
}
const hold = (on: boolean) => (spaceHeld = on)

useResizeObserver(root, () => {
  if (!root.value) return
  const r = root.value!.getBoundingClientRect()
  if (!r.width || !r.height) return
  const first = view.width === 1
  view.width = r.width
  view.height = r.height
  for (const c of [base.value!, over.value!]) {
    c.width = Math.round(r.width * dpr)
    c.height = Math.round(r.height * dpr)
  }
  props.scene.dirty = null
  wantBase = wantOver = true
  if (first) emit('ready')
  request()
})
onMounted(() => {
  void document.fonts.ready.then(() => props.scene.invalidate())
})
onBeforeUnmount(() => {
  cancelAnimationFrame(frame)
})
/** Room for the tools at the bottom, in pixels. */
const tools = 84
function show(b: Box, margin = 60, left?: number, most?: number) {
  view.frame(b, margin, left, most, Math.max(0, tools - margin))
  request()
}
/** Moves the paper as little as is needed to see a place. */
function reveal(p: Point) {
  const s = view.toScreen(p)
  const edge = 40
  const dx = s.x < edge ? edge - s.x : s.x > view.width - edge ? view.width - edge - s.x : 0
  const dy = s.y < edge ? edge - s.y : s.y > view.height - 2 * edge ? view.height - 2 * edge - s.y : 0
  if (!dx && !dy) return
  view.pan(dx, dy)
  request()
}
defineExpose({
  view,
  redraw,
  show,
  reveal,
  request,
  hold,
  focus: () => root.value?.focus({ preventScroll: true }),
  element: root,
})
</script>

<template>
  <div
    ref="root"
    class="canvas"
    tabindex="0"
    role="application"
    :aria-label="label"
    :style="{ cursor: cursor ?? 'default' }"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointerleave="emit('leave')"
    @dblclick="emit('double', hand($event))"
    @wheel.prevent="wheel"
    @contextmenu.prevent="emit('menu', hand($event))"
  >
    <canvas ref="base" />
    <canvas ref="over" />
  </div>
</template>

<style scoped>
.canvas {
  position: absolute;
  inset: 0;
  overflow: hidden;
  touch-action: none;
  outline: none;
}
.canvas:focus-visible::after {
  content: '';
  position: absolute;
  inset: 0;
  border: 2px solid rgb(var(--v-theme-info));
  pointer-events: none;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
</style>
