<script setup lang="ts">
import { mdiAlertOutline, mdiClose } from '@mdi/js'
import { computed, ref, shallowRef, watch } from 'vue'
import type { Project } from '../live/project'
import { quantity, quantityOf } from '../live/quantities'
import { format } from '../live/units'
import type { WidthAdvice, WidthRow } from '../live/wire.gen'
import WholeField from '../shell/fields/WholeField.vue'
import { complain, say } from '../shell/notices'
import { type Change, type Column, filtered } from '../shell/table/columns'
import DataTable from '../shell/table/DataTable.vue'
import FilterField from '../shell/table/FilterField.vue'
import { useTaste } from '../shell/taste'

/** How wide tracks are to be for their currents, a net a row; taken as rules on request. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ close: []; net: [string] }>()
const taste = useTaste()
const advice = shallowRef<WidthAdvice | null>(null)
const all = ref(false)
const widen = ref(true)
const filter = ref('')
const table = ref<{ pickedRows: WidthRow[] }>()
let asked = 0
async function load() {
  const mine = ++asked
  const said = await props.project.question('widths', { all: all.value }).catch(complain)
  if (said && mine === asked) advice.value = said
}
watch(() => [props.project.derivedTick.value, all.value], load, { immediate: true })

const mm = (nm: number) => (nm ? format(nm, taste.unit, taste.unit === 'mm' ? 3 : 4) : '–')
const number = (field: string, name: string, width: number, of: (r: WidthRow) => number, text: (r: WidthRow) => string = (r) => mm(of(r))): Column<WidthRow> => ({ field, name, width, mono: true, right: true, fixed: true, text, rank: of }) // prettier-ignore
const columns = computed<Column<WidthRow>[]>(() => [
  {
    field: 'name',
    name: 'Net',
    width: 112,
    mono: true,
    fixed: true,
    text: (r) => r.name,
    icon: (r) => (r.thin ? { path: mdiAlertOutline, tone: 'error', name: 'too thin' } : undefined),
  },
  { field: 'class', name: 'Class', width: 84, fixed: true, text: (r) => r.class ?? '' },
  {
    field: 'current',
    name: 'Current',
    width: 88,
    mono: true,
    right: true,
    text: (r) => quantity('current', r.current),
    rank: (r) => r.current,
    check: (text) => {
      try {
        quantityOf('current', text)
      } catch (why) {
        return (why as Error).message
      }
    },
  },
  number('length', 'Length', 82, (r) => r.length + r.open),
  number('least', 'Narrowest', 86, (r) => r.least),
  number('asked', 'New tracks', 88, (r) => r.asked),
  number('outer', 'Outer', 76, (r) => r.outer),
  number('inner', 'Inner', 76, (r) => r.inner),
  number('ohm', 'mΩ', 74, (r) => r.milliohm, (r) => r.milliohm.toPrecision(3)), // prettier-ignore
  number('drop', 'Drop, mV', 80, (r) => r.drop, (r) => (r.current ? r.drop.toPrecision(3) : '–')), // prettier-ignore
])
const rows = computed(() => filtered(advice.value?.rows ?? [], filter.value, columns.value))
const chosen = computed(() => (table.value?.pickedRows ?? []).filter((r) => r.current > 0))
async function change(list: Change<WidthRow>[]) {
  for (const c of list)
    await props.project.edit('setNets', { nets: [c.row.name], current: quantityOf('current', c.text) }).catch(complain)
}
const setRise = (rise: number) => props.project.edit('setRise', { rise }).catch(complain)
async function take(classes: boolean) {
  const nets = (chosen.value.length ? chosen.value : rows.value.filter((r) => r.current > 0)).map((r) => r.net)
  if (!nets.length) {
    say('Say a current first: type it into the table.', 'error')
    return
  }
  const done = await props.project.edit('takeWidths', { nets, classes, widen: widen.value }).catch(complain)
  if (done) say(`${nets.length} ${nets.length === 1 ? 'net has' : 'nets have'} rules of width now.`)
}
const whom = computed(() => (chosen.value.length > 1 ? `${chosen.value.length} nets` : (chosen.value[0]?.name ?? 'all of them')))
</script>

<template>
  <div class="float widths" role="dialog" aria-label="Widths for currents" @keydown.esc.stop="emit('close')">
    <header>
      <h3>Widths for currents</h3>
      <FilterField v-model="filter" label="Filter the nets" hint="class:supply …" />
      <WholeField label="Warmer by, K" :value="advice?.rise ?? 10" :least="1" :most="200" tight @keep="setRise" />
      <v-checkbox v-model="all" label="all nets" hide-details density="compact" />
      <v-btn :icon="mdiClose" size="small" variant="text" aria-label="Close the widths" @click="emit('close')" />
    </header>
    <DataTable
      ref="table"
      name="widths"
      label="Nets and their widths"
      :columns="columns"
      :rows="rows"
      @change="change"
      @open="(r: WidthRow) => emit('net', r.name)"
    >
      <template #empty>
        {{
          all || filter
            ? 'No net on the board fits.'
            : 'Nothing is said of currents yet. Show all nets and type what they carry, or say it in the circuit’s table of nets.'
        }}
      </template>
    </DataTable>
    <footer>
      <p class="quiet">
        Lengths in {{ taste.unit }}. Outer and inner: what a current needs to warm a track by no more than that, as IPC-2221 has
        it. Length: tracks and open links. Resistance and drop: as if all of it lay one after the other.
      </p>
      <v-checkbox v-model="widen" label="widen tracks that are there" hide-details density="compact" />
      <v-btn size="small" variant="outlined" :title="`Rules for the classes of ${whom}`" @click="take(true)"
        >Rules for classes</v-btn
      >
      <v-btn size="small" color="primary" variant="flat" :title="`Rules for ${whom}`" @click="take(false)">Take as rules</v-btn>
    </footer>
  </div>
</template>

<style scoped>
.widths {
  position: absolute;
  inset: 12px;
  z-index: 8;
  display: flex;
  flex-direction: column;
  padding: 12px 14px;
  gap: 8px;
}
header,
footer {
  display: flex;
  align-items: center;
  gap: 12px;
}
header h3 {
  margin: 0;
  flex: 1;
}
footer p {
  flex: 1;
  margin: 0;
}
</style>
