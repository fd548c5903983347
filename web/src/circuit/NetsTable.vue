<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Project } from '../live/project'
import { complain, say } from '../shell/notices'
import { type NetQuantity, quantity, quantityOf } from '../live/quantities'
import type { CircuitNet, Net } from '../live/wire.gen'
import { type Change, type Column, filtered } from '../shell/table/columns'
import DataTable from '../shell/table/DataTable.vue'
import TablePage from './TablePage.vue'

/** All nets: where they are, and what is asked of them. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ go: [string] }>()
interface Row {
  net: CircuitNet
  spec?: Net
  sheets: string
}
const filter = ref('')
const specs = computed(() => (void props.project.docTick.value, new Map(props.project.all('net').map((s) => [s.name, s]))))
const all = computed<Row[]>(() => {
  const label = new Map(props.project.places.value.map((p) => [`${p.sheet} ${p.path ?? ''}`, p.label]))
  return props.project.netList.value.map((net) => ({
    net,
    spec: specs.value.get(net.name),
    sheets: [...new Set((net.uses ?? []).map((u) => label.get(`${u.sheet} ${u.path ?? ''}`) ?? ''))].join(', '),
  }))
})
const names = computed(() => props.project.netList.value.map((n) => n.name))
const classes = computed(() => [...new Set(props.project.all('net').map((s) => s.class ?? ''))].filter(Boolean).sort())
const figure = (field: NetQuantity, name: string): Column<Row> => ({
  field,
  name,
  width: 98,
  mono: true,
  right: true,
  text: (r) => quantity(field, r.spec?.[field]),
  rank: (r) => r.spec?.[field] ?? -1,
  check: (text) => {
    try {
      quantityOf(field, text)
    } catch (why) {
      return (why as Error).message
    }
  },
})
const columns: Column<Row>[] = [
  { field: 'name', name: 'Net', width: 170, mono: true, text: (r) => r.net.name },
  {
    field: 'pins',
    name: 'Pins',
    width: 58,
    fixed: true,
    mono: true,
    right: true,
    text: (r) => String(r.net.pins.length),
    rank: (r) => r.net.pins.length,
  },
  { field: 'sheets', name: 'Sheets', width: 210, fixed: true, quiet: true, text: (r) => r.sheets },
  { field: 'class', name: 'Class', width: 110, options: () => classes.value, text: (r) => r.spec?.class ?? '' },
  figure('current', 'Current'),
  figure('voltage', 'Voltage'),
  figure('impedance', 'Impedance'),
  {
    field: 'partner',
    name: 'Pair with',
    width: 150,
    mono: true,
    options: () => names.value,
    text: (r) => props.project.netName(r.spec?.partner),
  },
]
const rows = computed(() => filtered(all.value, filter.value, columns))
const table = ref<{ count: number; pickedRows: Row[] }>()
const count = computed(() => table.value?.pickedRows.length ?? 0)
const pairs = ref<[string, string][] | null>(null)

/** What was typed: all cells of one column and one text are one edit, so that it is undone at once. */
async function change(list: Change<Row>[]) {
  const jobs = new Map<string, Change<Row>[]>()
  for (const c of list) {
    const alone = c.field === 'name' || c.field === 'partner' ? c.row.net.name : ''
    const key = `${c.field}|${c.text}|${alone}`
    jobs.set(key, [...(jobs.get(key) ?? []), c])
  }
  for (const same of jobs.values()) {
    const { field, text, row } = same[0]
    const nets = same.map((c) => c.row.net.name)
    try {
      if (field === 'name') await props.project.edit('renameNet', { net: row.net.name, to: text })
      else if (field === 'class' || field === 'partner') await props.project.edit('setNets', { nets, [field]: text.trim() })
      else await props.project.edit('setNets', { nets, [field]: quantityOf(field as NetQuantity, text) })
    } catch (e) {
      complain(e)
      return
    }
  }
}
const menu = (picked: Row[]) => [
  { title: 'Show in the drawing', run: () => emit('go', picked[0].net.name) },
  { title: 'Find pairs by name', run: () => void findPairs() },
]
async function findPairs() {
  const said = await props.project.question('pairs', {}).catch(complain)
  if (said === undefined) return
  const open = ((said ?? []) as unknown as [string, string][]).filter(
    ([a, b]) => props.project.netName(specs.value.get(a)?.partner) !== b,
  )
  if (!open.length) say('No further nets are named like the halves of a pair (_P and _N, + and −).')
  else pairs.value = open
}
async function takePairs() {
  if (await props.project.edit('pairNets', { pairs: pairs.value as unknown as [] }).catch(complain)) pairs.value = null
}
</script>

<template>
  <TablePage v-model:filter="filter" title="Nets" label="Filter the nets" hint="GND, class:power, sheets:supply …">
    <template #count>
      <span class="mono">{{ rows.length }}</span> of <span class="mono">{{ all.length }}</span> nets<template v-if="count > 1">
        · <span class="mono">{{ count }}</span> picked: what is typed is typed into all</template
      >
    </template>
    <template #actions>
      <v-btn variant="outlined" size="small" @click="findPairs">Find pairs by name</v-btn>
    </template>
    <DataTable
      ref="table"
      name="nets"
      label="Nets"
      :columns="columns"
      :rows="rows"
      :menu="menu"
      @change="change"
      @open="(r: Row) => emit('go', r.net.name)"
    >
      <template #empty>{{ all.length ? 'No net has all of these words.' : 'No nets yet. Wires make them.' }}</template>
    </DataTable>
    <v-dialog :model-value="!!pairs" aria-label="Pairs found" width="360" @update:model-value="pairs = null">
      <v-card v-if="pairs" :title="`${pairs.length} ${pairs.length === 1 ? 'pair' : 'pairs'} by name`">
        <v-card-text class="pairs">
          <p v-for="[a, b] in pairs" :key="a" class="mono">{{ a }} · {{ b }}</p>
        </v-card-text>
        <v-card-actions>
          <v-btn @click="pairs = null">Leave it</v-btn>
          <v-btn color="primary" variant="flat" @click="takePairs">Make them pairs</v-btn>
        </v-card-actions>
      </v-card>
    </v-dialog>
  </TablePage>
</template>

<style scoped>
.pairs {
  max-height: 320px;
  overflow-y: auto;
}
</style>
