<script setup lang="ts">
import { mdiArrowLeft, mdiArrowRight, mdiClose } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import type { Project } from '../live/project'
import type { CheckTable } from '../live/wire.gen'
import { complain } from '../shell/notices'
import { type Clash, clashesOf, pairOf } from './clashes'

/** What may not meet on a net, as sentences in two lists; and how grave each other kind of finding is. */
const props = defineProps<{ project: Project }>()
const table = ref<CheckTable | null>(null)
async function load() {
  const said = await props.project.question('checks', {}).catch(() => null)
  if (said) table.value = said
}
watch(() => [props.project.docTick.value, props.project.state.value], load, { immediate: true })

const lists = computed(() =>
  !table.value
    ? []
    : [
        {
          severity: 'fault',
          name: 'Faults',
          other: 'warning',
          to: 'the warnings',
          icon: mdiArrowRight,
          list: clashesOf(table.value, 'fault'),
        },
        {
          severity: 'warning',
          name: 'Warnings',
          other: 'fault',
          to: 'the faults',
          icon: mdiArrowLeft,
          list: clashesOf(table.value, 'warning'),
        },
      ],
)
const set = (o: { pairs?: Record<string, string>; kinds?: Record<string, string> }) =>
  props.project.edit('setChecks', o).catch(complain)
const put = (c: Clash, severity: string) => set({ pairs: Object.fromEntries(c.pairs.map((p) => [p, severity])) })
const one = ref('output')
const other = ref('input')
const types = computed(() => table.value?.types.map((t) => ({ value: t, title: table.value!.words[t] })) ?? [])
const add = (severity: string) => table.value && set({ pairs: { [pairOf(table.value, one.value, other.value)]: severity } })
const kinds = computed(() => table.value?.kinds.filter((k) => k.kind !== 'pinPair') ?? [])
const severities = [
  { value: 'fault', title: 'a fault' },
  { value: 'warning', title: 'a warning' },
  { value: 'todo', title: 'still to do' },
  { value: 'off', title: 'not looked for' },
]
/** An empty severity is the usual one. */
function asAtFirst() {
  const t = table.value
  if (!t) return
  void set({
    pairs: Object.fromEntries(Object.keys(t.pairs).map((p) => [p, ''])),
    kinds: Object.fromEntries(kinds.value.map((k) => [k.kind, ''])),
  })
}
</script>

<template>
  <div v-if="table" class="clashes">
    <div class="lists">
      <section v-for="l in lists" :key="l.severity" :aria-label="`Clashes that are ${l.name.toLowerCase()}`">
        <h3 :class="l.severity">{{ l.name }}</h3>
        <p class="quiet">{{ l.severity === 'fault' ? 'It must not be that' : 'Look twice where' }} …</p>
        <v-list class="list" :aria-label="l.name">
          <v-list-item v-for="c in l.list" :key="c.pairs[0]" :title="c.text" :data-pairs="c.pairs.join(' ')">
            <template #append>
              <v-btn
                :icon="l.icon"
                size="x-small"
                :aria-label="`Move to ${l.to}: ${c.text}`"
                :title="`Move to ${l.to}`"
                @click="put(c, l.other)"
              />
              <v-btn
                :icon="mdiClose"
                size="x-small"
                :aria-label="`Take out: ${c.text}`"
                title="Take out"
                @click="put(c, 'off')"
              />
            </template>
          </v-list-item>
          <v-list-item v-if="!l.list.length" class="quiet" title="Nothing clashes so." />
        </v-list>
      </section>
    </div>
    <div class="add">
      <v-select v-model="one" :items="types" aria-label="One pin" class="pin" />
      <span>meets</span>
      <v-select v-model="other" :items="types" aria-label="The other pin" class="pin" />
      <v-btn size="small" variant="outlined" @click="add('fault')">Add as a fault</v-btn>
      <v-btn size="small" variant="outlined" @click="add('warning')">Add as a warning</v-btn>
      <span class="grow" />
      <v-btn size="small" @click="asAtFirst">All as at first</v-btn>
    </div>
    <h3>What else is looked for</h3>
    <div class="kinds">
      <div v-for="k in kinds" :key="k.kind" class="kind">
        <span>{{ k.rule }}</span>
        <v-select
          :model-value="k.severity"
          :items="severities"
          :aria-label="k.rule"
          @update:model-value="(v: string) => v !== k.severity && set({ kinds: { [k.kind]: v } })"
        />
      </div>
    </div>
  </div>
</template>

<style scoped>
.lists,
.add,
.kinds {
  max-width: 1280px;
}
.lists {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 20px;
}
h3 {
  font-size: 14px;
  font-weight: 600;
  margin: 4px 0 2px;
}
h3.fault {
  color: rgb(var(--v-theme-error));
}
h3.warning {
  color: rgb(var(--v-theme-primary));
}
.list {
  margin-top: 5px;
  border: 1px solid rgba(var(--v-border-color), 0.3);
  border-radius: 8px;
}
.add {
  display: flex;
  align-items: center;
  gap: 9px;
  margin: 14px 0 22px;
}
.pin {
  flex: none;
  width: 220px;
}
.grow {
  flex: 1;
}
.kinds {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(400px, 1fr));
  gap: 3px 28px;
  margin-top: 6px;
}
.kind {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 140px;
  align-items: center;
  gap: 12px;
}
</style>
