<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Project } from '../live/project'
import type { Finding } from '../live/wire.gen'
import { useTaste } from './taste'
import FindingRow from '../checks/FindingRow.vue'

/** The selection's properties, and below them one list: parts, nets or findings. */
const props = defineProps<{ project: Project; stage: 'circuit' | 'board'; net: string }>()
const emit = defineEmits<{ part: [number, string]; net: [string]; finding: [Finding] }>()
const taste = useTaste()
const list = ref<'parts' | 'nets' | 'findings'>('parts')
const filter = ref('')

const naturally = new Intl.Collator('en', { numeric: true }).compare
const parts = computed(() => {
  void props.project.docTick.value
  if (list.value !== 'parts') return []
  const q = filter.value.toLowerCase()
  const p = props.project
  const all =
    props.stage === 'circuit'
      ? p.all('part').flatMap((x) => p.usesOf(x.sheet).map((u) => ({ id: x.id, path: u.path ?? '', designator: p.called(x, u.path ?? ''), value: x.value, footprint: x.footprint }))) // prettier-ignore
      : p.all('placed').map((x) => ({ ...x, path: '' }))
  return all
    .filter((x) => `${x.designator} ${x.value} ${x.footprint}`.toLowerCase().includes(q))
    .sort((a, b) => naturally(a.designator, b.designator))
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
  return props.project.links.get(net)?.length ?? 0
}
const findings = computed(() =>
  props.project.openFindings.value.filter((f) => f.text.toLowerCase().includes(filter.value.toLowerCase())),
)
const tabs = computed(() => [
  { id: 'parts' as const, name: 'Parts', n: partCount.value },
  { id: 'nets' as const, name: 'Nets', n: netCount.value },
  { id: 'findings' as const, name: 'Findings', n: props.project.openFindings.value.length },
])
const most = 400
</script>

<template>
  <aside class="details" :class="{ folded: !taste.detailsOpen }" aria-label="Details">
    <button
      class="fold"
      :aria-label="taste.detailsOpen ? 'Fold details away' : 'Show details'"
      @click="taste.detailsOpen = !taste.detailsOpen"
    >
      <v-icon :icon="taste.detailsOpen ? mdiChevronRight : mdiChevronLeft" size="16" />
    </button>
    <div v-if="taste.detailsOpen" class="inner">
      <section class="props"><slot /></section>
      <div class="tabs" role="tablist">
        <button
          v-for="t in tabs"
          :key="t.id"
          role="tab"
          :aria-selected="list === t.id"
          :class="{ on: list === t.id }"
          :data-tab="t.id"
          @click="list = t.id"
        >
          {{ t.name }} <span class="mono n">{{ t.n }}</span>
        </button>
      </div>
      <input v-model="filter" class="filter" placeholder="Filter" aria-label="Filter the list" />
      <div class="list">
        <template v-if="list === 'parts'">
          <button v-for="p in parts.slice(0, most)" :key="p.id + p.path" class="line" @click="emit('part', p.id, p.path)">
            <span class="mono des">{{ p.designator }}</span><span class="grow">{{ p.value }}</span
            ><span class="quiet small">{{ p.footprint || 'no footprint' }}</span>
          </button>
          <p v-if="!parts.length" class="empty quiet">
            {{ stage === 'circuit' ? 'No parts yet. Press N to place one.' : 'No parts yet. Carry the circuit to the board.' }}
          </p>
        </template>
        <template v-else-if="list === 'nets'">
          <button
            v-for="n in nets.slice(0, most)"
            :key="n.name"
            class="line"
            :class="{ on: n.name === net }"
            @click="emit('net', n.name)"
          >
            <span class="mono grow">{{ n.name }}</span>
            <span v-if="open(n.name)" class="open">{{ open(n.name) }} open</span>
            <span class="quiet small">{{ n.pins.length }} {{ n.pins.length === 1 ? 'pin' : 'pins' }}</span>
          </button>
          <p v-if="!nets.length" class="empty quiet">No nets yet. Wires make them.</p>
        </template>
        <template v-else>
          <FindingRow v-for="f in findings.slice(0, most)" :key="f.key" :finding="f" @click="emit('finding', f)" />
          <p v-if="!findings.length" class="empty quiet">No findings: all rules are kept.</p>
        </template>
      </div>
    </div>
  </aside>
</template>

<style scoped>
.details {
  position: relative;
  width: 300px;
  flex: none;
  background: rgb(var(--v-theme-surface));
  border-left: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
}
.details.folded {
  width: 20px;
}
.fold {
  position: absolute;
  left: -1px;
  top: 50%;
  width: 18px;
  height: 44px;
  border: 0;
  border-radius: 0 8px 8px 0;
  background: rgba(var(--v-border-color), 0.16);
  color: inherit;
  cursor: pointer;
  z-index: 2;
}
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
  display: flex;
  gap: 2px;
  border-top: 1px solid rgba(var(--v-border-color), 0.25);
  padding-top: 8px;
}
.tabs button {
  flex: 1;
  border: 0;
  background: none;
  color: inherit;
  padding: 4px 0;
  border-radius: 6px;
  font:
    500 12.5px Barlow,
    sans-serif;
  cursor: pointer;
}
.tabs .on {
  background: rgba(var(--v-theme-primary), 0.2);
}
.n {
  font-size: 11px;
  opacity: 0.85;
}
.filter {
  margin: 6px 0;
  padding: 3px 8px;
  border-radius: 6px;
  border: 1px solid rgba(var(--v-border-color), 0.4);
  background: transparent;
  color: inherit;
}
.list {
  flex: 1;
  overflow-y: auto;
  margin-right: -8px;
  padding-right: 4px;
  padding-bottom: 10px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: baseline;
  width: 100%;
  padding: 3px 6px;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  border-radius: 5px;
  cursor: pointer;
}
.line:hover,
.line.on {
  background: rgba(var(--v-border-color), 0.16);
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
