<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiDeleteOutline, mdiPlus } from '@mdi/js'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import type { Project } from '../../live/project'
import { format } from '../../live/units'
import type { Barrel, DesignWay, Holes, HolesSeen } from '../../live/wire.gen'
import ChoiceField from '../../shell/fields/ChoiceField.vue'
import LengthField from '../../shell/fields/LengthField.vue'
import TextField from '../../shell/fields/TextField.vue'
import WholeField from '../../shell/fields/WholeField.vue'
import IconAct from '../../shell/IconAct.vue'
import { complain, say } from '../../shell/notices'
import { useTaste } from '../../shell/taste'
import PartField from './PartField.vue'
import WayPicture from './WayPicture.vue'

/** Which holes the house makes, and by which of them a hop leads from layer to layer, the best first. */
const props = defineProps<{ project: Project }>()
const taste = useTaste()
const board = computed(() => (void props.project.docTick.value, props.project.board))
const copper = computed(() => board.value.stack.filter((l) => l.kind === 'copper'))
const holes = computed<Holes>(() => board.value.holes ?? {})
const from = ref(0)
const to = ref(0)
const options = computed(() => copper.value.map((l) => ({ value: l.id, title: l.name })))
watch(
  copper,
  (c) => {
    if (!c.some((l) => l.id === from.value)) from.value = c[0]?.id ?? 0
    if (!c.some((l) => l.id === to.value)) to.value = c[Math.min(1, c.length - 1)]?.id ?? 0
  },
  { immediate: true },
)
const seen = shallowRef<HolesSeen | null>(null)
const load = async () => (seen.value = await props.project.question('holes', { from: from.value, to: to.value }).catch((e) => (complain(e), seen.value))) // prettier-ignore
onMounted(load)
watch(() => [from.value, to.value, props.project.docTick.value].join(), () => void load()) // prettier-ignore
const depth = (b: Barrel) => {
  const d = seen.value?.barrels.find((x) => x.id === b.id)
  return d
    ? `${format(d.depth, taste.unit, 3)} ${taste.unit} deep${b.hole ? `, ${(d.depth / b.hole).toFixed(2)} : 1` : ''}${d.vias ? `, ${d.vias} on the board` : ''}`
    : ''
}

// ---- what changes, and what follows

/** A change that vias on the board would follow, with what would become of them. */
const coming = shallowRef<{ holes: Holes; said: string } | null>(null)
async function put(next: Holes) {
  const cmd = props.project.foresee('setHoles', { holes: next })
  const told = await props.project.question('foresee', cmd).catch(complain)
  if (!told) return undefined
  if (told.said) coming.value = { holes: next, said: told.said }
  else return props.project.edit('setHoles', { holes: next }).catch(complain)
  return undefined
}
async function take(keep: boolean) {
  const c = coming.value
  coming.value = null
  if (c) await props.project.edit('setHoles', { holes: c.holes, ...(keep ? { keep } : {}) }).catch(complain)
}
const limit = (kind: 'drilled' | 'lasered', f: object) => put({ ...holes.value, [kind]: { ...holes.value[kind], ...f } })
const barrels = computed(() => holes.value.barrels ?? [])
const setBarrel = (b: Barrel, f: Partial<Barrel>) => put({ ...holes.value, barrels: barrels.value.map((x) => (x.id === b.id ? { ...x, ...f } : x)) }) // prettier-ignore
const dropBarrel = (b: Barrel) => put({ ...holes.value, barrels: barrels.value.filter((x) => x.id !== b.id), ways: (holes.value.ways ?? []).filter((w) => w.steps.every((s) => s.barrel !== b.id)) }) // prettier-ignore
function addBarrel() {
  const c = copper.value
  if (c.length < 2) return say('The board has one copper layer: holes would join nothing.', 'error')
  const names = new Set(barrels.value.map((b) => b.name))
  const first: Barrel[] = barrels.value.length ? [] : [{ id: 0, name: 'Through', from: c[0].id, to: c[c.length - 1].id }]
  let n = 1
  while (names.has(`Hole ${n}`)) n++
  void put({ ...holes.value, barrels: [...barrels.value, ...(first.length ? first : [{ id: 0, name: `Hole ${n}`, from: c[0].id, to: c[1].id }])] }) // prettier-ignore
}

// ---- the order of ways

const order = (ways: DesignWay[]) => {
  const others = (holes.value.ways ?? []).filter((w) => !isPair(w))
  return put({ ...holes.value, ways: [...others, ...ways] })
}
const isPair = (w: DesignWay) => {
  const at = (id: number) => copper.value.findIndex((l) => l.id === id)
  const [a, b] = [Math.min(at(from.value), at(to.value)), Math.max(at(from.value), at(to.value))]
  return at(w.from) === a && at(w.to) === b
}
function move(i: number, by: number) {
  const list = (seen.value?.ways ?? []).map((w) => w.way)
  const [w] = list.splice(i, 1)
  list.splice(i + by, 0, w)
  void order(list)
}
const drop = (i: number) => order((seen.value?.ways ?? []).map((w) => w.way).filter((_, k) => k !== i))
</script>

<template>
  <div class="holes">
    <div v-if="coming" class="coming" role="alertdialog" aria-label="What would follow">
      <p>{{ coming.said }}</p>
      <v-btn size="small" color="primary" variant="flat" @click="take(false)">Make them anew</v-btn>
      <v-btn size="small" variant="outlined" @click="take(true)">Leave what is there</v-btn>
      <v-btn size="small" variant="text" @click="coming = null">Cancel</v-btn>
    </div>
    <section aria-label="Hop table">
      <h4>Ways from layer to layer</h4>
      <div class="pair">
        <ChoiceField label="From" tight :value="from" :options="options" @keep="from = $event" />
        <ChoiceField label="To" tight :value="to" :options="options" @keep="to = $event" />
        <span class="quiet">{{ seen?.said ? 'in your order' : 'shallow before deep, single before chains' }}</span>
        <v-btn v-if="seen?.said" size="x-small" variant="text" @click="order([])">Usual order</v-btn>
      </div>
      <p v-if="from === to" class="quiet">Choose two layers.</p>
      <p v-else-if="seen && !seen.ways.length" class="quiet">No hole below leads from one to the other.</p>
      <ol v-else class="ways">
        <li v-for="(w, i) in seen?.ways" :key="w.says + i">
          <WayPicture :way="w.way" :layers="board.stack" :barrels="barrels" />
          <span class="says">{{ w.says }}</span>
          <span class="acts">
            <IconAct :icon="mdiArrowUp" :disabled="!i" :label="`Better: ${w.says}`" @click="move(i, -1)" />
            <IconAct
              :icon="mdiArrowDown"
              :disabled="i === (seen?.ways.length ?? 0) - 1"
              :label="`Less good: ${w.says}`"
              @click="move(i, 1)"
            />
            <IconAct :icon="mdiDeleteOutline" :disabled="seen?.ways.length === 1" :label="`Never: ${w.says}`" @click="drop(i)" />
          </span>
        </li>
      </ol>
    </section>
    <section aria-label="Barrels">
      <div class="head">
        <h4>Holes the house makes</h4>
        <v-btn size="small" variant="outlined" :prepend-icon="mdiPlus" @click="addBarrel">Another</v-btn>
      </div>
      <p v-if="!barrels.length" class="quiet">Through all layers, as large as the rules say. Add one to say which there are.</p>
      <div v-for="b in barrels" :key="b.id" class="barrel" role="group" :aria-label="b.name">
        <TextField label="Name" :says="`Name of ${b.name}`" bare :value="b.name" @keep="setBarrel(b, { name: $event })" />
        <ChoiceField
          label="Kind"
          :says="`Kind of ${b.name}`"
          bare
          :value="b.kind ?? ''"
          :options="[
            { value: '', title: 'drilled' },
            { value: 'laser', title: 'lasered' },
          ]"
          @keep="setBarrel(b, { kind: $event })"
        />
        <ChoiceField
          label="From"
          :says="`${b.name} begins on`"
          bare
          :value="b.from"
          :options="options"
          @keep="setBarrel(b, { from: $event })"
        />
        <ChoiceField
          label="To"
          :says="`${b.name} ends on`"
          bare
          :value="b.to"
          :options="options"
          @keep="setBarrel(b, { to: $event })"
        />
        <LengthField
          label="Hole"
          :says="`Hole of ${b.name}`"
          bare
          :value="b.hole || null"
          empty="by rule"
          @keep="setBarrel(b, { hole: $event })"
        />
        <LengthField
          label="Copper"
          :says="`Copper of ${b.name}`"
          bare
          :value="b.diameter || null"
          empty="by rule"
          @keep="setBarrel(b, { diameter: $event })"
        />
        <ChoiceField
          label="Cover"
          :says="`Cover of ${b.name}`"
          bare
          :value="b.cover ?? ''"
          :options="[
            { value: '', title: 'covered' },
            { value: 'open', title: 'open' },
            { value: 'filled', title: 'filled' },
          ]"
          @keep="setBarrel(b, { cover: $event })"
        />
        <IconAct :icon="mdiDeleteOutline" :label="`Remove ${b.name}`" @click="dropBarrel(b)" />
        <span class="quiet deep">{{ depth(b) }}</span>
      </div>
    </section>
    <section class="limits" aria-label="Limits of holes">
      <div v-for="k in ['drilled', 'lasered'] as const" :key="k">
        <h4>{{ k === 'drilled' ? 'Drilled' : 'Lasered' }}</h4>
        <LengthField
          label="Least hole"
          :says="`Least ${k} hole`"
          :value="holes[k]?.leastHole || null"
          empty="not said"
          @keep="limit(k, { leastHole: $event })"
        />
        <LengthField
          label="Least ring"
          :says="`Least ring of ${k} holes`"
          :value="holes[k]?.leastRing || null"
          empty="not said"
          @keep="limit(k, { leastRing: $event })"
        />
        <div class="aspect">
          <span>Depth to hole</span>
          <PartField
            label="Depth"
            :says="`Depth to diameter of ${k} holes`"
            unit=": 1"
            :value="holes[k]?.aspect ?? 0"
            :whole="100"
            @keep="limit(k, { aspect: $event })"
          />
        </div>
      </div>
      <div>
        <h4>On each other</h4>
        <WholeField
          label="At most"
          :value="holes.stacked || 1"
          :least="1"
          :most="32"
          @keep="put({ ...holes, stacked: $event })"
        />
        <p class="quiet">So many lasered holes may stand on each other; 1 is none.</p>
      </div>
    </section>
  </div>
</template>

<style scoped>
.holes {
  display: flex;
  flex-direction: column;
  gap: 14px;
}
h4 {
  margin: 0 0 6px;
}
.coming {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 8px 12px;
  border-left: 3px solid rgb(var(--v-theme-primary));
}
.coming p {
  flex: 1;
}
.pair {
  display: flex;
  gap: 16px;
  align-items: center;
}
.ways {
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 8px;
}
.ways li {
  display: grid;
  grid-template-columns: 132px 1fr auto;
  gap: 8px;
  align-items: center;
  padding: 6px 8px;
  border: 1px solid rgba(var(--v-border-color), 0.25);
  border-radius: 6px;
}
.says {
  line-height: 1.25;
}
.acts {
  display: flex;
  flex-direction: column;
}
.head {
  display: flex;
  justify-content: space-between;
}
.barrel {
  display: grid;
  grid-template-columns: minmax(90px, 1.2fr) 92px minmax(80px, 1fr) minmax(80px, 1fr) 92px 92px 92px 26px;
  gap: 6px;
  align-items: center;
  padding: 2px 0;
}
.deep {
  grid-column: 1 / -1;
  font-size: 12px;
  margin-top: -3px;
}
.limits > div {
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.limits {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 24px;
}
.aspect {
  display: grid;
  grid-template-columns: 88px minmax(0, 1fr);
  column-gap: 8px;
  align-items: center;
}
</style>
