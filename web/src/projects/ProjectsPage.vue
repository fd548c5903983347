<script setup lang="ts">
import { mdiFileImportOutline, mdiMagnify, mdiPlus, mdiThemeLightDark } from '@mdi/js'
import { useDropZone } from '@vueuse/core'
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { call } from '../live/http'
import { naturally } from '../live/natural'
import type { Created, Project, Starts, SteppedBack } from '../live/wire.gen'
import { actName } from '../shell/acts'
import { helpOpen, useCommands } from '../shell/commands'
import FilePick from '../shell/fields/FilePick.vue'
import OneOf from '../shell/fields/OneOf.vue'
import { complain, say } from '../shell/notices'
import { kept, useTaste } from '../shell/taste'
import type { Naming } from './NameDialog.vue'
import ProjectCard from './ProjectCard.vue'
import StackPicture from './StackPicture.vue'
import { upload } from './upload'

/** Read when it is first wanted. */
const NameDialog = defineAsyncComponent(() => import('./NameDialog.vue'))
const router = useRouter()
const taste = useTaste()
const list = ref<Project[] | null>(null)
const starts = ref<Starts | null>(null)
const asked = ref(false)
const naming = ref<(Naming & { id?: number }) | null>(null)
const search = ref('')
const order = kept<'changed' | 'name' | 'parts'>('projects.order', 'changed')
const orders: { value: 'changed' | 'name' | 'parts'; title: string }[] = [
  { value: 'changed', title: 'Last changed' },
  { value: 'name', title: 'By name' },
  { value: 'parts', title: 'Largest' },
]
const shown = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  const found = (list.value ?? []).filter((p) => words.every((w) => p.name.toLowerCase().includes(w)))
  if (order.value === 'name') found.sort((a, b) => naturally(a.name, b.name))
  else if (order.value === 'parts') found.sort((a, b) => b.parts - a.parts || naturally(a.name, b.name))
  return found
})

async function load() {
  try {
    list.value = await call<Project[]>('GET', '/projects')
  } catch (e) {
    list.value ??= []
    complain(e)
  }
}
onMounted(async () => {
  document.title = 'Projects · Golden Trace'
  await load()
  starts.value = await call<Starts>('GET', '/starts').catch(() => null)
})

// ---- what can be done with a project

function ask(n: NonNullable<typeof naming.value>) {
  asked.value = true
  naming.value = n
}
const begin = (start: string) => ask({ title: 'New project', keep: 'Create', name: '', start })
const rename = (p: Project) => ask({ title: 'Rename project', keep: 'Rename', name: p.name, id: p.id })
async function saveName(n: Naming) {
  const id = naming.value?.id
  if (id !== undefined) {
    await call('PATCH', `/projects/${id}`, { name: n.name })
    await load()
    return
  }
  const copy = n.start?.startsWith('copy:') ? Number(n.start.slice(5)) : undefined
  const made = await call<Created>('POST', '/projects', { name: n.name, ...(copy ? { copy } : { template: n.start }) })
  await router.push(`/project/${made.id}/circuit`)
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
const open = (id: number, look = false) => void router.push({ path: `/project/${id}/circuit`, query: look ? { look: '1' } : {} })
const entries = (p: Project) => [
  { title: 'Open', run: () => open(p.id) },
  { title: 'Look at it without changing it', run: () => open(p.id, true) },
  null,
  { title: 'Rename …', run: () => rename(p) },
  { title: 'Duplicate', run: () => void duplicate(p) },
  { title: 'Export as one file', run: () => window.open(`/api/projects/${p.id}/export`, '_self') },
  null,
  { title: 'Delete', run: () => void remove(p) },
]
const exampleEntries = (id: number) => [
  { title: 'Look at it', run: () => open(id, true) },
  { title: 'Take a copy …', run: () => begin(`copy:${id}`) },
]

// ---- files taken in

const incoming = ref<{ name: string; share: number }[]>([])
async function takeIn(files: File[]) {
  for (const f of files) {
    incoming.value.push({ name: f.name, share: 0 })
    const now = incoming.value[incoming.value.length - 1]
    await run(async () => {
      const made = await upload<Created>('/import', f, (share) => (now.share = share))
      say(`Imported as ${made.name}.`)
    })
    incoming.value = incoming.value.filter((x) => x !== now)
  }
}
const page = ref<HTMLElement>()
const find = ref<{ focus: () => void }>()
const pick = ref<{ choose: () => void }>()
useCommands([
  { id: 'newProject', title: 'New project', keys: 'N', group: 'Projects', run: () => begin('empty') },
  { id: 'findProject', title: 'Find a project', keys: '/', group: 'Projects', run: () => find.value?.focus() },
  { id: 'importFiles', title: 'Import files', keys: 'I', group: 'Projects', run: () => pick.value?.choose() },
  { id: 'help', title: 'These keys', keys: '?', group: 'Projects', run: () => (helpOpen.value = true) },
])
const { isOverDropZone } = useDropZone(page, { onDrop: (files) => files && void takeIn(files), multiple: true })
/** When a project was changed: the hour today, the day before that, the year too where it is another. */
function when(s: string) {
  const [t, now] = [new Date(s), new Date()]
  if (t.toDateString() === now.toDateString())
    return `today ${t.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`
  const year = t.getFullYear() === now.getFullYear() ? undefined : 'numeric'
  return t.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year })
}
</script>

<template>
  <div ref="page" class="page">
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
        title="Dark or light"
        @click="taste.frameShade = taste.frameShade === 'dark' ? 'light' : 'dark'"
      />
    </header>
    <main>
      <div class="head">
        <h2>Projects</h2>
        <v-text-field
          ref="find"
          v-model="search"
          class="search"
          :prepend-inner-icon="mdiMagnify"
          placeholder="Find a project"
          aria-label="Find a project"
          clearable
          @click:clear="search = ''"
        />
        <OneOf label="Order of the projects" :value="order" :options="orders" @keep="order = $event" />
        <v-spacer />
        <FilePick ref="pick" v-slot="{ choose }" label="Project file" accept=".goldentrace,.ndjson,.txt" several @files="takeIn">
          <v-btn :prepend-icon="mdiFileImportOutline" @click="choose">Import files</v-btn>
        </FilePick>
        <v-btn :prepend-icon="mdiPlus" color="primary" variant="flat" @click="begin('empty')">New project</v-btn>
      </div>
      <div v-for="f in incoming" :key="f.name" class="incoming" role="status">
        <span>{{ f.share < 1 ? 'Taking in' : 'Reading' }} {{ f.name }} …</span>
        <v-progress-linear
          :model-value="f.share * 100"
          :indeterminate="f.share >= 1"
          :aria-label="`Taking in ${f.name}`"
          color="primary"
        />
      </div>
      <div v-if="list && !list.length" class="empty">
        <p>A project takes a circuit to a board and on to the files a board house makes it from. Begin with an empty sheet.</p>
        <v-btn color="primary" variant="flat" @click="begin('empty')">New project</v-btn>
      </div>
      <p v-else-if="list && !shown.length" class="quiet">No project bears that name.</p>
      <div v-else-if="list" class="cards" role="list" aria-label="Projects">
        <ProjectCard
          v-for="p in shown"
          :id="p.id"
          :key="p.id"
          role="listitem"
          :revision="p.revision"
          :name="p.name"
          :to="`/project/${p.id}/circuit`"
          :line="`${p.parts} ${p.parts === 1 ? 'part' : 'parts'} · ${when(p.changed)}`"
          :entries="entries(p)"
          :troubled="!!p.trouble"
        >
          <div v-if="p.trouble" class="trouble" role="note">
            {{ p.trouble }}
            <a :href="`/api/projects/${p.id}/raw`" download>Save it as it is kept</a>
            <v-btn size="x-small" variant="outlined" @click="stepBack(p)">Take back its last act</v-btn>
          </div>
        </ProjectCard>
      </div>
      <v-progress-circular v-else indeterminate color="primary" aria-label="Reading the projects" />

      <template v-if="starts">
        <h3>Begin with</h3>
        <div class="templates" role="list" aria-label="Templates">
          <v-card v-for="t in starts.templates" :key="t.key" class="template" role="listitem" @click="begin(t.key)">
            <StackPicture :kind="t.key" />
            <div>
              <strong>{{ t.name }}</strong>
              <p class="quiet">{{ t.text }}</p>
            </div>
          </v-card>
        </div>
        <template v-if="starts.examples.length">
          <h3>Examples <span class="quiet">to look at and to take copies of</span></h3>
          <div class="cards" role="list" aria-label="Examples">
            <ProjectCard
              v-for="e in starts.examples"
              :id="e.id"
              :key="e.id"
              role="listitem"
              :revision="0"
              :name="e.name"
              :to="`/project/${e.id}/circuit?look=1`"
              :line="`${e.parts} parts`"
              :entries="exampleEntries(e.id)"
            />
          </div>
        </template>
      </template>
    </main>
    <div v-if="isOverDropZone" class="drop">Drop project files to take them in.</div>
    <NameDialog v-if="asked" :naming="naming" :starts="starts" :save="saveName" @close="naming = null" />
  </div>
</template>

<style scoped>
.page {
  height: 100vh;
  overflow: auto;
  background: rgb(var(--v-theme-background));
}
header {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 16px 32px 6px;
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
  max-width: 1240px;
  margin: 0 auto;
  padding: 8px 32px 48px;
}
.head {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 16px;
}
h2 {
  font-size: 22px;
  font-weight: 600;
}
h3 {
  margin: 28px 0 12px;
  font-size: 16px;
  font-weight: 600;
}
h3 .quiet {
  font-size: 13px;
  font-weight: 400;
}
.search {
  flex: none;
  width: 240px;
  margin-left: 12px;
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  gap: 18px;
}
.templates {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(214px, 1fr));
  gap: 12px;
}
.template.v-card {
  display: flex;
  gap: 14px;
  align-items: center;
  padding: 12px 14px;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 10px;
  box-shadow: none;
}
.template p {
  font-size: 12px;
  line-height: 1.35;
}
.incoming {
  display: grid;
  grid-template-columns: auto 1fr;
  align-items: center;
  gap: 14px;
  margin-bottom: 12px;
}
.trouble {
  color: rgb(var(--v-theme-error));
  font-size: 12.5px;
}
.trouble a {
  color: inherit;
}
.empty {
  display: flex;
  flex-direction: column;
  gap: 14px;
  align-items: flex-start;
  padding: 24px 0;
  font-size: 15px;
}
.drop {
  position: fixed;
  inset: 14px;
  display: flex;
  align-items: center;
  justify-content: center;
  border: 2px dashed rgb(var(--v-theme-primary));
  border-radius: 14px;
  background: rgba(var(--v-theme-background), 0.86);
  font-size: 18px;
  pointer-events: none;
  z-index: 20;
}
</style>
