<script setup lang="ts">
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import { ringBox, traceRing, traceTo } from '../canvas/arcs'
import { boxOf } from '../canvas/viewport'
import { offscreenPen } from '../circuit/preview'
import { call } from '../live/http'
import { latest } from '../live/latest'
import type { Project } from '../live/project'
import { format } from '../live/units'
import type { Corner, DrawingSeen, Point } from '../live/wire.gen'
import CentredPanel from '../shell/CentredPanel.vue'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import FilePick from '../shell/fields/FilePick.vue'
import LengthField from '../shell/fields/LengthField.vue'
import { complain, say } from '../shell/notices'
import { useTaste } from '../shell/taste'
import { boardColours } from '../shell/tokens'

/** The board's outline from a DXF drawing: what it holds and gives is shown before it is taken. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ close: []; taken: [] }>()
const taste = useTaste()
const file = shallowRef<File | null>(null)
const pick = ref<{ choose: () => void }>()
const seen = shallowRef<DrawingSeen | null>(null)
const trouble = ref('')
const busy = ref(false)
const unit = ref(0)
const gap = ref(10_000)
const tolerance = ref(5_000)
const layers = ref<string[]>([])
const toOrigin = ref(true)
const picture = ref<HTMLCanvasElement>()
const room = ref<HTMLDivElement>()
const { width, height } = useElementSize(room)
const units = [
  { value: 0, title: 'as the file says' },
  { value: 1e6, title: 'millimetres' },
  { value: 25.4e6, title: 'inches' },
  { value: 25.4e3, title: 'mils' },
  { value: 1e3, title: 'micrometres' },
  { value: 1e7, title: 'centimetres' },
]

const look = latest(
  async (f: File) => {
    busy.value = true
    const q = new URLSearchParams({ unit: String(unit.value), gap: String(gap.value), tolerance: String(tolerance.value) })
    for (const l of layers.value) q.append('layer', l)
    return call<DrawingSeen>('POST', `/drawing?${q}`, f).catch((e: Error) => ((trouble.value = e.message), null))
  },
  (answer) => {
    busy.value = false
    seen.value = answer
    if (answer) {
      trouble.value = ''
      if (!layers.value.length) layers.value = [...answer.layers]
    }
    void nextTick(paint)
  },
)
function open(f: File | undefined) {
  if (!f) return
  file.value = f
  layers.value = []
  unit.value = 0
  void look(f)
}
const again = () => file.value && void look(file.value)
watch([unit, gap, tolerance], again)
function toggle(l: string) {
  layers.value = layers.value.includes(l) ? layers.value.filter((x) => x !== l) : [...layers.value, l]
  again()
}
onMounted(() => pick.value?.choose())

const edges = computed(() => seen.value?.edges)
const size = computed(() => {
  const b = edges.value?.outline.length ? ringBox(edges.value.outline) : null
  const say = (nm: number) => format(nm, taste.unit, 3)
  return b ? `${say(b.maxX - b.minX)} × ${say(b.maxY - b.minY)} ${taste.unit}` : ''
})
function paint() {
  const c = picture.value
  if (!c || !width.value) return
  const dpr = Math.min(2, window.devicePixelRatio || 1)
  c.width = width.value * dpr
  c.height = height.value * dpr
  const e = edges.value
  if (!e) return
  const colours = boardColours[taste.boardShade]
  const box = boxOf([...outlined(e.outline), ...e.loose.flatMap((p) => [p.a, p.m, p.b])])
  const pen = offscreenPen(c, box, ((box.maxX - box.minX) / 1e6) * 0.08 + 1, 400)
  const { ctx, px } = pen
  ctx.beginPath()
  for (const ring of [e.outline, ...e.cutOuts]) traceRing(ctx, ring)
  ctx.fillStyle = colours.inside
  ctx.fill('evenodd')
  ctx.strokeStyle = colours.edge
  ctx.lineWidth = 1.5 * px
  ctx.stroke()
  ctx.beginPath()
  for (const p of e.loose) {
    ctx.moveTo(p.a.x / 1e6, p.a.y / 1e6)
    traceTo(ctx, p.a, p.m, p.b)
  }
  ctx.strokeStyle = colours.finding
  ctx.lineWidth = px
  ctx.stroke()
  const mark = (at: Point, colour: string) => {
    ctx.beginPath()
    ctx.arc(at.x / 1e6, at.y / 1e6, 7 * px, 0, 2 * Math.PI)
    ctx.strokeStyle = colour
    ctx.lineWidth = 2 * px
    ctx.stroke()
  }
  for (const m of e.mended) mark(m.at, colours.select)
  for (const q of e.open) mark(q, colours.finding)
}
const outlined = (ring: Corner[]) => {
  const b = ringBox(ring)
  return [{ x: b.minX, y: b.minY }, { x: b.maxX, y: b.maxY }] // prettier-ignore
}
watch([width, height, () => taste.boardShade], () => void nextTick(paint))

async function take() {
  const e = edges.value
  if (!e) return
  const b = ringBox(e.outline)
  const [dx, dy] = toOrigin.value ? [-Math.round(b.minX), -Math.round(b.minY)] : [0, 0]
  const by = (q: Point) => ({ x: q.x + dx, y: q.y + dy })
  const moved = (ring: Corner[]) => ring.map((c) => ({ ...by(c), ...(c.mid ? { mid: by(c.mid) } : {}) }))
  const done = await props.project
    .edit('setOutline', { outline: moved(e.outline), cutOuts: e.cutOuts.map(moved) })
    .catch(complain)
  if (done === undefined) return
  say(`The outline is that of ${file.value?.name}.`)
  emit('taken')
}
const some = (n: number, one: string, many: string) => (n === 1 ? `1 ${one}` : `${n} ${many}`)
</script>

<template>
  <CentredPanel label="Outline from a drawing" :width="760" @close="emit('close')">
    <FilePick ref="pick" label="DXF drawing" accept=".dxf" @files="([f]) => open(f)">
      <template #default="{ choose }">
        <div class="head">
          <v-btn size="small" variant="outlined" @click="choose">{{ file ? 'Another file' : 'Choose a DXF file' }}</v-btn>
          <span v-if="file" class="mono">{{ file.name }}</span>
          <span v-if="size" class="quiet">
            {{ size }}<template v-if="edges?.cutOuts.length">, {{ some(edges.cutOuts.length, 'cut-out', 'cut-outs') }}</template>
          </span>
        </div>
      </template>
    </FilePick>
    <v-progress-linear v-if="busy" indeterminate aria-label="Reading the drawing" />
    <p v-if="trouble" class="error" role="alert">{{ trouble }}</p>
    <div v-if="seen" class="two">
      <div ref="room" class="paper" :class="'board-' + taste.boardShade">
        <canvas ref="picture" role="img" aria-label="The outline that the drawing gives" />
        <p v-if="seen.wrong" class="impossible" role="alert">{{ seen.wrong }}</p>
      </div>
      <div class="how">
        <ChoiceField label="Unit" :value="unit" :options="units" @keep="unit = Number($event)" />
        <LengthField label="Close gaps up to" :value="gap" @keep="gap = $event" />
        <LengthField label="Follow curves to" :value="tolerance" @keep="tolerance = $event" />
        <v-checkbox v-model="toOrigin" label="Lower left corner to x 0, y 0" hide-details />
        <template v-if="seen.layers.length > 1">
          <h4>Layers of the drawing</h4>
          <v-checkbox
            v-for="l in seen.layers"
            :key="l"
            :model-value="layers.includes(l)"
            :label="l"
            hide-details
            @update:model-value="toggle(l)"
          />
        </template>
        <ul v-if="edges?.notes.length || edges?.mended.length || seen.skipped.length" class="quiet">
          <li v-for="n in edges?.notes" :key="n">{{ n }}</li>
          <li v-if="edges?.mended.length">
            {{ some(edges.mended.length, 'gap was', 'gaps were') }} closed, the widest of
            {{ format(Math.max(...edges.mended.map((m) => m.size)), taste.unit, 3) }} {{ taste.unit }}: ringed in the picture.
          </li>
          <li v-if="seen.skipped.length">Not read: {{ seen.skipped.join(', ') }}.</li>
        </ul>
      </div>
    </div>
    <p v-else-if="!busy && !trouble" class="quiet">
      Lines, arcs, circles, polylines, ellipses and splines of the drawing are joined to closed lines: the largest is the board’s
      edge, those within it are cut out.
    </p>
    <p v-if="edges?.doubt" class="doubt" role="alert">{{ edges.doubt }}</p>
    <template #acts>
      <v-btn variant="text" @click="emit('close')">Cancel</v-btn>
      <v-btn color="primary" variant="flat" :disabled="!edges" @click="take">Take this outline</v-btn>
    </template>
  </CentredPanel>
</template>

<style scoped src="./paper.css"></style>
<style scoped>
.head {
  display: flex;
  gap: 10px;
  align-items: center;
}
.two {
  display: grid;
  grid-template-columns: 1.3fr 1fr;
  gap: 14px;
  min-height: 320px;
}
.paper {
  position: relative;
  border-radius: 8px;
  overflow: hidden;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.doubt {
  margin-top: 10px;
  padding: 6px 12px;
  border-left: 3px solid rgb(var(--v-theme-warning));
}
.impossible {
  position: absolute;
  inset: 0;
  display: flex;
  align-items: center;
  padding: 0 24px;
  color: rgb(var(--v-theme-error));
}
.how {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
h4 {
  margin: 6px 0 0;
}
ul {
  padding-left: 16px;
  font-size: 12.5px;
}
.error {
  color: rgb(var(--v-theme-error));
}
</style>
