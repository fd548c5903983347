<script setup lang="ts">
import {
  mdiContentCopy,
  mdiDeleteOutline,
  mdiDownload,
  mdiFileImportOutline,
  mdiPencilOutline,
  mdiPlus,
  mdiThemeLightDark,
} from '@mdi/js'
import { nextTick, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { call } from '../live/http'
import type { Created, Project, SteppedBack } from '../live/wire.gen'
import { actName } from '../shell/acts'
import { complain, say } from '../shell/notices'
import { useTaste } from '../shell/taste'

const router = useRouter()
const taste = useTaste()
const list = ref<Project[] | null>(null)
const naming = ref<{ id: number | null; name: string; trouble: string } | null>(null)
const nameInput = ref<HTMLInputElement>()
const fileInput = ref<HTMLInputElement>()

async function load() {
  try {
    list.value = await call<Project[]>('GET', '/projects')
  } catch (e) {
    list.value ??= []
    complain(e)
  }
}
onMounted(() => {
  document.title = 'Projects · Golden Trace'
  void load()
})

function ask(p: Project | null) {
  naming.value = { id: p?.id ?? null, name: p?.name ?? '', trouble: '' }
  void nextTick(() => setTimeout(() => nameInput.value?.select(), 40))
}
async function keepName() {
  const n = naming.value!
  try {
    if (n.id === null) {
      const made = await call<Created>('POST', '/projects', { name: n.name })
      await router.push(`/project/${made.id}/circuit`)
    } else await call('PATCH', `/projects/${n.id}`, { name: n.name })
    naming.value = null
    await load()
  } catch (e) {
    n.trouble = (e as Error).message
  }
}
async function run(f: () => Promise<unknown>) {
  try {
    await f()
  } catch (e) {
    complain(e)
  }
  await load()
}
const duplicate = (p: Project) => run(() => call('POST', `/projects/${p.id}/duplicate`))
const remove = (p: Project) =>
  run(async () => {
    await call('DELETE', `/projects/${p.id}`)
    say(`${p.name} was deleted.`, 'plain', {
      label: 'Bring back',
      run: () => void run(() => call('POST', `/projects/${p.id}/restore`)),
    })
  })
const stepBack = (p: Project) =>
  run(async () => {
    const done = await call<SteppedBack>('POST', `/projects/${p.id}/stepback`)
    say(`The last act of ${p.name} was taken back: ${actName(done.act)}.`)
  })
async function importFile(e: Event) {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  if (file)
    await run(async () => {
      const made = await call<Created>('POST', '/import', file)
      say(`Imported as ${made.name}.`)
    })
  input.value = ''
}
const when = (s: string) =>
  new Date(s).toLocaleString('en-GB', { day: 'numeric', month: 'short', year: 'numeric', hour: '2-digit', minute: '2-digit' })
</script>

<template>
  <div class="page">
    <header>
      <svg viewBox="0 0 32 32" width="30" height="30" aria-hidden="true">
        <path d="M11 2v9l10 10v9" fill="none" stroke="currentColor" stroke-width="2.6" />
        <circle cx="11" cy="11" r="4" class="ring" />
        <circle cx="21" cy="21" r="4.6" fill="currentColor" />
      </svg>
      <h1>Golden Trace</h1>
      <v-spacer />
      <v-btn
        :icon="mdiThemeLightDark"
        size="small"
        aria-label="Dark or light"
        @click="taste.frameShade = taste.frameShade === 'dark' ? 'light' : 'dark'"
      />
    </header>
    <main>
      <div class="head">
        <h2>Projects</h2>
        <v-spacer />
        <v-btn :prepend-icon="mdiFileImportOutline" @click="fileInput?.click()">Import a file</v-btn>
        <v-btn :prepend-icon="mdiPlus" color="primary" variant="flat" data-test="new" @click="ask(null)">New project</v-btn>
        <input ref="fileInput" type="file" hidden data-test="import" aria-label="Project file" @change="importFile" />
      </div>
      <div v-if="list && !list.length" class="empty">
        <p>A project takes a circuit to a board and on to the files a board house makes it from. Begin with an empty sheet.</p>
        <v-btn color="primary" variant="flat" @click="ask(null)">New project</v-btn>
      </div>
      <table v-else-if="list">
        <thead>
          <tr>
            <th>Name</th>
            <th class="num">Parts</th>
            <th class="num">Edits</th>
            <th class="date">Last changed</th>
            <th><span class="sr">Actions</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in list" :key="p.id" @click="router.push(`/project/${p.id}/circuit`)">
            <td>
              <router-link :to="`/project/${p.id}/circuit`" @click.stop>{{ p.name }}</router-link>
              <div v-if="p.trouble" class="trouble" role="note" data-test="trouble" @click.stop>
                {{ p.trouble }}
                <a :href="`/api/projects/${p.id}/raw`" download>Save it as it is kept</a> ·
                <button class="asLink" data-test="stepback" @click="stepBack(p)">Take back its last act</button>
              </div>
            </td>
            <td class="num mono">{{ p.parts }}</td>
            <td class="num mono">{{ p.revision }}</td>
            <td class="date quiet">{{ when(p.changed) }}</td>
            <td class="acts" @click.stop>
              <v-btn :icon="mdiPencilOutline" size="small" :aria-label="`Rename ${p.name}`" title="Rename" @click="ask(p)" />
              <v-btn
                :icon="mdiContentCopy"
                size="small"
                :aria-label="`Duplicate ${p.name}`"
                title="Duplicate"
                @click="duplicate(p)"
              />
              <v-btn
                :icon="mdiDownload"
                size="small"
                :aria-label="`Export ${p.name}`"
                title="Export as one file"
                :href="`/api/projects/${p.id}/export`"
                download
              />
              <v-btn :icon="mdiDeleteOutline" size="small" :aria-label="`Delete ${p.name}`" title="Delete" @click="remove(p)" />
            </td>
          </tr>
        </tbody>
      </table>
    </main>
    <v-dialog :model-value="!!naming" width="420" aria-label="Name" @update:model-value="naming = null">
      <form v-if="naming" class="float ask" @submit.prevent="keepName">
        <h3>{{ naming.id === null ? 'New project' : 'Rename project' }}</h3>
        <input
          ref="nameInput"
          v-model="naming.name"
          aria-label="Name of the project"
          placeholder="Name"
          data-test="name"
          autofocus
        />
        <p v-if="naming.trouble" class="trouble" role="alert">{{ naming.trouble }}</p>
        <div class="buttons">
          <v-btn @click="naming = null">Leave it</v-btn>
          <v-btn color="primary" variant="flat" type="submit" data-test="keep">{{
            naming.id === null ? 'Create' : 'Rename'
          }}</v-btn>
        </div>
      </form>
    </v-dialog>
  </div>
</template>

<style scoped>
.trouble {
  color: rgb(var(--v-theme-error));
  font-size: 12.5px;
  max-width: 520px;
}
.trouble a,
.asLink {
  color: inherit;
  font: inherit;
  border: 0;
  padding: 0;
  background: none;
  text-decoration: underline;
  cursor: pointer;
}
.page {
  height: 100vh;
  overflow: auto;
  background: rgb(var(--v-theme-background));
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 18px 32px;
  color: rgb(var(--v-theme-primary));
}
.ring {
  fill: rgb(var(--v-theme-background));
  stroke: currentColor;
  stroke-width: 2.4;
}
h1 {
  font-size: 20px;
  font-weight: 600;
  color: rgb(var(--v-theme-on-background));
}
main {
  max-width: 980px;
  margin: 20px auto;
  padding: 0 32px;
}
.head {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 16px;
}
h2 {
  font-size: 22px;
  font-weight: 600;
}
table {
  width: 100%;
  border-collapse: collapse;
  background: rgb(var(--v-theme-surface));
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 10px;
  border-spacing: 0;
  font-size: 14px;
}
th {
  text-align: left;
  font-weight: 500;
  font-size: 12.5px;
  padding: 9px 14px;
  opacity: 0.85;
}
td {
  padding: 8px 14px;
  border-top: 1px solid rgba(var(--v-border-color), 0.2);
}
tbody tr {
  cursor: pointer;
}
tbody tr:hover {
  background: rgba(var(--v-border-color), 0.1);
}
td a {
  color: inherit;
  font-weight: 500;
  font-size: 15px;
  text-decoration: none;
}
.num {
  text-align: right;
  width: 80px;
}
.date {
  width: 190px;
  padding-left: 28px;
}
.acts {
  width: 190px;
  text-align: right;
  white-space: nowrap;
}
.sr {
  position: absolute;
  clip-path: inset(50%);
}
.empty {
  display: flex;
  flex-direction: column;
  gap: 14px;
  align-items: flex-start;
  padding: 32px 0;
  font-size: 15px;
}
.ask {
  padding: 20px 22px;
  display: flex;
  flex-direction: column;
  gap: 14px;
}
.ask h3 {
  font-size: 17px;
  font-weight: 600;
}
.ask input {
  padding: 8px 12px;
  border-radius: 8px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  color: inherit;
  font-size: 15px;
}
.trouble {
  color: rgb(var(--v-theme-error));
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
