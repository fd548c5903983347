<script setup lang="ts">
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import CanvasView from '../canvas/CanvasView.vue'
import { dots } from '../canvas/page'
import { boxOf } from '../canvas/viewport'
import DrawingFrame from '../hands/DrawingFrame.vue'
import { useStage } from '../hands/useStage'
import type { Project } from '../live/project'
import type { Finding } from '../live/wire.gen'
import { type Crumb, useCommands } from '../shell/commands'
import DetailsPanel from '../shell/DetailsPanel.vue'
import { entriesOf } from '../shell/menu'
import { complain } from '../shell/notices'
import { typing } from '../shell/keys'
import { useTaste } from '../shell/taste'
import FilePick from '../shell/fields/FilePick.vue'
import OneOf from '../shell/fields/OneOf.vue'
import CircuitDetails from './CircuitDetails.vue'
import { circuitCommands } from './circuitCommands'
import Composer from './Composer.vue'
import { CircuitEditor, type Draft } from './editor'
import FindPanel from './FindPanel.vue'
import { useFraming } from './framing'
import NetsTable from './NetsTable.vue'
import NumberPanel from './NumberPanel.vue'
import { drawOverlay } from './overlay'
import PartFinder from './PartFinder.vue'
import PartsTable from './PartsTable.vue'
import { nameOf, type TextPlace } from './picking'
import { usePrinting } from './printing'
import SheetList from './SheetList.vue'
import { WhichSheet } from './whichSheet'

const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ where: [Crumb[]] }>()
const route = useRoute()
const router = useRouter()
const taste = useTaste()
const ed = new CircuitEditor(props.project, taste)
const canvas = ref<InstanceType<typeof CanvasView>>()
const editing = ref<(TextPlace & { x: number; y: number; old: string; refused?: string }) | null>(null)
const editInput = ref<{ focus: () => void; select: () => void }>()
const draft = ref<Draft | null>(null)
const panel = ref<'' | 'find' | 'numbers'>('')
const view = computed(() => (route.query.view === 'parts' || route.query.view === 'nets' ? route.query.view : 'drawing'))
const file = ref<{ choose: () => void }>()
let pictureAt = { x: 0, y: 0 }
const empty = computed(
  () => (void props.project.docTick.value, void ed.state.painted, ![...props.project.standing(ed.state.sheet)].length),
)

const hand = useStage(ed, canvas, { group: 'Draw', commands: () => commands, menu })
const { tolerance } = hand
ed.editText = (t) => {
  if (t.field === 'text') {
    ed.rewrite(t.id)
    return
  }
  const p = canvas.value!.view.toScreen(t.at)
  editing.value = { ...t, old: t.value, x: p.x, y: p.y }
  void nextTick(() => editInput.value?.select())
}
ed.enter = (sheet, path) => void where.go(sheet, path)
ed.write = (d) => (draft.value = d)
ed.askName = hand.selectName
ed.nameCluster = (id) => {
  const c = props.project.get('cluster', id)!
  ed.pick(id)
  ed.editText({ id, field: 'name', value: c.title, at: { x: Math.min(c.a.x, c.b.x) + 12e6, y: Math.max(c.a.y, c.b.y) } })
}
ed.askPicture = (p) => {
  pictureAt = p
  file.value?.choose()
}
async function addPicture(f: File | undefined, p = pictureAt) {
  if (!f) return
  const bytes = new Uint8Array(await f.arrayBuffer())
  let s = ''
  for (let i = 0; i < bytes.length; i += 8192) s += String.fromCharCode(...bytes.subarray(i, i + 8192))
  await ed.run('addPicture', { sheet: ed.sheet, name: f.name, data: btoa(s), at: p, width: 0 })
}
function dropFile(e: DragEvent) {
  const f = e.dataTransfer?.files[0]
  const r = (e.currentTarget as HTMLElement).getBoundingClientRect()
  if (f) void addPicture(f, canvas.value!.view.toWorld(e.clientX - r.left, e.clientY - r.top))
}

/** Keeps what was typed; leaving the field with what was refused already gives it up. */
function keepText(leaving = false) {
  const e = editing.value
  editing.value = null
  if (!e || e.value === '' || e.value === e.old || (leaving && e.value === e.refused)) return
  const job =
    e.field === 'name'
      ? props.project.edit('setName', { id: e.id, name: e.value })
      : props.project.edit('setPart', { id: e.id, [e.field]: e.value, ...(ed.path ? { path: ed.path } : {}) })
  job.catch((err) => {
    if (!String(err).includes('change nothing')) complain(err)
    if (!(err instanceof Error && err.message) || editing.value) return
    editing.value = { ...e, refused: e.value } // what was typed is not lost, and the keys are with it unless they are elsewhere by now
    if (!typing(document.activeElement)) void nextTick(() => editInput.value?.select())
  })
  canvas.value?.focus()
}

// ---- which sheet

const framing = useFraming(ed, taste, canvas, () => view.value === 'drawing')
const where = new WhichSheet(
  props.project,
  ed,
  (crumbs) => emit('where', crumbs),
  () => framing.opening(),
  (sheet, path) =>
    void router.push({ query: { ...(view.value === 'drawing' ? {} : { view: view.value }), sheet, ...(path ? { path } : {}) } }),
)
const load = () => where.load(route.query)
const offs = [
  props.project.onChange((changes, whole, drawn) => {
    if (whole || !props.project.get('sheet', ed.sheet)) void load()
    else ed.changed(changes, drawn)
    if (changes.some((c) => c.kind === 'sheet' || c.kind === 'block')) where.tellWhere()
  }),
  props.project.onDerived((d) => {
    if (d.places?.length && !where.has(ed.sheet, ed.path)) void load()
    ed.derived(!!d.places?.length)
  }),
]
onBeforeUnmount(() => offs.forEach((off) => off()))
watch(() => taste.circuitShade, () => ed.scene.invalidate()) // prettier-ignore

// ---- what is seen

async function pickObject(id: number, path?: string) {
  const o = props.project.find(id)?.object as { sheet?: number } | undefined
  if (!o?.sheet) return
  await where.showFor(o.sheet, path)
  ed.take('select')
  ed.pick(id)
  const b = ed.scene.boxOf(id)
  if (b) framing.around(b)
}
async function lightNet(name: string, toggle = true) {
  props.project.light(toggle && props.project.lit.value === name ? '' : name)
  const net = props.project.nets.get(name)
  if (!props.project.lit.value || !net) return
  const uses = net.uses ?? []
  const onHere = () => uses.find((u) => u.sheet === ed.sheet && (u.path ?? '') === ed.path)
  if (!onHere() && uses.length) await where.show(uses[0].sheet, uses[0].path ?? '', false)
  const b = ed.boxOf([...(onHere()?.items ?? []), ...net.pins.filter((p) => (p.path ?? '') === ed.path).map((p) => p.part)])
  if (b) framing.around(b)
}
async function showFinding(f: Finding) {
  if (f.stage !== 'circuit' || !f.sheet) return
  await where.show(f.sheet, f.path ?? '', false)
  ed.take('select')
  ed.selection.clear()
  for (const id of f.objects ?? []) if (props.project.find(id)) ed.selection.add(id)
  framing.around(boxOf([f.at], 5e6))
}
const isReady = ref(false)
async function ready() {
  isReady.value = true
  if (!ed.state.painted) await load()
  framing.opening()
  await followRoute()
}
async function followRoute() {
  const q = route.query
  if (
    q.sheet &&
    (Number(q.sheet) !== ed.sheet || String(q.path ?? '') !== ed.path) &&
    where.has(Number(q.sheet), String(q.path ?? ''))
  )
    await where.show(Number(q.sheet), String(q.path ?? ''))
  if (q.id) await pickObject(Number(q.id), q.path === undefined ? undefined : String(q.path))
  if (q.net) {
    props.project.light('')
    await lightNet(String(q.net))
  }
  const f = q.finding && props.project.findings.get(String(q.finding))
  if (f) await showFinding(f)
}
watch(() => route.query, () => isReady.value && void followRoute()) // prettier-ignore

const canvasOn = { ...hand.on, down: (h: Parameters<typeof hand.on.down>[0]) => ((editing.value = null), hand.on.down(h)) }
const sheets = [dots(() => ed.colours, () => ({ pitch: taste.circuitGrid, on: taste.gridOn, apart: 9, most: 8 }))] // prettier-ignore
// ---- tools and commands

/** What can be done to what is picked, or on nothing. */
function menu() {
  const block = ed.selection.size === 1 && props.project.get('block', [...ed.selection][0])
  const enter = block && {
    title: 'Enter its sheet',
    keys: 'Enter',
    run: () => ed.enterBlock(block),
  }
  const parts = ed.picked('part').length > 0
  return ed.selection.size
    ? [
        ...(enter ? [enter, null] : []),
        ...entriesOf(commands, [
          ...(parts ? ['rename', 'designate', 'replace'] : ed.selection.size === 1 ? ['designate'] : []),
          '',
          'left',
          'right',
          'mirror',
          '',
          'copy',
          'cut',
          'duplicate',
          '',
          ...(parts ? ['markOpen'] : []),
          ...(ed.selection.size > 1 ? ['column', 'row', 'across', 'down'] : []),
          'net',
          'frameSel',
          '',
          'remove',
        ]),
      ]
    : entriesOf(commands, [
        'part',
        'wire',
        'label',
        'note',
        '',
        'paste',
        'all',
        'find-replace',
        'numbers',
        '',
        'frame',
        'up',
        'grid',
        'paper',
        '',
        'table',
        'nets',
        'print',
        'svg',
      ])
}

function replace() {
  const ids = ed.picked('part').map((p) => p.id)
  if (ids.length) ed.part.replace(ids)
}
function editPicked(field: 'designator' | 'value') {
  const id = [...ed.selection][0]
  const found = props.project.find(id)
  if (found?.kind === 'part') {
    const p = props.project.get('part', id)!
    ed.editText({ id, field, value: field === 'value' ? p.value : (p.others?.[ed.path] ?? p.designator), at: p.at })
  } else if (found?.kind === 'note' || found?.kind === 'timing') ed.rewrite(id)
  else if (found?.kind === 'cluster') ed.nameCluster(id)
  else {
    const name = nameOf(found)
    if (name !== null) ed.editText({ id, field: 'name', value: name, at: (found!.object as { at: { x: number; y: number } }).at })
  }
}
const views = [
  { value: 'drawing', title: 'Drawing' },
  { value: 'parts', title: 'Table of parts' },
  { value: 'nets', title: 'Nets' },
]
const setView = (v: string) =>
  void router.push({ query: { sheet: ed.sheet, ...(ed.path ? { path: ed.path } : {}), ...(v === 'drawing' ? {} : { view: v }) } })

const commands = circuitCommands(ed, {
  tools: hand.commands,
  replace,
  editPicked,
  frameAll: framing.all,
  frameSelection: framing.selection,
  tolerance,
  panel: (p) => (panel.value = p),
  view: setView,
  up: () => where.up(),
  print: () => print(),
  svg: () => window.open(`/api/projects/${props.project.id}/sheet.svg?sheet=${ed.sheet}&path=${ed.path}`, '_self'),
  paper: () => (taste.circuitShade = taste.circuitShade === 'dark' ? 'light' : 'dark'),
  grid: () => ((taste.gridOn = !taste.gridOn), ed.scene.invalidate()),
})
const early = (name: string) => {
  if (hand.early(name)) return true
  const block = name === 'Enter' && ed.picks && ed.picked('block')[0]
  if (!block || ed.selection.size > 1) return false
  ed.enterBlock(block)
  return true
}
useCommands(commands, early, () => view.value === 'drawing' && !draft.value)

const { printing, print } = usePrinting(props.project)

onMounted(() => {
  if (!ed.state.painted) void load()
})

const grids = [1_250_000, 2_500_000, 5_000_000]
const nextGrid = () => (taste.circuitGrid = grids[(grids.indexOf(taste.circuitGrid) + 1) % grids.length])
const hint = computed(() =>
  view.value === 'drawing'
    ? hand.hint.value
    : 'type or Enter edits what is picked · Shift extends · Ctrl D fills down · Ctrl C and Ctrl V speak with spreadsheets · Del empties',
)
defineExpose({ ed })
</script>

<template>
  <DrawingFrame
    ref="strip"
    :ed="ed"
    :hand="hand"
    :grid="taste.circuitGrid"
    :away="view !== 'drawing'"
    :hint="hint"
    @dragover.prevent
    @drop.prevent="dropFile"
    @grid="(nextGrid(), ed.scene.invalidate())"
    @focus="canvas?.focus()"
  >
    <CanvasView
      v-show="view === 'drawing'"
      ref="canvas"
      :scene="ed.scene"
      label="Circuit sheet"
      :ground="() => ed.colours.paper"
      :sheets="() => sheets"
      :overlay="(pen) => drawOverlay(ed, pen)"
      :cursor="ed.picks ? 'default' : 'crosshair'"
      :data-sheet="ed.state.sheet"
      :data-painted="ed.state.painted"
      v-on="canvasOn"
      @ready="ready"
    />
    <SheetList
      v-if="view === 'drawing'"
      :project="project"
      :sheet="ed.state.sheet"
      :path="ed.state.path"
      @go="(sheet, path) => where.go(sheet, path)"
      @cluster="pickObject"
    />
    <div class="views float">
      <OneOf label="How the circuit is shown" :value="view" :options="views" @keep="setView" />
    </div>
    <div v-if="empty && ed.picks && ed.state.painted && view === 'drawing'" class="float drawing-empty">
      <p>Begin with a part: press <kbd>N</kbd>, type what you look for and click where it shall stand.</p>
      <v-btn color="primary" variant="flat" @click="hand.take('part')">Place a part</v-btn>
    </div>
    <div v-if="printing" class="float warning printing" role="status">
      Printing all sheets … {{ Math.round((project.shareOf('print') ?? 0) * 100) }} %
      <v-btn size="small" @click="printing.abort()">Stop</v-btn>
    </div>
    <v-text-field
      v-if="editing"
      ref="editInput"
      v-model="editing.value"
      class="inline mono"
      :style="{ left: editing.x - 60 + 'px', top: editing.y - 14 + 'px' }"
      :aria-label="`Edit the ${editing.field}`"
      @keydown.enter.prevent="keepText()"
      @keydown.esc.stop="editing = null"
      @blur="keepText(true)"
    />
    <FilePick ref="file" label="Picture to put on the sheet" accept=".png,.jpg,.jpeg,.svg" @files="([f]) => addPicture(f)" />
    <PartFinder
      v-if="ed.part.state.finding"
      :project="project"
      :replacing="ed.part.replacing.length"
      @choose="(it, value) => (ed.part.choose(it, value), canvas?.focus())"
      @close="((ed.part.state.finding = false), ed.part.item.value || ed.take('select'), canvas?.focus())"
    />
    <Composer v-if="draft" :editor="ed" :draft="draft" @close="((draft = null), ed.take('select'), canvas?.focus())" />
    <FindPanel v-if="panel === 'find'" :project="project" @close="((panel = ''), canvas?.focus())" @go="pickObject" />
    <NumberPanel v-if="panel === 'numbers'" :editor="ed" @close="((panel = ''), canvas?.focus())" />
    <PartsTable v-if="view === 'parts'" :project="project" @go="(id, path) => (setView('drawing'), pickObject(id, path))" />
    <NetsTable v-if="view === 'nets'" :project="project" @go="(n) => (setView('drawing'), lightNet(n, false))" />
    <template #side>
      <DetailsPanel
        v-if="view === 'drawing'"
        :project="project"
        stage="circuit"
        :net="project.lit.value"
        @part="pickObject"
        @net="lightNet"
        @finding="showFinding"
      >
        <CircuitDetails :project="project" :editor="ed" @replace="replace" />
      </DetailsPanel>
    </template>
  </DrawingFrame>
</template>

<style scoped>
.views {
  position: absolute;
  right: 12px;
  top: 12px;
  z-index: 6;
}
.warning {
  position: absolute;
  top: 12px;
  left: 50%;
  transform: translateX(-50%);
  padding: 6px 14px;
  border-left: 3px solid rgb(var(--v-theme-error));
  z-index: 7;
}
.printing {
  border-color: rgb(var(--v-theme-primary));
}
.inline {
  position: absolute;
  width: 170px;
  border-radius: 6px;
  background: rgb(var(--v-theme-surface));
  z-index: 7;
}
</style>
