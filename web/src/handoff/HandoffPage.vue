<script setup lang="ts">
import { mdiDownload, mdiFolderZipOutline } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { call, Refusal } from '../live/http'
import type { Project } from '../live/project'
import type { Drawing, File as HandoffFile, HandoffState } from '../live/wire.gen'
import { useCommands } from '../shell/commands'
import { complain, say } from '../shell/notices'
import ArtworkView from './ArtworkView.vue'
import { roleColour } from './artwork'

const props = defineProps<{ project: Project }>()
const state = computed(() => props.project.handoff.value)
const current = computed(() => props.project.handoffCurrent.value)
const busy = ref(false)
const warn = ref('')
const shown = ref<string[]>([])
const chosen = ref('')
const drawings = ref(new Map<string, Drawing>())
let stop: AbortController | null = null

async function make(despite = false) {
  warn.value = ''
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
    if (e instanceof Refusal && e.status === 409) warn.value = e.message
    else complain(e)
  } finally {
    busy.value = false
    props.project.progress.value = null
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
      .filter((f) => ['copper-1', 'copper-2', 'silk-top', 'outline', 'plated', 'unplated'].includes(f.role))
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
  'copper-2',
  'copper-1',
  'mask-top',
  'paste-top',
  'silk-bottom',
  'silk-top',
  'plated',
  'unplated',
]
const overlay = computed(() => {
  const list = shown.value.map((n) => drawings.value.get(n)).filter((d) => !!d)
  return list.sort((a, b) => order.indexOf(a.role) - order.indexOf(b.role))
})
const sheet = computed(() => drawings.value.get(chosen.value))
const when = (s: string) =>
  new Date(s).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const kb = (n: number) => (n < 1024 ? `${n} B` : `${(n / 1024).toFixed(1)} KB`)
const empty = computed(() => props.project.stages.value.board === 'none')
useCommands([{ id: 'make', title: 'Make the files', group: 'Handoff', run: () => void make() }])
</script>

<template>
  <div class="page">
    <aside class="files" aria-label="Files">
      <div class="head">
        <h2>Handoff</h2>
        <template v-if="state">
          <p :class="current ? 'fresh' : 'stale'" data-test="freshness">
            {{ current ? 'Current' : 'Out of date: the design changed since' }} · made {{ when(state.made) }} from revision
            <span class="mono">{{ state.revision }}</span>
          </p>
          <p v-if="state.findings" class="stale">Made despite {{ state.findings }} findings.</p>
        </template>
        <p v-else class="quiet">Artwork, drill files, placement, parts list and test netlist, all in one zip.</p>
        <div v-if="warn" class="warn" role="alert">
          <p>{{ warn }}</p>
          <v-btn size="small" color="primary" variant="flat" :to="`/project/${project.id}/checks`">Look at them</v-btn>
          <v-btn size="small" variant="outlined" data-test="despite" @click="make(true)">Make the files all the same</v-btn>
        </div>
        <div class="buttons">
          <v-btn
            color="primary"
            :variant="state && current ? 'outlined' : 'flat'"
            :loading="busy"
            :disabled="empty"
            data-test="make"
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
            data-test="zip"
            >Zip, {{ kb(state.size) }}</v-btn
          >
        </div>
        <v-progress-linear
          v-if="busy"
          :model-value="(project.progress.value ?? 0) * 100"
          color="primary"
          aria-label="Making the files"
        />
        <p v-if="empty" class="quiet">There is no board yet to make files of.</p>
      </div>
      <div v-if="state" class="list">
        <div
          v-for="f in state.files"
          :key="f.name"
          class="file"
          :class="{ on: shown.includes(f.name) && !chosen ? true : chosen === f.name }"
          :data-role="f.role"
        >
          <input
            v-if="drawable(f)"
            type="checkbox"
            :checked="shown.includes(f.name)"
            :aria-label="`Show ${f.text}`"
            :style="{ accentColor: roleColour(f.role) }"
            @change="toggle(f)"
          />
          <span v-else class="dot" />
          <button class="name" :title="f.name" @click="look(f)">
            <span>{{ f.text }}</span><span class="quiet mono small">{{ f.name }}</span>
          </button>
          <span class="quiet mono small">{{ kb(f.size) }}</span>
          <a
            :href="`/api/projects/${project.id}/handoff/${encodeURIComponent(f.name)}`"
            download
            :aria-label="`Download ${f.name}`"
            ><v-icon :icon="mdiDownload" size="16"
          /></a>
        </div>
      </div>
    </aside>
    <div class="view">
      <template v-if="state && sheet">
        <div class="sheet">
          <h3>
            {{ chosen }} <span class="quiet">{{ sheet.count }}</span>
          </h3>
          <table v-if="sheet.rows">
            <thead>
              <tr>
                <th v-for="h in sheet.rows[0]" :key="h">{{ h }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(r, i) in sheet.rows.slice(1, 2000)" :key="i">
                <td v-for="(v, j) in r" :key="j" :class="{ mono: /^[-+.0-9]+$/.test(v), num: /^[-+.0-9]+$/.test(v) && j > 0 }">
                  {{ v }}
                </td>
              </tr>
            </tbody>
          </table>
          <pre v-else class="mono">{{ sheet.text }}</pre>
        </div>
      </template>
      <template v-else-if="state">
        <ArtworkView :drawings="overlay" />
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
  width: 360px;
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
.stale {
  color: rgb(var(--v-theme-error));
}
.warn {
  border-left: 3px solid rgb(var(--v-theme-error));
  padding: 6px 10px;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.list {
  overflow-y: auto;
  flex: 1;
  padding: 0 8px 12px;
}
.file {
  display: grid;
  grid-template-columns: 20px 1fr auto 22px;
  align-items: center;
  gap: 8px;
  padding: 4px 8px;
  border-radius: 6px;
}
.file.on {
  background: rgba(var(--v-border-color), 0.13);
}
.name {
  display: flex;
  flex-direction: column;
  min-width: 0;
  text-align: left;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  cursor: pointer;
}
.small {
  font-size: 11px;
}
.file a {
  color: inherit;
}
.dot {
  width: 13px;
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
  padding: 18px 24px;
  background: rgb(var(--v-theme-background));
  color: rgb(var(--v-theme-on-background));
}
.sheet h3 {
  font-size: 14px;
  margin-bottom: 10px;
}
table {
  border-collapse: collapse;
  font-size: 12.5px;
}
th,
td {
  text-align: left;
  padding: 3px 16px 3px 0;
  border-bottom: 1px solid rgba(var(--v-border-color), 0.2);
}
.num {
  text-align: right;
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
