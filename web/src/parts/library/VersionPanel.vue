<script setup lang="ts">
import { nextTick, onMounted, ref, shallowRef } from 'vue'
import { traceOutline } from '../../board/pattern'
import { boxOf, union } from '../../canvas/viewport'
import { marksBox, play } from '../../circuit/marks'
import { offscreenPen } from '../../circuit/preview'
import type { Project } from '../../live/project'
import type { NewVersion, Overlaid, Pattern } from '../../live/wire.gen'
import CentredPanel from '../../shell/CentredPanel.vue'
import { complain } from '../../shell/notices'
import { useTaste } from '../../shell/taste'
import { boardColours, circuitColours } from '../../shell/tokens'

/** A new version of a part over the one the project has: what goes in coral, what comes in green, and both in words. */
const props = defineProps<{ project: Project; version: NewVersion }>()
const emit = defineEmits<{ close: [] }>()
const taste = useTaste()
const both = shallowRef<Overlaid | null>(null)
const symbol = ref<HTMLCanvasElement>()
const foot = ref<HTMLCanvasElement>()
const still = { at: { x: 0, y: 0 }, angle: 0, mirror: false }

onMounted(async () => {
  both.value = await props.project.question('overlay', { name: props.version.name }).catch((e) => (complain(e), null))
  await nextTick()
  paint()
})
function paint() {
  const o = both.value
  if (!o) return
  const c = { colours: circuitColours[taste.circuitShade], pictures: null }
  const marks = [...o.old, ...o.new]
  if (symbol.value && marks.length) {
    const pen = offscreenPen(symbol.value, marksBox(marks))
    pen.ctx.globalAlpha = 0.65
    play(pen, o.old, c, '#D9432F')
    play(pen, o.new, c, '#1E7F70')
  }
  const yards = [o.oldFoot, o.newFoot].filter((p) => !!p).map((p) => boxOf(p.courtyard))
  if (!foot.value || !yards.length) return
  const pen = offscreenPen(foot.value, yards.reduce(union), 1, 80)
  const shades = boardColours[taste.boardShade]
  if (o.oldFoot) outlines(pen, o.oldFoot, shades.finding)
  if (o.newFoot) outlines(pen, o.newFoot, shades.agrees)
}
function outlines(pen: ReturnType<typeof offscreenPen>, p: Pattern, colour: string) {
  const { ctx, px } = pen
  ctx.strokeStyle = colour
  ctx.fillStyle = colour + '55'
  for (const pad of p.pads)
    for (const o of [...Object.values(pad.on ?? {}), ...(pad.barrel ? [pad.barrel] : []), ...(pad.bore ? [pad.bore] : [])]) {
      ctx.beginPath()
      const r = (o.r ?? 0) / 1e6
      const b = boxOf(o.corners)
      if (o.corners.some((k) => k.mid) || !r) traceOutline(ctx, o, still)
      else ctx.roundRect(b.minX / 1e6 - r, b.minY / 1e6 - r, (b.maxX - b.minX) / 1e6 + 2 * r, (b.maxY - b.minY) / 1e6 + 2 * r, r)
      ctx.lineWidth = 1.4 * px
      ctx.fill()
      ctx.stroke()
    }
  for (const o of p.silk) {
    ctx.beginPath()
    traceOutline(ctx, o, still)
    ctx.lineWidth = px
    ctx.stroke()
  }
}
const take = () => props.project.edit('updateParts', { names: [props.version.name] }).then(() => emit('close'), complain)
</script>

<template>
  <CentredPanel
    :label="`A new version of ${version.name}`"
    :title="`${version.name}: version ${version.have} here, ${version.latest} in the ${version.library} library`"
    :width="810"
    @close="emit('close')"
  >
    <p class="key"><i class="was" /> as the project has it <i class="is" /> as the library has it now</p>
    <div class="pictures">
      <canvas
        ref="symbol"
        width="380"
        height="260"
        :class="taste.circuitShade"
        role="img"
        aria-label="Both symbols over each other"
      />
      <canvas
        ref="foot"
        width="380"
        height="260"
        :class="'board-' + taste.boardShade"
        role="img"
        aria-label="Both footprints over each other"
      />
    </div>
    <ul>
      <li v-for="c in version.changes.slice(0, 40)" :key="c">{{ c }}</li>
      <li v-if="version.changes.length > 40" class="quiet">… and {{ version.changes.length - 40 }} more</li>
    </ul>
    <template #acts>
      <v-btn color="primary" variant="flat" @click="take">Take version {{ version.latest }}</v-btn>
      <v-btn variant="text" @click="emit('close')">Stay with {{ version.have }}</v-btn>
    </template>
  </CentredPanel>
</template>

<style scoped>
.key {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 12.5px;
  margin: 6px 0;
}
.key i {
  width: 14px;
  height: 10px;
  border-radius: 3px;
}
.was {
  background: rgb(var(--v-theme-error));
}
.is {
  background: rgb(var(--v-theme-secondary));
}
.pictures {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
canvas {
  width: 100%;
  border-radius: 8px;
  background: #eef1f5;
}
canvas.dark {
  background: #1c1825;
}
canvas.board-dark {
  background: #17131e;
}
canvas.board-light {
  background: #e4e8ee;
}
ul {
  margin: 8px 0 0;
  padding-left: 20px;
  line-height: 1.5;
}
</style>
