<script setup lang="ts">
import { computed } from 'vue'
import { inNaturalOrder } from '../../live/natural'
import type { Pin } from '../../live/wire.gen'
import ChoiceField from '../../shell/fields/ChoiceField.vue'
import LengthField from '../../shell/fields/LengthField.vue'
import TextField from '../../shell/fields/TextField.vue'
import ToggleField from '../../shell/fields/ToggleField.vue'
import { complain } from '../../shell/notices'
import { idOf } from '../pieces'
import type { SymbolEditor } from './editor'
import { pinShapes, pinTypes, typeWords } from './pinTypes'

const props = defineProps<{ editor: SymbolEditor }>()
const emit = defineEmits<{ pins: [] }>()
const s = computed(() => (void props.editor.project.docTick.value, props.editor.s))
const pins = computed(() => (void props.editor.project.docTick.value, props.editor.pickedPins()))
const one = computed(() => (pins.value.length === 1 ? pins.value[0] : undefined))
function shared<V>(of: (p: Pin) => V): V | null {
  const all = new Set(pins.value.map(of))
  return all.size === 1 ? [...all][0] : null
}
const put = (change: (p: Pin) => Pin) => props.editor.edit({ pins: pins.value.map((p) => change({ ...p })) })
const set = (fields: { name?: string; showNames?: boolean }) =>
  props.editor.project.edit('setSymbol', { symbol: props.editor.state.symbol, ...fields }).catch(complain)
const all = computed(() => (void props.editor.project.docTick.value, inNaturalOrder(props.editor.pins, (p) => p.number)))
function pick(ref: number) {
  props.editor.take('select')
  props.editor.selection.clear()
  props.editor.selection.add(idOf('pin', ref))
}
/** The text that is picked, when it is one. */
const figure = computed(() => {
  void props.editor.project.docTick.value
  const [id, ...more] = props.editor.selection
  return more.length ? undefined : props.editor.figures.find((f) => f.form === 'text' && idOf('figure', f.id) === id)
})
const putFigure = (fields: { text?: string; r?: number }) => props.editor.edit({ figures: [{ ...figure.value!, ...fields }] })
/** The part whose unit this symbol is, and which one. */
const unitOf = computed(() => {
  void props.editor.project.docTick.value
  const l = props.editor.project.all('libraryPart').find((l) => l.units?.includes(s.value?.name ?? ''))
  return l && { part: l, unit: l.units!.indexOf(s.value!.name) + 1 }
})
const units = computed(() => (unitOf.value?.part.units ?? []).map((_, i) => ({ value: String(i + 1), title: `Unit ${String.fromCharCode(65 + i)}` }))) // prettier-ignore
const moveTo = (unit: string) =>
  props.editor.project
    .edit('moveToUnit', {
      part: unitOf.value!.part.id,
      from: props.editor.state.symbol,
      pins: pins.value.map((p) => p.id ?? 0),
      unit: Number(unit),
    }) // prettier-ignore
    .then(() => props.editor.ask())
    .catch(complain)
const used = computed(() => props.editor.shown.value?.used ?? [])
const body = computed(() => props.editor.shown.value?.body)
const resize = (w: number, h: number) => {
  const b = body.value!
  const [cx, cy] = [(b.min.x + b.max.x) / 2, (b.min.y + b.max.y) / 2].map(Math.round)
  const box = { min: { x: cx - Math.round(w / 2), y: cy - Math.round(h / 2) }, max: { x: cx + Math.round(w / 2), y: cy + Math.round(h / 2) } } // prettier-ignore
  return props.editor.project.edit('resizeBody', { symbol: props.editor.state.symbol, box }).catch(complain)
}
</script>

<template>
  <template v-if="s">
    <template v-if="pins.length && pins.length === editor.selection.size">
      <h3>
        {{ one ? 'Pin' : `${pins.length} pins` }} <span v-if="one" class="mono">{{ one.number }}</span>
      </h3>
      <TextField v-if="one" label="Number" :value="one.number" @keep="put((p) => ({ ...p, number: $event }))" />
      <TextField label="Name" :value="shared((p) => p.name ?? '')" @keep="put((p) => ({ ...p, name: $event }))" />
      <ChoiceField label="Type" :value="shared((p) => p.type)" :options="pinTypes" @keep="put((p) => ({ ...p, type: $event }))" />
      <ChoiceField
        label="Shape"
        :value="shared((p) => p.shape ?? '')"
        :options="pinShapes"
        @keep="put((p) => ({ ...p, shape: $event }))"
      />
      <ChoiceField
        v-if="unitOf && units.length > 1"
        label="Unit"
        :value="String(unitOf.unit)"
        :options="units"
        @keep="$event !== String(unitOf!.unit) && moveTo($event)"
      />
      <LengthField label="Length" :value="shared((p) => p.length)" @keep="put((p) => ({ ...p, length: $event }))" />
      <LengthField label="x" :value="shared((p) => p.at.x)" @keep="put((p) => ({ ...p, at: { ...p.at, x: $event } }))" />
      <LengthField label="y" :value="shared((p) => p.at.y)" @keep="put((p) => ({ ...p, at: { ...p.at, y: $event } }))" />
    </template>
    <template v-else-if="figure">
      <h3>Text</h3>
      <TextField label="Text" :value="figure.text ?? ''" @keep="putFigure({ text: $event })" />
      <LengthField label="Height" :value="figure.r ?? 0" @keep="putFigure({ r: $event })" />
    </template>
    <h3 v-else-if="editor.selection.size">
      {{ editor.selection.size }} {{ editor.selection.size === 1 ? 'thing' : 'things' }} picked
    </h3>
    <template v-else>
      <h3>Symbol</h3>
      <TextField label="Name" :value="s.name" @keep="set({ name: $event })" />
      <ToggleField label="Names shown" :value="!!s.showNames" @keep="set({ showNames: $event })" />
      <template v-if="body">
        <LengthField label="Body width" :value="body.max.x - body.min.x" @keep="resize($event, body.max.y - body.min.y)" />
        <LengthField label="Body height" :value="body.max.y - body.min.y" @keep="resize(body.max.x - body.min.x, $event)" />
      </template>
      <p class="quiet">
        <template v-if="used.length"
          >Drawn for {{ used.slice(0, 4).join(', ') }}{{ used.length > 4 ? ` and ${used.length - 4} more` : '' }}</template
        >
        <template v-else>No part has this symbol yet</template>
      </p>
      <div><v-btn size="small" variant="outlined" @click="emit('pins')">Paste a pin list</v-btn></div>
    </template>
    <h3>
      Pins <span class="mono count">{{ all.length }}</span>
    </h3>
    <p v-if="!all.length" class="quiet">No pins yet. Press <kbd>P</kbd>, or paste the datasheet’s table of pins.</p>
    <v-table v-else density="compact">
      <tbody>
        <tr v-for="p in all" :key="p.id" :class="{ now: editor.selection.has(idOf('pin', p.id)) }" @click="pick(p.id)">
          <td class="mono">{{ p.number }}</td>
          <td class="mono">{{ p.name }}</td>
          <td class="quiet">{{ typeWords[p.type] }}</td>
        </tr>
      </tbody>
    </v-table>
  </template>
</template>

<style scoped>
.count {
  font-weight: 400;
  font-size: 12px;
}
tr {
  cursor: pointer;
}
tr.now {
  background: rgba(var(--v-theme-info), 0.14);
}
</style>
