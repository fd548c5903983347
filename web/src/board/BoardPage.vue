<script setup lang="ts">
import {
  mdiCursorDefaultOutline,
  mdiFormatText,
  mdiRecordCircleOutline,
  mdiRulerSquare,
  mdiVectorLine,
  mdiVectorSquare,
} from '@mdi/js'
import { computed, onBeforeUnmount, onMounted, onUnmounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import CanvasView, { type Hand } from '../canvas/CanvasView.vue'
import { dots, nudges, pickForMenu, usePanKey } from '../canvas/page'
import { ringBox } from '../canvas/arcs'
import type { Pen } from '../canvas/pen'
import { type Box, boxOf } from '../canvas/viewport'
import type { Project } from '../live/project'
import { format } from '../live/units'
import type { Finding } from '../live/wire.gen'
import { type Crumb, useCommands } from '../shell/commands'
import DetailsPanel from '../shell/DetailsPanel.vue'
import { entriesOf, openMenu } from '../shell/menu'
import type { Command } from '../shell/keys'
import Footline from '../shell/Footline.vue'
import HandName from '../shell/fields/HandName.vue'
import LengthField from '../shell/fields/LengthField.vue'
import { useTaste } from '../shell/taste'
import ToolShelf from '../shell/ToolShelf.vue'
import BoardDetails from './BoardDetails.vue'
import CarryPanel from './CarryPanel.vue'
import { BoardEditor, type BoardTool } from './editor'
import LayerLadder from './LayerLadder.vue'
import { drawFindings, drawLinks, drawNet, drawOverlay } from './overlay'

const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ where: [Crumb[]] }>()
const route = useRoute()
const taste = useTaste()
const ed = new BoardEditor(props.project, taste)
const canvas = ref<InstanceType<typeof CanvasView>>()
const at = ref<{ x: number; y: number } | null>(null)
const lastClick = ref<{ x: number; y: number } | null>(null)
ed.redraw = () => canvas.value?.redraw()

const stages = computed(() => props.project.stages.value)
const empty = computed(() => (void props.project.docTick.value, props.project.all('placed').length === 0))
const hasCircuit = computed(() => (void props.project.docTick.value, props.project.all('part').length > 0))
const openLinks = computed(
  () => (void props.project.derivedTick.value, [...props.project.links.values()].reduce((n, l) => n + l.length, 0)),
)

const offs = [
  props.project.onChange((changes, whole) => (whole ? ed.reload() : ed.changed(changes))),
  props.project.onDerived(() => canvas.value?.redraw()),
]
onBeforeUnmount(() => offs.forEach((off) => off()))
watch(() => taste.boardShade, () => ed.scene.invalidate()) // prettier-ignore
watch(() => [ed.selection.size, ed.state.tool, ed.project.lit.value, ed.project.othersPicked.value, ed.state.showLinks, ed.state.style], () => canvas.value?.redraw()) // prettier-ignore

const frameAll = () => canvas.value?.show(ed.content(), 50, 160, 4e-5)
function goTo(b: Box) {
  canvas.value?.show({ minX: b.minX - 6e6, minY: b.minY - 6e6, maxX: b.maxX + 6e6, maxY: b.maxY + 6e6 }, 40, 0, 5e-5)
}
/** What is picked here is picked in the circuit and in other windows, and the other way round. */
function share() {
  const parts = [...ed.selection]
    .map((id) => props.project.get('placed', id))
    .filter((p) => !!p)
    .map((p) => ({ part: p.part, ...(p.path ? { path: p.path } : {}) }))
  if (JSON.stringify(parts) !== JSON.stringify(props.project.picked.value)) props.project.pick(parts)
}
function follow() {
  const want = new Set(props.project.picked.value.map((r) => `${r.part} ${r.path ?? ''}`))
  const ids = props.project.all('placed').filter((p) => want.has(`${p.part} ${p.path ?? ''}`)).map((p) => p.id) // prettier-ignore
  const own = [...ed.selection].filter((id) => props.project.kind(id) === 'placed')
  if (ids.length === own.length && ids.every((id) => ed.selection.has(id))) return
  ed.selection.clear()
  ids.forEach((id) => ed.selection.add(id))
  ed.redraw()
}
watch(() => [...ed.selection], share)
watch(props.project.picked, follow)
function pick(id: number) {
  if (!props.project.find(id)) return
  ed.take('select')
  ed.selection.clear()
  ed.selection.add(id)
  const b = ed.scene.boxOf(id)
  if (b) goTo(b)
}
function lightNet(name: string) {
  ed.project.light(ed.project.lit.value === name ? '' : name)
  const net = ed.project.named('net', name)?.id
  if (!ed.project.lit.value || !net) return
  const ids = [
    ...props.project.all('placed').filter((p) => Object.values(p.nets).includes(net)),
    ...props.project.all('track').filter((t) => t.net === net),
  ].map((o) => o.id)
  const b = ed.boxOf(ids)
  if (b) goTo(b)
}
function showFinding(f: Finding) {
  if (f.stage !== 'board') return
  ed.take('select')
  ed.selection.clear()
  for (const id of f.objects ?? []) if (props.project.kind(id) !== 'board') ed.selection.add(id)
  if (f.layer) ed.toLayer(f.layer)
  if (f.kind === 'links') ed.project.light(f.key.slice(6))
  ed.flagged = f.at
  goTo(boxOf([f.at], 3e6))
}
function followRoute() {
  if (route.query.id) pick(Number(route.query.id))
  if (route.query.net) {
    ed.project.light('')
    lightNet(String(route.query.net))
  }
  const f = route.query.finding && props.project.findings.get(String(route.query.finding))
  if (f) showFinding(f)
}
watch(() => route.query, () => canvas.value && followRoute()) // prettier-ignore
function ready() {
  frameAll()
  follow()
  followRoute()
  requestAnimationFrame(() => requestAnimationFrame(() => props.project.shown()))
}

const sheets = [
  dots(() => ed.look().colours, () => ({ pitch: taste.boardGrid, on: taste.gridOn, apart: 10 })), // prettier-ignore
  { name: 'net', order: 100, empty: () => !props.project.lit.value, paint: (pen: Pen, box: Box) => drawNet(ed, pen, box) },
  {
    name: 'links',
    order: 101,
    empty: () => !ed.state.showLinks || !props.project.links.size,
    paint: (pen: Pen, box: Box) => drawLinks(ed, pen, box),
  },
  {
    name: 'findings',
    order: 102,
    empty: () => !props.project.findings.size,
    paint: (pen: Pen, box: Box) => drawFindings(ed, pen, box),
  },
]
/** What is marked of the whole design is painted anew when it changed. */
const renew = (...names: string[]) => names.forEach((n) => canvas.value?.renew(n))
watch(() => [props.project.lit.value, ed.state.hoverNet, ed.state.showLinks, ed.dragLinks.value && Object.keys(ed.dragLinks.value).join()], () => renew('net', 'links')) // prettier-ignore
onUnmounted(
  props.project.onDerived((d) => {
    if (Object.keys(d.links ?? {}).length) renew('links')
    if (d.findings?.length || d.mended?.length) renew('findings')
  }),
)
onUnmounted(props.project.onChange(() => props.project.lit.value && renew('net', 'links')))
const tolerance = () => 7 / (canvas.value?.view.scale ?? 1e-5)
function move(h: Hand) {
  ed.move(h.at, tolerance())
  at.value = ed.at
}
function down(h: Hand) {
  ed.down(h.at, tolerance(), h.event)
  lastClick.value = { ...ed.at }
}

const tools = [
  { id: 'select', name: 'Select', icon: mdiCursorDefaultOutline, keys: 'S' },
  { id: 'track', name: 'Track', icon: mdiVectorLine, keys: 'T' },
  { id: 'outline', name: 'Outline', icon: mdiVectorSquare, keys: 'Y' },
  { id: 'hole', name: 'Hole', icon: mdiRecordCircleOutline, keys: 'O' },
  { id: 'text', name: 'Text', icon: mdiFormatText, keys: 'W' },
  { id: 'measure', name: 'Measure', icon: mdiRulerSquare, keys: 'D' },
]
const take = (t: string) => {
  ed.take(t as BoardTool)
  canvas.value?.focus()
}
const picked = () => ed.state.tool === 'select' && ed.selection.size > 0
const grids = [1_270_000, 635_000, 500_000, 317_500, 100_000, 1_000_000]
const nextGrid = () => {
  taste.boardGrid = grids[(grids.indexOf(taste.boardGrid) + 1) % grids.length]
  ed.scene.invalidate()
}
const styleNames = ['45°, straight first', '45°, slanted first', '90°', 'free']

const commands: Command[] = [
  ...tools.map((t) => ({
    id: t.id,
    title: t.id === 'select' ? 'Select' : `${t.name} tool`,
    keys: t.keys,
    group: 'Tools',
    run: () => take(t.id),
  })),
  { id: 'carry', title: 'Carry to board', keys: 'C', group: 'Tools', run: () => (ed.state.carrying = true) },
  { id: 'left', title: 'Turn left', keys: 'Q', group: 'Change', run: () => ed.turn(90_000), enabled: picked },
  { id: 'right', title: 'Turn right', keys: 'E', group: 'Change', run: () => ed.turn(-90_000), enabled: picked },
  { id: 'side', title: 'Other side', keys: 'M', group: 'Change', run: () => ed.flip(), enabled: picked },
  { id: 'lock', title: 'Lock or unlock', keys: 'L', group: 'Change', run: () => ed.lock(), enabled: picked },
  { id: 'remove', title: 'Remove', keys: 'Del / Backspace', group: 'Change', run: () => ed.remove(), enabled: picked },
  {
    id: 'removeTrack',
    title: 'Remove the whole track',
    keys: 'Shift Del',
    group: 'Change',
    run: () => ed.removeWhole(),
    enabled: picked,
  },
  { id: 'removeNet', title: 'Remove all tracks of the net', keys: 'Ctrl Del', group: 'Change', run: () => ed.removeNet() },
  { id: 'all', title: 'Select all', keys: 'Ctrl A', group: 'Change', run: () => ed.selectAll() },
  ...nudges('Nudge', (dx, dy) => ed.nudge(dx, dy), picked),
  { id: 'frame', title: 'Frame all', keys: 'F', group: 'See', run: frameAll },
  { id: 'frameSel', title: 'Frame the selection', keys: 'Shift F', group: 'See', run: () => { const b = ed.boxOf(ed.selection); if (b) goTo(b) } }, // prettier-ignore
  {
    id: 'net',
    title: 'Highlight the net under the cursor',
    keys: 'H',
    group: 'See',
    run: () => ed.project.light(ed.netUnder(ed.raw, tolerance())),
  },
  {
    id: 'links',
    title: 'Open links on or off',
    keys: 'B',
    group: 'See',
    run: () => (ed.state.showLinks = !ed.state.showLinks),
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
    title: 'Dark or light board',
    group: 'See',
    run: () => (taste.boardShade = taste.boardShade === 'dark' ? 'light' : 'dark'),
  },
  ...[1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => ({
    id: 'layer' + n,
    title: `Copper layer ${n}`,
    keys: String(n),
    group: 'See',
    run: () => void ed.hop(ed.copper[n - 1]?.id),
    enabled: () => n <= ed.copper.length,
  })),
  { id: 'layerUp', title: 'Copper layer above', keys: 'PageUp', group: 'See', run: () => ed.stepLayer(-1) },
  { id: 'layerDown', title: 'Copper layer below', keys: 'PageDown', group: 'See', run: () => ed.stepLayer(1) },
  {
    id: 'hop',
    title: 'Hop to the other outer copper layer',
    keys: 'Space',
    group: 'Track',
    run: () => void ed.hop(),
    enabled: () => !!ed.route,
  },
  {
    id: 'style',
    title: 'Next corner style',
    keys: 'Tab',
    group: 'Track',
    run: () => ed.nextStyle(),
    enabled: () => !!ed.route,
  },
  { id: 'end', title: 'End the track here', keys: 'Enter', group: 'Track', run: () => ed.finish(), enabled: () => !!ed.route },
]
useCommands(commands, (name) => {
  if (name === 'Esc') return ed.back()
  if (name === 'Backspace' && ed.route) return ed.back()
  if (name === 'Space' && !ed.route) canvas.value?.hold(true)
  return false
})
/** What can be done to what the right button is pressed on; while a tool is in the hand, with the tool. */
function menu(h: Hand) {
  const at = { x: h.event.clientX, y: h.event.clientY }
  if (ed.state.tool !== 'select') {
    openMenu(at, [
      ...entriesOf(commands, ['end', 'hop', 'style']),
      { title: 'A step back', keys: 'Esc', run: () => void ed.back() },
      { title: 'Put the tool away', keys: 'S', run: () => take('select') },
    ])
    return
  }
  pickForMenu(ed, h, tolerance())
  const ids = ed.selection.size
    ? ['left', 'right', 'side', 'lock', '', 'net', 'frameSel', '', 'remove', 'removeTrack', 'removeNet']
    : ['track', 'outline', 'hole', 'text', 'measure', '', 'carry', 'all', '', 'frame', 'links', 'grid', 'paper']
  openMenu(at, entriesOf(commands, ids))
}
usePanKey((on) => canvas.value?.hold(on))
onMounted(() => {
  emit('where', [{ name: 'Board', go: () => undefined }])
  ed.load()
})

const hint = computed(() => {
  if (ed.state.blocked) return ed.state.blocked
  switch (ed.state.tool) {
    case 'track':
      return ed.state.routing
        ? 'click sets a corner · Space hops · Tab corner style · Enter ends · Esc steps back'
        : 'click a pad, via or track to begin · Esc ends'
    case 'outline':
      return 'drag a rectangle, or type its exact size · Esc ends'
    case 'hole':
      return 'click drills · Esc ends'
    case 'text':
      return 'click prints the text · Esc ends'
    case 'measure':
      return 'click two places; pads and vias are met at their middle · Esc ends'
  }
  return ed.selection.size
    ? 'drag moves · Q E turn · M other side · L lock · arrows nudge · Del removes'
    : 'click picks · drag picks by box · middle drag moves the board · wheel zooms · T track'
})
const outlineBox = computed<Box | null>(
  () => (void props.project.docTick.value, props.project.board.outline?.length ? ringBox(props.project.board.outline) : null),
)
/** What was typed of an outline that is not there yet: it is drawn when both sides are known. */
const asked = ref<{ x: number; y: number; w: number | null; h: number | null }>({ x: 0, y: 0, w: null, h: null })
const outlineSides = computed(() => {
  const b = outlineBox.value
  return b ? { x: b.minX, y: b.minY, w: b.maxX - b.minX, h: b.maxY - b.minY } : { ...asked.value }
})
function setSize(k: 'x' | 'y' | 'w' | 'h', v: number) {
  const s = { ...outlineSides.value, [k]: v }
  if (!outlineBox.value) asked.value = s
  if (s.w !== null && s.h !== null) ed.setRect({ minX: s.x, minY: s.y, maxX: s.x + s.w, maxY: s.y + s.h })
}
const lengthText = computed(() => `${format(ed.state.routeLength, taste.unit, 2)} ${taste.unit}`)
const layerName = computed(() => (void props.project.docTick.value, ed.copper[ed.position(ed.state.layer)]?.name))
defineExpose({ ed })
</script>

<template>
  <div class="drawing-page">
    <div class="drawing-middle">
      <div class="drawing-paper">
        <CanvasView
          ref="canvas"
          :scene="ed.scene"
          label="Board"
          :ground="() => ed.look().colours.paper"
          :sheets="() => sheets"
          :alpha="ed.alpha"
          :overlay="(pen) => drawOverlay(ed, pen)"
          :cursor="ed.state.tool === 'select' ? 'default' : 'crosshair'"
          @move="move"
          @down="down"
          @up="ed.up($event.at)"
          @double="ed.finish()"
          @ready="ready"
          @menu="menu"
        />
        <LayerLadder :project="project" :editor="ed" />
        <div class="topright">
          <span class="float chip" role="status">{{
            openLinks ? `${openLinks} open ${openLinks === 1 ? 'link' : 'links'}` : empty ? 'no parts yet' : 'all links joined'
          }}</span>
          <v-btn v-if="stages.differences && !empty" size="small" class="float stale" @click="ed.state.carrying = true">
            {{ stages.differences }} {{ stages.differences === 1 ? 'difference' : 'differences' }} to the circuit · carry
          </v-btn>
        </div>
        <div v-if="empty && !ed.state.carrying" class="float drawing-empty">
          <template v-if="hasCircuit">
            <p>The circuit has parts that are not on the board yet. Carrying them over puts them beside the outline.</p>
            <v-btn color="primary" variant="flat" @click="ed.state.carrying = true">Carry to board</v-btn>
          </template>
          <template v-else>
            <p>The board takes its parts from the circuit. Draw a few there first.</p>
            <v-btn color="primary" variant="flat" :to="`/project/${project.id}/circuit`">Go to the circuit</v-btn>
          </template>
        </div>
        <CarryPanel
          v-if="ed.state.carrying"
          :project="project"
          @close="ed.state.carrying = false"
          @carried="((ed.state.carrying = false), frameAll())"
        />
        <ToolShelf :tools="tools" :current="ed.state.tool" @take="take">
          <template v-if="ed.state.tool === 'track'" #default>
            <span v-if="ed.state.routing" class="mono" role="status" :aria-label="`Net: ${ed.state.routing}`">{{
              ed.state.routing
            }}</span>
            <span>on {{ layerName }}</span>
            <LengthField label="Width" :value="ed.width" tight @keep="ed.state.width = $event" />
            <v-btn size="small" variant="outlined" title="Tab: next corner style" @click="ed.nextStyle()">
              {{ styleNames[ed.state.style] }}
            </v-btn>
            <span v-if="ed.state.routing" class="mono quiet">{{ lengthText }}</span>
            <span v-if="ed.state.blocked" class="blocked" role="status">{{ ed.state.blocked }}</span>
          </template>
          <template v-else-if="ed.state.tool === 'outline'" #default>
            <LengthField label="Width" :value="outlineSides.w" empty="width" tight @keep="setSize('w', $event)" />
            <LengthField label="Height" :value="outlineSides.h" empty="height" tight @keep="setSize('h', $event)" />
            <LengthField label="x" :value="outlineSides.x" tight @keep="setSize('x', $event)" />
            <LengthField label="y" :value="outlineSides.y" tight @keep="setSize('y', $event)" />
          </template>
          <template v-else-if="ed.state.tool === 'hole'" #default>
            <LengthField label="Diameter" :value="ed.state.holeSize" tight @keep="ed.state.holeSize = $event" />
          </template>
          <template v-else-if="ed.state.tool === 'text'" #default>
            <HandName
              label="Text"
              :value="ed.state.text"
              :names="[]"
              @type="ed.state.text = $event"
              @done="canvas?.focus()"
              @back="(canvas?.focus(), ed.back())"
            />
            <LengthField label="Height" :value="ed.state.textHeight" tight @keep="ed.state.textHeight = $event" />
            <v-checkbox v-model="ed.state.textBottom" label="on the bottom" hide-details />
          </template>
        </ToolShelf>
      </div>
      <DetailsPanel
        :project="project"
        stage="board"
        :net="ed.project.lit.value"
        @part="pick"
        @net="lightNet"
        @finding="showFinding"
      >
        <BoardDetails :project="project" :editor="ed" />
      </DetailsPanel>
    </div>
    <Footline
      :at="at"
      :from="lastClick"
      :grid="taste.boardGrid"
      :grid-on="taste.gridOn"
      :unit="taste.unit"
      :hint="hint"
      @grid="nextGrid"
    />
  </div>
</template>

<style scoped>
.topright {
  position: absolute;
  right: 12px;
  top: 12px;
  display: flex;
  gap: 8px;
  z-index: 4;
}
.chip {
  padding: 4px 10px;
  font:
    500 12.5px Barlow,
    sans-serif;
  color: inherit;
}
.stale.v-btn {
  border: 1px solid rgb(var(--v-theme-error));
  border-radius: 10px;
}
.blocked {
  color: rgb(var(--v-theme-error));
}
</style>
