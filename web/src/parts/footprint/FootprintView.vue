<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import CanvasView from '../../canvas/CanvasView.vue'
import { dots, nudges } from '../../canvas/page'
import type { Pen } from '../../canvas/pen'
import { outlineBox, paintOutline } from '../../board/pattern'
import DrawingFrame from '../../hands/DrawingFrame.vue'
import { useStage } from '../../hands/useStage'
import type { Project } from '../../live/project'
import type { Pad } from '../../live/wire.gen'
import { format } from '../../live/units'
import { useCommands } from '../../shell/commands'
import FilePick from '../../shell/fields/FilePick.vue'
import type { Command } from '../../shell/keys'
import { entriesOf } from '../../shell/menu'
import { complain } from '../../shell/notices'
import { useTaste } from '../../shell/taste'
import { copperColour } from '../../shell/tokens'
import { base64 } from '../../live/base64'
import LayerChips from '../LayerChips.vue'
import { idOf, pieceOf } from '../pieces'
import SidePanel from '../../shell/SidePanel.vue'
import { paintGrips } from '../../hands/edge'
import { padGrips } from './corners'
import { traceFigure } from './draw'
import { FootprintEditor } from './editor'
import FootprintDetails from './FootprintDetails.vue'
import PadListPanel from './PadListPanel.vue'

const props = defineProps<{ project: Project; footprint: number }>()
const emit = defineEmits<{ generate: [number]; back: [] }>()
const taste = useTaste()
const ed = new FootprintEditor(props.project, taste)
const canvas = ref<InstanceType<typeof CanvasView>>()
const file = ref<{ choose: () => void }>()
const pasting = ref(false)
ed.beneath.askFile = () => file.value?.choose()
const picked = () => ed.picks && ed.selection.size > 0
const hand = useStage(ed, canvas, {
  group: 'Tools',
  commands: () => commands,
  menu: () => entriesOf(commands, ed.selection.size ? ['left', 'right', 'repeat', 'fromHere', '', 'frameSel', '', 'remove'] : ['pad', 'line', 'measure', 'beneath', 'origin', 'pads', '', 'all', '', 'frame', 'grid', 'paper']), // prettier-ignore
})

const offs = [
  props.project.onChange((changes, whole) => (whole ? ed.open(ed.state.footprint) : ed.changed(changes))),
  props.project.onDerived(() => ed.load()),
]
onBeforeUnmount(() => offs.forEach((off) => off()))
watch(() => taste.boardShade, () => ed.scene.invalidate()) // prettier-ignore
watch(() => [...ed.state.hidden], () => ed.scene.rearrange()) // prettier-ignore
watch(
  () => props.footprint,
  (id) => {
    ed.open(id)
    frameAll()
  },
)
const frameAll = () => canvas.value?.show(ed.content(), 70, 130, 2e-4)
function frameSelection() {
  const b = ed.boxOf(ed.selection)
  if (b) canvas.value?.show({ minX: b.minX - 1e6, minY: b.minY - 1e6, maxX: b.maxX + 1e6, maxY: b.maxY + 1e6 }, 60, 0, 2e-4)
}
const isReady = ref(false)
function ready() {
  isReady.value = true
  frameAll()
}
onMounted(() => ed.open(props.footprint))
watch(() => ed.shown.value !== null, (on) => on && isReady.value && frameAll()) // prettier-ignore

const say = (nm: number) => format(nm, taste.unit, 4)
const still = { at: { x: 0, y: 0 }, angle: 0, mirror: false }
function overlay(pen: Pen) {
  const { ctx, px } = pen
  const c = ed.colours
  // the origin
  ctx.beginPath()
  ctx.moveTo(-9 * px, 0)
  ctx.lineTo(9 * px, 0)
  ctx.moveTo(0, -9 * px)
  ctx.lineTo(0, 9 * px)
  ctx.strokeStyle = c.others
  ctx.lineWidth = 1.2 * px
  ctx.stroke()
  ed.paintDimensions(pen, say)
  const f = ed.f
  if (f && !ed.grab)
    for (const id of ed.selection) {
      const { what, ref } = pieceOf(id)
      const i = what === 'pad' ? ed.pads.findIndex((p) => p.id === ref) : -1
      const s = ed.pattern?.pads[i]
      if (s) {
        const o = Object.values(s.on ?? {})[0] ?? s.barrel ?? s.bore
        if (o) {
          const grown = { ...o, r: (o.r ?? 0) + 2.5e6 * px }
          const b = outlineBox(grown, still)
          ctx.strokeStyle = c.select
          ctx.lineWidth = 2 * px
          ctx.strokeRect(b.minX / 1e6, b.minY / 1e6, (b.maxX - b.minX) / 1e6, (b.maxY - b.minY) / 1e6)
        }
      } else if (what === 'silk' || what === 'body') {
        const g = f[what].find((x, k) => (x.id || k + 1) === ref)
        if (!g) continue
        ctx.beginPath()
        traceFigure(ctx, g)
        ctx.strokeStyle = c.select
        ctx.lineWidth = Math.max((g.width ?? 0) / 1e6 + 2 * px, 3 * px)
        ctx.stroke()
      } else {
        const b = ed.scene.boxOf(id)
        if (!b) continue
        ctx.strokeStyle = c.select
        ctx.lineWidth = 1.5 * px
        ctx.strokeRect(b.minX / 1e6, b.minY / 1e6, (b.maxX - b.minX) / 1e6, (b.maxY - b.minY) / 1e6)
      }
    }
  for (const flaw of ed.shown.value?.found ?? [])
    for (const ref of flaw.pads ?? []) {
      const i = ed.pads.findIndex((p) => p.id === ref)
      const s = ed.pattern?.pads[i]
      if (!s || flaw.severity === 'todo') continue
      for (const o of [...Object.values(s.on ?? {}), ...(s.barrel ? [s.barrel] : [])].slice(0, 1)) {
        ctx.globalAlpha = 0.28
        paintOutline(pen, o, still, c.finding, 1e6 * 2 * px)
        ctx.globalAlpha = 1
      }
    }
  if (ed.shaped && !ed.grab) paintGrips(pen, padGrips(ed.shaped), c.select)
  ed.paint(pen)
  if (ed.keyed) {
    ctx.beginPath()
    ctx.arc(ed.at.x / 1e6, ed.at.y / 1e6, 4 * px, 0, 2 * Math.PI)
    ctx.strokeStyle = c.select
    ctx.stroke()
  }
}

async function lay(f: File | undefined) {
  if (!f) return
  await props.project.edit('layBeneath', { footprint: ed.state.footprint, name: f.name, data: await base64(f), at: { x: 0, y: 0 }, width: 0 }).catch(complain) // prettier-ignore
  ed.take('beneath')
}

async function takePads(pads: Pad[]) {
  pasting.value = false
  await ed.edit({ pads })
  frameAll()
  canvas.value?.focus()
}

const grids = [100_000, 50_000, 25_000, 10_000, 500_000, 635_000, 1_000_000]
const nextGrid = () => {
  taste.partGrid = grids[(grids.indexOf(taste.partGrid) + 1) % grids.length]
  ed.scene.invalidate()
}
const commands: Command[] = [
  ...hand.commands,
  { id: 'left', title: 'Turn left', keys: 'Q', group: 'Change', run: () => ed.turn(1), enabled: picked },
  { id: 'right', title: 'Turn right', keys: 'E', group: 'Change', run: () => ed.turn(-1), enabled: picked },
  { id: 'remove', title: 'Remove', keys: 'Del / Backspace', group: 'Change', run: () => ed.remove(), enabled: picked },
  { id: 'all', title: 'Select all', keys: 'Ctrl A', group: 'Change', run: () => ed.selectAll() },
  ...nudges('Nudge what is picked, or lead the hand,', (dx, dy) => ed.nudge(dx, dy)),
  { id: 'frame', title: 'Frame all', keys: 'F', group: 'See', run: frameAll },
  { id: 'frameSel', title: 'Frame the selection', keys: 'Shift F', group: 'See', run: frameSelection },
  { id: 'grid', title: 'Grid on or off', keys: 'G', group: 'See', run: () => ((taste.gridOn = !taste.gridOn), ed.scene.invalidate()) }, // prettier-ignore
  { id: 'paper', title: 'Dark or light paper', group: 'See', run: () => (taste.boardShade = taste.boardShade === 'dark' ? 'light' : 'dark') }, // prettier-ignore
  { id: 'pads', title: 'Paste a table of pads', keys: 'Ctrl Shift V', group: 'Footprint', run: () => (pasting.value = true) }, // prettier-ignore
  { id: 'generate', title: 'Generate from dimensions', keys: 'Ctrl G', group: 'Footprint', run: () => emit('generate', ed.state.footprint) }, // prettier-ignore
  { id: 'back', title: 'Back to the library', keys: 'Alt ArrowLeft', group: 'Footprint', run: () => emit('back') },
]
useCommands(commands, hand.early)
const hasPicture = computed(() => (void props.project.docTick.value, !!ed.f?.beneath))
const seen = computed(() => [
  { id: 'copper', name: 'Copper', colour: copperColour(0, 2) },
  { id: 'mask', name: 'Mask', colour: ed.colours.mask },
  { id: 'paste', name: 'Paste', colour: ed.colours.paste },
  { id: 'silk', name: 'Silk', colour: ed.colours.silkTop },
  { id: 'body', name: 'Outline', colour: ed.colours.others },
  { id: 'courtyard', name: 'Courtyard', colour: ed.colours.yard },
  { id: 'dimension', name: 'Dimensions', colour: ed.colours.agrees },
  ...(hasPicture.value ? [{ id: 'beneath', name: 'Picture', colour: '#888' }] : []),
])
const grid = [dots(() => ed.colours, () => ({ pitch: taste.partGrid, on: taste.gridOn, apart: 9 }))] // prettier-ignore
defineExpose({ ed, idOf })
</script>

<template>
  <DrawingFrame ref="strip" :ed="ed" :hand="hand" :grid="taste.partGrid" @grid="nextGrid" @focus="canvas?.focus()">
    <CanvasView
      ref="canvas"
      :scene="ed.scene"
      label="Footprint"
      :ground="() => ed.colours.paper"
      :sheets="() => grid"
      :alpha="ed.alpha"
      :overlay="overlay"
      :cursor="ed.picks ? 'default' : 'crosshair'"
      v-on="hand.on"
      @ready="ready"
    />
    <LayerChips v-model:hidden="ed.state.hidden" :layers="seen" />
    <div v-if="ed.f && !ed.f.pads.length && ed.picks" class="float drawing-empty">
      <p>Draw the pads from the datasheet’s drawing: press <kbd>P</kbd>, or give the body’s dimensions and have it generated.</p>
      <div class="two">
        <v-btn color="primary" variant="flat" @click="emit('generate', ed.state.footprint)">Generate from dimensions</v-btn>
        <v-btn variant="outlined" @click="hand.take('pad')">Place a pad</v-btn>
        <v-btn variant="outlined" @click="pasting = true">Paste a table</v-btn>
      </div>
    </div>
    <FilePick ref="file" label="Picture of the datasheet’s drawing" accept=".png,.jpg,.jpeg,.svg" @files="([f]) => lay(f)" />
    <PadListPanel v-if="pasting" :project="project" @take="takePads" @close="((pasting = false), canvas?.focus())" />
    <template #side>
      <SidePanel>
        <FootprintDetails :editor="ed" @generate="emit('generate', ed.state.footprint)" @frame="frameSelection" />
      </SidePanel>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.two {
  display: flex;
  gap: 8px;
}
</style>
