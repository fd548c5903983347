<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import { format } from '../live/units'
import type { Kinds, Part } from '../live/wire.gen'
import { complain } from '../shell/notices'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import LengthField from '../shell/fields/LengthField.vue'
import NameField from '../shell/fields/NameField.vue'
import TextField from '../shell/fields/TextField.vue'
import ToggleField from '../shell/fields/ToggleField.vue'
import type { CircuitEditor } from './editor'
import BlockPins from './BlockPins.vue'
import NetRows from './NetRows.vue'
import { bundleOf, insideCluster, nameOf } from './picking'
import SheetRows from './SheetRows.vue'
import { formChoices, shapes, tintChoices, wayChoices } from './choices'

/** The properties of what is picked. */
const props = defineProps<{ project: Project; editor: CircuitEditor }>()
const emit = defineEmits<{ replace: [] }>()
const picked = computed(() => {
  void props.project.docTick.value
  return [...props.editor.selection].map((id) => props.project.find(id)).filter((b) => !!b)
})
const parts = computed(() => picked.value.filter((b) => b.kind === 'part').map((b) => b.object as Part))
const one = computed(() => (picked.value.length === 1 ? picked.value[0] : undefined))
const cluster = computed(() => picked.value.find((b) => b.kind === 'cluster')?.object as Kinds['cluster'] | undefined)
const as = <K extends keyof Kinds>(kind: K) => (one.value?.kind === kind ? (one.value.object as Kinds[K]) : undefined)
function shared<T>(of: (p: Part) => T): T | null {
  const all = new Set(parts.value.map(of))
  return all.size === 1 ? [...all][0] : null
}
const tints = computed(() => tintChoices(props.editor.colours))
const footprints = computed(() => {
  void props.project.docTick.value
  return ['', ...props.project.all('footprint').map((f) => f.name).sort()] // prettier-ignore
})
const ownFields = computed(() => [...new Set(parts.value.flatMap((p) => Object.keys(p.fields ?? {})))].sort())
const setAll = (field: string, text: string) =>
  props.project
    .edit('setParts', {
      cells: parts.value.map((p) => ({ id: p.id, field, text, ...(field === 'designator' && props.editor.path ? { path: props.editor.path } : {}) })), // prettier-ignore
    })
    .catch(complain)
const designator = computed(() => parts.value[0] && (parts.value[0].others?.[props.editor.path] ?? parts.value[0].designator))
const rename = (name: string) => props.project.edit('setName', { id: one.value!.object!.id, name }).catch(complain)
const pins = computed(() => {
  void props.project.derivedTick.value
  const p = parts.value[0]
  return one.value && p
    ? (props.project.symbolOf(p.library, p.unit)?.pins ?? []).map((q) => ({
        number: q.number,
        name: q.name,
        net: props.project.netAtPin(p.id, q.number, props.editor.path) ?? '',
      }))
    : []
})
const net = computed(() => {
  void props.project.derivedTick.value
  return one.value ? props.project.netOf(one.value.object!.id, props.editor.path) : undefined
})
const bundle = computed(() => (void props.project.derivedTick.value, one.value && bundleOf(props.editor, one.value.object!.id)))
const unmatched = computed(() => {
  void props.project.derivedTick.value
  const id = one.value?.object?.id
  return (props.project.views.get(props.editor.sheet)?.unmatched ?? []).filter((u) => u.object === id)
})
/** How many pins and ports lack, by block, where that are several. */
const lacking = computed(() => {
  const count = new Map<number, number>()
  const blocks = new Set(unmatched.value.map((u) => u.block))
  for (const u of props.project.views.get(props.editor.sheet)?.unmatched ?? [])
    if (u.why !== 'way' && blocks.has(u.block)) count.set(u.block, (count.get(u.block) ?? 0) + 1)
  return new Map([...count].filter(([, n]) => n > 1))
})
const kindName: Record<string, string> = { label: 'Net label', supply: 'Supply', port: 'Port', tap: 'Tap' }
const mend = (u: { block: number; pin: string }, how: string) =>
  props.project.edit('matchPort', { block: u.block, pin: u.pin, how }).catch(complain)
const draw = (o: object) =>
  props.project.edit('drawItem', { item: { kind: one.value!.kind, object: { ...one.value!.object, ...o } } }).catch(complain)
const drawCluster = (o: object) =>
  props.project.edit('drawItem', { item: { kind: 'cluster', object: { ...cluster.value, ...o } } }).catch(complain)
const mm = (nm: number) => format(nm, 'mm', 2)
function alone() {
  const id = cluster.value!.id
  props.editor.selection.clear()
  props.editor.selection.add(id)
}
const whole = computed(() => !!cluster.value && picked.value.length > insideCluster(props.editor, cluster.value).length)
</script>

<template>
  <template v-if="cluster && (one || whole)">
    <h3>Cluster</h3>
    <TextField label="Title" :value="cluster.title" @keep="drawCluster({ title: $event })" />
    <ChoiceField label="Tint" :value="cluster.tint" :options="tints" @keep="drawCluster({ tint: $event })" />
    <p class="quiet">{{ parts.length }} {{ parts.length === 1 ? 'part' : 'parts' }} inside</p>
    <v-btn v-if="!one" size="small" variant="outlined" @click="alone">Pick the frame alone</v-btn>
  </template>
  <template v-else-if="parts.length && parts.length === picked.length">
    <h3>
      {{ parts.length === 1 ? parts[0].library : `${parts.length} parts` }}
      <span v-if="parts.length === 1 && parts[0].unit" class="quiet">unit {{ String.fromCharCode(64 + parts[0].unit) }}</span>
    </h3>
    <TextField v-if="parts.length === 1" label="Designator" :value="designator" mono @keep="setAll('designator', $event)" />
    <TextField label="Value" :value="shared((p) => p.value)" mono @keep="setAll('value', $event)" />
    <NameField
      label="Footprint"
      :value="shared((p) => p.footprint)"
      :names="footprints"
      only
      empty="none"
      @keep="setAll('footprint', $event)"
    />
    <ToggleField label="Fitted" :value="shared((p) => !p.notFitted)" @keep="setAll('fitted', $event ? 'yes' : 'no')" />
    <TextField v-for="f in ownFields" :key="f" :label="f" :value="shared((p) => p.fields?.[f] ?? '')" @keep="setAll(f, $event)" />
    <div class="acts">
      <v-btn size="small" variant="outlined" @click="emit('replace')">Replace …</v-btn>
      <v-btn size="small" variant="outlined" @click="editor.markOpen()">Mark free pins as left open</v-btn>
      <template v-if="parts.length > 1">
        <v-btn size="small" variant="outlined" title="Line up in a column" @click="editor.arrange('column')">Column</v-btn>
        <v-btn size="small" variant="outlined" title="Line up in a row" @click="editor.arrange('row')">Row</v-btn>
        <v-btn
          v-if="parts.length > 2"
          size="small"
          variant="outlined"
          title="Spread evenly across"
          @click="editor.arrange('across')"
        >
          Across
        </v-btn>
        <v-btn v-if="parts.length > 2" size="small" variant="outlined" title="Spread evenly down" @click="editor.arrange('down')"
          >Down</v-btn
        >
      </template>
    </div>
    <v-table v-if="pins.length">
      <tbody>
        <tr v-for="q in pins" :key="q.number">
          <td class="mono">{{ q.number }}</td>
          <td>{{ q.name }}</td>
          <td class="mono net">
            <v-btn v-if="q.net" size="x-small" color="secondary" @click="project.light(q.net)">{{ q.net }}</v-btn>
          </td>
        </tr>
      </tbody>
    </v-table>
  </template>
  <template v-else-if="one && kindName[one.kind]">
    <h3>{{ kindName[one.kind] }}</h3>
    <TextField :label="one.kind === 'tap' ? 'Member' : 'This name'" :value="nameOf(one) ?? ''" mono @keep="rename" />
    <ChoiceField
      v-if="as('port')"
      label="Direction"
      :value="as('port')!.way"
      :options="wayChoices"
      @keep="project.edit('setPort', { id: one.object!.id, way: $event }).catch(complain)"
    />
    <template v-if="as('supply')">
      <ChoiceField
        label="Shape"
        :value="as('supply')!.shape"
        :options="shapes"
        @keep="project.edit('setSupply', { id: one.object!.id, shape: $event }).catch(complain)"
      />
      <ToggleField
        label="Fed from outside here"
        :value="!!as('supply')!.feeds"
        @keep="project.edit('setSupply', { id: one.object!.id, feeds: $event }).catch(complain)"
      />
    </template>
    <NetRows v-if="net && !bundle" :project="project" :net="net" />
    <p v-if="bundle" class="quiet">
      Bundle of {{ (bundle.members ?? []).length }}: <span class="mono">{{ (bundle.members ?? []).join(' ') }}</span>
    </p>
  </template>
  <template v-else-if="as('wire')">
    <template v-if="as('wire')!.bundle">
      <h3>Bundle</h3>
      <p v-if="bundle?.name" class="mono">{{ bundle.name }}</p>
      <p v-else class="quiet">Name it with a label such as D[7:0].</p>
      <p class="quiet mono members">{{ (bundle?.members ?? []).join(' ') }}</p>
    </template>
    <template v-else>
      <h3>Wire</h3>
      <NetRows v-if="net" :project="project" :net="net" />
    </template>
  </template>
  <template v-else-if="as('block')">
    <h3>Block</h3>
    <TextField
      label="Name"
      :value="as('block')!.name"
      @keep="project.edit('setBlock', { id: as('block')!.id, name: $event }).catch(complain)"
    />
    <p class="quiet">
      Stands for <strong>{{ project.get('sheet', as('block')!.of)?.name }}</strong> · double click or <kbd>Enter</kbd> goes there
    </p>
    <BlockPins :project="project" :block="as('block')!" />
  </template>
  <template v-else-if="as('note')">
    <h3>Note</h3>
    <LengthField label="Letters" :value="as('note')!.size" @keep="draw({ size: $event })" />
    <LengthField label="Width" :value="as('note')!.width" @keep="draw({ width: $event })" />
    <ChoiceField label="Paper" :value="as('note')!.tint" :options="tints" @keep="draw({ tint: $event })" />
    <v-btn size="small" variant="outlined" @click="editor.rewrite(one!.object!.id)">Write …</v-btn>
  </template>
  <template v-else-if="as('timing')">
    <h3>Timing diagram</h3>
    <LengthField label="Slot" :value="as('timing')!.slot" @keep="draw({ slot: $event })" />
    <v-btn size="small" variant="outlined" @click="editor.rewrite(one!.object!.id)">Write …</v-btn>
  </template>
  <template v-else-if="as('picture')">
    <h3>Picture</h3>
    <p>{{ project.get('asset', as('picture')!.asset)?.name }}</p>
    <p class="quiet mono">{{ mm(as('picture')!.size.x) }} × {{ mm(as('picture')!.size.y) }} mm</p>
  </template>
  <template v-else-if="as('shape')">
    <h3>Figure</h3>
    <ChoiceField label="Form" :value="as('shape')!.form" :options="formChoices" @keep="draw({ form: $event })" />
    <ChoiceField label="Tint" :value="as('shape')!.tint" :options="tints" @keep="draw({ tint: $event })" />
    <ToggleField label="Dashed" :value="!!as('shape')!.dash" @keep="draw({ dash: $event })" />
  </template>
  <template v-else-if="picked.length">
    <h3>{{ picked.length }} things picked</h3>
    <p class="quiet">{{ parts.length }} {{ parts.length === 1 ? 'part' : 'parts' }} among them</p>
  </template>
  <SheetRows v-else :project="project" :sheet="editor.sheet" />
  <div v-for="[block, n] in lacking" :key="block" class="mend">
    <v-btn size="small" color="primary" variant="flat" @click="mend({ block, pin: '' }, 'addAll')">
      Add all {{ n }} that lack<template v-if="lacking.size > 1"> to {{ project.get('block', block)?.name }}</template>
    </v-btn>
  </div>
  <div v-for="u in unmatched" :key="u.block + u.pin" class="mend">
    <p v-if="u.why === 'noPort'">
      The pin <span class="mono">{{ u.pin }}</span> has no port on its sheet.
    </p>
    <p v-else-if="u.why === 'way'">
      The pin <span class="mono">{{ u.pin }}</span> has another direction than its port.
    </p>
    <p v-else>
      The port <span class="mono">{{ u.pin }}</span> has no pin on the block {{ project.get('block', u.block)?.name }}.
    </p>
    <v-btn v-if="u.why === 'way'" size="small" variant="outlined" @click="mend(u, 'way')">Take the port’s direction</v-btn>
    <template v-else>
      <v-btn size="small" variant="outlined" @click="mend(u, 'add')">
        {{ u.why === 'noPort' ? 'Add the port' : 'Add the pin' }}
      </v-btn>
      <v-btn size="small" variant="outlined" @click="mend(u, 'drop')">{{
        u.why === 'noPort' ? 'Remove the pin' : 'Remove the port'
      }}</v-btn>
    </template>
  </div>
</template>

<style scoped>
.acts,
.mend {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.mend {
  border-left: 3px solid rgb(var(--v-theme-error));
  padding: 4px 0 4px 8px;
}
.mend p {
  width: 100%;
}
.members {
  font-size: 11.5px;
}
</style>
