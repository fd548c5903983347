<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { VVirtualScroll } from 'vuetify/components'
import { useRouter } from 'vue-router'
import { inNaturalOrder } from '../live/natural'
import type { Project } from '../live/project'
import type { Finding } from '../live/wire.gen'
import FindingLine from './FindingLine.vue'
import SidePanel from './SidePanel.vue'
import { openMenu } from './menu'

/** The selection's properties, and below them one list: parts, nets or findings. */
const props = defineProps<{ project: Project; stage: 'circuit' | 'board'; net: string }>()
const emit = defineEmits<{ part: [number, string]; net: [string]; finding: [Finding] }>()
const router = useRouter()
/** While a project is being opened its drawing is seen first. */
const there = computed(() => props.project.seen.value || props.project.whole.value)
const list = ref<'parts' | 'nets' | 'findings'>('parts')
const filter = ref('')

const parts = computed(() => {
  void props.project.docTick.value
  if (list.value !== 'parts') return []
  const q = filter.value.toLowerCase()
  const p = props.project
  const all =
    props.stage === 'circuit'
      ? p.all('part').flatMap((x) =>
          p.usesOf(x.sheet).map((u) => ({
            id: x.id,
            path: u.path ?? '',
            designator: p.called(x, u.path ?? ''),
            value: x.value,
            footprint: x.footprint,
          })),
        )
      : p.all('placed').map((x) => ({ ...x, path: '' }))
  const found = q ? all.filter((x) => `${x.designator} ${x.value} ${x.footprint}`.toLowerCase().includes(q)) : all
  return inNaturalOrder(found, (x) => x.designator)
})
const partCount = computed(() => {
  void props.project.docTick.value
  return props.stage === 'circuit' ? props.project.stages.value.parts : props.project.all('placed').length
})
const nets = computed(() =>
  list.value === 'nets'
    ? props.project.netList.value.filter((n) => n.name.toLowerCase().includes(filter.value.toLowerCase()))
    : [],
)
const netCount = computed(() => props.project.stages.value.nets)
const open = (net: string) => {
  void props.project.derivedTick.value
  return props.project.links.get(props.project.named('net', net)?.id ?? 0)?.length ?? 0
}
const findings = computed(() =>
  props.project.openFindings.value.filter((f) => f.text.toLowerCase().includes(filter.value.toLowerCase())),
)
/** What follows from a project that is being opened is not known yet. */
const known = (n: number) => (props.project.whole.value ? n : '…')
const tabs = computed(() => [
  { id: 'parts' as const, name: 'Parts', n: partCount.value },
  { id: 'nets' as const, name: 'Nets', n: known(netCount.value) },
  { id: 'findings' as const, name: 'Findings', n: known(props.project.openFindings.value.length) },
])
interface Row {
  key: string
  name?: string
  value?: string
  note?: string
  net?: string
  finding?: Finding
  go?: () => void
}
const rows = computed<Row[]>(() => {
  switch (list.value) {
    case 'parts':
      return parts.value.map((p) => ({
        key: `${p.id} ${p.path}`,
        name: p.designator,
        value: p.value,
        note: p.footprint || 'no footprint',
        go: () => emit('part', p.id, p.path),
      }))
    case 'nets':
      return nets.value.map((n) => ({
        key: n.name,
        net: n.name,
        name: n.name,
        note: `${n.pins.length} ${n.pins.length === 1 ? 'pin' : 'pins'}`,
        go: () => emit('net', n.name),
      }))
  }
  return findings.value.map((f) => ({ key: f.key, finding: f }))
})
/** The line that has, or would have, the keys: the arrows go from line to line. */
const now = ref(0)
const scroll = ref<InstanceType<typeof VVirtualScroll>>()
watch([list, filter], () => (now.value = 0))
function step(e: KeyboardEvent) {
  const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 12, PageUp: -12, Home: -1e9, End: 1e9 }[e.key]
  if (!by) return
  e.preventDefault()
  now.value = Math.max(0, Math.min(rows.value.length - 1, now.value + by))
  scroll.value?.scrollToIndex(now.value)
  void nextTick(() =>
    requestAnimationFrame(() =>
      (scroll.value?.$el as HTMLElement).querySelector<HTMLElement>('[role=option][tabindex="0"]')?.focus(),
    ),
  )
}
/** What can be done to a line of the list, and what it is in other views. */
function menu(e: MouseEvent, r: Row) {
  const at = { x: e.clientX, y: e.clientY }
  const to = (stage: string, query: Record<string, string>) => () =>
    void router.push({ path: `/project/${props.project.id}/${stage}`, query })
  if (r.finding)
    openMenu(at, [
      { title: 'Show the place', run: () => emit('finding', r.finding!) },
      { title: 'Show all findings', run: to('checks', {}) },
    ])
  else if (r.net !== undefined)
    openMenu(at, [
      { title: r.net === props.net ? 'Highlight it no longer' : 'Highlight the net', run: () => r.go?.() },
      { title: 'Show in the table of nets', run: to('circuit', { view: 'nets' }) },
    ])
  else
    openMenu(at, [
      { title: 'Pick and show the part', run: () => r.go?.() },
      { title: 'Show in the table of parts', run: to('circuit', { view: 'parts' }) },
    ])
}
const nothing = computed(() => {
  if (filter.value) return 'Nothing in the list has all of that.'
  if (list.value === 'findings') return 'No findings: all rules are kept.'
  if (list.value === 'nets') return 'No nets yet. Wires make them.'
  return props.stage === 'circuit' ? 'No parts yet. Press N to place one.' : 'No parts yet. Carry the circuit to the board.'
})
</script>

<template>
  <SidePanel bare>
    <div v-if="there" class="inner">
      <section class="props"><slot /></section>
      <v-tabs v-model="list" class="tabs" grow>
        <v-tab v-for="t in tabs" :key="t.id" :value="t.id">
          {{ t.name }} <span class="mono n">{{ t.n }}</span>
        </v-tab>
      </v-tabs>
      <v-text-field v-model="filter" class="filter" placeholder="Filter" aria-label="Filter the list" hide-details />
      <v-virtual-scroll
        v-if="rows.length"
        ref="scroll"
        role="listbox"
        :aria-label="tabs.find((t) => t.id === list)!.name"
        class="list"
        :items="rows"
        :item-height="list === 'findings' ? undefined : 28"
        item-key="key"
        @keydown="step"
      >
        <template #default="{ item, index }">
          <FindingLine
            v-if="item.finding"
            :finding="item.finding"
            role="option"
            :aria-selected="item.net !== undefined && item.net === net"
            :tabindex="index === Math.min(now, rows.length - 1) ? 0 : -1"
            @focus="now = index"
            @click="emit('finding', item.finding)"
            @contextmenu.prevent="menu($event, item)"
          />
          <v-list-item
            v-else
            class="line"
            density="compact"
            role="option"
            :aria-selected="item.net !== undefined && item.net === net"
            :tabindex="index === Math.min(now, rows.length - 1) ? 0 : -1"
            :active="item.net !== undefined && item.net === net"
            @focus="now = index"
            @click="item.go"
            @contextmenu.prevent="menu($event, item)"
          >
            <span class="mono" :class="item.net !== undefined ? 'grow' : 'des'">{{ item.name }}</span>
            <span v-if="item.net === undefined" class="grow">{{ item.value }}</span>
            <span v-if="item.net !== undefined && open(item.net)" class="open">{{ open(item.net) }} open</span>
            <span class="quiet small">{{ item.note }}</span>
          </v-list-item>
        </template>
      </v-virtual-scroll>
      <p v-else class="list empty quiet">{{ nothing }}</p>
    </div>
  </SidePanel>
</template>

<style scoped>
.inner {
  height: 100%;
  display: flex;
  flex-direction: column;
  padding: 12px 12px 0 20px;
}
.props {
  flex: none;
  max-height: 55%;
  overflow-y: auto;
  padding-bottom: 10px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.tabs {
  flex: none;
  border-top: 1px solid rgba(var(--v-border-color), 0.25);
  padding-top: 6px;
}
.n {
  margin-left: 5px;
  font-size: 11px;
  opacity: 0.85;
}
.filter {
  flex: none;
  margin: 6px 0;
}
.list {
  flex: 1;
  overflow-y: auto;
  margin-right: -8px;
  padding-right: 4px;
  padding-bottom: 10px;
}
.line {
  font-size: 13px;
}
.line :deep(.v-list-item__content) {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.des {
  min-width: 34px;
  font-size: 12px;
}
.grow {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.small {
  font-size: 11.5px;
  white-space: nowrap;
}
.open {
  font-size: 11.5px;
  color: rgb(var(--v-theme-error));
}
.empty {
  padding: 10px 6px;
}
</style>
