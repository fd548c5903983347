<script setup lang="ts">
import { mdiAlertCircleOutline, mdiCheckCircleOutline } from '@mdi/js'
import { computed, defineAsyncComponent, ref, shallowRef, watch } from 'vue'
import { call } from '../../live/http'
import { latest } from '../../live/latest'
import type { Project } from '../../live/project'
import type { Match, NamedFootprint, OrderingPart, Parts, Questions, Suggested } from '../../live/wire.gen'
import OneOf from '../../shell/fields/OneOf.vue'
import { complain } from '../../shell/notices'
import { type Change, type Column, filtered } from '../../shell/table/columns'
import DataTable from '../../shell/table/DataTable.vue'
import FilterField from '../../shell/table/FilterField.vue'
import ListPage from '../ListPage.vue'
import PatternPicture from '../PatternPicture.vue'
import { type AssignRow, assignRows, makerField, numberField } from './rows'

/** All parts of the circuit with what each has and lacks, and the footprints that suit those that are picked. */
const FootprintSpace = defineAsyncComponent(() => import('../../space/FootprintSpace.vue'))
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ depot: [number[]] }>()
const filter = ref('')
const only = ref<'all' | 'lacking'>('all')
const all = computed(() => (void props.project.docTick.value, assignRows(props.project)))
const lacking = computed(() => all.value.filter((r) => !r.footprint).length)
const columns: Column<AssignRow>[] = [
  { field: 'designator', name: 'Part', width: 70, text: (r) => r.designator, fixed: true, mono: true },
  {
    field: 'lacks',
    name: 'Lacks',
    width: 170,
    fixed: true,
    text: (r) => r.lacks,
    icon: (r) =>
      r.lacks
        ? { path: mdiAlertCircleOutline, tone: r.footprint ? 'info' : 'error', name: 'lacks something' }
        : { path: mdiCheckCircleOutline, tone: 'secondary', name: 'has all' },
  },
  { field: 'value', name: 'Value', width: 90, text: (r) => r.value, mono: true, valued: true },
  { field: 'part', name: 'Library part', width: 160, text: (r) => r.part, fixed: true },
  {
    field: 'pins',
    name: 'Pins',
    width: 50,
    text: (r) => String(r.pins),
    rank: (r) => r.pins,
    fixed: true,
    mono: true,
    right: true,
  },
  { field: 'footprint', name: 'Footprint', width: 180, text: (r) => r.footprint, mono: true },
  { field: makerField, name: 'Maker', width: 110, text: (r) => r.maker },
  { field: numberField, name: 'Part number', width: 130, text: (r) => r.number, mono: true },
]
const rows = computed(() => filtered(all.value.filter((r) => only.value === 'all' || r.lacks), filter.value, columns)) // prettier-ignore
const table = ref<{ pickedRows?: AssignRow[] }>()
const picked = computed(() => table.value?.pickedRows ?? [])
const change = (list: Change<AssignRow>[]) =>
  props.project
    .edit('setParts', { cells: list.map((c) => ({ id: c.row.id, path: c.row.path, field: c.field, text: c.text })) })
    .catch(complain)

// ---- footprints that suit

const query = ref('')
const found = shallowRef<Suggested | null>(null)
const trouble = ref('')
const chosen = ref('')
const look = shallowRef<NamedFootprint | null>(null)
const suggest = latest(
  (asked: Questions['suggest']['asks']) =>
    props.project.question('suggest', asked).catch((e: Error) => ((trouble.value = e.message), null)),
  (s) => {
    found.value = s
    if (s) trouble.value = ''
    if (s && !s.matches.some((m) => m.name === chosen.value))
      chosen.value = picked.value[0]?.footprint || s.matches[0]?.name || ''
  },
)
/** What was chosen in the depot for those that are picked, when it is one thing: footprints are held against what it measures. */
const bought = shallowRef<OrderingPart | null>(null)
const number = computed(() => {
  const all = new Set(picked.value.map((r) => r.order))
  return all.size === 1 ? [...all][0] : ''
})
const lookUp = latest(
  (n: string) => (n ? call<Parts>('POST', '/depot/parts', { numbers: [n] }).catch(() => null) : Promise.resolve(null)),
  (list) => (bought.value = list?.parts[0] ?? null),
)
watch(number, lookUp)
watch([picked, query, bought, () => props.project.docTick.value], () => {
  if (!picked.value.length) return void (found.value = null)
  const like = bought.value?.number === number.value && number.value ? bought.value.body : undefined
  void suggest({ parts: [...new Set(picked.value.map((r) => r.id))], query: query.value, like })
})
const fetch = latest(
  (name: string) => props.project.question('footNamed', { name }).catch(() => null),
  (f) => (look.value = f),
)
watch(
  () => picked.value.map((r) => `${r.id} ${r.footprint}`).join(),
  () => (chosen.value = picked.value[0]?.footprint ?? ''),
)
watch(chosen, (n) => n && void fetch(n))
const seen = ref<'flat' | 'space'>('flat')
const given = computed(() => picked.value.filter((r) => r.footprint === chosen.value).length === picked.value.length)
const give = (name = chosen.value) =>
  props.project
    .edit('setParts', {
      cells: [...new Set(picked.value.map((r) => r.id))].map((id) => ({ id, field: 'footprint', text: name })),
    })
    .catch(complain)
/** Gives all that lack a footprint the one that their library part names. */
const own = computed(() => all.value.filter((r) => !r.footprint && props.project.named('libraryPart', r.part)?.footprint))
const giveOwn = () =>
  props.project
    .edit('setParts', {
      cells: own.value.map((r) => ({
        id: r.id,
        field: 'footprint',
        text: props.project.named('libraryPart', r.part)!.footprint,
      })),
    })
    .catch(complain)
const words = (m: Match) => m.words.filter((w) => !w.endsWith('equal')).join(', ') || 'equal'
</script>

<template>
  <ListPage>
    <template #bar>
      <FilterField v-model="filter" label="Filter the parts" hint="lacks:footprint, part:resistor, U* …" />
      <OneOf
        label="Which parts"
        :value="only"
        :options="[
          { value: 'all', title: 'All' },
          { value: 'lacking', title: 'Lacking something' },
        ]"
        @keep="only = $event"
      />
      <span class="quiet" role="status">
        <span class="mono">{{ all.length }}</span> {{ all.length === 1 ? 'part' : 'parts' }} ·
        {{ lacking ? `${lacking} without a footprint` : 'all have a footprint' }}
      </span>
      <v-btn v-if="own.length" size="small" variant="outlined" @click="giveOwn">
        {{ own.length === 1 ? 'Give it its part’s own' : `Give ${own.length} their parts’ own` }}
      </v-btn>
    </template>
    <DataTable ref="table" name="assign" label="Parts of the circuit" :columns="columns" :rows="rows" @change="change">
      <template #empty>{{ all.length ? 'No part has all of that.' : 'The circuit has no parts yet.' }}</template>
    </DataTable>
    <template #side>
      <template v-if="picked.length">
        <h3>
          <span class="mono">{{
            picked
              .slice(0, 4)
              .map((r) => r.designator)
              .join(' ')
          }}</span>
          <span v-if="picked.length > 4" class="quiet"> and {{ picked.length - 4 }} more</span>
        </h3>
        <OneOf
          label="How the footprint is seen"
          :value="seen"
          :options="[
            { value: 'flat', title: 'Flat' },
            { value: 'space', title: 'In space' },
          ]"
          @keep="seen = $event"
        />
        <FootprintSpace v-if="seen === 'space' && look" class="space" :look="look" />
        <PatternPicture v-else :pattern="look?.pattern ?? null" label="Footprint" />
        <p class="mono name">{{ chosen || 'no footprint' }}</p>
        <div class="acts">
          <v-btn size="small" color="primary" variant="flat" :disabled="!chosen || given" @click="give()">
            {{ given ? 'They have it' : picked.length === 1 ? 'Give it' : `Give it to ${picked.length}` }}
          </v-btn>
          <v-btn size="small" variant="text" @click="give('')">Take theirs away</v-btn>
        </div>
        <div class="acts">
          <v-btn size="small" variant="outlined" @click="emit('depot', [...new Set(picked.map((r) => r.id))])">
            {{ picked.some((r) => r.number) ? 'Choose another in the depot' : 'Choose in the depot' }}
          </v-btn>
        </div>
        <v-text-field v-model="query" placeholder="Filter: SOIC*, *600*, QFN …" aria-label="Filter the footprints" hide-details />
        <p v-if="trouble" class="quiet" role="alert">{{ trouble }}</p>
        <template v-else-if="found">
          <p class="quiet">
            <span class="mono">{{ found.found }}</span> {{ found.found === 1 ? 'footprint' : 'footprints' }} with
            {{ found.want.pins }} pins, the nearest to
            {{ found.want.length && bought && bought.number === number ? `${bought.makerNumber} first` : 'its own first' }}
          </p>
          <v-list density="compact" class="matches" role="listbox" aria-label="Footprints that suit">
            <v-list-item
              v-for="m in found.matches"
              :key="m.name"
              role="option"
              :active="m.name === chosen"
              :aria-selected="m.name === chosen"
              @click="chosen = m.name"
              @dblclick="give(m.name)"
            >
              <span class="mono foot">{{ m.name }}</span>
              <span class="quiet diff">{{ words(m) }}{{ m.library ? ` · ${m.library}` : '' }}</span>
            </v-list-item>
          </v-list>
        </template>
      </template>
      <p v-else class="quiet">Pick one part or several: the footprints that suit them are listed here, the nearest first.</p>
    </template>
  </ListPage>
</template>

<style scoped>
.space {
  height: 190px;
  flex: none;
}
.name {
  color: rgb(var(--v-theme-primary));
}
.acts {
  display: flex;
  gap: 6px;
}
.matches {
  flex: 1 1 120px;
  min-height: 120px;
  overflow-y: auto;
  padding: 0;
}
.foot {
  display: block;
  font-size: 12px;
}
.diff {
  font-size: 11.5px;
}
</style>
