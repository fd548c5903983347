<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Project } from '../live/project'
import type { CheckTable } from '../live/wire.gen'
import { complain } from '../shell/notices'

/** How grave each kind of electrical finding is, and each pair of pin types that meet on a net. */
const props = defineProps<{ project: Project }>()
const table = ref<CheckTable | null>(null)
const open = ref(false)
const load = async () => {
  const m = await props.project.look({ t: 'checks' }).catch(() => null)
  if (m?.checks) table.value = m.checks
}
watch(() => [open.value, props.project.docTick.value, props.project.state.value], () => open.value && void load(), { immediate: true }) // prettier-ignore

const words: Record<string, string> = {
  input: 'input',
  output: 'output',
  both: 'in and out',
  triState: 'tri-state',
  passive: 'passive',
  supplyIn: 'supply in',
  supplyOut: 'supply out',
  openCollector: 'open collector',
  openEmitter: 'open emitter',
  notConnected: 'not connected',
}
const next: Record<string, string> = { off: 'warning', warning: 'fault', fault: 'off' }
const sign: Record<string, string> = { off: '·', warning: '!', fault: '×' }
const types = computed(() => table.value?.types ?? [])
const pair = (a: string, b: string) => table.value?.pairs[types.value.indexOf(a) <= types.value.indexOf(b) ? `${a}|${b}` : `${b}|${a}`] ?? 'off' // prettier-ignore
const setPair = (a: string, b: string) =>
  props.project.edit('setChecks', { pairs: { [`${a}|${b}`]: next[pair(a, b)] } }).catch(complain)
const setKind = (kind: string, e: Event) =>
  props.project.edit('setChecks', { kinds: { [kind]: (e.target as HTMLSelectElement).value } }).catch(complain)
</script>

<template>
  <section class="erc">
    <h3>
      <button class="plain" :aria-expanded="open" data-test="erc-open" @click="open = !open">
        {{ open ? 'Hide' : 'Show' }} the rules of the electrical check
      </button>
    </h3>
    <div v-if="open && table" class="cols">
      <div>
        <p class="quiet">Pins that meet on one net. Click a field: · suits, ! warning, × fault.</p>
        <table class="matrix" data-test="matrix">
          <thead>
            <tr>
              <th />
              <th v-for="t in types" :key="t" scope="col">
                <span>{{ words[t] }}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(a, i) in types" :key="a">
              <th scope="row">{{ words[a] }}</th>
              <td v-for="(b, k) in types" :key="b">
                <button
                  v-if="k <= i"
                  :class="pair(a, b)"
                  :data-pair="`${b}|${a}`"
                  :aria-label="`${words[a]} with ${words[b]}: ${pair(a, b) === 'off' ? 'suits' : pair(a, b)}`"
                  :title="`${words[a]} with ${words[b]}: ${pair(a, b) === 'off' ? 'suits' : pair(a, b)}`"
                  @click="setPair(a, b)"
                >
                  {{ sign[pair(a, b)] }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <div class="kinds">
        <p class="quiet">What else is looked for.</p>
        <label v-for="k in table.kinds.filter((x) => x.kind !== 'pinPair')" :key="k.kind" class="kind">
          <span>{{ k.rule }}</span>
          <select :value="k.severity" :data-kind="k.kind" @change="setKind(k.kind, $event)">
            <option value="fault">fault</option>
            <option value="warning">warning</option>
            <option value="off">not looked for</option>
          </select>
        </label>
      </div>
    </div>
  </section>
</template>

<style scoped>
.cols {
  display: flex;
  gap: 36px;
  flex-wrap: wrap;
  padding: 4px 8px 12px;
}
.matrix {
  border-collapse: collapse;
  font-size: 12px;
  margin-top: 6px;
}
.matrix th[scope='row'] {
  text-align: right;
  padding-right: 8px;
  font-weight: 500;
  white-space: nowrap;
}
.matrix th[scope='col'] {
  height: 84px;
  vertical-align: bottom;
  font-weight: 500;
}
.matrix th[scope='col'] span {
  writing-mode: vertical-rl;
  transform: rotate(180deg);
}
.matrix button {
  width: 26px;
  height: 24px;
  border: 1px solid rgba(var(--v-border-color), 0.35);
  border-radius: 4px;
  background: none;
  color: inherit;
  font-weight: 700;
  cursor: pointer;
}
.matrix .warning {
  background: rgba(var(--v-theme-primary), 0.3);
}
.matrix .fault {
  background: rgba(var(--v-theme-error), 0.35);
}
.kinds {
  min-width: 340px;
}
.kind {
  display: flex;
  justify-content: space-between;
  gap: 14px;
  padding: 2px 0;
  font-size: 12.5px;
}
.kind select {
  padding: 1px 6px;
  border-radius: 5px;
  border: 1px solid rgba(var(--v-border-color), 0.5);
  color: inherit;
  background: rgb(var(--v-theme-surface));
}
</style>
