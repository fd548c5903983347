<script setup lang="ts">
import {
  mdiAlertOctagonOutline,
  mdiAlertOutline,
  mdiCheckCircleOutline,
  mdiCommentCheckOutline,
  mdiFileDelimitedOutline,
  mdiFileDocumentOutline,
  mdiInformationOutline,
  mdiProgressWrench,
} from '@mdi/js'
import { refDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Project } from '../live/project'
import type { About, Finding } from '../live/wire.gen'
import { format } from '../live/units'
import { useCommands } from '../shell/commands'
import OneOf from '../shell/fields/OneOf.vue'
import TextField from '../shell/fields/TextField.vue'
import { complain, say } from '../shell/notices'
import { type Change, type Column, filtered } from '../shell/table/columns'
import DataTable from '../shell/table/DataTable.vue'
import FilterField from '../shell/table/FilterField.vue'
import { kept, useTaste } from '../shell/taste'
import Against from './Against.vue'
import Clashes from './Clashes.vue'
import { type By, grouped, ways } from './groups'
import Houses from './Houses.vue'
import { standAt, walked } from './walk'

const props = defineProps<{ project: Project }>()
const router = useRouter()
const taste = useTaste()
/** The revision that the findings of the board's rules are of, when that is an earlier one. */
const behind = computed(() => props.project.behind.value['board rules'] as number | undefined)
/** Whether all that is to be found is known; a moment's work is not worth a word. */
const current = props.project.current
const soon = refDebounced(current, 350)
const known = computed(() => current.value || (soon.value && !props.project.unknown('fills')))
const filling = computed(() => props.project.shareOf('fill') !== null)
const checking = computed(() => props.project.shareOf('check') !== null)
const view = ref('findings')
const only = ref<'all' | 'circuit' | 'parts' | 'board'>('all')
const filter = ref('')

const signs: Record<string, { path: string; tone: string; name: string }> = {
  fault: { path: mdiAlertOctagonOutline, tone: 'error', name: 'Fault' },
  todo: { path: mdiProgressWrench, tone: 'info', name: 'Still to do' },
  warning: { path: mdiAlertOutline, tone: 'primary', name: 'Warning' },
  note: { path: mdiInformationOutline, tone: 'quiet', name: 'Note' },
  excused: { path: mdiCommentCheckOutline, tone: 'secondary', name: 'Excused' },
}
const ranks = Object.keys(signs)
const stageNames: Record<string, string> = { circuit: 'Circuit', board: 'Board', parts: 'Parts' }
const stateOf = (f: Finding) => (f.excused ? 'excused' : f.severity)
const length = (nm?: number) => (nm === undefined ? '' : `${format(nm, taste.unit, 4)} ${taste.unit}`)
const place = (f: Finding) =>
  f.place ?? `${stageNames[f.stage]} ${format(f.at.x, taste.unit, 2)}, ${format(f.at.y, taste.unit, 2)}`
const columns = computed<Column<Finding>[]>(() => [
  {
    field: 'state',
    name: 'State',
    width: 106,
    fixed: true,
    text: (f) => signs[stateOf(f)].name,
    icon: (f) => signs[stateOf(f)],
    rank: (f) => ranks.indexOf(stateOf(f)),
  },
  { field: 'text', name: 'What', width: 372, fixed: true, text: (f) => f.text },
  { field: 'place', name: 'Where', width: 142, fixed: true, quiet: true, text: place },
  {
    field: 'measured',
    name: 'Is',
    width: 78,
    fixed: true,
    mono: true,
    right: true,
    text: (f) => (f.required ? length(f.measured ?? 0) : ''),
    rank: (f) => f.measured ?? -1,
  },
  {
    field: 'required',
    name: 'Needs',
    width: 78,
    fixed: true,
    mono: true,
    right: true,
    text: (f) => (f.required ? length(f.required) : ''),
    rank: (f) => f.required ?? -1,
  },
  { field: 'excused', name: 'Excused because', width: 200, text: (f) => f.excused ?? '' },
])
const all = computed(() =>
  [...props.project.findingList.value].sort((a, b) => ranks.indexOf(stateOf(a)) - ranks.indexOf(stateOf(b))),
)
/** What is more than a note and nobody excused. */
const wanting = computed(() => all.value.filter((f) => !f.excused && f.severity !== 'note'))
const by = kept<By>('checks.by', 'kind')
const group = ref<string | null>(null) // whose findings alone are listed; null: all
const found = computed(() =>
  filtered(
    all.value.filter((f) => only.value === 'all' || f.stage === only.value),
    filter.value,
    columns.value,
  ),
)
const layers = computed(() => (void props.project.docTick.value, props.project.board?.stack ?? []))
const groups = computed(() => grouped(found.value, by.value, props.project, layers.value))
const rows = computed(() => groups.value.find((g) => g.name === group.value)?.findings ?? found.value)
watch(by, () => (group.value = null))
watch(rows, (list) => (walked.value = list.map((f) => f.key)), { immediate: true })
/** The worst state of a group, for its sign. */
const worst = (list: Finding[]) => signs[ranks[Math.min(...list.map((f) => ranks.indexOf(stateOf(f))))]]
const counts = computed(() =>
  ranks
    .map((r) => ({ r, n: all.value.filter((f) => stateOf(f) === r).length }))
    .filter((c) => c.n)
    .map((c) => ({ ...signs[c.r], n: c.n })),
)
const table = ref<{ current?: Finding }>()
const now = computed(() => table.value?.current)

const go = (f: Finding) => {
  standAt(f.key)
  void router.push({ path: `/project/${props.project.id}/${f.stage}`, query: { finding: f.key, t: String(Date.now()) } })
}
const excuse = (f: Finding, why: string) =>
  props.project.edit('excuse', { key: f.key, print: f.print, text: f.text, reason: why }).catch(complain)
/** Excuses many in one step. */
const excuseAll = (list: { row: Finding; text: string }[]) => {
  const excuses = list
    .filter((c) => c.row.severity !== 'todo' && (c.text || c.row.excused))
    .map(({ row, text }) => ({ key: row.key, print: row.print, text: row.text, reason: text }))
  return excuses.length ? props.project.edit('excuseAlike', { excuses }).catch(complain) : undefined
}
function change(list: Change<Finding>[]) {
  if (list.some((c) => c.row.severity === 'todo')) say('What is still to do cannot be excused; it is done or it is not.')
  void excuseAll(list)
}
/** What was excused last, and why: others of its kind may be excused so too. */
const given = ref<{ kind: string; reason: string } | null>(null)
const others = computed(() => all.value.filter((f) => given.value?.kind === f.kind && !f.excused && f.severity !== 'todo'))
async function excuseOne(f: Finding, why: string) {
  if ((await excuse(f, why)) !== undefined) given.value = why ? { kind: f.kind, reason: why } : null
}
/** All that are of the same kind, in all that is found. */
const alike = (f: Finding) => all.value.filter((o) => o.kind === f.kind && o.severity !== 'todo')
const menu = (list: Finding[]) => [
  { title: 'Show the place', keys: 'Enter', run: () => go(list[0]) },
  {
    title: list.length > 1 ? `Find these ${list.length} again: take the excuses back` : 'Find it again: take the excuse back',
    run: () => void excuseAll(list.map((row) => ({ row, text: '' }))),
    enabled: () => list.some((f) => f.excused),
  },
  {
    title: `Find all ${alike(list[0]).length} of this kind again`,
    run: () => void excuseAll(alike(list[0]).map((row) => ({ row, text: '' }))),
    enabled: () => alike(list[0]).some((f) => f.excused),
  },
]
const nothing = computed(() => props.project.stages.value.circuit === 'none')
const checked = ref<About[]>([])
watch(view, (v) => v === 'what' && !checked.value.length && void props.project.question('checked', {}).then((a) => (checked.value = a), complain), { immediate: true }) // prettier-ignore
const moment = computed(() => (void props.project.derivedTick.value, new Date().toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }))) // prettier-ignore
const see = (v: string) => () => (view.value = v)
useCommands([
  { id: 'findings', title: 'Show the findings', group: 'See', run: see('findings') },
  { id: 'against', title: 'Show the circuit against the board', group: 'See', run: see('against') },
  { id: 'houses', title: 'Show how the board stands against what board houses make', group: 'See', run: see('houses') },
  { id: 'clashes', title: 'Show the clashes: rules of the electrical check', group: 'See', run: see('clashes') },
])
</script>

<template>
  <div class="page">
    <div class="head">
      <h2>Checks</h2>
      <template v-if="!known && behind === undefined">
        <span class="stale" role="status">copper areas are still to be filled: not all is known yet</span>
        <v-btn v-if="!filling" size="small" variant="outlined" @click="project.checkAll().catch(complain)">Fill and check</v-btn>
      </template>
      <span v-else-if="behind === undefined" class="quiet"
        >computed from revision <span class="mono">{{ project.derivedRev.value }}</span> at
        <span class="mono">{{ moment }}</span>, as you work</span
      >
      <template v-else>
        <span class="stale" role="status"
          >the board’s rules: as of revision <span class="mono">{{ behind }}</span><template v-if="checking"
            >, being checked anew</template
          ></span
        >
        <v-btn v-if="!checking" size="small" variant="outlined" @click="project.checkAll().catch(complain)">Check anew</v-btn>
      </template>
      <span class="grow" />
      <v-btn
        size="small"
        variant="text"
        :prepend-icon="mdiFileDelimitedOutline"
        :href="`/api/projects/${project.id}/findings.csv`"
        download
        >Table</v-btn
      >
      <v-btn
        size="small"
        variant="text"
        :prepend-icon="mdiFileDocumentOutline"
        :href="`/api/projects/${project.id}/findings.html`"
        download
        >Report</v-btn
      >
      <v-tabs v-model="view" aria-label="What is shown of the checks">
        <v-tab value="findings" aria-controls="checks-body">Findings</v-tab>
        <v-tab value="clashes" aria-controls="checks-body">Clashes</v-tab>
        <v-tab value="against" aria-controls="checks-body">Circuit and board</v-tab>
        <v-tab value="houses" aria-controls="checks-body">Houses</v-tab>
        <v-tab value="what" aria-controls="checks-body">What is checked</v-tab>
      </v-tabs>
    </div>
    <div id="checks-body" class="body" role="tabpanel" :aria-label="view">
      <template v-if="view === 'findings'">
        <div v-if="nothing" class="clean">
          <p>There is nothing to check yet. Findings appear here as soon as something is drawn.</p>
          <v-btn color="primary" variant="flat" :to="`/project/${project.id}/circuit`">Go to the circuit</v-btn>
        </div>
        <div v-else-if="!all.length" class="clean">
          <v-icon :icon="mdiCheckCircleOutline" size="34" color="secondary" />
          <p v-if="!known || behind !== undefined">No findings so far.</p>
          <p v-else>No findings. All rules are kept.</p>
          <v-btn size="small" variant="outlined" @click="view = 'what'">What was checked</v-btn>
        </div>
        <template v-else>
          <p v-if="!wanting.length" class="kept" role="status">
            <v-icon :icon="mdiCheckCircleOutline" size="18" color="secondary" />
            {{ !known || behind !== undefined ? 'No findings so far.' : 'No findings. All rules are kept.' }} What follows is
            worth knowing.
          </p>
          <div class="bar">
            <FilterField v-model="filter" label="Filter the findings" hint="clearance, what:R12, where:supply …" />
            <OneOf
              label="Which findings"
              :value="only"
              :options="[
                { value: 'all', title: 'All' },
                { value: 'circuit', title: 'Circuit' },
                { value: 'parts', title: 'Parts' },
                { value: 'board', title: 'Board' },
              ]"
              @keep="only = $event"
            />
            <span class="grow" />
            <span v-for="c in counts" :key="c.name" class="count">
              <v-icon :icon="c.path" :color="c.tone" size="16" />{{ c.name }} <span class="mono">{{ c.n }}</span>
            </span>
          </div>
          <div class="both">
            <nav class="groups" aria-label="Groups of findings">
              <v-select v-model="by" :items="ways" label="Grouped by" density="compact" variant="outlined" hide-details />
              <v-list density="compact" bg-color="transparent">
                <v-list-item :active="group === null" @click="group = null">
                  <v-list-item-title>All</v-list-item-title>
                  <template #append
                    ><span class="mono n">{{ found.length }}</span></template
                  >
                </v-list-item>
                <v-list-item
                  v-for="g in groups"
                  :key="g.name"
                  :active="group === g.name"
                  :title="g.name.charAt(0).toUpperCase() + g.name.slice(1)"
                  @click="group = g.name"
                >
                  <template #prepend
                    ><v-icon :icon="worst(g.findings).path" :color="worst(g.findings).tone" size="15"
                  /></template>
                  <template #append
                    ><span class="mono n">{{ g.findings.length }}</span></template
                  >
                </v-list-item>
              </v-list>
            </nav>
            <DataTable
              ref="table"
              name="findings"
              label="Findings"
              :columns="columns"
              :rows="rows"
              :row-class="(f: Finding) => (f.excused ? 'off' : undefined)"
              :menu="menu"
              @change="change"
              @open="go"
            >
              <template #empty>Nothing of this kind is found.</template>
            </DataTable>
          </div>
          <div v-if="now" class="now" aria-live="polite">
            <div class="words">
              <p>{{ now.text }}</p>
              <p class="quiet">
                {{ now.says || now.rule }} · {{ stageNames[now.stage].toLowerCase() }} · {{ place(now) }}
                <template v-if="now.lapsed"> · It was excused (“{{ now.lapsed }}”) and has changed since.</template>
              </p>
            </div>
            <TextField
              v-if="now.severity !== 'todo'"
              :key="now.key"
              class="why"
              label="Excused because"
              empty="why it is right as it is"
              :value="now.excused ?? now.lapsed ?? ''"
              @keep="(why: string) => excuseOne(now!, why)"
            />
            <v-btn
              v-if="others.length"
              size="small"
              variant="outlined"
              @click="excuseAll(others.map((row) => ({ row, text: given!.reason })))"
              >Excuse the other {{ others.length }} of its kind so</v-btn
            >
            <v-btn color="primary" variant="flat" size="small" @click="go(now)">Show the place</v-btn>
          </div>
        </template>
      </template>
      <Clashes v-else-if="view === 'clashes'" :project="project" />
      <Against v-else-if="view === 'against'" :project="project" />
      <Houses v-else-if="view === 'houses'" :project="project" />
      <section v-else class="what">
        <p v-for="{ about, what } in checked" :key="about">
          <strong>{{ about }}:</strong> {{ what }}.
        </p>
        <p class="quiet">Which clashes of the circuit are faults and which are warnings is set under Clashes.</p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.kept {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.page {
  position: absolute;
  inset: 0;
  display: flex;
  flex-direction: column;
  padding: 12px 16px 14px;
  background: rgb(var(--v-theme-background));
}
.head,
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 14px;
  margin-bottom: 8px;
}
h2 {
  font-size: 18px;
  font-weight: 600;
}
.grow {
  flex: 1;
}
.body {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  overflow-y: auto;
}
.both {
  flex: 1;
  min-height: 0;
  display: flex;
  gap: 12px;
}
.both > :last-child {
  flex: 1;
  min-width: 0;
}
.groups {
  width: 228px;
  flex: none;
  overflow-y: auto;
  padding-top: 6px;
}
.groups :deep(.v-list-item__prepend) {
  width: 23px;
}
.n {
  font-size: 12px;
}
.count {
  display: flex;
  align-items: center;
  gap: 6px;
}
.now {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 54px;
  margin-top: 8px;
  padding: 7px 12px;
  border: 1px solid rgba(var(--v-border-color), 0.3);
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
}
.words {
  flex: 1;
  min-width: 0;
}
.why.field-row {
  flex: none;
  grid-template-columns: auto minmax(0, 1fr);
  width: 400px;
}
.clean {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 12px;
  padding: 28px 0;
  font-size: 15px;
}
.what p {
  max-width: 860px;
  margin-bottom: 8px;
}
.stale {
  color: rgb(var(--v-theme-error));
  font-size: 13px;
}
</style>
