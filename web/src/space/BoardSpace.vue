<script setup lang="ts">
import { mdiCubeOutline, mdiImageOutline, mdiRefresh } from '@mdi/js'
import { useResizeObserver, useTimeoutFn } from '@vueuse/core'
import * as THREE from 'three'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { Project } from '../live/project'
import { format } from '../live/units'
import { call } from '../live/http'
import type { Finish, Standing } from '../live/wire.gen'
import OneOf from '../shell/fields/OneOf.vue'
import { complain } from '../shell/notices'
import { keepBlob, saveFile } from '../shell/saving'
import { useTaste } from '../shell/taste'
import { palette } from '../shell/tokens'
import { BoardModel, boxLines } from './boardModel'
import { Looking, type Side, sides } from './looking'

/** The board in space, as the core makes it of what the files are made of. What is picked here is picked everywhere. */
const props = defineProps<{ project: Project; picked: number[] }>()
const emit = defineEmits<{ pick: [id: number, more: boolean] }>()
const taste = useTaste()
const canvas = ref<HTMLCanvasElement>()
const trouble = ref('')
let looking: Looking | null = null
let gone = false
const model = shallowRef<BoardModel | null>(null)
const standing = shallowRef<Standing[]>([])
/** The revision that is shown, and whether its copper areas were not filled yet. */
const rev = ref(-1)
const unfilled = ref(false)
const asking = shallowRef<AbortController | null>(null)
const slow = ref(false)
const slowly = useTimeoutFn(() => (slow.value = !!asking.value), 300, { immediate: false })
/** How long it took to make it the last time, in milliseconds: what takes long is made anew when it is asked for. */
let took = 0
const patience = 2000
const behind = computed(() => (void props.project.docTick.value, rev.value >= 0 && rev.value !== props.project.rev.value))

/** A model of the board as it is now. */
async function modelOf(query: string, signal: AbortSignal) {
  const r = await fetch(`/api/projects/${props.project.id}/model.glb?look=1${query}`, { signal, cache: 'no-store' })
  if (!r.ok) throw new Error(((await r.json()) as { error: string }).error)
  return r
}
async function load(first = false) {
  asking.value?.abort()
  const mine = (asking.value = new AbortController())
  slowly.start()
  const begun = performance.now()
  try {
    const path = `/projects/${props.project.id}`
    const face = (side: string) => call<Finish>('GET', `${path}/finished?side=${side}&bare=1`, undefined, mine.signal)
    const [r, top, bottom] = await Promise.all([modelOf('&closed=1', mine.signal), face('top'), face('bottom')])
    const data = await r.arrayBuffer()
    const [made, heights] = await Promise.all([
      BoardModel.read(data, [top.view, bottom.view]),
      props.project.question('heights', {}),
    ])
    if (gone || mine !== asking.value || !looking) return
    took = performance.now() - begun
    rev.value = Number(r.headers.get('Golden-Trace-Revision'))
    unfilled.value = r.headers.has('Golden-Trace-Revision-Behind')
    standing.value = heights
    trouble.value = ''
    await take(made, first)
  } catch (e) {
    if (mine === asking.value) trouble.value = mine.signal.aborted ? 'It was stopped.' : (e as Error).message
  } finally {
    if (mine === asking.value) {
      asking.value = null
      slow.value = false
      if (wantsLayers.value && !gone) void arrange() // they came to be wanted meanwhile
    }
  }
}
async function take(made: BoardModel, first: boolean) {
  const mine = asking.value
  if (wantsLayers.value) await layersFor(made)
  if (gone || mine !== asking.value) return made.dispose() // or a newer one is on its way
  if (model.value) {
    looking!.scene.remove(model.value.root)
    model.value.dispose()
  }
  model.value = made
  looking!.scene.add(made.root)
  looking!.around(made.box)
  void arrange()
  if (first) looking!.home()
  looking!.draw()
  canvas.value!.dataset.drawn = String(rev.value)
}

// ---- moved apart, and cut

const open = ref(0)
const cut = ref<'none' | 'x' | 'y'>('none')
const place = ref(0.5)
const beyond = ref(false)
const wantsLayers = computed(() => open.value > 0 || cut.value !== 'none')
/** Gives a model its layers, which are asked for once they are to be seen. */
async function layersFor(m: BoardModel) {
  const mine = asking.value ?? (asking.value = new AbortController())
  slowly.start()
  try {
    const data = await (await modelOf('', mine.signal)).arrayBuffer()
    if (!gone) await m.takeLayers(data, looking!.print)
  } catch (e) {
    if (mine !== asking.value) return // the board changed: a newer model brings its own
    trouble.value = mine.signal.aborted ? 'It was stopped.' : (e as Error).message
    open.value = 0
    cut.value = 'none'
  } finally {
    if (mine === asking.value && m === model.value) {
      asking.value = null
      slow.value = false
    }
  }
}
async function arrange() {
  const m = model.value
  if (!m || !looking) return
  if (wantsLayers.value && !m.layered) {
    if (asking.value) return // they are on their way
    await layersFor(m)
    if (gone || m !== model.value || asking.value) return // or a newer one is on its way
  }
  canvas.value!.dataset.layers = m.layered ? 'yes' : ''
  if (cut.value === 'none') {
    m.arrange(open.value, null)
    looking.cut(null)
  } else {
    const along = cut.value
    const at = m.board.min[along] + (m.board.max[along] - m.board.min[along]) * place.value
    m.arrange(open.value, { along, at, beyond: beyond.value })
    const normal = new THREE.Vector3(along === 'x' ? 1 : 0, along === 'y' ? 1 : 0, 0)
    if (!beyond.value) looking.cut(new THREE.Plane(normal, -at))
    else looking.cut(new THREE.Plane(normal.negate(), at))
  }
  looking.fit(m.extent)
  mark()
}
watch([open, cut, place, beyond], () => void arrange())

// ---- what is picked, and what is too high

let marks = new THREE.Group()
const tooHigh = computed(() => {
  void props.project.derivedTick.value
  const kinds = new Set(['height', 'bodies'])
  return new Set(props.project.findingList.value.filter((f) => kinds.has(f.kind) && !f.excused).flatMap((f) => f.objects ?? []))
})
function mark() {
  if (!looking) return
  looking.scene.remove(marks)
  marks.traverse((x) => (x as THREE.Mesh).geometry?.dispose())
  marks = new THREE.Group()
  const around = (ids: Iterable<number>, colour: string) => {
    for (const id of ids) {
      const box = model.value?.boxOf(id)
      if (box) marks.add(boxLines(box, colour))
    }
  }
  around(tooHigh.value, palette.coral)
  around(props.picked, palette.gold)
  looking.scene.add(marks)
  looking.paint()
}
watch([() => props.picked.join(), tooHigh], mark)
watch(
  () => props.picked.join(),
  () => {
    const box = props.picked.length === 1 && !pickedHere ? model.value?.boxOf(props.picked[0]) : null
    pickedHere = false
    if (box) looking?.goTo(box)
  },
)
let pickedHere = false
let pressed: { x: number; y: number } | null = null
function release(e: PointerEvent) {
  const from = pressed
  pressed = null
  if (!from || !looking || !model.value || Math.hypot(e.clientX - from.x, e.clientY - from.y) > 4) return
  const r = canvas.value!.getBoundingClientRect()
  const x = ((e.clientX - r.left) / r.width) * 2 - 1
  const y = 1 - ((e.clientY - r.top) / r.height) * 2
  const hit = looking.under(x, y, model.value.targets)[0]
  pickedHere = true
  emit('pick', hit ? model.value.partOf(hit) : 0, e.shiftKey || e.ctrlKey)
}
const length = (nm: number) => `${format(nm, taste.unit, 2)} ${taste.unit}`
const highest = computed(() => {
  const up = standing.value.filter((s) => s.above > 0)
  const down = standing.value.filter((s) => s.below > 0).sort((a, b) => b.below - a.below)
  return { above: up.sort((a, b) => b.above - a.above)[0], below: down[0], over: standing.value.filter((s) => s.over > 0) }
})
const one = computed(() => (props.picked.length === 1 ? standing.value.find((s) => s.part === props.picked[0]) : undefined))

// ---- what comes out

async function picture() {
  const blob = await looking?.picture()
  if (blob) keepBlob(blob, 'board-in-space.png')
}
const file = () => saveFile(`/projects/${props.project.id}/model.glb`, 'board.glb').catch(complain)

function press(e: KeyboardEvent) {
  const s = (Object.keys(sides) as Side[])[Number(e.key) - 1]
  if (s && !e.ctrlKey && !e.altKey) {
    e.stopPropagation()
    looking?.side(s)
  } else looking?.press(e)
}
onMounted(() => {
  try {
    looking = new Looking(canvas.value!)
  } catch {
    trouble.value = 'This browser has no graphics for pictures in space (WebGL).'
    return
  }
  looking.onFrame = (moves) => {
    model.value?.seenFrom(looking!.above, moves)
    canvas.value!.dataset.frames = String(looking!.frames + 1)
  }
  void load(true)
})
useResizeObserver(canvas, ([e]) => looking?.resize(e.contentRect.width, e.contentRect.height))
const soon = useTimeoutFn(() => void load(), 500, { immediate: false })
watch(
  () => [props.project.docTick.value, props.project.behind.value['fills']],
  () => (behind.value || unfilled.value) && took < patience && soon.start(),
)
onBeforeUnmount(() => {
  gone = true
  asking.value?.abort()
  model.value?.dispose()
  looking?.end()
})
defineExpose({ focus: () => canvas.value?.focus({ preventScroll: true }) })
</script>

<template>
  <section class="space" aria-label="The board in space">
    <canvas
      ref="canvas"
      tabindex="0"
      role="application"
      aria-label="The board in space: arrows turn it, plus and minus come nearer and go away, 1 to 6 show it from its sides, Home as at first"
      @keydown="press"
      @pointerdown="pressed = $event.button === 0 ? { x: $event.clientX, y: $event.clientY } : null"
      @pointerup="release"
    />
    <div class="float bar">
      <div class="row" role="group" aria-label="From its sides">
        <v-btn
          v-for="(s, k, i) in sides"
          :key="k"
          size="x-small"
          variant="text"
          :title="`Key ${i + 1}`"
          @click="looking?.side(k)"
          >{{ s.title }}</v-btn
        >
        <v-btn size="x-small" variant="text" title="Home" @click="looking?.home()">Aslant</v-btn>
      </div>
      <div class="row">
        <span id="apart">Layers apart</span>
        <v-slider v-model="open" :min="0" :max="1" :step="0.02" aria-labelledby="apart" hide-details density="compact" />
      </div>
      <div class="row">
        <span>Cut</span>
        <OneOf
          label="Cut"
          :value="cut"
          :options="[
            { value: 'none', title: 'Whole' },
            { value: 'x', title: 'Across' },
            { value: 'y', title: 'Along' },
          ]"
          @keep="cut = $event"
        />
        <v-btn v-if="cut !== 'none'" size="x-small" variant="text" @click="beyond = !beyond">Other half</v-btn>
      </div>
      <div v-if="cut !== 'none'" class="row">
        <span id="cutat">Cut at</span>
        <v-slider v-model="place" :min="0" :max="1" :step="0.005" aria-labelledby="cutat" hide-details density="compact" />
      </div>
      <div class="row">
        <v-btn size="x-small" variant="text" :prepend-icon="mdiImageOutline" @click="picture">Picture</v-btn>
        <v-btn size="x-small" variant="text" :prepend-icon="mdiCubeOutline" @click="file">glTF</v-btn>
      </div>
    </div>
    <div class="float says" aria-live="polite">
      <template v-if="one">
        <p>
          <span class="mono">{{ one.designator }}</span>
          <template v-if="one.above > 0"> reaches {{ length(one.above) }} above the board</template
          ><template v-if="one.below > 0">{{ one.above > 0 ? ' and' : ' reaches' }} {{ length(one.below) }} below it</template
          ><template v-if="one.over">, {{ length(one.over) }} beyond its edge</template>.
        </p>
        <p v-if="one.mostAbove || one.mostBelow" :class="{ bad: tooHigh.has(one.part) }">
          Allowed there: <template v-if="one.mostAbove">{{ length(one.mostAbove) }} above</template
          ><template v-if="one.mostBelow">{{ one.mostAbove ? ', ' : '' }}{{ length(one.mostBelow) }} below</template>.
        </p>
      </template>
      <template v-else-if="model">
        <p v-if="highest.above">
          Highest above:
          <v-btn size="x-small" variant="text" @click="emit('pick', highest.above.part, false)">{{
            highest.above.designator
          }}</v-btn>
          {{ length(highest.above.above) }}
        </p>
        <p v-if="highest.below">
          Highest below:
          <v-btn size="x-small" variant="text" @click="emit('pick', highest.below.part, false)">{{
            highest.below.designator
          }}</v-btn>
          {{ length(highest.below.below) }}
        </p>
        <p v-if="highest.over.length">
          Beyond the edge:
          <v-btn
            v-for="s in highest.over.slice(0, 4)"
            :key="s.part"
            size="x-small"
            variant="text"
            @click="emit('pick', s.part, false)"
            >{{ s.designator }} {{ length(s.over!) }}</v-btn
          >
        </p>
        <p v-if="!standing.length">Nothing is known of how high parts reach: no footprint has a body.</p>
      </template>
    </div>
    <div v-if="slow || behind || unfilled || trouble" class="float state" role="status">
      <template v-if="asking && slow">
        <v-progress-circular indeterminate size="16" width="2" aria-label="It is being put together" /> The board is put together
        …
        <v-btn size="x-small" variant="text" @click="asking.abort()">Stop</v-btn>
      </template>
      <template v-else-if="trouble">
        {{ trouble }} <v-btn size="x-small" variant="text" :prepend-icon="mdiRefresh" @click="load(!model)">Try again</v-btn>
      </template>
      <template v-else-if="behind">
        As of revision <span class="mono">{{ rev }}</span>
        <v-btn v-if="!asking" size="x-small" variant="text" :prepend-icon="mdiRefresh" @click="load()">Make it anew</v-btn>
      </template>
      <template v-else-if="unfilled">Its copper areas are still being filled.</template>
    </div>
  </section>
</template>

<style scoped>
.space {
  position: absolute;
  inset: 0;
  z-index: 5;
  background: radial-gradient(circle at 50% 40%, #4a4560, #1c1826);
}
canvas {
  display: block;
  width: 100%;
  height: 100%;
}
canvas:focus-visible {
  outline: 2px solid rgb(var(--v-theme-info));
  outline-offset: -2px;
}
.bar,
.says,
.state {
  position: absolute;
  padding: 6px 10px;
  font-size: 12.5px;
}
.bar {
  left: 12px;
  top: 12px;
  width: 326px;
}
.row {
  display: flex;
  align-items: center;
  gap: 4px;
  min-height: 30px;
}
.row > span {
  white-space: nowrap;
}
.row .v-btn {
  min-width: 0;
  padding: 0 5px;
}
.says {
  left: 12px;
  bottom: 12px;
  max-width: calc(100% - 24px);
}
.says .v-btn {
  min-width: 0;
  padding: 0 5px;
  vertical-align: baseline;
}
.bad {
  color: rgb(var(--v-theme-error));
}
.state {
  right: 12px;
  bottom: 12px;
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
