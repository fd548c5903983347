<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import { marksBox, play } from '../circuit/marks'
import { offscreenPen } from '../circuit/preview'
import type { Mark } from '../live/wire.gen'
import { useTaste } from '../shell/taste'
import { circuitColours } from '../shell/tokens'

/** A symbol as the circuit's paper shows it, as large as it fits. */
const props = withDefaults(defineProps<{ marks: Mark[]; label: string; width?: number; height?: number }>(), {
  width: 280,
  height: 170,
})
const taste = useTaste()
const canvas = ref<HTMLCanvasElement>()
function paint() {
  const [c, marks] = [canvas.value, props.marks]
  if (!c) return
  if (marks.length) play(offscreenPen(c, marksBox(marks)), marks, { colours: circuitColours[taste.circuitShade], pictures: null })
  else c.getContext('2d')?.clearRect(0, 0, c.width, c.height)
}
onMounted(paint)
watch(() => [props.marks, taste.circuitShade], paint)
</script>

<template>
  <canvas ref="canvas" :width="width" :height="height" :class="taste.circuitShade" role="img" :aria-label="label" />
</template>

<style scoped>
canvas {
  display: block;
  width: 100%;
  flex: none;
  border-radius: 8px;
  background: #eef1f5;
}
canvas.dark {
  background: #1c1825;
}
</style>
