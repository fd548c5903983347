<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, onMounted, onUnmounted, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import CanvasView from '../canvas/CanvasView.vue'
import { dots, nudges } from '../canvas/page'
import type { Pen } from '../canvas/pen'
import { type Box, boxOf } from '../canvas/viewport'
import DrawingFrame from '../hands/DrawingFrame.vue'
import { useStage } from '../hands/useStage'
import type { Project } from '../live/project'
import type { Finding } from '../live/wire.gen'
import { type Crumb, useCommands } from '../shell/commands'
import DetailsPanel from '../shell/DetailsPanel.vue'
import { entriesOf } from '../shell/menu'
import type { Command } from '../shell/keys'
import FilePick from '../shell/fields/FilePick.vue'
import { base64 } from '../live/base64'
import { useTaste } from '../shell/taste'
import BeginPanel from './BeginPanel.vue'
import BoardDetails from './BoardDetails.vue'
import CarryPanel from './CarryPanel.vue'
import DrawingPanel from './DrawingPanel.vue'
import { BoardEditor } from './editor'
import HopTable from './HopTable.vue'
import LayerLadder from './LayerLadder.vue'
import { lineUps } from './lineUps'
import LinksChip from './LinksChip.vue'
import LogoPanel from './LogoPanel.vue'
import WidthsView from './WidthsView.vue'
import RulesView from './rules/RulesView.vue'
import EscapePanel from './escape/EscapePanel.vue'
import TouchLegend from './TouchLegend.vue'
import StackView from './stack/StackView.vue'
import SightField from './sight/SightField.vue'
import { useSight } from './sight/useSight'
import ViewPanel from './sight/ViewPanel.vue'
import FinishedBeside from './finished/FinishedBeside.vue'
import { drawFindings, drawLinks, drawNet, drawOverlay } from './overlay'

const BoardSpace = defineAsyncComponent(() => import('../space/BoardSpace.vue'))

const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ where: [Crumb[]] }>()
const route = useRoute()
const taste = useTaste()
const ed = new BoardEditor(props.project, taste)
const canvas = ref<InstanceType<typeof CanvasView>>()
const hand = useStage(ed, canvas, {
  group: 'Tools',
  commands: () => commands,
  menu: () =>
    entriesOf(
      commands,
      ed.selection.size
        ? [
            'left',
            'right',
            'side',
            'lock',
            '',
            'escape',
            'gather',
            'pickCluster',
            'pickSheet',
            'swap',
            'labels',
            '',
            'net',
            'frameSel',
            '',
            'tidy',
            'remove',
            'removeTrack',
            'removeNet',
            'removeAll',
          ]
        : ['track', 'outline', 'hole', 'text', 'figure', 'measure', '', 'carry', 'all', '', 'frame', 'links', 'grid', 'paper'],
    ),
})
const { tolerance } = hand
const fontPick = ref<{ choose: () => void }>()
let takeFont: ((name: string, data: string) => void) | null = null
ed.weighing.toHand = () => canvas.value?.focus()
ed.askFont = (take) => {
  takeFont = take
  fontPick.value?.choose()
}
async function fontChosen([f]: File[]) {
  takeFont?.(f.name, await base64(f))
}

const stages = computed(() => props.project.stages.value)
const empty = computed(() => (void props.project.docTick.value, props.project.all('placed').length === 0))
const drawn = computed(
  () => (void props.project.docTick.value, props.project.all('legend').length + props.project.all('figure').length > 0),
)
const begun = computed(() => (void props.project.docTick.value, !!props.project.board.outline?.length))
const hasCircuit = computed(() => (void props.project.docTick.value, props.project.all('part').length > 0))
const offs = [
  props.project.onChange((changes, whole) => (whole ? ed.reload() : ed.changed(changes))),
  props.project.onDerived((d) => {
    ed.derived(d)
    canvas.value?.redraw()
  }),
]
onBeforeUnmount(() => offs.forEach((off) => off()))
watch(() => taste.boardShade, () => ed.scene.invalidate()) // prettier-ignore

const frameAll = () => canvas.value?.show(ed.content(), 50, 160, 4e-5)
function goTo(b: Box) {
  canvas.value?.show({ minX: b.minX - 6e6, minY: b.minY - 6e6, maxX: b.maxX + 6e6, maxY: b.maxY + 6e6 }, 40, 0, 5e-5)
}
function pick(id: number) {
  if (!props.project.find(id)) return
  ed.take('select')
  ed.pickOnly([id])
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
  ed.shownFinding = f.key
  const ends = f.ends ?? []
  goTo(boxOf([f.at, ...ends], ends.length ? 1.2e6 : 3e6))
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
  ed.follow()
  followRoute()
  requestAnimationFrame(() => requestAnimationFrame(() => props.project.shown()))
}

const sight = useSight(props.project, ed, canvas)
const { finished, besideIt, spaceAlone, says } = sight
const beside = ref<InstanceType<typeof FinishedBeside>>()
function pickInSpace(id: number, more: boolean) {
  ed.take('select')
  if (!more) ed.pickOnly(id ? [id] : [])
  else if (id && !ed.selection.delete(id)) ed.selection.add(id)
}

const sheets = [
  ...sight.sheets,
  dots(() => ed.look().colours, () => ({ pitch: taste.boardGrid, on: taste.gridOn, apart: 10 })), // prettier-ignore
  { name: 'net', order: 100, empty: () => !props.project.lit.value, paint: (pen: Pen, box: Box) => drawNet(ed, pen, box) },
  {
    name: 'links',
    order: 101,
    empty: () => ed.state.links === 'none' || !props.project.links.size,
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
/** All that decides which links and which net are seen, as one word: what is equal paints nothing anew. */
const sightOfLinks = computed(() => {
  const { hoverNet, links, linkClass, hideSupplies } = ed.state
  const picked = links === 'picked' ? [...ed.selection].join() : ''
  return [
    props.project.lit.value,
    hoverNet,
    links,
    linkClass,
    hideSupplies,
    picked,
    Object.keys(ed.dragLinks.value ?? {}).join(),
  ].join('|')
})
watch(sightOfLinks, () => renew('net', 'links'))
onUnmounted(
  props.project.onDerived((d) => {
    if (Object.keys(d.links ?? {}).length) renew('links')
    if (d.findings?.length || d.mended?.length) renew('findings')
  }),
)
onUnmounted(props.project.onChange(() => props.project.lit.value && renew('net', 'links')))
const picked = () => ed.picks && ed.selection.size > 0
const several = () => ed.picks && ed.selection.size > 1
watch(() => [[...ed.selection].join(), props.project.docTick.value], () => void ed.measureNotes()) // prettier-ignore
const grids = [1_270_000, 635_000, 500_000, 317_500, 100_000, 1_000_000]
const nextGrid = () => {
  taste.boardGrid = grids[(grids.indexOf(taste.boardGrid) + 1) % grids.length]
  ed.scene.invalidate()
}

const commands: Command[] = [
  ...hand.commands,
  { id: 'carry', title: 'Carry to board', keys: 'C', group: 'Tools', run: () => (ed.state.carrying = true) },
  { id: 'rules', title: 'Rules of the board', keys: 'R', group: 'Tools', run: () => (ed.state.ruling = !ed.state.ruling) },
  {
    id: 'stack',
    title: 'Stack of the board',
    keys: 'Shift L',
    group: 'Tools',
    run: () => (ed.state.stacking = !ed.state.stacking),
  },
  { id: 'touches', title: 'What touches the copper areas of the layer', keys: 'Shift O', group: 'See', run: () => (ed.state.touching = !ed.state.touching) }, // prettier-ignore
  { id: 'widths', title: 'Widths for currents', keys: 'K', group: 'Tools', run: () => (ed.state.widths = !ed.state.widths) },
  { id: 'begin', title: 'Begin the board', group: 'Tools', run: () => (ed.state.beginning = true), enabled: () => !begun.value && empty.value }, // prettier-ignore
  { id: 'escape', title: 'Lead pads out', keys: 'Shift E', group: 'Change', run: () => (ed.state.escaping = !ed.state.escaping) }, // prettier-ignore
  { id: 'gather', title: 'Gather what is picked at the cursor', keys: 'Shift G', group: 'Change', run: () => ed.gather(), enabled: picked }, // prettier-ignore
  { id: 'pickCluster', title: 'Pick all of its cluster', keys: 'Shift A', group: 'Change', run: () => ed.pickTogether(false), enabled: picked }, // prettier-ignore
  { id: 'swap', title: 'Let two parts change places', keys: 'X', group: 'Change', run: () => ed.swap(), enabled: () => ed.picked('placed').length === 2 }, // prettier-ignore
  { id: 'tracks', title: 'Tracks go along with parts, or become open links', keys: 'J', group: 'Change', run: () => ed.otherTracks(), enabled: () => ed.picks }, // prettier-ignore
  { id: 'labels', title: 'Designators in order', group: 'Change', run: () => ed.orderLabels(), enabled: () => !empty.value },
  ...lineUps.map(([how, title]) => ({ id: 'line-' + how, title, group: 'Line up', run: () => ed.lineUp(how), enabled: several })),
  { id: 'pickSheet', title: 'Pick all of its sheet', group: 'Change', run: () => ed.pickTogether(true), enabled: picked },
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
  {
    id: 'tidy',
    title: 'Tidy tracks: shorter and straighter',
    keys: 'Shift T',
    group: 'Change',
    run: () => ed.tidy(),
    enabled: picked,
  },
  { id: 'removeAll', title: 'Remove all tracks and vias', group: 'Change', run: () => ed.removeAllTracks() },
  { id: 'all', title: 'Select all', keys: 'Ctrl A', group: 'Change', run: () => ed.selectAll() },
  ...nudges('Nudge what is picked, or lead the hand,', (dx, dy) => ed.nudge(dx, dy)),
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
    id: 'fills',
    title: 'What copper areas fill: full, hatched, edges',
    keys: 'Shift V',
    group: 'See',
    run: () => ed.otherFills(),
  },
  { id: 'linksPicked', title: 'Open links of what is picked alone', keys: 'Shift B', group: 'See', run: () => (ed.state.links = ed.state.links === 'picked' ? 'all' : 'picked') }, // prettier-ignore
  {
    id: 'links',
    title: 'Open links on or off',
    keys: 'B',
    group: 'See',
    run: () => (ed.state.links = ed.state.links === 'none' ? 'all' : 'none'),
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
  ...sight.commands,
  ...[1, 2, 3, 4, 5, 6, 7, 8, 9].map((n) => ({
    id: 'layer' + n,
    title: `Copper layer ${n}`,
    keys: String(n),
    group: 'See',
    run: () => void ed.hop(ed.copper[n - 1]?.id),
    enabled: () => n <= ed.copper.length,
    there: () => n <= ed.copper.length,
  })),
  {
    id: 'layerUp',
    title: 'Copper layer above',
    keys: 'PageUp',
    group: 'See',
    there: () => ed.copper.length > 1,
    run: () => ed.stepLayer(-1),
  },
  {
    id: 'layerDown',
    title: 'Copper layer below',
    keys: 'PageDown',
    group: 'See',
    there: () => ed.copper.length > 1,
    run: () => ed.stepLayer(1),
  },
]
useCommands(commands, hand.early)
onMounted(() => {
  emit('where', [{ name: 'Board', go: () => undefined }])
  ed.load()
})

defineExpose({ ed })
</script>

<template>
  <DrawingFrame
    ref="strip"
    :ed="ed"
    :hand="hand"
    :away="spaceAlone"
    :hint="
      spaceAlone ? 'drag turns · wheel comes nearer · click picks · 1 to 6 from the sides · Home · U board in work' : undefined
    "
    :grid="taste.boardGrid"
    @grid="nextGrid"
    @focus="canvas?.focus()"
  >
    <CanvasView
      ref="canvas"
      :class="{ half: besideIt }"
      :mirror="ed.state.flipped"
      :scene="ed.scene"
      label="Board"
      :ground="() => ed.look().colours.paper"
      :sheets="() => sheets"
      :alpha="ed.alpha"
      :overlay="(pen) => drawOverlay(ed, pen)"
      :cursor="ed.picks ? 'default' : 'crosshair'"
      v-on="hand.on"
      @ready="ready"
      @seen="beside?.follow($event)"
    />
    <FinishedBeside
      v-if="besideIt && ed.state.sight === 'finished'"
      ref="beside"
      class="otherhalf"
      :editor="ed"
      :picture="finished.picture.value"
      @follow="canvas && beside?.follow(canvas.view)"
    />
    <BoardSpace
      v-if="ed.state.sight === 'space'"
      :class="{ otherhalf: besideIt }"
      :project="project"
      :picked="[...ed.selection]"
      @pick="pickInSpace"
    />
    <LayerLadder :project="project" :editor="ed" />
    <ViewPanel v-if="ed.state.viewing" :project="project" :editor="ed" @close="ed.state.viewing = false" />
    <HopTable :editor="ed" />
    <TouchLegend :project="project" :editor="ed" />
    <EscapePanel
      v-if="ed.state.escaping"
      :project="project"
      :editor="ed"
      @place="(s) => goTo({ minX: s.at.x, minY: s.at.y, maxX: s.at.x, maxY: s.at.y })"
    />
    <div class="topright" :class="{ mid: besideIt }">
      <SightField
        v-if="!empty || begun"
        :project="project"
        :editor="ed"
        :below="ed.below"
        :rev="finished.rev.value"
        :behind="finished.behind.value"
        :says="says"
      />
      <LinksChip v-if="!spaceAlone" :project="project" :editor="ed" :empty="empty" />
      <v-btn v-if="stages.differences && !empty" size="small" class="float stale" @click="ed.state.carrying = true">
        {{ stages.differences }} {{ stages.differences === 1 ? 'difference' : 'differences' }} to the circuit · carry
      </v-btn>
    </div>
    <div
      v-if="empty && !drawn && !ed.state.carrying && !ed.state.drawing && !ed.state.beginning && ed.picks"
      class="float drawing-empty"
    >
      <template v-if="hasCircuit">
        <p>The circuit has parts that are not on the board yet. Carrying them over puts them beside the outline.</p>
        <div class="two">
          <v-btn v-if="!begun" color="primary" variant="flat" @click="ed.state.beginning = true">Begin the board</v-btn>
          <v-btn :color="begun ? 'primary' : undefined" :variant="begun ? 'flat' : 'outlined'" @click="ed.state.carrying = true">
            Carry to board
          </v-btn>
        </div>
      </template>
      <template v-else>
        <p>The board takes its parts from the circuit. Draw a few there first.</p>
        <v-btn color="primary" variant="flat" :to="`/project/${project.id}/circuit`">Go to the circuit</v-btn>
      </template>
    </div>
    <CarryPanel
      v-if="ed.state.carrying"
      :project="project"
      :editor="ed"
      @close="ed.state.carrying = false"
      @carried="((ed.state.carrying = false), frameAll())"
    />
    <StackView v-if="ed.state.stacking" :project="project" :editor="ed" @close="ed.state.stacking = false" />
    <RulesView v-if="ed.state.ruling" :project="project" :editor="ed" @close="ed.state.ruling = false" />
    <WidthsView v-if="ed.state.widths" :project="project" @close="ed.state.widths = false" @net="lightNet" />
    <BeginPanel
      v-if="ed.state.beginning"
      :project="project"
      @close="ed.state.beginning = false"
      @begun="((ed.state.beginning = false), frameAll())"
      @drawing="((ed.state.beginning = false), (ed.state.drawing = true))"
    />
    <DrawingPanel
      v-if="ed.state.drawing"
      :project="project"
      @close="ed.state.drawing = false"
      @taken="((ed.state.drawing = false), frameAll())"
    />
    <LogoPanel
      v-if="ed.state.logo"
      @close="ed.state.logo = false"
      @taken="((ed.state.logo = false), ed.take('figure'), ed.figure.hold($event))"
    />
    <FilePick ref="fontPick" label="Font file" accept=".ttf,.otf" @files="fontChosen" />
    <template #side>
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
    </template>
  </DrawingFrame>
</template>

<style scoped>
.two {
  display: flex;
  gap: 8px;
}
.topright {
  z-index: 6;
  position: absolute;
  right: 12px;
  top: 12px;
  display: flex;
  gap: 8px;
  align-items: flex-start;
}
.half.half {
  right: 50%;
}
.otherhalf.otherhalf {
  left: 50%;
  border-left: 1px solid rgba(var(--v-border-color), 0.5);
}
.topright.mid {
  right: calc(50% + 12px);
}
.stale.v-btn {
  border: 1px solid rgb(var(--v-theme-error));
  border-radius: 10px;
}
</style>
