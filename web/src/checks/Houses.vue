<script setup lang="ts">
import { mdiCheckCircleOutline, mdiCloseCircleOutline } from '@mdi/js'
import { useTimeoutFn } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Project } from '../live/project'
import { format } from '../live/units'
import { call } from '../live/http'
import type { ClassSeen, HouseSeen, Kinds, LimitSeen, LimitTaken, Measured } from '../live/wire.gen'
import FilePick from '../shell/fields/FilePick.vue'
import LengthField from '../shell/fields/LengthField.vue'
import WholeField from '../shell/fields/WholeField.vue'
import { saveFile } from '../shell/saving'
import { complain, say } from '../shell/notices'
import { useTaste } from '../shell/taste'
import OwnHouse from './OwnHouse.vue'
import { freeName, withClass, withLimit } from './ownHouse'

/** How the board stands against what board houses make: for each limit the least that it has, where, and how far that is from the limit. */
const props = defineProps<{ project: Project }>()
const router = useRouter()
const taste = useTaste()
const houses = ref<HouseSeen[] | null>(null)
/** The revision that was measured. */
const rev = ref(-1)
const measuring = ref(false)
const trouble = ref('')
const behind = computed(() => (void props.project.docTick.value, rev.value >= 0 && rev.value !== props.project.rev.value))
const at = ref<[string, string] | null>(null) // the house and the class that are seen
const taking = ref<LimitTaken[] | null>(null)
const price = (n: number) => `${(n / 100).toFixed(2)} ×`

let asking: AbortController | null = null
async function ask() {
  asking?.abort()
  const mine = (asking = new AbortController())
  measuring.value = true
  try {
    const m = await call<Measured>('GET', `/projects/${props.project.id}/houses`, undefined, mine.signal)
    if (mine !== asking) return
    rev.value = m.rev
    trouble.value = ''
    takeIn(m.houses)
  } catch (e) {
    if (mine === asking) trouble.value = (e as Error).message
  }
  if (mine === asking) measuring.value = false
}
function takeIn(seen: HouseSeen[]) {
  houses.value = seen
  const there = seen.find((h) => h.key === at.value?.[0])
  if (!there?.classes.some((c) => c.name === at.value?.[1])) {
    const h = seen.find((h) => h.cheapest >= 0) ?? seen[0]
    at.value = [h.key, h.classes[Math.max(h.cheapest, 0)].name]
  }
}
const soon = useTimeoutFn(() => void ask(), 250, { immediate: false })
watch(() => [props.project.derivedTick.value, props.project.docTick.value], () => rev.value !== props.project.rev.value && soon.start()) // prettier-ignore
void ask()
onBeforeUnmount(() => asking?.abort())

// ---- houses of the project's own

const own = computed(() => (void props.project.docTick.value, props.project.get('house', house.value?.own ?? 0)))
/** What is seen is a house of the project's own: a change of it is kept. */
const put = (h: Omit<Kinds['house'], 'id'> & { id?: number }) => props.project.edit('putHouse', { house: { id: 0, ...h } })
async function vary() {
  const of = house.value!
  const name = freeName(
    `${of.name}, ours`,
    houses.value!.map((h) => h.name),
  )
  const classes = of.classes.map((c) => ({ name: c.name, text: c.text, price: c.price, limits: limitsOf(of, c) }))
  if ((await put({ name, text: of.text, of: of.key, classes }).catch(complain)) !== undefined) {
    await ask()
    const made = houses.value?.find((h) => h.name === name)
    if (made) at.value = [made.key, shown.value?.name ?? made.classes[0].name]
  }
}
/** The limits of a class, those too that nothing on the board is measured for. */
function limitsOf(h: HouseSeen, c: ClassSeen): Record<string, number> {
  const kept = h.own ? props.project.get('house', h.own)?.classes.find((k) => k.name === c.name)?.limits : undefined
  return { ...kept, ...Object.fromEntries(c.limits.filter((l) => l.bound > 0).map((l) => [l.limit, l.bound])) }
}
/** Sets a limit of the class that is seen; 0: it is not made. */
const setLimit = (l: LimitSeen, bound: number) =>
  own.value && put(withClass(own.value, shown.value!.name, (c) => withLimit(c, l.limit, bound))).catch(complain)
/** Another class of the house is seen, or the same under another name, once the board was held against it. */
async function see(name: string) {
  const key = at.value![0]
  await ask()
  at.value = [key, name]
}
const pick = ref<{ choose: () => void }>()
async function read([f]: File[]) {
  const path = `/projects/${props.project.id}/houses/read`
  const h = await call<Kinds['house']>('POST', path, f).catch(complain)
  if (h && (await put(h).catch(complain)) !== undefined) say(`${h.name} is kept with the project.`)
}
const file = () => saveFile(`/projects/${props.project.id}/houses/${house.value!.key}`, 'house.json').catch(complain)

const house = computed(() => houses.value?.find((h) => h.key === at.value?.[0]))
const place = computed(() => house.value?.classes.findIndex((c) => c.name === at.value?.[1]) ?? -1)
const shown = computed(() => house.value?.classes[place.value])
/** What keeps the board out of the class before the cheapest that makes it. */
const cheaper = computed(() => {
  const h = house.value
  if (!h || h.cheapest < 1) return null
  const c = h.classes[h.cheapest - 1]
  return { ...c, against: c.limits.filter((l) => !l.keeps) }
})
const fits = (c: ClassSeen) => c.limits.every((l) => l.keeps)
const value = (l: LimitSeen, v: number) =>
  l.length ? `${format(v, taste.unit, 4)} ${taste.unit}` : l.limit === 'aspect' ? (v / 100).toFixed(2) : String(v)
/** How far the bar of a limit goes: at the mark in its middle the board is just at the limit. */
function bar(l: LimitSeen): number {
  if (!l.found || !l.bound) return l.found ? 0 : 1
  const ratio = l.most ? l.bound / Math.max(l.found.value, 1) : l.found.value / l.bound
  return Math.min(Math.max(ratio, 0) / 2, 1)
}
function go(l: LimitSeen) {
  const id = l.found?.objects?.[0]
  if (id) void router.push({ path: `/project/${props.project.id}/board`, query: { id: String(id), t: String(Date.now()) } })
}
async function foresee() {
  const [key, name] = at.value!
  taking.value = (await props.project.question('limitsTaken', { house: key, class: name }).catch(complain)) ?? null
}
async function take() {
  const [key, name] = at.value!
  if ((await props.project.edit('takeLimits', { house: key, class: name }).catch(complain)) !== undefined)
    say(`The board’s rules are those of ${house.value!.name}, ${name}.`)
  taking.value = null
}
watch(at, () => (taking.value = null))
const words: Record<string, string> = {
  clearance: 'Clearance',
  withinPart: 'Within one part',
  edgeClearance: 'To the edge',
  holeClearance: 'Between holes',
  leastWidth: 'Least width',
  leastHole: 'Least hole',
  leastRing: 'Least ring',
  holeCopper: 'Holes to copper',
  maskWeb: 'Webs of mask',
  leastSilk: 'Least silk',
  letterHeight: 'Letters',
}
const length = (nm: number) => `${format(nm, taste.unit, 4)} ${taste.unit}`
</script>

<template>
  <div v-if="!houses" class="quiet wait" role="status">{{ trouble || 'The board is measured …' }}</div>
  <div v-else class="houses">
    <nav aria-label="Houses and their classes">
      <section v-for="h in houses" :key="h.key">
        <h3>{{ h.name }}</h3>
        <p class="quiet">{{ h.text }}</p>
        <p v-if="h.of" class="quiet">A variant of {{ h.of }}.</p>
        <v-list density="compact" bg-color="transparent">
          <v-list-item
            v-for="(c, i) in h.classes"
            :key="c.name"
            :active="h.key === at?.[0] && c.name === at?.[1]"
            @click="at = [h.key, c.name]"
          >
            <template #prepend>
              <v-icon
                :icon="fits(c) ? mdiCheckCircleOutline : mdiCloseCircleOutline"
                :color="fits(c) ? 'secondary' : 'error'"
                :aria-label="fits(c) ? 'makes it' : 'does not make it'"
                role="img"
                size="17"
              />
            </template>
            <v-list-item-title>{{ c.name }}</v-list-item-title>
            <v-list-item-subtitle v-if="i === h.cheapest">the cheapest here</v-list-item-subtitle>
            <template #append
              ><span class="mono price">{{ price(c.price) }}</span></template
            >
          </v-list-item>
        </v-list>
      </section>
      <v-btn size="small" variant="outlined" @click="pick?.choose()">Read a house from a file …</v-btn>
      <FilePick ref="pick" label="File of a house" accept=".json,application/json" @files="read" />
    </nav>
    <div v-if="house && shown" class="shown">
      <div class="top">
        <h3>{{ house.name }}, {{ shown.name }}</h3>
        <span class="quiet">{{ shown.text }}</span>
        <span class="grow" />
        <v-btn size="small" variant="text" @click="file">Write to a file</v-btn>
        <v-btn size="small" variant="text" @click="vary">Make a variant</v-btn>
        <v-btn v-if="!taking" size="small" variant="outlined" @click="foresee">Take as the board’s rules …</v-btn>
      </div>
      <p v-if="behind || trouble" class="stale" role="status">
        {{ trouble || `As of revision ${rev}` }}{{ measuring ? ', being measured anew' : '' }}
      </p>
      <OwnHouse v-if="own" :project="project" :house="own" :name="shown.name" @seen="see" />
      <p v-if="house.of" class="quiet differs">
        <template v-if="house.differs?.length || shown.limits.some((l) => l.was !== undefined)">
          It differs from {{ house.of }}:
          {{
            [
              ...(house.differs ?? []),
              ...shown.limits
                .filter((l) => l.was !== undefined)
                .map(
                  (l) =>
                    `${l.words.toLowerCase()} ${l.bound ? value(l, l.bound) : 'not made'} instead of ${l.was ? value(l, l.was) : 'not made'}`,
                ),
            ].join('; ')
          }}.
        </template>
        <template v-else>{{ shown.name }} is as at {{ house.of }} in all limits.</template>
      </p>
      <div v-if="taking" class="taking" role="group" aria-label="What would change">
        <p v-if="!taking.length">The board’s rules are those of this class already.</p>
        <p v-for="t in taking" :key="t.kind">
          {{ words[t.kind] ?? t.kind }}: <span class="mono">{{ length(t.was) }}</span> →
          <span class="mono">{{ length(t.is) }}</span>
        </p>
        <v-btn v-if="taking.length" size="small" color="primary" variant="flat" @click="take">Take them</v-btn>
        <v-btn size="small" variant="text" @click="taking = null">Leave the rules as they are</v-btn>
      </div>
      <v-table density="compact">
        <thead>
          <tr>
            <th>What</th>
            <th class="right">Has</th>
            <th><span class="mid">less room | more room</span></th>
            <th class="right">Limit</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="l in shown.limits" :key="l.limit" :class="{ over: !l.keeps }">
            <td>{{ l.words }}</td>
            <td class="right mono">{{ l.found ? value(l, l.found.value) : '–' }}</td>
            <td class="track">
              <div class="bar" role="img" :aria-label="l.keeps ? 'keeps the limit' : 'breaks the limit'">
                <i :style="{ width: `${100 * bar(l)}%` }" /><b />
              </div>
            </td>
            <td class="right mono" :class="{ other: l.was !== undefined }">
              <LengthField
                v-if="own && l.length"
                bare
                tight
                :label="`Limit of ${l.words}`"
                :value="l.bound"
                @keep="setLimit(l, $event)"
              />
              <WholeField
                v-else-if="own"
                bare
                tight
                :hundredths="l.limit === 'aspect'"
                :most="l.limit === 'aspect' ? 10_000 : 64"
                :label="`Limit of ${l.words}`"
                :value="l.bound"
                @keep="setLimit(l, $event)"
              />
              <template v-else>{{ l.bound ? `${l.most ? '≤' : '≥'} ${value(l, l.bound)}` : 'not made' }}</template>
            </td>
            <td>
              <v-btn v-if="l.found?.objects?.length" size="x-small" variant="text" :aria-label="`Show ${l.words}`" @click="go(l)"
                >Show</v-btn
              >
            </td>
          </tr>
        </tbody>
      </v-table>
      <p v-if="cheaper" class="cheaper">
        To be {{ cheaper.name }} at <span class="mono">{{ price(cheaper.price) }}</span>:
        <template v-for="(l, i) in cheaper.against" :key="l.limit"
          >{{ i ? '; ' : '' }}{{ l.words.toLowerCase() }} <span class="mono">{{ l.found ? value(l, l.found.value) : '' }}</span>{{
            l.bound ? ', needs ' : ', which they do not make'
          }}<span v-if="l.bound" class="mono">{{ value(l, l.bound) }}</span></template
        >.
      </p>
      <p v-else-if="house.cheapest < 0" class="cheaper">{{ house.name }} does not make this board.</p>
    </div>
  </div>
</template>

<style scoped>
.houses {
  flex: 1;
  min-height: 0;
  display: flex;
  gap: 22px;
}
nav {
  width: 250px;
  flex: none;
  overflow-y: auto;
}
nav :deep(.v-list-item__prepend) {
  width: 27px;
}
nav section {
  margin-bottom: 14px;
}
nav p {
  font-size: 12px;
}
h3 {
  font-size: 15px;
  font-weight: 600;
}
.price {
  font-size: 12px;
}
.shown {
  flex: 1;
  min-width: 0;
  overflow-y: auto;
}
.top {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-bottom: 8px;
}
.grow {
  flex: 1;
}
.taking {
  padding: 8px 12px;
  margin-bottom: 10px;
  border: 1px solid rgba(var(--v-border-color), 0.3);
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
}
.v-table {
  background: transparent;
}
.v-table .right {
  text-align: right;
  white-space: nowrap;
}
.mid {
  display: block;
  text-align: center;
  font-weight: 400;
  font-size: 11.5px;
  opacity: 0.75;
}
.track {
  width: 36%;
}
.bar {
  position: relative;
  height: 9px;
  border-radius: 4px;
  overflow: hidden;
  background: rgba(var(--v-border-color), 0.25);
}
.bar i {
  position: absolute;
  inset: 0 auto 0 0;
  background: rgb(var(--v-theme-secondary));
}
.over .bar i {
  background: rgb(var(--v-theme-error));
}
.v-table .over td {
  color: rgb(var(--v-theme-error));
}
.bar b {
  position: absolute;
  left: 50%;
  top: 0;
  bottom: 0;
  width: 2px;
  background: rgb(var(--v-theme-on-background));
}
.differs {
  margin-bottom: 6px;
}
.other {
  font-weight: 700;
}
.stale {
  color: rgb(var(--v-theme-error));
  font-size: 13px;
}
.cheaper {
  margin-top: 14px;
  max-width: 860px;
}
.wait {
  padding: 28px 0;
}
</style>
