<script setup lang="ts">
import { mdiCloseThick, mdiCursorDefaultOutline, mdiFlashOutline, mdiTagOutline, mdiVectorPolyline, mdiChip } from '@mdi/js'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import CanvasView, { type Hand } from '../canvas/CanvasView.vue'
import { boxOf, type Viewport } from '../canvas/viewport'
import type { Project } from '../live/project'
import type { Finding } from '../live/wire.gen'
import { useCommands } from '../shell/commands'
import DetailsPanel from '../shell/DetailsPanel.vue'
import Footline from '../shell/Footline.vue'
import { complain } from '../shell/notices'
import { useTaste } from '../shell/taste'
import ToolShelf from '../shell/ToolShelf.vue'
import CircuitDetails from './CircuitDetails.vue'
import { sheetSize } from './draw'
import { CircuitEditor, type ToolName } from './editor'
import { drawOverlay } from './overlay'
import PartFinder from './PartFinder.vue'

const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ where: [string] }>()
const route = useRoute()
const taste = useTaste()
const ed = new CircuitEditor(props.project, taste)
const canvas = ref<InstanceType<typeof CanvasView>>()
const at = ref<{ x: number; y: number } | null>(null)
const lastClick = ref<{ x: number; y: number } | null>(null)
const editing = ref<{ id: number; field: 'designator' | 'value' | 'name'; value: string; x: number; y: number } | null>(null)
const editInput = ref<HTMLInputElement>()
const empty = computed(
  () => (void props.project.docTick.value, props.project.all('part').length + props.project.all('wire').length === 0),
)

ed.redraw = () => canvas.value?.redraw()
ed.editText = (t) => {
  const p = canvas.value!.view.toScreen(t.at)
  editing.value = { id: t.id, field: t.field, value: t.value, x: p.x, y: p.y }
  void nextTick(() => editInput.value?.select())
}
function keepText() {
  const e = editing.value
  editing.value = null
  if (!e) return
  const job =
    e.field === 'name'
      ? props.project.edit('renameLabel', { id: e.id, name: e.value })
      : props.project.edit('setPart', { id: e.id, [e.field]: e.value })
  job.catch((err) => !String(err).includes('change nothing') && complain(err))
  canvas.value?.focus()
}

const firstSheet = () => props.project.all('sheet').sort((a, b) => a.order - b.order)[0]
function load() {
  const s = props.project.get('sheet', ed.sheet) ?? firstSheet()
  ed.load(s.id)
  emit('where', s.name)
}
const offs = [
  props.project.onChange((changes, whole) => {
    if (whole) load()
    else ed.changed(changes)
    emit('where', props.project.get('sheet', ed.sheet)?.name ?? '')
  }),
  props.project.onDerived(() => ed.derived()),
]
onBeforeUnmount(() => offs.forEach((off) => off()))
watch(() => taste.circuitShade, () => ed.scene.invalidate()) // prettier-ignore
watch(
  () => [
    ed.selection.size,
    ed.state.tool,
    ed.state.turn,
    ed.state.mirror,
    ed.project.lit.value,
    ed.state.labelName,
    ed.state.supplyName,
    ed.state.supplyShape,
  ],
  () => canvas.value?.redraw(),
)

function frameAll() {
  const size = sheetSize[props.project.get('sheet', ed.sheet)?.size ?? 'A4']
  canvas.value?.show({ minX: 0, minY: 0, maxX: size.x, maxY: size.y }, 16)
}
function frameSelection() {
  const b = ed.boxOf(ed.selection)
  if (b) canvas.value?.show(b, 140, 0, 8e-6)
}
function goTo(box: { minX: number; minY: number; maxX: number; maxY: number }) {
  canvas.value?.show({ minX: box.minX - 25e6, minY: box.minY - 20e6, maxX: box.maxX + 25e6, maxY: box.maxY + 20e6 }, 40, 0, 8e-6)
}
function pickPart(id: number) {
  const p = props.project.get('part', id)
  if (!p) return
  if (p.sheet !== ed.sheet) {
    ed.load(p.sheet)
    emit('where', props.project.get('sheet', p.sheet)?.name ?? '')
  }
  ed.take('select')
  ed.selection.clear()
  ed.selection.add(id)
  const b = ed.scene.boxOf(id)
  if (b) goTo(b)
}
function lightNet(name: string) {
  ed.project.lit.value = ed.project.lit.value === name ? '' : name
  const net = props.project.nets.get(name)
  const b = net && ed.boxOf([...net.items, ...net.pins.map((p) => p.part)])
  if (ed.project.lit.value && b) goTo(b)
}
function showFinding(f: Finding) {
  if (f.stage !== 'circuit') return
  ed.take('select')
  ed.selection.clear()
  for (const id of f.objects ?? []) ed.selection.add(id)
  goTo(boxOf([f.at], 5e6))
}
function ready() {
  const b = ed.content()
  if (b) canvas.value?.show(b, 90, 0, 5e-6)
  else frameAll()
  followRoute()
}
function followRoute() {
  if (route.query.id) pickPart(Number(route.query.id))
  if (route.query.net) {
    ed.project.lit.value = ''
    lightNet(String(route.query.net))
  }
  const f = route.query.finding && props.project.findings.get(String(route.query.finding))
  if (f) showFinding(f)
}
watch(() => route.query, () => canvas.value && followRoute()) // prettier-ignore

function paper(ctx: CanvasRenderingContext2D, view: Viewport) {
  const c = ed.colours
  const dpr = ctx.canvas.width / view.width
  ctx.fillStyle = c.paper
  ctx.fillRect(0, 0, ctx.canvas.width, ctx.canvas.height)
  let grid = taste.circuitGrid
  if (!taste.gridOn) return
  while (grid * view.scale < 9) grid *= 2
  if (grid > taste.circuitGrid * 8) return
  ctx.fillStyle = c.dots
  const b = view.box
  for (let x = Math.ceil(b.minX / grid) * grid; x <= b.maxX; x += grid)
    for (let y = Math.ceil(b.minY / grid) * grid; y <= b.maxY; y += grid) {
      const p = view.toScreen({ x, y })
      ctx.fillRect(Math.round(p.x * dpr), Math.round(p.y * dpr), dpr, dpr)
    }
}
const tolerance = () => 7 / (canvas.value?.view.scale ?? 1e-6)

function move(h: Hand) {
  ed.move(h.at, tolerance())
  at.value = ed.at
}
function down(h: Hand) {
  editing.value = null
  ed.down(h.at, tolerance(), h.event)
  lastClick.value = { ...ed.at }
}

const tools = [
  { id: 'select', name: 'Select', icon: mdiCursorDefaultOutline, keys: 'S' },
  { id: 'part', name: 'Part', icon: mdiChip, keys: 'N' },
  { id: 'wire', name: 'Wire', icon: mdiVectorPolyline, keys: 'C' },
  { id: 'label', name: 'Label', icon: mdiTagOutline, keys: 'T' },
  { id: 'supply', name: 'Supply', icon: mdiFlashOutline, keys: 'P' },
  { id: 'open', name: 'Left open', icon: mdiCloseThick, keys: 'O' },
]
function take(t: string) {
  if (t === 'part') {
    ed.part = null
    ed.take('part')
    ed.state.finding = true
  } else ed.take(t as ToolName)
  if (t === 'label') void nextTick(() => document.querySelector<HTMLInputElement>('[data-test="label-text"]')?.focus())
  else if (t !== 'part') canvas.value?.focus()
}
const editTool = () => ed.state.tool === 'select' && ed.selection.size > 0
const grids = [1_250_000, 2_500_000, 5_000_000]
const nextGrid = () => (taste.circuitGrid = grids[(grids.indexOf(taste.circuitGrid) + 1) % grids.length])

useCommands(
  [
    ...tools.map((t) => ({
      id: t.id,
      title: t.id === 'select' ? 'Select' : `${t.name} tool`,
      keys: t.keys,
      group: 'Draw',
      run: () => take(t.id),
    })),
    { id: 'left', title: 'Turn left', keys: 'Q', group: 'Change', run: () => ed.turn(1) },
    { id: 'right', title: 'Turn right', keys: 'E', group: 'Change', run: () => ed.turn(-1) },
    { id: 'mirror', title: 'Mirror', keys: 'M', group: 'Change', run: () => ed.mirror() },
    { id: 'remove', title: 'Remove', keys: 'Del / Backspace', group: 'Change', run: () => ed.remove(), enabled: editTool },
    {
      id: 'rename',
      title: 'Edit the value in place',
      keys: 'V',
      group: 'Change',
      run: () => editPicked('value'),
      enabled: editTool,
    },
    {
      id: 'designate',
      title: 'Edit the designator or name in place',
      keys: 'R',
      group: 'Change',
      run: () => editPicked('designator'),
      enabled: editTool,
    },
    { id: 'copy', title: 'Copy', keys: 'Ctrl C', group: 'Change', run: () => void ed.copy() },
    { id: 'paste', title: 'Paste at the cursor', keys: 'Ctrl V', group: 'Change', run: () => void ed.paste() },
    { id: 'duplicate', title: 'Duplicate', keys: 'Ctrl D', group: 'Change', run: () => void ed.duplicate() },
    { id: 'all', title: 'Select all', keys: 'Ctrl A', group: 'Change', run: () => ed.selectAll() },
    ...(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'] as const).flatMap(
      (k, i) =>
      [1, 10].map((n) => ({ id: k + n, title: `Nudge ${['left', 'right', 'up', 'down'][i]}${n > 1 ? ' by ten' : ''}`, keys: (n > 1 ? 'Shift ' : '') + k, group: 'Nudge', run: () => ed.nudge([-n, n, 0, 0][i], [0, 0, n, -n][i]), enabled: editTool })), // prettier-ignore
    ),
    { id: 'frame', title: 'Frame the sheet', keys: 'F', group: 'See', run: frameAll },
    { id: 'frameSel', title: 'Frame the selection', keys: 'Shift F', group: 'See', run: frameSelection },
    {
      id: 'net',
      title: 'Highlight the net under the cursor',
      keys: 'H',
      group: 'See',
      run: () => (ed.project.lit.value = ed.netUnder(ed.at, tolerance())),
    },
    {
      id: 'grid',
      title: 'Grid on or off',
      keys: 'G',
      group: 'See',
      run: () => ((taste.gridOn = !taste.gridOn), ed.scene.invalidate()),
    },
    {
      id: 'paper',
      title: 'Dark or light paper',
      group: 'See',
      run: () => (taste.circuitShade = taste.circuitShade === 'dark' ? 'light' : 'dark'),
    },
  ],
  (name) => {
    if (name === 'Esc') return ed.back()
    if (name === 'Enter' && ed.state.tool === 'wire') {
      ed.finishWire()
      return true
    }
    if ((name === 'Tab' || name === 'Space') && ed.state.tool === 'wire') {
      ed.state.bendFlipped = !ed.state.bendFlipped
      ed.redraw()
      return true
    }
    if (name === 'Backspace' && ed.wirePath.length) return ed.back()
    if (name === 'Space') canvas.value?.hold(true)
    return false
  },
)
function editPicked(field: 'designator' | 'value') {
  const id = [...ed.selection][0]
  const found = props.project.find(id)
  if (found?.kind === 'part') {
    const p = found.object as { designator: string; value: string; at: { x: number; y: number } }
    ed.editText({ id, field, value: p[field], at: p.at })
  } else if (found?.kind === 'label' || found?.kind === 'supply') {
    const l = found.object as { name: string; at: { x: number; y: number } }
    ed.editText({ id, field: 'name', value: l.name, at: l.at })
  }
}
const release = (e: KeyboardEvent) => e.key === ' ' && canvas.value?.hold(false)
onMounted(() => {
  load()
  window.addEventListener('keyup', release)
})
onBeforeUnmount(() => window.removeEventListener('keyup', release))

const hint = computed(() => {
  if (ed.state.warning) return ed.state.warning
  switch (ed.state.tool) {
    case 'part':
      return 'click places · Q E turn · M mirror · N another part · Esc ends'
    case 'wire':
      return 'click sets a corner · Tab bends the other way · Enter or double click ends · Esc steps back'
    case 'label':
      return 'click names the net there · Q E turn · Esc ends'
    case 'supply':
      return 'click places · Q E turn · Esc ends'
    case 'open':
      return 'click marks a pin as left open on purpose · Esc ends'
  }
  return ed.selection.size
    ? 'drag moves, wires follow · Q E turn · M mirror · Del removes · V value · R designator'
    : 'click picks · drag picks by box · middle drag moves the paper · wheel zooms · N part · C wire'
})
defineExpose({ ed })
</script>

<template>
  <div class="drawing-page">
    <div class="drawing-middle">
      <div class="drawing-paper">
        <CanvasView
          ref="canvas"
          :scene="ed.scene"
          label="Circuit sheet"
          :paper="paper"
          :overlay="(pen) => drawOverlay(ed, pen)"
          :cursor="ed.state.tool === 'select' ? 'default' : 'crosshair'"
          @move="move"
          @down="down"
          @up="ed.up($event.at)"
          @double="ed.double($event.at)"
          @ready="ready"
        />
        <div v-if="empty && ed.state.tool === 'select'" class="float drawing-empty">
          <p>Begin with a part: press <kbd>N</kbd>, type what you look for and click where it shall stand.</p>
          <v-btn color="primary" variant="flat" @click="take('part')">Place a part</v-btn>
        </div>
        <div v-if="ed.state.warning" class="float warning" role="alert">{{ ed.state.warning }}</div>
        <input
          v-if="editing"
          ref="editInput"
          v-model="editing.value"
          class="inline mono"
          :style="{ left: editing.x - 60 + 'px', top: editing.y - 14 + 'px' }"
          :aria-label="`Edit the ${editing.field}`"
          data-test="inline"
          @keydown.enter.prevent="keepText"
          @keydown.esc.stop="editing = null"
          @blur="keepText"
        />
        <PartFinder
          v-if="ed.state.finding"
          @choose="(it) => (ed.choose(it), canvas?.focus())"
          @close="((ed.state.finding = false), ed.part || ed.take('select'), canvas?.focus())"
        />
        <ToolShelf :tools="tools" :current="ed.state.tool" @take="take">
          <template v-if="ed.state.tool === 'label'" #default>
            <label class="opt"
              >Net
              <input
                v-model="ed.state.labelName"
                class="mono"
                data-test="label-text"
                aria-label="Name of the net"
                @keydown.enter="canvas?.focus()"
            /></label>
          </template>
          <template v-else-if="ed.state.tool === 'supply'" #default>
            <label class="opt"
              >Name
              <input
                v-model="ed.state.supplyName"
                class="mono"
                data-test="supply-text"
                aria-label="Name of the supply"
                @keydown.enter="canvas?.focus()"
            /></label>
            <button
              v-for="[shape, name, word] in [
                ['ground', 'GND', 'Ground'],
                ['bar', '+5V', 'Supply bar'],
              ]"
              :key="shape"
              class="choice"
              :class="{ on: ed.state.supplyShape === shape }"
              :aria-pressed="ed.state.supplyShape === shape"
              :data-test="'supply-' + shape"
              @click="((ed.state.supplyShape = shape as 'bar'), (ed.state.supplyName = name), canvas?.focus())"
            >
              {{ word }}
            </button>
          </template>
          <template v-else-if="ed.state.tool === 'part' && ed.part" #default>
            <span>{{ ed.part.part?.name }}</span><span class="quiet">{{ ed.part.part?.footprint }}</span>
          </template>
        </ToolShelf>
      </div>
      <DetailsPanel
        :project="project"
        stage="circuit"
        :net="ed.project.lit.value"
        @part="pickPart"
        @net="lightNet"
        @finding="showFinding"
      >
        <CircuitDetails :project="project" :editor="ed" />
      </DetailsPanel>
    </div>
    <Footline
      :at="at"
      :from="lastClick"
      :grid="taste.circuitGrid"
      :grid-on="taste.gridOn"
      :unit="taste.unit"
      :hint="hint"
      @grid="(nextGrid(), ed.scene.invalidate())"
    />
  </div>
</template>

<style scoped>
.warning {
  position: absolute;
  top: 12px;
  left: 50%;
  transform: translateX(-50%);
  padding: 6px 14px;
  border-left: 3px solid rgb(var(--v-theme-error));
}
.inline {
  position: absolute;
  width: 120px;
  padding: 4px 8px;
  border-radius: 6px;
  border: 2px solid rgb(var(--v-theme-info));
  background: rgb(var(--v-theme-surface));
  color: inherit;
  font-size: 13px;
  z-index: 7;
}
</style>
