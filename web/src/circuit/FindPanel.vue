<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { latest } from '../live/latest'
import type { Project } from '../live/project'
import type { Hit } from '../live/wire.gen'
import { openMenu } from '../shell/menu'
import { complain, say } from '../shell/notices'

/** Finds words in values, names and texts, and replaces them, one or all. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ close: []; go: [number] }>()
const text = ref('')
const other = ref('')
const whole = ref(false)
const cased = ref(false)
const kinds = ref<string[]>([])
const hits = ref<Hit[]>([])
const input = ref<{ focus: () => void }>()
const all = [
  ['values', 'Values'],
  ['names', 'Names'],
  ['designators', 'Designators'],
  ['texts', 'Texts'],
]
const query = computed(() => ({ text: text.value, case: cased.value, whole: whole.value, kinds: kinds.value }))
const search = latest(
  async (q: typeof query.value) => (q.text ? await props.project.question('find', { query: q }).catch(() => null) : null),
  (found) => (hits.value = found ?? []),
)
watch([query, props.project.docTick], () => search(query.value))
onMounted(() => input.value?.focus())
async function replace(only?: Hit[]) {
  if (!only) await search.shown() // what is replaced is counted as it is found now
  const n = (only ?? hits.value).length
  const done = await props.project
    .edit('replaceText', { ...query.value, with: other.value, ...(only ? { only } : {}) })
    .catch(complain)
  if (done) say(`Replaced in ${n} ${n === 1 ? 'place' : 'places'}.`)
}
function menu(e: MouseEvent, h: Hit) {
  openMenu({ x: e.clientX, y: e.clientY }, [
    { title: 'Show it', run: () => emit('go', h.id) },
    { title: 'Replace here', run: () => void replace([h]) },
    { title: 'Replace all', run: () => void replace() },
  ])
}
const sheetName = (id: number) => props.project.get('sheet', id)?.name ?? ''
</script>

<template>
  <div class="float find" role="dialog" aria-label="Find and replace" @keydown.esc.stop="emit('close')">
    <div class="line">
      <v-text-field ref="input" v-model="text" placeholder="Find" aria-label="Find" />
      <v-btn-toggle v-model="kinds" multiple :mandatory="false" aria-label="Where to look">
        <v-btn v-for="[k, word] in all" :key="k" :value="k" :aria-pressed="kinds.includes(k)">{{ word }}</v-btn>
      </v-btn-toggle>
    </div>
    <div class="line">
      <v-text-field v-model="other" placeholder="Replace by" aria-label="Replace by" @keydown.enter="replace()" />
      <v-checkbox v-model="cased" class="flag" label="capitals count" />
      <v-checkbox v-model="whole" class="flag" label="whole text" />
    </div>
    <v-list v-if="hits.length" class="hits" aria-label="Found">
      <v-list-item
        v-for="h in hits.slice(0, 300)"
        :key="h.id + h.field"
        class="hit"
        @click="emit('go', h.id)"
        @contextmenu.prevent="menu($event, h)"
      >
        <span class="mono text">{{ h.text.split('\n')[0] }}</span>
        <span class="quiet small">{{ h.what }}</span>
        <span class="quiet small">{{ sheetName(h.sheet) }}</span>
        <template #append><v-btn class="one" size="small" variant="outlined" @click.stop="replace([h])">Replace</v-btn></template>
      </v-list-item>
    </v-list>
    <p v-else-if="text" class="quiet none">That stands nowhere in the circuit.</p>
    <p v-else class="quiet none">Values, names of nets, ports and blocks, designators, notes. No choice above: everywhere.</p>
    <div class="ends">
      <span class="quiet"
        ><span class="mono">{{ hits.length }}</span> found</span
      >
      <span class="grow" />
      <v-btn size="small" @click="emit('close')">Close</v-btn>
      <v-btn size="small" color="primary" variant="flat" :disabled="!hits.length" @click="replace()">Replace all</v-btn>
    </div>
  </div>
</template>

<style scoped>
.find {
  position: absolute;
  right: 12px;
  top: 54px;
  width: 560px;
  padding: 12px;
  z-index: 8;
}
.line {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
}
.flag {
  flex: none;
}
.hits {
  max-height: 300px;
  overflow-y: auto;
}
.hit :deep(.v-list-item__content) {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.text {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.small {
  font-size: 11.5px;
  white-space: nowrap;
}
.one {
  margin-left: 10px;
}
.ends {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
}
.grow {
  flex: 1;
}
.none {
  padding: 6px;
}
</style>
