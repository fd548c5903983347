<script setup lang="ts">
import { mdiCheckDecagramOutline, mdiCircleOutline } from '@mdi/js'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import { call } from '../../live/http'
import { latest } from '../../live/latest'
import type { Project } from '../../live/project'
import type { LibraryRows, NewVersion } from '../../live/wire.gen'
import FilePick from '../../shell/fields/FilePick.vue'
import OneOf from '../../shell/fields/OneOf.vue'
import { useCommands } from '../../shell/commands'
import { type Entry, openMenu, placeOf } from '../../shell/menu'
import { complain } from '../../shell/notices'
import { saveFile } from '../../shell/saving'
import type { Column } from '../../shell/table/columns'
import DataTable from '../../shell/table/DataTable.vue'
import FilterField from '../../shell/table/FilterField.vue'
import ListPage from '../ListPage.vue'
import NewPartPanel from './NewPartPanel.vue'
import PackPanel from './PackPanel.vue'
import PartCard from './PartCard.vue'
import PartTablePanel from './PartTablePanel.vue'
import VersionPanel from './VersionPanel.vue'

/** All parts there are: of the project and of the libraries. */
const props = defineProps<{ project: Project; chosen: string; own: boolean }>()
const emit = defineEmits<{
  choose: [string, boolean]
  symbol: [number]
  footprint: [number]
  generate: [number | undefined, string]
  byHand: [string]
}>()
interface PartRow {
  name: string
  library: string
  own: boolean
  prefix: string
  value: string
  description: string
  pins: number
  footprint: string
  checked: boolean
}
const filter = ref('')
const where = ref<'all' | 'project' | 'libraries'>('all')
const making = ref(false)
const newer = shallowRef<NewVersion[]>([])
const comparing = ref<NewVersion | null>(null)
const found = ref<LibraryRows>({ rows: [], found: 0 })
const search = latest(
  (q: string) => call<LibraryRows>('GET', '/library/rows?q=' + encodeURIComponent(q)).catch((e) => (complain(e), null)),
  (r) => r && (found.value = r),
)
watch(filter, search)
const askNewer = latest(
  () => props.project.question('newer', {}).catch(() => []),
  (list) => (newer.value = list),
)
onMounted(() => {
  void search('')
  void askNewer('')
})
watch(props.project.docTick, () => void askNewer(''))
async function takeAll() {
  await props.project.edit('updateParts', { names: newer.value.map((n) => n.name) }).catch(complain)
}
const words = computed(() => filter.value.toLowerCase().split(/\s+/).filter((w) => w)) // prettier-ignore
const own = computed<PartRow[]>(() => {
  void props.project.docTick.value
  return props.project
    .all('libraryPart')
    .map((p) => ({
      name: p.name,
      library: 'this project',
      own: true,
      prefix: p.prefix,
      value: p.value ?? '',
      description: p.description,
      pins: (p.units?.length ? p.units : [p.symbol]).reduce((n, s) => n + (props.project.named('symbol', s)?.pins.length ?? 0), 0), // prettier-ignore
      footprint: p.footprint,
      checked: !!p.checked,
    }))
    .filter((r) =>
      words.value.every((w) => `${r.name} ${r.value} ${r.description} ${r.footprint} ${r.pins} pins`.toLowerCase().includes(w)),
    ) // prettier-ignore
    .sort((a, b) => a.name.localeCompare(b.name))
})
const names: Record<string, string> = { shipped: 'shipped', workspace: 'workspace' }
const rows = computed<PartRow[]>(() => [
  ...(where.value === 'libraries' ? [] : own.value),
  ...(where.value === 'project'
    ? []
    : found.value.rows.map((r) => ({ ...r, library: names[r.library] ?? r.library, own: false, value: r.value ?? '', checked: !!r.checked }))), // prettier-ignore
])
const columns: Column<PartRow>[] = [
  { field: 'name', name: 'Part', width: 190, text: (r) => r.name, fixed: true },
  { field: 'library', name: 'Library', width: 92, text: (r) => r.library, fixed: true, quiet: true },
  {
    field: 'checked',
    name: 'Checked',
    width: 76,
    fixed: true,
    text: (r) => (r.checked ? 'yes' : ''),
    icon: (r) => (r.checked ? { path: mdiCheckDecagramOutline, tone: 'good', name: 'checked' } : { path: mdiCircleOutline, tone: 'quiet', name: 'not checked' }), // prettier-ignore
  },
  {
    field: 'pins',
    name: 'Pins',
    width: 52,
    text: (r) => String(r.pins),
    rank: (r) => r.pins,
    fixed: true,
    mono: true,
    right: true,
  },
  { field: 'footprint', name: 'Footprint', width: 190, text: (r) => r.footprint, fixed: true, mono: true },
  { field: 'value', name: 'Value', width: 84, text: (r) => r.value, fixed: true, mono: true, valued: true },
  { field: 'description', name: 'Description', width: 260, text: (r) => r.description, fixed: true },
]
const tabling = ref(false)
const coming = shallowRef<File | null>(null)
const pick = ref<{ choose: () => void }>()
/** Parts as a pack, handed to the browser to keep; no names: all of the project. */
function pack(from: 'project' | 'libraries', names: string[] = []) {
  const q = new URLSearchParams(names.map((n) => ['part', n])).toString()
  void saveFile(`${from === 'project' ? `/projects/${props.project.id}` : '/library'}/pack?${q}`, 'parts.zip').catch(complain)
}
const exchange: Entry[] = [
  { title: 'Take in a pack …', run: () => pick.value?.choose() },
  { title: 'Take in a table of parts …', run: () => (tabling.value = true) },
  { title: 'All parts of this project as a pack', run: () => pack('project'), enabled: () => own.value.length > 0 },
  {
    title: 'Print the footprints of this project at true size',
    run: () => void saveFile(`/projects/${props.project.id}/footprints.pdf`, 'footprints.pdf').catch(complain),
    enabled: () => own.value.length > 0,
  },
]
const menu = (list: PartRow[]): Entry[] =>
  [true, false].flatMap((mine) => {
    const names = list.filter((r) => r.own === mine).map((r) => r.name)
    if (!names.length) return []
    const what = names.length === 1 ? names[0] : `${names.length} parts`
    return [{ title: `${what} ${mine ? 'of this project' : 'of the libraries'} as a pack`, run: () => pack(mine ? 'project' : 'libraries', names) }] // prettier-ignore
  })
/** The library of the workspace is another. */
function changed() {
  void search(filter.value)
  void askNewer('')
}
useCommands([
  { id: 'newPart', title: 'New part', keys: 'N', group: 'Library', run: () => (making.value = true) },
  { id: 'footprintByHand', title: 'New footprint by hand', group: 'Library', run: () => emit('byHand', '') },
  {
    id: 'footprintGenerated',
    title: 'New footprint from dimensions',
    group: 'Library',
    run: () => emit('generate', undefined, ''),
  },
  ...exchange.map((e, i) => ({ id: `pack${i}`, group: 'Library', ...e })),
])
const choose = (r: PartRow) => emit('choose', r.name, r.own)
</script>

<template>
  <ListPage>
    <template #bar>
      <FilterField v-model="filter" label="Find parts" hint="Find: resistor 0603, 8 pins, SOIC* …" />
      <OneOf
        label="Which parts"
        :value="where"
        :options="[
          { value: 'all', title: 'All' },
          { value: 'project', title: 'This project' },
          { value: 'libraries', title: 'Libraries' },
        ]"
        @keep="where = $event"
      />
      <span class="quiet count">
        <span class="mono">{{ own.length }}</span> here · <span class="mono">{{ found.found }}</span> in libraries
      </span>
      <span class="grow" />
      <v-btn
        size="small"
        variant="outlined"
        aria-haspopup="menu"
        @click="openMenu(placeOf($event, $event.currentTarget as HTMLElement), exchange)"
        >In and out</v-btn
      >
      <FilePick ref="pick" label="File of a pack" accept=".zip" @files="([f]) => (coming = f)" />
      <v-btn size="small" color="primary" variant="flat" @click="making = true">New part</v-btn>
    </template>
    <div v-if="newer.length" class="newer" role="status">
      <span>
        {{ newer.length === 1 ? 'A part has' : `${newer.length} parts have` }} a newer version in the library:
        <v-btn v-for="n in newer.slice(0, 5)" :key="n.name" size="small" variant="outlined" @click="comparing = n">{{
          n.name
        }}</v-btn>
        {{ newer.length > 5 ? `and ${newer.length - 5} more` : '' }}
      </span>
      <v-btn v-if="newer.length > 1" size="x-small" variant="text" @click="takeAll">Take all</v-btn>
    </div>
    <DataTable name="library" label="Parts" :columns="columns" :rows="rows" :menu="menu" @now="choose" @open="choose" />
    <template #over>
      <VersionPanel v-if="comparing" :project="project" :version="comparing" @close="comparing = null" />
      <PackPanel v-if="coming" :file="coming" @close="coming = null" @kept="((coming = null), changed())" />
      <PartTablePanel v-if="tabling" :project="project" @close="tabling = false" />
      <NewPartPanel
        v-if="making"
        :project="project"
        @close="making = false"
        @made="((making = false), emit('choose', $event, true))"
        @footprint="((making = false), emit('byHand', ''))"
      />
    </template>
    <template #side>
      <PartCard
        v-if="chosen"
        :project="project"
        :name="chosen"
        :own="own.some((r) => r.name === chosen) && props.own"
        @symbol="emit('symbol', $event)"
        @footprint="emit('footprint', $event)"
        @generate="(f, n) => emit('generate', f, n)"
        @by-hand="emit('byHand', $event)"
        @changed="changed"
        @gone="emit('choose', '', false)"
      />
      <p v-else class="quiet">Pick a part to see its symbol, its footprint and which pin goes to which pad.</p>
    </template>
  </ListPage>
</template>

<style scoped>
.newer {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 4px 10px;
  margin-bottom: 8px;
  border-left: 3px solid rgb(var(--v-theme-info));
  background: rgba(var(--v-theme-info), 0.1);
  font-size: 12.5px;
}
.count {
  white-space: nowrap;
}
.grow {
  flex: 1;
}
</style>
