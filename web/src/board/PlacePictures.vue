<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'
import { boxOf, type Box } from '../canvas/viewport'
import { paintItem } from '../canvas/scene'
import { layerOrder, marksBox, play } from '../circuit/marks'
import { offscreenPen } from '../circuit/preview'
import { latest } from '../live/latest'
import type { Difference, Page } from '../live/wire.gen'
import { complain } from '../shell/notices'
import { useTaste } from '../shell/taste'
import { circuitColours } from '../shell/tokens'
import type { BoardEditor } from './editor'

/** Where a difference lies: the part in the circuit and the part on the board, side by side. */
const props = defineProps<{ editor: BoardEditor; difference: Difference; tall?: boolean }>()
const taste = useTaste()
const sheet = ref<HTMLCanvasElement>()
const board = ref<HTMLCanvasElement>()
const pages = new Map<string, Page>()
const look = latest(
  async (d: Difference) => {
    const part = d.part ? props.editor.project.get('part', d.part) : undefined
    if (!part) return null
    const key = `${part.sheet} ${d.path ?? ''}`
    if (!pages.has(key)) {
      const page = await props.editor.project
        .question('sheet', { sheet: part.sheet, ...(d.path ? { path: d.path } : {}) })
        .catch((e) => (complain(e), null))
      if (page) pages.set(key, page)
    }
    return pages.get(key) ?? null
  },
  (page) => void nextTick(() => paintSheet(page)),
)

function paintSheet(page: Page | null) {
  const c = sheet.value
  if (!c) return
  const own = page?.items.find((it) => it.id === props.difference.part)
  if (!page || !own) {
    c.getContext('2d')?.clearRect(0, 0, c.width, c.height)
    return
  }
  const colours = circuitColours[taste.circuitShade]
  const at = marksBox(own.marks)
  const box = grown(at, 12e6)
  const pen = offscreenPen(c, box, 2, 24)
  for (const it of [...page.items].sort((a, b) => layerOrder(a.kind) - layerOrder(b.kind)))
    if (it.marks.length && meets(marksBox(it.marks), box)) play(pen, it.marks, { colours, pictures: null })
  ring(pen.ctx, at, colours.select, pen.px)
}
function paintBoard() {
  const c = board.value
  const ed = props.editor
  if (!c) return
  const at = props.difference.on ? ed.scene.boxOf(props.difference.on) : null
  if (!at) {
    c.getContext('2d')?.clearRect(0, 0, c.width, c.height)
    return
  }
  const box = grown(at, 8e6)
  const pen = offscreenPen(c, box, 2, 60)
  const ids = new Set([ed.project.board.id, ...ed.scene.idsWithin(box)])
  for (const id of ids) for (const it of ed.scene.itemsOf(id)) paintItem(it, pen)
  ring(pen.ctx, at, ed.look().colours.select, pen.px)
}
const grown = (b: Box, by: number) => boxOf([{ x: b.minX, y: b.minY }, { x: b.maxX, y: b.maxY }], by) // prettier-ignore
const meets = (a: Box, b: Box) => a.minX <= b.maxX && b.minX <= a.maxX && a.minY <= b.maxY && b.minY <= a.maxY
function ring(ctx: CanvasRenderingContext2D, b: Box, colour: string, px: number) {
  ctx.strokeStyle = colour
  ctx.lineWidth = 2 * px
  ctx.strokeRect(b.minX / 1e6 - 4 * px, b.minY / 1e6 - 4 * px, (b.maxX - b.minX) / 1e6 + 8 * px, (b.maxY - b.minY) / 1e6 + 8 * px)
}
function show() {
  void look(props.difference)
  void nextTick(paintBoard)
}
onMounted(show)
watch(() => props.editor.project.docTick.value, () => void nextTick(paintBoard)) // prettier-ignore
watch(() => [props.difference.key, taste.circuitShade, taste.boardShade], show)
</script>

<template>
  <div class="pair" :class="{ tall }">
    <figure>
      <figcaption>In the circuit</figcaption>
      <canvas
        ref="sheet"
        width="440"
        height="280"
        :class="'sheet ' + taste.circuitShade"
        role="img"
        aria-label="The part in the circuit"
      />
      <p v-if="!difference.part" class="quiet none">It is not there any more.</p>
    </figure>
    <figure>
      <figcaption>On the board</figcaption>
      <canvas
        ref="board"
        width="440"
        height="280"
        :class="'board-' + taste.boardShade"
        role="img"
        aria-label="The part on the board"
      />
      <p v-if="!difference.on" class="quiet none">It is not there yet.</p>
    </figure>
  </div>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
}
figure {
  position: relative;
  margin: 0;
}
figcaption {
  font-size: 12px;
  padding-bottom: 2px;
}
canvas {
  display: block;
  width: 100%;
  height: 140px;
  border-radius: 8px;
}
.tall canvas {
  height: auto;
}
.sheet {
  background: #eef1f5;
}
.sheet.dark {
  background: #1c1825;
}
.none {
  position: absolute;
  inset: 20px 0 0;
  display: flex;
  align-items: center;
  justify-content: center;
  margin: 0;
}
figure:first-child .none {
  color: #56607a;
}
</style>
