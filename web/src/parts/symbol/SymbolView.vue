<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import CanvasView from '../../canvas/CanvasView.vue'
import { dots, nudges } from '../../canvas/page'
import type { Pen } from '../../canvas/pen'
import DrawingFrame from '../../hands/DrawingFrame.vue'
import { useStage } from '../../hands/useStage'
import type { Project } from '../../live/project'
import type { Listed } from '../../live/wire.gen'
import { useCommands } from '../../shell/commands'
import type { Command } from '../../shell/keys'
import { entriesOf } from '../../shell/menu'
import { complain } from '../../shell/notices'
import { useTaste } from '../../shell/taste'
import { pieceOf } from '../pieces'
import SidePanel from '../../shell/SidePanel.vue'
import { SymbolEditor, footOf } from './editor'
import PinListPanel from './PinListPanel.vue'
import SymbolDetails from './SymbolDetails.vue'

const props = defineProps<{ project: Project; symbol: number }>()
const emit = defineEmits<{ back: [] }>()
const taste = useTaste()
const ed = new SymbolEditor(props.project, taste)
const canvas = ref<InstanceType<typeof CanvasView>>()
const pasting = ref(false)
const picked = () => ed.picks && ed.selection.size > 0
const hand = useStage(ed, canvas, {
  group: 'Tools',
  commands: () => commands,
  menu: () => entriesOf(commands, ed.selection.size ? ['left', 'right', '', 'frameSel', '', 'remove'] : ['pin', 'figure', 'origin', 'pins', '', 'all', '', 'frame', 'grid', 'paper']), // prettier-ignore
})
const offs = [props.project.onChange((changes, whole) => (whole ? void ed.open(ed.state.symbol) : ed.changed(changes)))]
onBeforeUnmount(() => offs.forEach((off) => off()))
watch(() => taste.circuitShade, () => ed.scene.invalidate()) // prettier-ignore
const frameAll = () => canvas.value?.show(ed.content(), 70, 40, 2.2e-5)
function frameSelection() {
  const b = ed.boxOf(ed.selection)
  if (b) canvas.value?.show({ minX: b.minX - 5e6, minY: b.minY - 5e6, maxX: b.maxX + 5e6, maxY: b.maxY + 5e6 }, 60, 0, 4e-5)
}
const load = () => void ed.open(props.symbol)?.then(frameAll)
onMounted(load)
watch(() => props.symbol, load)

function overlay(pen: Pen) {
  const { ctx, px } = pen
  const c = ed.colours
  ctx.beginPath()
  ctx.moveTo(-9 * px, 0)
  ctx.lineTo(9 * px, 0)
  ctx.moveTo(0, -9 * px)
  ctx.lineTo(0, 9 * px)
  ctx.strokeStyle = c.others
  ctx.lineWidth = 1.2 * px
  ctx.stroke()
  // where wires connect
  ctx.strokeStyle = c.wire
  for (const p of ed.pins) {
    ctx.beginPath()
    ctx.arc(p.at.x / 1e6, p.at.y / 1e6, 2.6 * px, 0, 2 * Math.PI)
    ctx.stroke()
  }
  if (!ed.grab)
    for (const id of ed.selection) {
      const { what, ref: r } = pieceOf(id)
      const pin = what === 'pin' && ed.pins.find((p) => p.id === r)
      ctx.strokeStyle = c.select
      ctx.lineWidth = pin ? 3 * px : 1.6 * px
      if (pin) {
        const f = footOf(pin)
        ctx.beginPath()
        ctx.moveTo(pin.at.x / 1e6, pin.at.y / 1e6)
        ctx.lineTo(f.x / 1e6, f.y / 1e6)
        ctx.stroke()
        continue
      }
      const b = ed.scene.boxOf(id)
      if (!b) continue
      const [x, y, w, h] = [b.minX / 1e6, b.minY / 1e6, (b.maxX - b.minX) / 1e6, (b.maxY - b.minY) / 1e6]
      ctx.strokeRect(x, y, w, h)
      if (what === 'figure' && r === ed.shown.value?.bodyRef) {
        const body = ed.shown.value.body!
        ctx.fillStyle = c.select
        for (const fx of [0, 0.5, 1])
          for (const fy of [0, 0.5, 1])
            if (fx !== 0.5 || fy !== 0.5) ctx.fillRect((body.min.x + fx * (body.max.x - body.min.x)) / 1e6 - 3.5 * px, (body.min.y + fy * (body.max.y - body.min.y)) / 1e6 - 3.5 * px, 7 * px, 7 * px) // prettier-ignore
      }
    }
  ed.paint(pen)
}

async function take(pins: Listed[], layout: string) {
  pasting.value = false
  await props.project.edit('addPins', { symbol: ed.state.symbol, pins, layout }).catch(complain)
  await ed.ask()
  frameAll()
}

const grids = [2_500_000, 1_250_000, 625_000]
const nextGrid = () => {
  taste.circuitGrid = grids[(grids.indexOf(taste.circuitGrid) + 1) % grids.length]
  ed.scene.invalidate()
}
const commands: Command[] = [
  ...hand.commands,
  { id: 'left', title: 'Turn left', keys: 'Q', group: 'Change', run: () => ed.turn(1), enabled: picked },
  { id: 'right', title: 'Turn right', keys: 'E', group: 'Change', run: () => ed.turn(-1), enabled: picked },
  { id: 'remove', title: 'Remove', keys: 'Del / Backspace', group: 'Change', run: () => ed.remove(), enabled: picked },
  { id: 'all', title: 'Select all', keys: 'Ctrl A', group: 'Change', run: () => ed.selectAll() },
  { id: 'pins', title: 'Paste a pin list', keys: 'Ctrl Shift V', group: 'Symbol', run: () => (pasting.value = true) },
  ...nudges('Nudge what is picked, or lead the hand,', (dx, dy) => ed.nudge(dx, dy)),
  { id: 'frame', title: 'Frame all', keys: 'F', group: 'See', run: frameAll },
  { id: 'frameSel', title: 'Frame the selection', keys: 'Shift F', group: 'See', run: frameSelection },
  { id: 'grid', title: 'Grid on or off', keys: 'G', group: 'See', run: () => ((taste.gridOn = !taste.gridOn), ed.scene.invalidate()) }, // prettier-ignore
  { id: 'paper', title: 'Dark or light paper', group: 'See', run: () => (taste.circuitShade = taste.circuitShade === 'dark' ? 'light' : 'dark') }, // prettier-ignore
  { id: 'back', title: 'Back to the library', keys: 'Alt ArrowLeft', group: 'Symbol', run: () => emit('back') },
]
useCommands(commands, hand.early)
const grid = [dots(() => ed.colours, () => ({ pitch: taste.circuitGrid, on: taste.gridOn, apart: 9, most: 8 }))] // prettier-ignore
defineExpose({ ed })
</script>

<template>
  <DrawingFrame ref="strip" :ed="ed" :hand="hand" :grid="taste.circuitGrid" @grid="nextGrid" @focus="canvas?.focus()">
    <CanvasView
      ref="canvas"
      :scene="ed.scene"
      label="Symbol"
      :ground="() => ed.colours.paper"
      :sheets="() => grid"
      :overlay="overlay"
      :cursor="ed.picks ? 'default' : 'crosshair'"
      v-on="hand.on"
      @ready="frameAll"
    />
    <PinListPanel
      v-if="pasting"
      :project="project"
      verb="Take these pins"
      @take="take"
      @close="((pasting = false), canvas?.focus())"
    />
    <template #side>
      <SidePanel><SymbolDetails :editor="ed" @pins="pasting = true" /></SidePanel>
    </template>
  </DrawingFrame>
</template>
