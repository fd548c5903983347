<script setup lang="ts">
import { mdiMagnify } from '@mdi/js'
import { holdKeys } from './keyHold'
import { keyText } from './keys'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Project } from '../live/project'
import { allCommands, fieldOpen } from './commands'

const props = defineProps<{ project: Project }>()
const router = useRouter()
const query = ref('')
const chosen = ref(0)
const input = ref<{ focus: () => void }>()

interface Hit {
  title: string
  kind: string
  keys?: string
  run: () => void
}
const go = (stage: string, q: Record<string, string>) =>
  void router.push({ path: `/project/${props.project.id}/${stage}`, query: { ...q, t: String(Date.now()) } })

/** The stage one is in. */
const here = () => String(router.currentRoute.value.params.stage ?? '')
const stageOf = (kind: string) =>
  kind.endsWith('on the board') ? 'board' : kind.endsWith('in the circuit') || kind === 'sheet' ? 'circuit' : ''
/** How well a hit answers: what is called just so, then what begins so; of those, what stands in the stage one is in. */
function rank(h: Hit, word: string) {
  const title = h.title.toLowerCase()
  const fits = title.split(/\s/)[0] === word ? 4 : title.startsWith(word) ? 2 : 0
  return fits + Number(stageOf(h.kind) === here())
}

const hits = computed<Hit[]>(() => {
  if (!fieldOpen.value) return []
  const words = query.value.toLowerCase().split(/\s+/).filter(Boolean)
  const match = (s: string) => words.every((w) => s.toLowerCase().includes(w))
  const out: Hit[] = []
  const p = props.project
  if (words.length) {
    for (const part of p.all('part'))
      if (
        match(`${part.designator} ${Object.values(part.others ?? {}).join(' ')} ${part.value} ${part.library} ${part.footprint}`)
      )
        for (const u of p.usesOf(part.sheet))
          out.push({
            title: `${p.called(part, u.path ?? '')}  ${part.value}`,
            kind: 'part in the circuit',
            run: () => go('circuit', { id: String(part.id), path: u.path ?? '' }),
          })
    for (const u of p.places.value)
      if (match(`${u.label} ${p.get('sheet', u.sheet)?.name ?? ''}`))
        out.push({ title: u.label, kind: 'sheet', run: () => go('circuit', { sheet: String(u.sheet), path: u.path ?? '' }) })
    for (const c of p.all('cluster'))
      if (match(`${c.title} pick`)) out.push({ title: `Pick the parts of ${c.title}`, kind: 'cluster', run: () => p.pick(p.partsWithin(c)) }) // prettier-ignore
    for (const x of p.all('sheet'))
      if (match(`${x.name} pick`)) out.push({ title: `Pick the parts of ${x.name}`, kind: 'sheet', run: () => p.pick(p.partsOn(x.id)) }) // prettier-ignore
    for (const kind of ['note', 'cluster', 'block', 'port', 'label'] as const)
      for (const o of p.all(kind)) {
        const text = 'text' in o ? o.text : 'title' in o ? o.title : o.name
        if (match(text)) out.push({ title: text.split('\n')[0].slice(0, 60), kind: `${kind} in the circuit`, run: () => go('circuit', { id: String(o.id) }) }) // prettier-ignore
      }
    for (const on of p.all('placed'))
      if (match(`${on.designator} ${on.value} ${on.footprint}`))
        out.push({
          title: `${on.designator}  ${on.value}`,
          kind: 'part on the board',
          run: () => go('board', { id: String(on.id) }),
        })
    for (const n of p.netList.value)
      if (match(n.name))
        out.push({ title: n.name, kind: 'net', run: () => go(here() === 'board' ? 'board' : 'circuit', { net: n.name }) })
    for (const l of p.all('legend'))
      if (match(l.text)) out.push({ title: l.text, kind: 'text on the board', run: () => go('board', { id: String(l.id) }) })
    out.sort((a, b) => rank(b, words[0]) - rank(a, words[0]))
  }
  const commands = allCommands()
    .filter((c) => (c.enabled?.() ?? true) && match(`${c.title} ${c.group}`))
    .map((c) => ({ title: c.title, kind: c.group, keys: c.keys, run: c.run }))
  return [...out.slice(0, 30), ...commands].slice(0, 60)
})

watch(fieldOpen, (open) => open && holdKeys(begin()))
/** Opens it empty; what is typed meanwhile waits until it has the focus. */
async function begin() {
  query.value = ''
  chosen.value = 0
  await nextTick()
  await new Promise((done) => setTimeout(done, 30))
  input.value?.focus()
}
watch(query, () => (chosen.value = 0))

function press(e: KeyboardEvent) {
  if (e.key === 'ArrowDown') chosen.value = Math.min(hits.value.length - 1, chosen.value + 1)
  else if (e.key === 'ArrowUp') chosen.value = Math.max(0, chosen.value - 1)
  else if (e.key === 'Enter') run(hits.value[chosen.value])
  else return
  e.preventDefault()
  void nextTick(() => document.querySelector('.hits [aria-selected=true]')?.scrollIntoView({ block: 'nearest' }))
}
function run(h?: Hit) {
  if (!h) return
  fieldOpen.value = false
  h.run()
}
</script>

<template>
  <v-dialog v-model="fieldOpen" width="560" :scrim="true" location-strategy="static" class="field-dialog" aria-label="Find">
    <div class="float box">
      <v-text-field
        ref="input"
        v-model="query"
        class="ask"
        :prepend-inner-icon="mdiMagnify"
        placeholder="R3, GND, 100n, turn left …"
        aria-label="Find a part, net, text or command"
        @keydown="press"
      />
      <v-list v-if="hits.length" class="hits" role="listbox" aria-label="Found">
        <v-list-item
          v-for="(h, i) in hits"
          :key="i"
          role="option"
          tabindex="-1"
          :active="i === chosen"
          :aria-selected="i === chosen"
          :title="h.title"
          @click="run(h)"
        >
          <template #append>
            <span class="quiet kind">{{ h.kind }}</span>
            <kbd v-if="h.keys">{{ keyText(h.keys) }}</kbd>
          </template>
        </v-list-item>
      </v-list>
      <p v-else class="quiet none">Nothing here bears that name.</p>
    </div>
  </v-dialog>
</template>

<style scoped>
.box {
  overflow: hidden;
  padding: 10px;
}
.hits {
  max-height: 380px;
  margin-top: 8px;
  overflow-y: auto;
}
.kind {
  font-size: 12px;
}
kbd {
  margin-left: 10px;
}
.none {
  padding: 10px;
}
</style>
