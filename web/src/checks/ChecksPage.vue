<script setup lang="ts">
import { mdiCheckCircleOutline } from '@mdi/js'
import { computed, nextTick, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Project } from '../live/project'
import type { Finding } from '../live/wire.gen'
import { format } from '../live/units'
import { useCommands } from '../shell/commands'
import { complain, say } from '../shell/notices'
import { useTaste } from '../shell/taste'
import ErcMatrix from './ErcMatrix.vue'
import FindingRow from './FindingRow.vue'

const props = defineProps<{ project: Project }>()
const router = useRouter()
const taste = useTaste()
const only = ref<'all' | 'circuit' | 'board'>('all')
const all = computed(() => props.project.openFindings.value)
const excused = computed(() => props.project.findingList.value.filter((f) => f.excused))
const shown = computed(() => all.value.filter((f) => only.value === 'all' || f.stage === only.value))
const groups = computed(() =>
  [
    { severity: 'fault', name: 'Faults', text: 'These must be mended.' },
    { severity: 'warning', name: 'Warnings', text: 'Look at these.' },
    { severity: 'todo', name: 'Still to do', text: 'Work that is not finished yet.' },
  ]
    .map((g) => ({ ...g, list: shown.value.filter((f) => f.severity === g.severity) }))
    .filter((g) => g.list.length),
)
const rules = computed(() => (void props.project.docTick.value, props.project.board.rules))
const go = (f: Finding) =>
  void router.push({ path: `/project/${props.project.id}/${f.stage}`, query: { finding: f.key, t: String(Date.now()) } })
const nothing = computed(() => props.project.stages.value.circuit === 'none')
const where = (f: Finding) =>
  `${f.stage === 'circuit' ? 'Circuit' : 'Board'} ${format(f.at.x, taste.unit, 2)}, ${format(f.at.y, taste.unit, 2)}`
const checked = computed(() => [
  [
    'Circuit',
    'open and single pins, pins that do not suit one another, inputs nobody drives, supplies nobody feeds or that are joined, loose ends, bundles and taps, ports and blocks, names that differ by case, designators borne twice',
  ],
  [
    'Board',
    `clearance ${len(rules.value.clearance)}, to the edge ${len(rules.value.edgeClearance)}, between holes ${len(rules.value.holeClearance)}; least width ${len(rules.value.leastWidth)}, hole ${len(rules.value.leastHole)}, ring ${len(rules.value.leastRing)}`,
  ],
  ['Both', 'every net joined, parts on the board, board and circuit agree'],
])
const asking = ref('')
const reason = ref('')
function begin(f: Finding) {
  asking.value = asking.value === f.key ? '' : f.key
  reason.value = f.lapsed ?? ''
  void nextTick(() => document.querySelector<HTMLInputElement>('[data-test="reason"]')?.focus())
}
async function excuse(f: Finding, why: string) {
  if (!why.trim() && !f.excused) {
    say('Say why it is right as it is.', 'error')
    return
  }
  const done = await props.project.edit('excuse', { key: f.key, print: f.print, text: f.text, reason: why }).catch(complain)
  if (done) asking.value = ''
}
const len = (nm: number) => `${format(nm, taste.unit, 4)} ${taste.unit}`
useCommands([])
</script>

<template>
  <div class="page">
    <div class="inner">
      <div class="head">
        <h2>Checks</h2>
        <span class="quiet"
          >computed from revision <span class="mono">{{ project.derivedRev.value }}</span>, as you work</span
        >
        <v-spacer />
        <div class="filter" role="group" aria-label="Which findings">
          <button
            v-for="o in ['all', 'circuit', 'board'] as const"
            :key="o"
            :class="{ on: only === o }"
            :aria-pressed="only === o"
            @click="only = o"
          >
            {{ { all: 'All', circuit: 'Circuit', board: 'Board' }[o] }}
          </button>
        </div>
      </div>
      <div v-if="nothing" class="clean">
        <p>There is nothing to check yet. Findings appear here as soon as something is drawn.</p>
        <v-btn color="primary" variant="flat" :to="`/project/${project.id}/circuit`">Go to the circuit</v-btn>
      </div>
      <div v-else-if="!all.length" class="clean" data-test="clean">
        <v-icon :icon="mdiCheckCircleOutline" size="34" color="secondary" />
        <p>No findings. All rules are kept.</p>
      </div>
      <section v-for="g in groups" :key="g.severity">
        <h3>
          {{ g.name }} <span class="mono">{{ g.list.length }}</span> <span class="quiet">{{ g.text }}</span>
        </h3>
        <div v-for="f in g.list" :key="f.key" class="row">
          <FindingRow class="grow" :finding="f" @click="go(f)" />
          <span class="mono quiet place">{{ where(f) }}</span>
          <button v-if="f.severity !== 'todo'" class="plain" data-test="excuse" @click="begin(f)">Excuse …</button>
          <div v-if="asking === f.key" class="why">
            <input
              v-model="reason"
              placeholder="Why is it right as it is?"
              aria-label="Reason"
              data-test="reason"
              @keydown.enter="excuse(f, reason)"
              @keydown.esc="asking = ''"
            />
            <v-btn size="small" color="primary" variant="flat" @click="excuse(f, reason)">Excuse it</v-btn>
          </div>
        </div>
      </section>
      <section v-if="excused.length" data-test="excused">
        <h3>
          Excused <span class="mono">{{ excused.length }}</span>
          <span class="quiet">Each comes back when what it is about changes.</span>
        </h3>
        <div v-for="f in excused" :key="f.key" class="row">
          <div class="grow">
            <FindingRow :finding="f" @click="go(f)" />
            <p class="reason">“{{ f.excused }}”</p>
          </div>
          <span class="mono quiet place">{{ where(f) }}</span>
          <button class="plain" @click="excuse(f, '')">Take back</button>
        </div>
      </section>
      <ErcMatrix :project="project" />
      <section class="what">
        <h3>What is checked</h3>
        <p v-for="[head, text] in checked" :key="head">
          <strong>{{ head }}:</strong> {{ text }}.
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.why {
  display: flex;
  gap: 8px;
  width: 100%;
  padding: 4px 8px 8px 30px;
}
.why input {
  flex: 1;
  padding: 5px 9px;
  border-radius: 7px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  background: transparent;
  color: inherit;
}
.grow {
  flex: 1;
  min-width: 0;
}
.reason {
  padding-left: 32px;
  font-style: italic;
}
.page {
  position: absolute;
  inset: 0;
  overflow-y: auto;
  background: rgb(var(--v-theme-background));
}
.inner {
  max-width: 900px;
  margin: 0 auto;
  padding: 24px 28px 60px;
}
.head {
  display: flex;
  align-items: baseline;
  gap: 14px;
  margin-bottom: 8px;
}
h2 {
  font-size: 21px;
  font-weight: 600;
}
h3 {
  font-size: 14px;
  font-weight: 600;
  margin: 18px 0 6px;
}
h3 .quiet {
  font-weight: 400;
  margin-left: 6px;
}
.filter {
  display: flex;
  border: 1px solid rgba(var(--v-border-color), 0.4);
  border-radius: 7px;
  overflow: hidden;
}
.filter button {
  border: 0;
  background: none;
  color: inherit;
  padding: 3px 14px;
  font:
    500 13px Barlow,
    sans-serif;
  cursor: pointer;
}
.filter .on {
  background: rgba(var(--v-theme-primary), 0.25);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  background: rgb(var(--v-theme-surface));
  border-bottom: 1px solid rgba(var(--v-border-color), 0.2);
  padding: 2px 8px;
}
.place {
  font-size: 11.5px;
  text-align: right;
}
.clean {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 12px;
  padding: 28px 0;
  font-size: 15px;
}
.what {
  margin-top: 32px;
  opacity: 0.9;
}
</style>
