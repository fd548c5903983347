<script setup lang="ts">
import { mdiAlertOutline, mdiLightbulbOnOutline } from '@mdi/js'
import { computed, onMounted, watch } from 'vue'
import { useDebounceFn } from '@vueuse/core'
import { call } from '../../live/http'
import type { Project } from '../../live/project'
import type { BasketSeen, Line } from '../../live/wire.gen'
import WholeField from '../../shell/fields/WholeField.vue'
import { type Entry } from '../../shell/menu'
import { complain } from '../../shell/notices'
import { saveFile } from '../../shell/saving'
import type { Change, Column } from '../../shell/table/columns'
import DataTable from '../../shell/table/DataTable.vue'
import ListPage from '../ListPage.vue'
import { useAsking } from './asking'
import AskingState from './AskingState.vue'
import { euro, pieces } from './money'

/** What so many boards need, bought as cheaply as it can be: prices with their breaks, what is short, what to keep in mind. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ choose: [number[]] }>()
const usual = { boards: 5, spares: 0, least: 0, reels: false }
const basket = computed(() => (void props.project.docTick.value, props.project.all('basket')[0] ?? usual))
const {
  answer: seen,
  trouble: failed,
  slow,
  ask: look,
  stop,
} = useAsking((signal) => call<BasketSeen>('GET', `/projects/${props.project.id}/basket`, undefined, signal))
/** Either the program could not be asked, or it could not ask the depot. */
const trouble = computed(() => failed.value || seen.value?.trouble || '')
onMounted(look)
/** What the basket is made of: the parts of the circuit and what was said of it. */
watch(props.project.docTick, useDebounceFn(look, 150)) // several acts in a row ask once

const set = (fields: object) => props.project.edit('setBasket', fields).catch(complain)
const rows = computed<Line[]>(() => (seen.value ? [...seen.value.unchosen, ...seen.value.lines] : []))
const columns: Column<Line>[] = [
  {
    field: 'remark',
    name: 'To mind',
    width: 190,
    fixed: true,
    text: (l) => [...l.warnings, l.hint ?? ''].filter(Boolean).join('; '),
    icon: (l) =>
      l.warnings.length
        ? { path: mdiAlertOutline, tone: 'warning', name: 'to mind' }
        : l.hint
          ? { path: mdiLightbulbOnOutline, tone: 'info', name: 'cheaper' }
          : undefined,
  },
  { field: 'designators', name: 'For', width: 130, text: (l) => l.designators.join(' '), fixed: true, mono: true },
  { field: 'part', name: 'Part number', width: 130, text: (l) => l.part?.makerNumber ?? '', fixed: true, mono: true },
  { field: 'text', name: 'Description', width: 140, text: (l) => l.part?.text ?? '', fixed: true },
  {
    field: 'need',
    name: 'Needed',
    width: 62,
    text: (l) => pieces(l.need),
    rank: (l) => l.need,
    fixed: true,
    mono: true,
    right: true,
  },
  {
    field: 'spare',
    name: 'Spare',
    width: 54,
    text: (l) => pieces(l.spare),
    rank: (l) => l.spare,
    fixed: true,
    mono: true,
    right: true,
  },
  {
    field: 'held',
    name: 'At hand',
    width: 62,
    text: (l) => (l.held ? String(l.held) : ''),
    rank: (l) => l.held,
    mono: true,
    right: true,
    check: whole,
  },
  {
    field: 'buy',
    name: 'To buy',
    width: 64,
    text: (l) => (l.cost ? String(l.cost.pieces) : l.number ? '0' : ''),
    rank: (l) => l.cost?.pieces ?? 0,
    mono: true,
    right: true,
    check: whole,
  },
  {
    field: 'packaging',
    name: 'As',
    width: 84,
    text: (l) => l.cost?.packaging ?? '',
    options: () => ['cut tape', 'full reel', 'tube', 'tray', 'loose'],
  },
  {
    field: 'each',
    name: 'Each',
    width: 78,
    text: (l) => (l.cost ? euro(l.cost.each) : ''),
    rank: (l) => l.cost?.each ?? 0,
    fixed: true,
    mono: true,
    right: true,
  },
  {
    field: 'total',
    name: 'In all',
    width: 76,
    text: (l) => (l.cost ? euro(l.cost.total) : ''),
    rank: (l) => l.cost?.total ?? 0,
    fixed: true,
    mono: true,
    right: true,
  },
  {
    field: 'stock',
    name: 'In stock',
    width: 70,
    text: (l) => (l.part ? pieces(l.part.stock) : ''),
    rank: (l) => l.part?.stock ?? 0,
    fixed: true,
    mono: true,
    right: true,
  },
  { field: 'number', name: 'Order number', width: 110, text: (l) => l.number, fixed: true, mono: true },
]
function whole(text: string): string | undefined {
  return /^\s*\d{0,8}\s*$/.test(text) ? undefined : 'A whole number of pieces is wanted.'
}
function change(list: Change<Line>[]) {
  const of = (field: string, value: (text: string) => unknown) =>
    Object.fromEntries(list.filter((c) => c.field === field && c.row.number).map((c) => [c.row.number, value(c.text.trim())]))
  void set({ held: of('held', Number), buy: of('buy', Number), packaging: of('packaging', (t) => t) })
}
const menu = (list: Line[]): Entry[] => [
  {
    title:
      list.length === 1 && list[0].cheaper ? `Buy ${list[0].cheaper.pieces}: ${list[0].hint}` : 'Buy more where that costs less',
    run: () => void set({ buy: Object.fromEntries(list.filter((l) => l.cheaper).map((l) => [l.number, l.cheaper!.pieces])) }),
    enabled: () => list.some((l) => l.cheaper),
  },
  {
    title: 'Buy as many as are needed',
    run: () => void set({ buy: Object.fromEntries(list.filter((l) => l.number).map((l) => [l.number, 0])) }),
    enabled: () => list.some((l) => l.number),
  },
  { title: 'Look for another in the depot', run: () => emit('choose', idsOf(list[0])) },
]
function idsOf(l: Line) {
  const names = new Set(l.designators)
  return props.project.all('part').filter((p) => names.has(p.designator) || Object.values(p.others ?? {}).some((d) => names.has(d))).map((p) => p.id) // prettier-ignore
}
const warned = computed(() => rows.value.filter((l) => l.warnings.length).length)
const cheaper = computed(() => rows.value.filter((l) => l.cheaper).length)
const takeAll = () =>
  set({ buy: Object.fromEntries(rows.value.filter((l) => l.cheaper).map((l) => [l.number, l.cheaper!.pieces])) })
const save = () => saveFile(`/projects/${props.project.id}/basket.csv`, 'basket.csv').catch(complain)
const clock = (iso: string) => new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <ListPage>
    <template #bar>
      <WholeField label="Boards" :value="basket.boards" :least="1" :most="100_000" tight @keep="set({ boards: $event })" />
      <WholeField label="Spares, %" :value="basket.spares" :most="1000" tight @keep="set({ spares: $event })" />
      <WholeField label="at least" :value="basket.least" :most="100_000" tight @keep="set({ least: $event })" />
      <v-checkbox
        :model-value="!!basket.reels"
        label="Full reels"
        hide-details
        density="compact"
        @update:model-value="set({ reels: !!$event })"
      />
      <span class="grow" />
      <span v-if="seen" class="sum" role="status">
        <span class="mono">{{ euro(seen.total) }}</span> in all · <span class="mono">{{ euro(seen.perBoard) }}</span> a board
      </span>
      <v-btn size="small" color="primary" variant="flat" :disabled="!seen || !!trouble || !seen.lines.length" @click="save"
        >Save the table</v-btn
      >
    </template>
    <AskingState
      :slow="slow"
      :trouble="trouble"
      :before="seen?.since ? `Prices and stocks are of ${clock(seen.since)}.` : ''"
      @stop="stop"
      @again="look"
    >
      <template v-if="seen">
        <span class="mono">{{ seen.lines.length }}</span> {{ seen.lines.length === 1 ? 'line' : 'lines'
        }}{{ warned ? `, ${warned} to mind` : '' }}
        <template v-for="w in seen.warnings" :key="w"> · {{ w }}</template>
        <v-btn v-if="cheaper" size="small" density="compact" variant="outlined" class="take" @click="takeAll"
          >{{ cheaper === 1 ? 'One costs' : `${cheaper} cost` }} less when more are bought: take them</v-btn
        >
      </template>
    </AskingState>
    <DataTable name="basket" label="Basket" :columns="columns" :rows="rows" :menu="menu" @change="change">
      <template #empty>{{ seen ? 'The circuit has no parts that are fitted.' : '' }}</template>
    </DataTable>
  </ListPage>
</template>

<style scoped>
.grow {
  flex: 1;
}
.sum {
  font-size: 13.5px;
  white-space: nowrap;
}
.take {
  margin-left: 8px;
}
</style>
