<script setup lang="ts">
import { computed, onMounted, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Project } from '../live/project'
import type { Crumb } from '../shell/commands'
import OneOf from '../shell/fields/OneOf.vue'
import { complain } from '../shell/notices'
import AssignView from './assign/AssignView.vue'
import BasketView from './depot/BasketView.vue'
import DepotView from './depot/DepotView.vue'
import FootprintView from './footprint/FootprintView.vue'
import GeneratorView from './generator/GeneratorView.vue'
import LibraryView from './library/LibraryView.vue'
import SymbolView from './symbol/SymbolView.vue'

/** The stage of parts: what there is, and the editors of symbols and footprints. Which of them is seen stands in the address. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ where: [Crumb[]] }>()
const route = useRoute()
const router = useRouter()
const view = computed(() => String(route.query.view ?? 'library'))
const id = computed(() => Number(route.query.id) || 0)
const part = computed(() => String(route.query.part ?? ''))
const go = (query: Record<string, string | number | undefined>) => void router.push({ query: Object.fromEntries(Object.entries(query).filter(([, v]) => v)) }) // prettier-ignore
const views = [
  { value: 'library', title: 'Library' },
  { value: 'assign', title: 'Assign' },
  { value: 'depot', title: 'Depot' },
  { value: 'basket', title: 'Basket' },
]
const listed = computed(() => views.some((v) => v.value === view.value))
/** The parts of the circuit that something is looked for in the depot. */
const forParts = computed(() => String(route.query.for ?? '').split('.').map(Number).filter((n) => n > 0)) // prettier-ignore
const toDepot = (ids: number[]) => go({ view: 'depot', for: ids.slice(0, 500).join('.') })
const library = () => go({ part: part.value, own: part.value ? '1' : undefined })
const symbol = computed(() => (void props.project.docTick.value, props.project.get('symbol', id.value)))
const footprint = computed(() => (void props.project.docTick.value, props.project.get('footprint', id.value)))

function tell() {
  const crumbs: Crumb[] = [{ name: 'Parts', go: () => go({}) }]
  if (part.value) crumbs.push({ name: part.value, go: library })
  if (view.value === 'symbol') crumbs.push({ name: `symbol ${symbol.value?.name ?? ''}`, go: () => undefined })
  if (view.value === 'footprint') crumbs.push({ name: `footprint ${footprint.value?.name ?? ''}`, go: () => undefined })
  if (view.value === 'generator') crumbs.push({ name: 'from dimensions', go: () => undefined })
  emit('where', crumbs)
}
onMounted(tell)
/** A finding leads to its part, or, of the parts that are to be bought and fitted, to the table of all. */
watch(
  () => route.query.finding,
  (key) => {
    const f = key && props.project.findings.get(String(key))
    const p = f && props.project.get('libraryPart', f.objects?.[0] ?? 0)
    if (p) void router.replace({ query: { part: p.name, own: '1' } })
    else if (f) go({ view: 'assign' })
  },
  { immediate: true },
)
watch([view, part, symbol, footprint], tell)
/** A footprint that was made for a part becomes that part's. */
async function made(f: number) {
  const p = part.value && props.project.named('libraryPart', part.value)
  const name = props.project.get('footprint', f)?.name
  if (p && name && !p.footprint) await props.project.edit('putLibraryPart', { part: { ...p, footprint: name } })
  go({ view: 'footprint', id: f, part: part.value })
}
/** Begins an empty footprint, of the part where one is meant, and leads to its editor. */
async function byHand(of = '') {
  const p = of ? props.project.named('libraryPart', of) : undefined
  const base = p?.footprint || of || 'Footprint'
  let name = base
  for (let n = 2; props.project.named('footprint', name); n++) name = `${base} ${n}`
  if ((await props.project.edit('putFootprint', { name }).catch(complain)) === undefined) return
  const f = props.project.named('footprint', name)
  if (!f) return
  if (p && !p.footprint) await props.project.edit('putLibraryPart', { part: { ...p, footprint: name } }).catch(complain)
  go({ view: 'footprint', id: f.id, part: of })
}
</script>

<template>
  <div v-if="listed" class="views float">
    <OneOf
      label="What is seen of the parts"
      :value="view"
      :options="views"
      @keep="go({ view: $event === 'library' ? undefined : $event })"
    />
  </div>
  <AssignView v-if="view === 'assign'" :project="project" @depot="toDepot" />
  <DepotView v-else-if="view === 'depot'" :project="project" :parts="forParts" @done="go({ view: 'assign' })" />
  <BasketView v-else-if="view === 'basket'" :project="project" @choose="toDepot" />
  <LibraryView
    v-else-if="view === 'library'"
    :project="project"
    :chosen="part"
    :own="route.query.own === '1'"
    @choose="(name, own) => router.replace({ query: name ? { part: name, ...(own ? { own: '1' } : {}) } : {} })"
    @symbol="go({ view: 'symbol', id: $event, part })"
    @footprint="go({ view: 'footprint', id: $event, part })"
    @generate="(f, name) => go({ view: 'generator', id: f, part: name })"
    @by-hand="byHand"
  />
  <SymbolView v-else-if="view === 'symbol' && symbol" :project="project" :symbol="id" @back="library" />
  <FootprintView
    v-else-if="view === 'footprint' && footprint"
    :project="project"
    :footprint="id"
    @back="library"
    @generate="go({ view: 'generator', id: $event, part })"
  />
  <GeneratorView
    v-else-if="view === 'generator'"
    :project="project"
    :footprint="id || undefined"
    @made="made"
    @close="id ? go({ view: 'footprint', id, part }) : library()"
  />
  <div v-else class="drawing-empty float">
    <p>What was edited here is not in the project any more.</p>
    <v-btn color="primary" variant="flat" @click="go({})">All parts</v-btn>
  </div>
</template>

<style scoped>
.views {
  position: absolute;
  left: 12px;
  top: 12px;
  z-index: 6;
}
</style>
