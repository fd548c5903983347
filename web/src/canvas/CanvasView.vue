<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Point } from '../live/wire.gen'
import { penAt } from './pen'
import { Plates, type Sheet } from './plates'
import type { Pen, Scene } from './scene'
import { type Box, Viewport } from './viewport'

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
  /** The colour of what nothing lies on. */
  ground: () => string
  /** What is painted beside the scene and stands still with it. */
  sheets: () => Sheet[]
  alpha?: (layer: string) => number
  overlay: (pen: Pen, view: Viewport) => void
  cursor?: string
  /** It is seen from below. */
  mirror?: boolean
}>()
const emit = defineEmits<{
  move: [Hand]
  down: [Hand]
  up: [Hand]
  double: [Hand]
  leave: []
  ready: []
  menu: [Hand]
  seen: [Viewport]
}>()

const root = ref<HTMLDivElement>()
const base = ref<HTMLCanvasElement>()
const over = ref<HTMLCanvasElement>()
const view = new Viewport()
let drawn = view.copy()
let frame = 0
let wantOver = true
let late = 0
let panning: { x: number; y: number } | null = null
let spaceHeld = false
const dpr = Math.min(2, window.devicePixelRatio || 1)

const plates = new Plates(
  props.scene,
  dpr,
  () => props.sheets(),
  (l) => props.alpha?.(l) ?? 1,
  (ctx) => {
    ctx.globalAlpha = 1
    ctx.fillStyle = props.ground()
    ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height)
  },
)
/** A picture that is painted as quickly follows a zoom at once, in milliseconds; others when the hand rests. */
const quick = 12
/** How long after a zoom the hand rests, in milliseconds. */
const rest = 90
let zoomed = -Infinity

/** Moves the view by parts of a pixel, so that pixels of the tiles lie on pixels of the screen. */
function align() {
  if (!base.value) return
  const k = view.scale * dpr
  const whole = (c: number, size: number) => (Math.round(c * k - size / 2) + size / 2) / k
  view.cx = whole(view.cx, base.value.width)
  view.cy = whole(view.cy, base.value.height)
}

function tick() {
  frame = 0
  if (!base.value || view.width <= 1) return
  align()
  const k = view.scale * dpr
  view.mirror = !!props.mirror
  const moved = drawn.mirror !== view.mirror || drawn.cx !== view.cx || drawn.cy !== view.cy || drawn.scale !== view.scale
  if (drawn.scale !== view.scale) zoomed = performance.now()
  const wait = plates.stretched(view) && plates.lastCost > quick ? rest - (performance.now() - zoomed) : 0
  const more = plates.show(base.value.getContext('2d', { alpha: false })!, view, wait <= 0)
  if (wait > 0) {
    clearTimeout(late)
    late = window.setTimeout(request, wait + 1)
  } else if (more || plates.painted) request()
  drawn = view.copy()
  if (wantOver || moved) {
    const ctx = over.value!.getContext('2d')!
    ctx.setTransform(1, 0, 0, 1, 0, 0)
    ctx.clearRect(0, 0, over.value!.width, over.value!.height)
    const [left, top] = [view.way * view.cx * k - over.value!.width / 2, -view.cy * k - over.value!.height / 2]
    props.overlay(penAt(ctx, view.scale, dpr, left, top, view.mirror), view)
    wantOver = false
    root.value!.dataset.view = [view.cx, view.cy, view.scale, view.way].join(' ') // where a place of the drawing stands on the screen
    if (moved) emit('seen', view)
  }
  root.value!.dataset.painting = more ? 'yes' : 'no'
}

function request() {
  if (!frame) frame = requestAnimationFrame(tick)
}
function redraw() {
  wantOver = true
  request()
}
props.scene.onStale = redraw
/** What is painted beside the scene looks otherwise. */
function renew(sheet: string) {
  plates.renew(sheet)
  redraw()
}

/** The same, without a moment of nothing. */
function refresh(sheet: string) {
  plates.refresh(sheet)
  redraw()
}
/** Shows the same as another canvas. */
function follow(v: Viewport) {
  Object.assign(view, { cx: v.cx, cy: v.cy, scale: v.scale })
  redraw()
}
watch(() => props.mirror, redraw) // prettier-ignore

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
  plates.forget()
  wantOver = true
  if (first) emit('ready')
  request()
})
onMounted(() => {
  void document.fonts.ready.then(() => props.scene.invalidate())
})
onBeforeUnmount(() => {
  cancelAnimationFrame(frame)
  clearTimeout(late)
})
/** Room for the tools at the bottom, in pixels. */
const tools = 84
function show(b: Box, margin = 60, left?: number, most?: number) {
  view.frame(b, margin, left, most, Math.max(0, tools - margin))
  align()
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
  renew,
  refresh,
  follow,
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
