<script setup lang="ts">
import { mdiAlertOutline, mdiRobotIndustrialOutline } from '@mdi/js'
import { useDebounceFn } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import type { Project } from '../../live/project'
import { call } from '../../live/http'
import type { Answer, OrderingPart, OrderingRow, Query } from '../../live/wire.gen'
import { type Entry, openMenu, placeOf } from '../../shell/menu'
import { complain } from '../../shell/notices'
import WholeField from '../../shell/fields/WholeField.vue'
import type { Column } from '../../shell/table/columns'
import DataTable from '../../shell/table/DataTable.vue'
import FilterField from '../../shell/table/FilterField.vue'
import ListPage from '../ListPage.vue'
import { datasheetField, makerField, numberField, orderField } from '../assign/rows'
import { useAsking } from './asking'
import AskingState from './AskingState.vue'
import ComparePanel from './ComparePanel.vue'
import DepotCard from './DepotCard.vue'
import FilterColumn from './FilterColumn.vue'
import { mannerEntries } from './manner'
import { euro, pieces } from './money'

/** The depot: what can be bought, filtered by what it is, and chosen for parts of the circuit. */
const props = defineProps<{ project: Project; parts: number[] }>()
const emit = defineEmits<{ done: [] }>()
const query = ref<Query>({ quantity: 25, inStock: true })
/** The query that the answer is of, as it was asked. */
const of = ref('')
const { answer, trouble, busy, slow, ask, stop } = useAsking(async (signal) => {
  const asked = JSON.stringify(query.value)
  const a = await call<Answer>('POST', '/depot/search', query.value, signal)
  of.value = asked
  return a
})
/** What is listed is not what is asked for. */
const stale = computed(() => !!answer.value && of.value !== JSON.stringify(query.value) && !busy.value)
const forParts = computed(() => (void props.project.docTick.value, props.parts.flatMap((id) => props.project.get('part', id) ?? []))) // prettier-ignore
const designators = computed(() => [...new Set(forParts.value.map((p) => p.designator))])

/** What is asked at first follows from the part it is for. */
const ready = ref(false)
async function begin() {
  ready.value = false
  const first = forParts.value[0]
  const boards = props.project.all('basket')[0]?.boards ?? 5
  if (first) {
    const w = await props.project.question('wanted', { part: first.id }).catch((e) => (complain(e), null))
    if (w)
      query.value = { inStock: true, quantity: boards * Math.max(1, designators.value.length), ...w.query, is: w.query.is ?? {} }
  }
  ready.value = true
  void ask()
}
onMounted(begin)
watch(() => props.parts.join(), begin)
const askSoon = useDebounceFn(() => ready.value && ask(), 120)
watch(query, askSoon, { deep: true })

const fixedColumns: Column<OrderingRow>[] = [
  {
    field: 'number',
    name: 'Part number',
    width: 150,
    text: (r) => r.makerNumber,
    fixed: true,
    mono: true,
    icon: (r) => (r.status === 'made' ? undefined : { path: mdiAlertOutline, tone: 'warning', name: r.status }),
  },
  { field: 'text', name: 'Description', width: 235, text: (r) => r.text, fixed: true },
  { field: 'package', name: 'Package', width: 84, text: (r) => r.package, fixed: true },
  { field: 'stock', name: 'In stock', width: 78, text: (r) => pieces(r.stock), fixed: true, mono: true, right: true },
  {
    field: 'price',
    name: 'Each',
    width: 82,
    text: (r) => (r.cost ? euro(r.cost.each) : '–'),
    fixed: true,
    mono: true,
    right: true,
  },
  {
    field: 'total',
    name: 'In all',
    width: 78,
    text: (r) => (r.cost ? euro(r.cost.total) : '–'),
    fixed: true,
    mono: true,
    right: true,
  },
  {
    field: 'pieces',
    name: 'Pieces',
    width: 62,
    text: (r) => (r.cost ? pieces(r.cost.pieces) : '–'),
    fixed: true,
    mono: true,
    right: true,
  },
  { field: 'packaging', name: 'As', width: 84, text: (r) => r.cost?.packaging ?? '', fixed: true },
  {
    field: 'placed',
    name: 'Placed',
    width: 62,
    text: () => '',
    fixed: true,
    icon: (r) => (r.placed ? { path: mdiRobotIndustrialOutline, tone: 'good', name: 'the placement line has it' } : undefined),
  },
  { field: 'maker', name: 'Maker', width: 104, text: (r) => r.maker, fixed: true },
]
const sortable = ['number', 'package', 'stock', 'price', 'maker']
const named = computed(() => (query.value.family ? (answer.value?.facets ?? []).filter((f) => !['maker', 'package', 'packaging', 'status'].includes(f.name)).map((f) => f.name) : [])) // prettier-ignore
const columns = computed<Column<OrderingRow>[]>(() => [
  ...fixedColumns,
  ...named.value.map((name) => ({
    field: name,
    name: name[0].toUpperCase() + name.slice(1),
    width: 96,
    text: (r: OrderingRow) => r.properties.find((p) => p.name === name)?.text ?? '',
    fixed: true,
    mono: true,
    right: true,
  })),
])
const sort = computed({
  get: () => (query.value.sort ? { field: query.value.sort, down: !!query.value.down } : null),
  set: (s) => {
    const field = s?.field === 'total' ? 'price' : s?.field
    if (field && !sortable.includes(field) && !named.value.includes(field)) return
    query.value = { ...query.value, sort: field, down: s?.down || undefined }
  },
})
const now = shallowRef<OrderingRow | null>(null)
const table = ref<{ current?: OrderingRow }>()
/** The card shows what the hand is on in the list as it is now. */
watch(answer, (a) => void nextTick(() => (now.value = table.value?.current ?? a?.rows[0] ?? null)))

// ---- up to four side by side

const most = 4
const beside = ref<string[]>([])
const comparing = ref(false)
function compare(r: OrderingRow) {
  beside.value = beside.value.includes(r.number)
    ? beside.value.filter((n) => n !== r.number)
    : [...beside.value, r.number].slice(-most)
}

// ---- choosing

async function choose(r: OrderingPart) {
  const fields: Record<string, string> = { [makerField]: r.maker, [numberField]: r.makerNumber, [orderField]: r.number, ...(r.datasheet ? { [datasheetField]: r.datasheet } : {}) } // prettier-ignore
  const cells = forParts.value.flatMap((p) => Object.entries(fields).map(([field, text]) => ({ id: p.id, field, text })))
  await props.project
    .edit('setParts', { cells })
    .then(() => emit('done'))
    .catch(complain)
}
const menu = ([r]: OrderingRow[]): Entry[] => [
  { title: `Choose it for ${designators.value.join(' ')}`, run: () => choose(r), enabled: () => forParts.value.length > 0 },
  { title: beside.value.includes(r.number) ? 'Take it out of the comparison' : 'Compare it', run: () => compare(r) },
]
const manner = async (e: MouseEvent) => openMenu(placeOf(e, e.currentTarget as HTMLElement), await mannerEntries(ask))
</script>

<template>
  <ListPage>
    <template #bar>
      <FilterField
        :model-value="query.words ?? ''"
        label="Find in the depot"
        hint="Find: 10k 0603, 100n 25 V …"
        @update:model-value="query = { ...query, words: $event }"
      />
      <WholeField
        label="Pieces"
        :value="query.quantity ?? 1"
        :least="1"
        :most="10_000_000"
        tight
        @keep="query = { ...query, quantity: $event }"
      />
      <v-checkbox
        :model-value="query.inStock"
        label="In stock"
        hide-details
        density="compact"
        @update:model-value="query = { ...query, inStock: !!$event }"
      />
      <v-checkbox
        :model-value="query.placed"
        label="Placed by the line"
        hide-details
        density="compact"
        @update:model-value="query = { ...query, placed: !!$event }"
      />
      <v-checkbox
        :model-value="query.reels"
        label="Full reels"
        hide-details
        density="compact"
        @update:model-value="query = { ...query, reels: !!$event }"
      />
    </template>
    <AskingState :slow="slow" :trouble="trouble" :before="answer ? 'What is listed is of before.' : ''" @stop="stop" @again="ask">
      <template v-if="answer">
        <b v-if="forParts.length" class="for mono"
          >for {{ designators.slice(0, 6).join(' ')
          }}{{ designators.length > 6 ? ` and ${designators.length - 6} more` : '' }} ·</b
        >
        <span class="mono">{{ pieces(answer.found) }}</span> found{{
          answer.found > answer.rows.length ? `, the first ${answer.rows.length} listed` : ''
        }}{{ stale ? ' · of before' : '' }}
      </template>
      <template #right>
        <span class="grow" />
        <v-btn v-if="beside.length" size="small" variant="outlined" :disabled="beside.length < 2" @click="comparing = true"
          >Compare {{ beside.length }}</v-btn
        >
        <v-btn size="small" variant="outlined" aria-haspopup="menu" @click="manner">Osier &amp; Finch</v-btn>
      </template>
    </AskingState>
    <div class="both">
      <FilterColumn v-model="query" :answer="answer" />
      <DataTable
        ref="table"
        v-model:sort="sort"
        name="depot"
        as-given
        label="Parts of the depot"
        :columns="columns"
        :rows="answer?.rows ?? []"
        :menu="menu"
        :row-class="(r: OrderingRow) => (beside.includes(r.number) ? 'beside' : undefined)"
        @now="now = $event"
        @open="forParts.length && choose($event)"
      >
        <template #empty>{{
          busy || !answer ? '' : 'The depot has nothing of the kind. Take a filter away, or ask for fewer pieces.'
        }}</template>
      </DataTable>
    </div>
    <template #over>
      <ComparePanel
        v-if="comparing"
        :numbers="beside"
        :quantity="query.quantity ?? 1"
        :reels="!!query.reels"
        :choosable="forParts.length > 0"
        @close="comparing = false"
        @choose="((comparing = false), choose($event))"
      />
    </template>
    <template #side>
      <DepotCard
        v-if="now"
        :project="project"
        :row="now"
        :designators="designators"
        :compared="beside.includes(now.number)"
        @choose="choose(now)"
        @compare="compare(now)"
      />
      <p v-else class="quiet">What the depot says of a part is shown here.</p>
    </template>
  </ListPage>
</template>

<style scoped>
.grow {
  flex: 1;
}
.for {
  color: rgb(var(--v-theme-primary));
}
.both {
  flex: 1;
  min-height: 0;
  display: flex;
  gap: 8px;
}
:deep(.beside .cell:first-child) {
  box-shadow: inset 3px 0 0 rgb(var(--v-theme-info));
}
</style>
