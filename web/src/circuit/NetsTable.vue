<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Project } from '../live/project'
import { complain, say } from '../shell/notices'
import { type NetQuantity, quantity, quantityOf } from '../live/quantities'
import TablePage from './TablePage.vue'

/** All nets: where they are, and what is asked of them. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ go: [string] }>()
const filter = ref('')
const chosen = ref(new Set<string>())
const specs = computed(() => (void props.project.docTick.value, new Map(props.project.all('netSpec').map((s) => [s.net, s]))))
const rows = computed(() => {
  const words = filter.value.toLowerCase().split(/\s+/).filter(Boolean)
  return props.project.netList.value
    .map((n) => ({
      net: n,
      spec: specs.value.get(n.name),
      sheets: [...new Set((n.uses ?? []).map((u) => props.project.places.value.find((p) => p.sheet === u.sheet && (p.path ?? '') === (u.path ?? ''))?.label ?? ''))].join(', '), // prettier-ignore
    }))
    .filter((r) => words.every((w) => `${r.net.name} ${r.spec?.class ?? ''} ${r.sheets}`.toLowerCase().includes(w)))
})
const most = 600
const pairs = ref<[string, string][] | null>(null)

/** An entry changed in one row is changed in all chosen rows, if the row is among them. */
function set(net: string, o: object) {
  const nets = chosen.value.has(net) && !('partner' in o) ? [...chosen.value] : [net]
  return props.project.edit('setNets', { nets, ...o }).catch(complain)
}
function number(net: string, field: NetQuantity, e: Event) {
  const i = e.target as HTMLInputElement
  try {
    void set(net, { [field]: quantityOf(field, i.value) })
  } catch (why) {
    complain(why)
    i.value = quantity(field, specs.value.get(net)?.[field])
  }
}
async function rename(net: string, e: Event) {
  const i = e.target as HTMLInputElement
  const done = await props.project.edit('renameNet', { net, to: i.value }).catch(complain)
  if (!done) i.value = net
}
function choose(net: string, on: boolean) {
  const next = new Set(chosen.value)
  if (on) next.add(net)
  else next.delete(net)
  chosen.value = next
}
async function findPairs() {
  const m = await props.project.look({ t: 'pairs' }).catch(complain)
  if (!m) return
  const open = ((m.pairs ?? []) as unknown as [string, string][]).filter(([a, b]) => specs.value.get(a)?.partner !== b)
  if (!open.length) say('No further nets are named like the halves of a pair (_P and _N, + and −).')
  else pairs.value = open
}
async function takePairs() {
  if (await props.project.edit('pairNets', { pairs: pairs.value as unknown as [] }).catch(complain)) pairs.value = null
}
const names = computed(() => props.project.netList.value.map((n) => n.name))
</script>

<template>
  <TablePage
    v-model:filter="filter"
    title="Nets"
    label="Filter the nets"
    hint="Filter by name, class or sheet"
    name="nets-filter"
  >
    <template #count>
      <span class="mono">{{ rows.length }}</span> nets<template v-if="chosen.size">
        · <span class="mono">{{ chosen.size }}</span> chosen: an entry changed in one is changed in all</template
      >
    </template>
    <template #actions>
      <button class="plain" data-test="find-pairs" @click="findPairs">Find pairs by name</button>
    </template>
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <th />
            <th>Net</th>
            <th class="num">Pins</th>
            <th>Sheets</th>
            <th>Class</th>
            <th class="num">Current</th>
            <th class="num">Voltage</th>
            <th class="num">Impedance</th>
            <th>Pair with</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows.slice(0, most)" :key="r.net.name" :data-net="r.net.name">
            <td>
              <input
                type="checkbox"
                :checked="chosen.has(r.net.name)"
                :aria-label="`Choose ${r.net.name}`"
                @change="choose(r.net.name, ($event.target as HTMLInputElement).checked)"
              />
            </td>
            <td>
              <input
                class="mono name"
                :value="r.net.name"
                :aria-label="`Name of ${r.net.name}`"
                data-field="name"
                @change="rename(r.net.name, $event)"
              />
            </td>
            <td class="mono num">{{ r.net.pins.length }}</td>
            <td class="quiet sheets" :title="r.sheets">{{ r.sheets }}</td>
            <td>
              <input
                :value="r.spec?.class ?? ''"
                :aria-label="`Class of ${r.net.name}`"
                data-field="class"
                @change="set(r.net.name, { class: ($event.target as HTMLInputElement).value })"
              />
            </td>
            <td v-for="f in ['current', 'voltage', 'impedance'] as NetQuantity[]" :key="f">
              <input
                class="mono num"
                :value="quantity(f, r.spec?.[f])"
                :aria-label="`${f} of ${r.net.name}`"
                :data-field="f"
                @change="number(r.net.name, f, $event)"
              />
            </td>
            <td>
              <input
                class="mono"
                list="net-names"
                :value="r.spec?.partner ?? ''"
                :aria-label="`Partner of ${r.net.name}`"
                data-field="partner"
                @change="set(r.net.name, { partner: ($event.target as HTMLInputElement).value.trim() })"
              />
            </td>
            <td><button class="plain" @click="emit('go', r.net.name)">Show</button></td>
          </tr>
        </tbody>
      </table>
      <datalist id="net-names"><option v-for="n in names.slice(0, 2000)" :key="n" :value="n" /></datalist>
      <p v-if="!rows.length" class="quiet none">No nets yet. Wires make them.</p>
      <p v-if="rows.length > most" class="quiet none">{{ rows.length - most }} more; filter to see them.</p>
    </div>
    <div v-if="pairs" class="float answer" role="dialog" aria-label="Pairs found">
      <h3>{{ pairs.length }} {{ pairs.length === 1 ? 'pair' : 'pairs' }} by name</h3>
      <p v-for="[a, b] in pairs" :key="a" class="mono">{{ a }} · {{ b }}</p>
      <div class="bar">
        <span class="grow" />
        <v-btn size="small" @click="pairs = null">Leave it</v-btn>
        <v-btn size="small" color="primary" variant="flat" data-test="take-pairs" @click="takePairs">Make them pairs</v-btn>
      </div>
    </div>
  </TablePage>
</template>

<style scoped>
.scroll {
  flex: 1;
  min-height: 0;
  overflow: auto;
  scroll-padding-top: 40px;
  border: 1px solid rgba(var(--v-border-color), 0.3);
  border-radius: 8px;
  background: rgb(var(--v-theme-surface));
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 12.5px;
}
th {
  position: sticky;
  top: 0;
  background: rgb(var(--v-theme-surface));
  text-align: left;
  padding: 6px 7px;
  font-weight: 600;
  z-index: 1;
}
td {
  padding: 1px 7px;
  border-top: 1px solid rgba(var(--v-border-color), 0.15);
}
td input:not([type='checkbox']) {
  width: 96px;
  padding: 2px 5px;
  border: 1px solid transparent;
  border-radius: 5px;
  background: transparent;
  color: inherit;
  font-size: 12.5px;
}
td input:hover:not([type='checkbox']),
td input:focus {
  border-color: rgba(var(--v-border-color), 0.5);
}
td .name {
  width: 150px !important;
}
th.num,
.num {
  text-align: right;
}
th.num {
  padding-right: 13px;
}
.sheets {
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.answer {
  width: 320px;
}
</style>
