<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import { format } from '../live/units'
import type { Link } from '../live/wire.gen'
import { useTaste } from '../shell/taste'
import type { BoardEditor } from './editor'

/** How many links are open and how long they are together, also while parts move; and which of them are seen. */
const props = defineProps<{ project: Project; editor: BoardEditor; empty: boolean }>()
const taste = useTaste()
const reach = (list: readonly Link[]) => list.reduce((s, l) => s + Math.hypot(l.a.x - l.b.x, l.a.y - l.b.y), 0)
const sums = computed(() => {
  void props.project.derivedTick.value
  return new Map([...props.project.links].map(([net, list]) => [net, { n: list.length, long: reach(list) }]))
})
const now = computed(() => {
  const held = props.editor.dragLinks.value
  let n = 0
  let nets = 0
  let long = 0
  for (const [net, s] of sums.value) {
    if (held && String(net) in held) continue
    n += s.n
    nets++
    long += s.long
  }
  for (const list of Object.values(held ?? {})) {
    if (!list?.length) continue
    n += list.length
    nets++
    long += reach(list)
  }
  return { n, nets, long }
})
const words = computed(() => {
  if (!props.project.whole.value || props.project.unknown('links')) return 'open links are being found …'
  const { n, nets, long } = now.value
  if (n)
    return `${n} open ${n === 1 ? 'link' : 'links'} of ${nets} ${nets === 1 ? 'net' : 'nets'} · ${format(long, taste.unit, 0)} ${taste.unit}`
  return props.empty ? 'no parts yet' : 'all links joined'
})
const state = props.editor.state
const classes = computed(() => {
  void props.project.docTick.value
  return [...new Set(props.project.all('net').map((n) => n.class ?? ''))].filter((c) => c).sort()
})
const choices = computed(() => [
  { value: 'all', title: 'All' },
  { value: 'picked', title: 'Of what is picked' },
  { value: 'none', title: 'None' },
  ...classes.value.map((c) => ({ value: 'class ' + c, title: `Of the class ${c}` })),
])
const seen = computed(() => (state.links === 'class' ? 'class ' + state.linkClass : state.links))
function choose(v: string) {
  const own = v.startsWith('class ')
  state.links = own ? 'class' : (v as typeof state.links)
  state.linkClass = own ? v.slice(6) : ''
}
</script>

<template>
  <v-menu :close-on-content-click="false">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" size="small" class="float chip" title="Which open links are seen">
        <span role="status">{{ words }}</span>
      </v-btn>
    </template>
    <v-card class="pa-3">
      <p class="head">Open links that are seen</p>
      <v-radio-group :model-value="seen" hide-details @update:model-value="choose(String($event))">
        <v-radio v-for="c in choices" :key="c.value" :value="c.value" :label="c.title" />
      </v-radio-group>
      <v-checkbox v-model="state.hideSupplies" label="Not those of supplies" hide-details />
    </v-card>
  </v-menu>
</template>

<style scoped>
.chip.v-btn {
  border-radius: 10px;
  font:
    500 12.5px Barlow,
    sans-serif;
  letter-spacing: 0;
}
.head {
  font-weight: 600;
  margin: 0 0 4px;
}
</style>
