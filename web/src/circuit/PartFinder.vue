<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { call } from '../live/http'
import { latest } from '../live/latest'
import { holdKeys } from '../shell/keyHold'
import type { Found, Item } from '../live/wire.gen'
import { circuitColours } from '../shell/tokens'
import { useTaste } from '../shell/taste'
import { drawPattern } from '../board/draw'
import { Previewer } from '../live/previewer'
import type { Project } from '../live/project'
import { marksBox, play } from './marks'
import { merged, mounting, ownItems } from './ownItems'
import { offscreenPen } from './preview'

const props = defineProps<{ project: Project; replacing: number }>()
const asks = new Previewer(props.project)
const asksPattern = new Previewer(props.project)
const emit = defineEmits<{ choose: [Item, string]; close: [] }>()
const taste = useTaste()
const query = ref('')
const found = ref<Item[]>([])
const total = ref(0)
const chosen = ref(0)
const input = ref<{ focus: () => void }>()
const symbolCanvas = ref<HTMLCanvasElement>()
const footCanvas = ref<HTMLCanvasElement>()
const now = computed(() => found.value[chosen.value])

const trouble = ref('')
/** A value that was typed beside what the part is: what is placed gets it. */
const value = ref('')
const like = mounting(props.project)
const search = latest(
  (q: string) => call<Found>('GET', `/library?q=${encodeURIComponent(q)}&like=${like}`).catch((e: Error) => e),
  (list) => {
    const failed = list instanceof Error
    trouble.value = failed ? list.message : ''
    const named = failed ? [] : ownItems(props.project, query.value) // a part of the project may be called as the whole is typed
    value.value = failed || named.length ? '' : (list.value ?? '')
    if (failed) found.value = []
    else if (named.length && list.value) found.value = named
    else found.value = merged(named.length ? named : ownItems(props.project, list.query), list.items)
    total.value = failed ? 0 : list.found + found.value.length - list.items.length
    chosen.value = 0
  },
)
const { behind } = search
watch(query, search)
onMounted(() => {
  void search('')
  void nextTick(() => input.value?.focus())
})

watch([now, () => taste.circuitShade, () => taste.boardShade], async () => {
  await nextTick()
  const it = now.value
  if (!it?.symbol || !symbolCanvas.value || !footCanvas.value) return
  const box = (xs: { x: number; y: number }[]) => ({ minX: Math.min(...xs.map((p) => p.x)), maxX: Math.max(...xs.map((p) => p.x)), minY: Math.min(...xs.map((p) => p.y)), maxY: Math.max(...xs.map((p) => p.y)) }) // prettier-ignore
  const object = { library: it.part!.name, unit: it.part!.units?.length ? 1 : 0, at: { x: 0, y: 0 }, turn: 0, designator: it.part!.prefix + '1', value: it.part!.value ?? '' } // prettier-ignore
  asks.ask('item', { item: { kind: 'part', object } }, (drawn) => {
    const marks = drawn.marks ?? []
    if (symbolCanvas.value && marks.length)
      play(offscreenPen(symbolCanvas.value, marksBox(marks)), marks, {
        colours: circuitColours[taste.circuitShade],
        pictures: null,
      })
  })
  footCanvas.value.getContext('2d')!.reset()
  if (!it.footprint) return
  asksPattern.ask('pattern', { footprint: it.footprint }, (f) => {
    if (footCanvas.value) drawPattern(offscreenPen(footCanvas.value, box(f.courtyard)), f, taste.boardShade)
  })
})

let pointed = ''
/** The hand moved over the list; a list that moves beneath it chooses nothing. */
function point(e: MouseEvent, i: number) {
  const at = `${e.screenX} ${e.screenY}`
  if (pointed && at !== pointed) chosen.value = i
  pointed = at
}
const pinsOf = (it: Item) => (it.units?.length ? it.units : [it.symbol!]).reduce((n, u) => n + (u?.pins.length ?? 0), 0)
const choosing = /^(ArrowDown|ArrowUp|Enter)$/
function press(e: KeyboardEvent) {
  if (choosing.test(e.key) && behind.value) return holdKeys(search.shown(), { first: e }) // what is typed is what is meant, never the list before
  if (e.key === 'ArrowDown') chosen.value = Math.min(found.value.length - 1, chosen.value + 1)
  else if (e.key === 'ArrowUp') chosen.value = Math.max(0, chosen.value - 1)
  else if (e.key === 'Enter' && now.value) emit('choose', now.value, value.value)
  else if (e.key === 'Escape') emit('close')
  else return
  e.preventDefault()
  e.stopPropagation()
  document.querySelector('.finder [aria-selected=true]')?.scrollIntoView({ block: 'nearest' })
}
</script>

<template>
  <div class="float finder" role="dialog" :aria-label="replacing ? 'Replace a part' : 'Place a part'" @keydown="press">
    <v-text-field
      ref="input"
      v-model="query"
      :placeholder="replacing ? 'Replace by: resistor, 0805, 8 pins, SOIC* …' : 'Find a part: resistor, 0805, 8 pins, SOIC* …'"
      aria-label="Find a part"
    />
    <div class="cols">
      <v-list v-if="found.length" class="list" :class="{ behind }" :aria-busy="behind" role="listbox" aria-label="Parts">
        <v-list-item
          v-for="(it, i) in found"
          :key="it.part!.name"
          role="option"
          tabindex="-1"
          :active="i === chosen"
          :aria-selected="i === chosen"
          :title="it.part!.name"
          @click="emit('choose', it, value)"
          @mousemove="point($event, i)"
        >
          <template #append
            ><span class="quiet small">{{ pinsOf(it) }} pins · {{ it.part!.footprint || 'no footprint' }}</span></template
          >
        </v-list-item>
      </v-list>
      <p v-else-if="trouble" class="list none" role="alert">{{ trouble }}</p>
      <p v-else-if="!behind" class="list quiet none">No part of the library bears that name.</p>
      <div v-else class="list" />
      <div v-if="now" class="look">
        <canvas ref="symbolCanvas" width="200" height="120" :class="taste.circuitShade" role="img" aria-label="Symbol" />
        <canvas
          ref="footCanvas"
          width="200"
          height="120"
          :class="'board-' + taste.boardShade"
          role="img"
          aria-label="Footprint"
        />
        <p>{{ now.part!.description }}</p>
        <p class="quiet small">
          {{ now.part!.checked ? `Checked by ${now.part!.checked.by}` : 'Not checked against a datasheet' }}
        </p>
      </div>
    </div>
    <p class="quiet hint">
      <span class="mono">{{ total }}</span> {{ total === 1 ? 'part' : 'parts'
      }}<template v-if="total > found.length">, the best {{ found.length }} shown</template
      ><template v-if="value && !replacing"
        >, to be given the value <span class="mono">{{ value }}</span></template
      >
      · <kbd>↑</kbd> <kbd>↓</kbd> choose, <kbd>Enter</kbd> takes it to the cursor, <kbd>Esc</kbd> closes
    </p>
  </div>
</template>

<style scoped>
.finder {
  position: absolute;
  bottom: 86px;
  left: 50%;
  transform: translateX(-50%);
  width: 560px;
  z-index: 6;
  padding: 10px;
}
.cols {
  display: grid;
  grid-template-columns: 1fr 210px;
  gap: 10px;
  margin-top: 8px;
}
.list {
  height: 268px;
  overflow-y: auto;
}
.behind {
  opacity: 0.55;
}
.small {
  font-size: 11.5px;
}
.list .small {
  display: block;
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.look canvas {
  display: block;
  width: 200px;
  height: 120px;
  border-radius: 8px;
  margin-bottom: 6px;
  background: #eef1f5;
}
.look canvas.dark {
  background: #1c1825;
}
.look canvas.board-dark {
  background: #17131e;
}
.look canvas.board-light {
  background: #e4e8ee;
}
.hint {
  font-size: 12px;
  margin: 6px 2px 0;
}
.none {
  padding: 8px;
}
</style>
