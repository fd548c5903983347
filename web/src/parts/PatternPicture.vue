<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import { drawPattern } from '../board/draw'
import { boxOf } from '../canvas/viewport'
import { offscreenPen } from '../circuit/preview'
import type { Pattern } from '../live/wire.gen'
import { useTaste } from '../shell/taste'

/** A footprint, or pads by themselves, as the board shows them, as large as they fit. */
const props = withDefaults(defineProps<{ pattern: Pattern | null; label: string; width?: number; height?: number }>(), {
  width: 300,
  height: 180,
})
const taste = useTaste()
const canvas = ref<HTMLCanvasElement>()
const most = 80 // dots of a millimetre, so that a single pad does not fill it
function paint() {
  const [c, p] = [canvas.value, props.pattern]
  if (!c) return
  if (p) drawPattern(offscreenPen(c, boxOf(p.courtyard), 1, most), p, taste.boardShade)
  else c.getContext('2d')?.clearRect(0, 0, c.width, c.height)
}
onMounted(paint)
watch(() => [props.pattern, taste.boardShade], paint)
</script>

<template>
  <canvas ref="canvas" :width="width" :height="height" :class="taste.boardShade" role="img" :aria-label="label" />
</template>

<style scoped>
canvas {
  display: block;
  width: 100%;
  flex: none;
  border-radius: 8px;
}
canvas.dark {
  background: #17131e;
}
canvas.light {
  background: #e4e8ee;
}
</style>
