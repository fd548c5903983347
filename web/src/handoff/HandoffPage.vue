<script setup lang="ts">
import { mdiFolderZipOutline } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { call, Refusal } from '../live/http'
import type { Project } from '../live/project'
import type { Drawing, File as HandoffFile, HandoffState } from '../live/wire.gen'
import { useCommands } from '../shell/commands'
import { complain, say } from '../shell/notices'
import type { Change, Column } from '../shell/table/columns'
import DataTable from '../shell/table/DataTable.vue'
import ArtworkView from './ArtworkView.vue'

const props = defineProps<{ project: Project }>()
const state = computed(() => props.project.handoff.value)
const current = computed(() => props.project.handoffCurrent.value)
const busy = ref(false)
/** Why nothing was made, and how many nets are not joined. */
const warn = ref<{ why: string; unjoined: number } | null>(null)
const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`
/** What is said below the count of nets that are not joined. */
function beside(e: Refusal) {
  const others = e.findings - e.unjoined
  return `${count(e.open, 'link is', 'links are')} open.${others ? ` The checks have ${count(others, 'finding', 'findings')} beside.` : ''} Look at them first, or make the files all the same.`
}
const shown = ref<string[]>([])
const chosen = ref('')
const drawings = ref(new Map<string, Drawing>())
let stop: AbortController | null = null

async function make(despite = false) {
  warn.value = null
  busy.value = true
  stop = new AbortController()
  try {
    await call<HandoffState>(
      'POST',
      `/projects/${props.project.id}/handoff${despite ? '?despite=1' : ''}`,
      undefined,
      stop.signal,
    )
    say('The files are made.')
  } catch (e) {
    if (e instanceof Refusal && e.status === 409) warn.value = { why: e.unjoined ? beside(e) : e.message, unjoined: e.unjoined }
    else complain(e)
  } finally {
    busy.value = false
  }
}

const drawable = (f: HandoffFile) => f.kind === 'artwork' || f.kind === 'drill'
async function read(name: string): Promise<Drawing | undefined> {
  const have = drawings.value.get(name)
  if (have) return have
  try {
    const d = await call<Drawing>('GET', `/projects/${props.project.id}/handoff/${encodeURIComponent(name)}/drawing`)
    drawings.value = new Map(drawings.value).set(name, d)
    return d
  } catch (e) {
    complain(e)
  }
}
watch(
  () => state.value?.made,
  async () => {
    drawings.value = new Map()
    const files = state.value?.files ?? []
    shown.value = files
      .filter((f) => f.role === 'silk-top' || /^(copper|outline|plated|laser|unplated)/.test(f.role))
      .map((f) => f.name)
    chosen.value = ''
    for (const n of shown.value) await read(n)
  },
  { immediate: true },
)
async function toggle(f: HandoffFile) {
  chosen.value = ''
  if (shown.value.includes(f.name)) shown.value = shown.value.filter((n) => n !== f.name)
  else if (await read(f.name)) shown.value = [...shown.value, f.name]
}
async function look(f: HandoffFile) {
  if (drawable(f)) {
    await read(f.name)
    shown.value = [f.name]
    chosen.value = ''
  } else {
    await read(f.name)
    chosen.value = f.name
  }
}
const order = [
  'outline',
  'paste-bottom',
  'mask-bottom',
  'copper',
  'mask-top',
  'paste-top',
  'silk-bottom',
  'silk-top',
  'plated',
  'laser',
  'unplated',
]
const overlay = computed(() => {
  const list = shown.value.map((n) => drawings.value.get(n)).filter((d) => !!d)
  return list.sort((a, b) => height(a.role) - height(b.role))
})
const copperOf = (role: string) => Number(/^copper-(\d+)$/.exec(role)?.[1] ?? 0)
/** What lies higher is drawn later; of the copper the first layer is the highest. */
const height = (role: string) => order.indexOf(role.replace(/^(copper|plated|laser)-.*/, '$1')) - copperOf(role) / 100
const layers = computed(() => state.value?.files.filter((f) => copperOf(f.role)).length ?? 0)
const sheet = computed(() => drawings.value.get(chosen.value))
const sheetRows = computed(() => sheet.value?.rows?.slice(1) ?? [])
const sheetColumns = computed<Column<string[]>[]>(() =>
  (sheet.value?.rows?.[0] ?? []).map((name, i) => {
    const texts = sheetRows.value.slice(0, 40).map((r) => r[i] ?? '')
    const figures = texts.every((t) => /^[-+.0-9]*$/.test(t))
    const longest = Math.max(name.length + 2, ...texts.map((t) => t.length))
    return {
      field: `${i}`,
      name,
      width: Math.min(260, 26 + longest * 7.4),
      fixed: true,
      mono: figures,
      right: figures,
      text: (r) => r[i] ?? '',
    }
  }),
)
const files = computed(() => state.value?.files ?? [])
const columns: Column<HandoffFile>[] = [
  {
    field: 'shown',
    name: 'Shown',
    width: 66,
    tick: true,
    text: (f) => (!drawable(f) ? '–' : shown.value.includes(f.name) ? 'yes' : 'no'),
  },
  { field: 'text', name: 'File', width: 150, fixed: true, text: (f) => f.text },
  { field: 'size', name: 'Size', width: 70, fixed: true, mono: true, right: true, text: (f) => kb(f.size), rank: (f) => f.size },
  { field: 'name', name: 'Name', width: 140, fixed: true, mono: true, quiet: true, text: (f) => f.name },
]
const menu = (list: HandoffFile[]) => [
  { title: 'Look at it', keys: 'Enter', run: () => void look(list[0]) },
  { title: list.length > 1 ? `Save ${list.length} files` : 'Save the file', run: () => list.forEach(save) },
]
/** Hands a file to the browser to keep. */
function save(f: HandoffFile) {
  const a = document.createElement('a')
  a.href = `/api/projects/${props.project.id}/handoff/${encodeURIComponent(f.name)}`
  a.download = f.name
  a.click()
}
const lowest = computed(() => Math.max(...files.value.map((f) => copperOf(f.role))))
/** Which files lie over each other, at a stroke. */
async function showAll(wanted: (f: HandoffFile) => boolean) {
  const list = files.value.filter((f) => drawable(f) && wanted(f))
  for (const f of list) await read(f.name)
  chosen.value = ''
  shown.value = list.map((f) => f.name)
}
const artworkEntries = [
  { title: 'Show all files', run: () => void showAll(() => true) },
  { title: 'Show what is above', run: () => void showAll((f) => copperOf(f.role) === 1 || /top$|^outline|plated/.test(f.role)) },
  {
    title: 'Show what is below',
    run: () => void showAll((f) => copperOf(f.role) === lowest.value || /bottom$|^outline|plated/.test(f.role)),
  },
]
const when = (s: string) =>
  new Date(s).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const kb = (n: number) => (n < 1024 ? `${n} B` : `${(n / 1024).toFixed(1)} KB`)
const empty = computed(() => props.project.stages.value.board === 'none')
/** What is going to be made, as long as nothing is. */
const kinds = computed(() => {
  void props.project.docTick.value
  const n = props.project.board?.stack?.filter((l) => l.kind === 'copper').length ?? 0
  return [
    ['Artwork', `Gerber X2: ${n === 1 ? 'one copper layer' : `${n} copper layers`}, mask, silk, paste, edge`],
    ['Holes', 'XNC: a file for each span of layers, plated or not'],
    ['Placement', 'CSV: every fitted part, its place, angle and side'],
    ['Parts list', 'CSV: alike parts together, with their designators'],
    ['Test netlist', 'IPC-D-356: every pad and its net'],
    ['Job file', 'JSON: what the other files are, the size, copper layers and thickness'],
  ]
})
useCommands([{ id: 'make', title: 'Make the files', group: 'Handoff', run: () => void make() }])
</script>

<template>
  <div class="page">
    <aside class="files" aria-label="Files">
      <div class="head">
        <h2>Handoff</h2>
        <template v-if="state">
          <p :class="current ? 'fresh' : 'stale'">
            {{ current ? 'Current' : 'Out of date: the design changed since' }} · made {{ when(state.made) }} from revision
            <span class="mono">{{ state.revision }}</span>
          </p>
          <p v-if="state.unchecked" class="stale">Made before the board was filled and checked.</p>
          <p v-if="state.unjoined" class="stale loud">
            {{ count(state.unjoined, 'net was not joined', 'nets were not joined') }} when they were made.
          </p>
          <p v-if="state.findings > state.unjoined" class="stale">
            Made despite {{ state.findings - state.unjoined }} {{ state.unjoined ? 'other ' : ''
            }}{{ state.findings - state.unjoined === 1 ? 'finding' : 'findings' }}.
          </p>
        </template>
        <p v-else class="quiet">Artwork, drill files, placement, parts list and test netlist, all in one zip.</p>
        <div v-if="warn" class="warn" role="alert">
          <p v-if="warn.unjoined" class="loud">
            {{ count(warn.unjoined, 'net is not joined', 'nets are not joined') }}
          </p>
          <p>{{ warn.why }}</p>
          <v-btn size="small" color="primary" variant="flat" :to="`/project/${project.id}/checks`">Look at them</v-btn>
          <v-btn size="small" variant="outlined" @click="make(true)">Make the files all the same</v-btn>
        </div>
        <div class="buttons">
          <v-btn
            color="primary"
            :variant="state && current ? 'outlined' : 'flat'"
            :loading="busy"
            :disabled="empty"
            @click="make()"
            >{{ state ? 'Make them anew' : 'Make the files' }}</v-btn
          >
          <v-btn
            v-if="state"
            :variant="current ? 'flat' : 'outlined'"
            :color="current ? 'primary' : undefined"
            :prepend-icon="mdiFolderZipOutline"
            :href="`/api/projects/${project.id}/handoff.zip`"
            download
            >Zip, {{ kb(state.size) }}</v-btn
          >
        </div>
        <v-progress-linear
          v-if="busy"
          :model-value="(project.shareOf('files') ?? 0) * 100"
          color="primary"
          aria-label="Making the files"
        />
        <v-btn v-if="busy" size="small" @click="stop?.abort()">Stop</v-btn>
        <p v-if="empty" class="quiet">There is no board yet to make files of.</p>
      </div>
      <dl v-if="!state" class="kinds">
        <template v-for="[what, how] in kinds" :key="what">
          <dt>{{ what }}</dt>
          <dd class="quiet">{{ how }}</dd>
        </template>
      </dl>
      <DataTable
        v-if="state"
        name="files"
        label="Files"
        class="list"
        :columns="columns"
        :rows="files"
        :menu="menu"
        @change="(list: Change<HandoffFile>[]) => list.forEach((c) => toggle(c.row))"
        @open="look"
        @now="look"
      >
        <template #empty>No files.</template>
      </DataTable>
    </aside>
    <div class="view">
      <template v-if="state && sheet">
        <div class="sheet">
          <h3>
            {{ chosen }} <span class="quiet">{{ sheet.count }}</span>
          </h3>
          <DataTable
            v-if="sheet.rows"
            :key="chosen"
            :name="`file.${sheet.role}`"
            :label="chosen"
            :columns="sheetColumns"
            :rows="sheetRows"
          >
            <template #empty>The file has no lines.</template>
          </DataTable>
          <pre v-else class="mono">{{ sheet.text }}</pre>
        </div>
      </template>
      <template v-else-if="state">
        <ArtworkView :drawings="overlay" :layers="layers" :entries="artworkEntries" />
        <p class="float note">
          Drawn from the files themselves by a reader of its own, not from the design.
          {{ overlay.length === 1 ? overlay[0].count : '' }}
        </p>
      </template>
      <p v-else class="none quiet">The files will be drawn here, read back from what was made.</p>
    </div>
  </div>
</template>

<style scoped>
.page {
  position: absolute;
  inset: 0;
  display: flex;
}
.files {
  width: 452px;
  flex: none;
  display: flex;
  flex-direction: column;
  background: rgb(var(--v-theme-surface));
  border-right: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
}
.head {
  padding: 16px 18px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.kinds {
  display: grid;
  grid-template-columns: 92px 1fr;
  gap: 7px 12px;
  margin: 6px 18px;
  padding-top: 14px;
  border-top: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  font-size: 13px;
}
.kinds dd {
  margin: 0;
}
h2 {
  font-size: 18px;
  font-weight: 600;
}
.buttons {
  display: flex;
  gap: 8px;
}
.fresh {
  color: rgb(var(--v-theme-secondary));
}
.stale,
.loud {
  color: rgb(var(--v-theme-error));
}
.loud {
  font-size: 16px;
  font-weight: 600;
  width: 100%;
}
.warn {
  border-left: 3px solid rgb(var(--v-theme-error));
  padding: 6px 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.list {
  margin: 0 10px 12px;
}
.view {
  position: relative;
  flex: 1;
  min-width: 0;
  background: #17131e;
  color: #efe9f5;
}
.sheet {
  position: absolute;
  inset: 0;
  overflow: auto;
  display: flex;
  flex-direction: column;
  padding: 14px 16px;
  background: rgb(var(--v-theme-background));
  color: rgb(var(--v-theme-on-background));
}
.sheet h3 {
  font-size: 14px;
  margin-bottom: 10px;
}
pre {
  font-size: 12px;
}
.note {
  position: absolute;
  right: 14px;
  bottom: 14px;
  padding: 5px 12px;
  font-size: 12px;
  color: rgb(var(--v-theme-on-surface));
}
.none {
  position: absolute;
  inset: 0;
  display: flex;
  align-items: center;
  justify-content: center;
  color: #a79db8;
}
</style>
