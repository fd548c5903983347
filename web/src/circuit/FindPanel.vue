<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { latest } from '../live/latest'
import type { Project } from '../live/project'
import type { Hit } from '../live/wire.gen'
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
const input = ref<HTMLInputElement>()
const all = [
  ['values', 'Values'],
  ['names', 'Names'],
  ['designators', 'Designators'],
  ['texts', 'Texts'],
]
const query = computed(() => ({ text: text.value, case: cased.value, whole: whole.value, kinds: kinds.value }))
const search = latest(
  async (q: typeof query.value) => (q.text ? await props.project.look({ t: 'find', query: q }).catch(() => null) : null),
  (m) => (hits.value = m?.hits ?? []),
)
watch([query, props.project.docTick], () => search(query.value))
onMounted(() => input.value?.focus())
const toggle = (k: string) => (kinds.value = kinds.value.includes(k) ? kinds.value.filter((x) => x !== k) : [...kinds.value, k])
async function replace(only?: Hit[]) {
  const n = (only ?? hits.value).length
  const done = await props.project
    .edit('replaceText', { ...query.value, with: other.value, ...(only ? { only } : {}) })
    .catch(complain)
  if (done) say(`Replaced in ${n} ${n === 1 ? 'place' : 'places'}.`)
}
const sheetName = (id: number) => props.project.get('sheet', id)?.name ?? ''
</script>

<template>
  <div class="float find" role="dialog" aria-label="Find and replace" @keydown.esc.stop="emit('close')">
    <div class="line">
      <input ref="input" v-model="text" placeholder="Find" aria-label="Find" data-test="find-text" />
      <button
        v-for="[k, word] in all"
        :key="k"
        class="choice"
        :class="{ on: kinds.includes(k) }"
        :aria-pressed="kinds.includes(k)"
        @click="toggle(k)"
      >
        {{ word }}
      </button>
    </div>
    <div class="line">
      <input v-model="other" placeholder="Replace by" aria-label="Replace by" data-test="find-with" @keydown.enter="replace()" />
      <label><input v-model="cased" type="checkbox" /> capitals count</label>
      <label><input v-model="whole" type="checkbox" /> whole text</label>
    </div>
    <div class="hits" :role="hits.length ? 'list' : undefined">
      <div v-for="h in hits.slice(0, 300)" :key="h.id + h.field" role="listitem" class="hit">
        <button class="go" @click="emit('go', h.id)">
          <span class="mono text">{{ h.text.split('\n')[0] }}</span><span class="quiet small">{{ h.what }}</span
          ><span class="quiet small">{{ sheetName(h.sheet) }}</span>
        </button>
        <button class="plain" @click="replace([h])">Replace</button>
      </div>
      <p v-if="text && !hits.length" class="quiet none">That stands nowhere in the circuit.</p>
      <p v-if="!text" class="quiet none">
        Values, names of nets, ports and blocks, designators, notes. No choice above: everywhere.
      </p>
    </div>
    <div class="ends">
      <span class="quiet"
        ><span class="mono">{{ hits.length }}</span> found</span
      >
      <span class="grow" />
      <v-btn size="small" @click="emit('close')">Close</v-btn>
      <v-btn size="small" color="primary" variant="flat" :disabled="!hits.length" data-test="replace-all" @click="replace()"
        >Replace all</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.find {
  position: absolute;
  right: 12px;
  top: 54px;
  width: 520px;
  padding: 12px;
  z-index: 8;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
  font-size: 12.5px;
}
.line > input {
  flex: 1;
  min-width: 0;
  padding: 5px 9px;
  border-radius: 7px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  background: transparent;
  color: inherit;
}
.choice {
  border: 1px solid rgba(var(--v-border-color), 0.4);
  border-radius: 6px;
  padding: 3px 7px;
  background: none;
  color: inherit;
  font-size: 12px;
  cursor: pointer;
}
.choice.on {
  background: rgba(var(--v-theme-primary), 0.22);
}
.hits {
  max-height: 300px;
  overflow-y: auto;
}
.hit {
  display: flex;
  align-items: center;
}
.go {
  flex: 1;
  min-width: 0;
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding: 3px 6px;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  border-radius: 5px;
  cursor: pointer;
}
.go:hover {
  background: rgba(var(--v-border-color), 0.14);
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
