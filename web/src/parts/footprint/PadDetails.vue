<script setup lang="ts">
import { computed, reactive } from 'vue'
import type { Corner, Pad } from '../../live/wire.gen'
import AngleField from '../../shell/fields/AngleField.vue'
import ChoiceField from '../../shell/fields/ChoiceField.vue'
import LengthField from '../../shell/fields/LengthField.vue'
import OneOf from '../../shell/fields/OneOf.vue'
import TextField from '../../shell/fields/TextField.vue'
import ToggleField from '../../shell/fields/ToggleField.vue'
import WholeField from '../../shell/fields/WholeField.vue'
import { complain } from '../../shell/notices'
import { without } from '../../hands/edge'
import { sizeOf } from './corners'
import type { FootprintEditor } from './editor'

/** What the picked pads are; of several, what they share. */
const props = defineProps<{ editor: FootprintEditor }>()
const pads = computed(() => (void props.editor.project.docTick.value, props.editor.pickedPads()))
const one = computed(() => (pads.value.length === 1 ? pads.value[0] : undefined))
/** The value that all have, or null. */
function shared<V>(of: (p: Pad) => V): V | null {
  const all = new Set(pads.value.map(of))
  return all.size === 1 ? [...all][0] : null
}
const put = (change: (p: Pad) => Pad) => props.editor.edit({ pads: pads.value.map((p) => change({ ...p })) })
/** Corners follow the size unless somebody said otherwise. */
const fitting = (p: Pad): Pad => {
  const least = Math.min(p.size.x, p.size.y)
  if (p.form === 'rounded') return { ...p, corner: Math.min(p.corner ?? Math.round(least / 4), Math.floor(least / 2)) }
  if (p.form === 'chamfered')
    return { ...p, corner: Math.max(1, Math.min(p.corner || Math.round(least / 4), Math.floor((least - 1) / 2))) }
  return { ...p, corner: 0 }
}
const kind = computed(() => shared((p) => (p.hole ? (p.bare ? 'bare' : 'plated') : 'surface')))
function setKind(k: string) {
  void put((p) => {
    const { hole, holeAt, slot, bare, ...rest } = p
    void bare
    if (k === 'surface') return rest
    const drill = hole || Math.round(Math.min(p.size.x, p.size.y) / 2)
    return { ...rest, far: false, hole: drill, ...(holeAt ? { holeAt } : {}), ...(slot ? { slot } : {}), ...(k === 'bare' ? { bare: true } : {}) } // prettier-ignore
  })
}
const forms = [
  { value: 'rounded', title: 'rounded' },
  { value: 'rect', title: 'rectangle' },
  { value: 'round', title: 'round' },
  { value: 'oval', title: 'oval' },
  { value: 'chamfered', title: 'chamfered' },
  { value: 'free', title: 'free' },
]
function setForm(form: string) {
  void put((p) => {
    const { edge, ...rest } = p
    if (form !== 'free') return fitting({ ...rest, form, corner: undefined })
    const [w, h] = [p.size.x / 2, p.size.y / 2].map(Math.round)
    return { ...rest, form, corner: 0, edge: edge ?? [{ x: -w, y: -h }, { x: w, y: -h }, { x: w, y: h }, { x: -w, y: h }] } // prettier-ignore
  })
}
/** Which corners are cut off: right above, left above, left below, right below. */
const cuts = [
  { bit: 2, title: 'left above' },
  { bit: 1, title: 'right above' },
  { bit: 4, title: 'left below' },
  { bit: 8, title: 'right below' },
]
const isCut = (bit: number) => ((one.value?.cut || 15) & bit) > 0
const setCut = (bit: number, on: boolean) =>
  put((p) => {
    const now = p.cut || 15
    const next = on ? now | bit : now & ~bit
    return { ...p, cut: next === 15 ? 0 : next || now }
  })
// ---- the edge of a free form

const setEdge = (edge: Corner[]) => put((p) => ({ ...p, edge, size: sizeOf(edge) }))
const setCorner = (i: number, c: Corner) => setEdge(one.value!.edge!.map((x, k) => (k === i ? c : x)))
/** Makes a side an arc that stands out by a quarter of it, or straight again. */
function bend(i: number) {
  const edge = one.value!.edge!
  const [a, b] = [edge[i], edge[(i + 1) % edge.length]]
  const out = { x: Math.round((a.x + b.x) / 2 + (b.y - a.y) / 4), y: Math.round((a.y + b.y) / 2 - (b.x - a.x) / 4) }
  const { mid, ...plain } = a
  return setCorner(i, mid ? plain : { ...a, mid: out })
}

// ---- windows of the paste

const grid = reactive({ columns: 2, rows: 2, percent: 65 })
const windows = computed(() => shared((p) => p.paste?.windows?.length ?? 0))
const partPaste = (percent: number) =>
  props.editor.project
    .edit('windowPaste', { footprint: props.editor.state.footprint, pads: pads.value.map((p) => p.id ?? 0), ...grid, percent })
    .catch(complain)
/** A slot's length over all, and whether it lies across. */
const slotLength = computed(() => shared((p) => (p.slot ? Math.round(Math.hypot(p.slot.x, p.slot.y)) + (p.hole ?? 0) : 0)))
const slotUp = computed(() => !!one.value?.slot && Math.abs(one.value.slot.y) > Math.abs(one.value.slot.x))
function setSlot(long: number, up: boolean) {
  void put((p) => {
    const { slot, holeAt, ...rest } = p
    void slot
    void holeAt
    const d = long - (p.hole ?? 0)
    if (d <= 0) return rest
    const way = up ? { x: 0, y: d } : { x: d, y: 0 }
    return { ...rest, slot: way, holeAt: { x: -Math.round(way.x / 2) + 0, y: -Math.round(way.y / 2) + 0 } }
  })
}
function setOpening(what: 'mask' | 'paste', change: { margin?: number | null; none?: boolean }) {
  void put((p) => {
    const { [what]: now, ...rest } = p
    const next = { ...now, ...change }
    if (next.margin === null) delete next.margin
    if (!next.none) delete next.none
    return Object.keys(next).length ? { ...rest, [what]: next } : rest
  })
}
</script>

<template>
  <h3>
    {{ one ? 'Pad' : `${pads.length} pads` }}
    <span v-if="one" class="mono">{{ one.number || 'without a number' }}</span>
  </h3>
  <TextField
    v-if="kind !== 'bare'"
    label="Number"
    :value="shared((p) => p.number)"
    @keep="put((p) => ({ ...p, number: $event }))"
  />
  <OneOf
    label="Kind of pad"
    :value="kind ?? ''"
    :options="[
      { value: 'surface', title: 'Surface' },
      { value: 'plated', title: 'Plated' },
      { value: 'bare', title: 'Unplated' },
    ]"
    @keep="setKind(String($event))"
  />
  <LengthField label="x" :value="shared((p) => p.at.x)" @keep="put((p) => ({ ...p, at: { ...p.at, x: $event } }))" />
  <LengthField label="y" :value="shared((p) => p.at.y)" @keep="put((p) => ({ ...p, at: { ...p.at, y: $event } }))" />
  <template v-if="kind !== 'bare'">
    <ChoiceField label="Form" :value="shared((p) => p.form)" :options="forms" @keep="setForm($event)" />
    <LengthField
      v-if="shared((p) => p.form) !== 'free'"
      label="Width"
      :value="shared((p) => p.size.x)"
      @keep="put((p) => fitting({ ...p, size: { x: $event, y: p.form === 'round' ? $event : p.size.y } }))"
    />
    <LengthField
      v-if="!['round', 'free'].includes(shared((p) => p.form) ?? '')"
      label="Height"
      :value="shared((p) => p.size.y)"
      @keep="put((p) => fitting({ ...p, size: { ...p.size, y: $event } }))"
    />
    <LengthField
      v-if="['rounded', 'chamfered'].includes(shared((p) => p.form) ?? '')"
      :label="shared((p) => p.form) === 'rounded' ? 'Radius' : 'Cut off'"
      :value="shared((p) => p.corner ?? 0)"
      @keep="put((p) => fitting({ ...p, corner: $event }))"
    />
    <div v-if="one?.form === 'chamfered'" class="cuts" role="group" aria-label="Corners cut off">
      <v-checkbox
        v-for="c in cuts"
        :key="c.bit"
        :label="c.title"
        :model-value="isCut(c.bit)"
        density="compact"
        hide-details
        @update:model-value="setCut(c.bit, !!$event)"
      />
    </div>
    <template v-if="one?.form === 'free'">
      <p class="quiet">
        Drag its corners on the drawing, or a side’s middle to make a new one; with <kbd>Shift</kbd> the side is bent.
      </p>
      <v-table density="compact" class="edge">
        <tbody>
          <tr v-for="(c, i) in one.edge" :key="i">
            <td class="mono quiet">{{ i + 1 }}</td>
            <td>
              <LengthField label="x" bare :says="`Corner ${i + 1}, x`" :value="c.x" @keep="setCorner(i, { ...c, x: $event })" />
            </td>
            <td>
              <LengthField label="y" bare :says="`Corner ${i + 1}, y`" :value="c.y" @keep="setCorner(i, { ...c, y: $event })" />
            </td>
            <td>
              <v-btn size="small" density="compact" variant="text" :aria-label="`Side after corner ${i + 1}`" @click="bend(i)">
                {{ c.mid ? 'arc' : 'straight' }}
              </v-btn>
            </td>
            <td>
              <v-btn
                size="small"
                density="compact"
                variant="text"
                :disabled="(one.edge?.length ?? 0) <= 3"
                :aria-label="`Take corner ${i + 1} away`"
                @click="setEdge(without(one!.edge!, i))"
                >×</v-btn
              >
            </td>
          </tr>
        </tbody>
      </v-table>
    </template>
    <AngleField label="Angle" :value="shared((p) => p.angle ?? 0)" @keep="put((p) => ({ ...p, angle: $event }))" />
  </template>
  <template v-if="kind && kind !== 'surface'">
    <LengthField
      label="Hole"
      :value="shared((p) => p.hole ?? 0)"
      @keep="put((p) => ({ ...p, hole: $event, ...(p.bare ? { size: { x: $event, y: $event } } : {}) }))"
    />
    <LengthField label="Slot’s length" :value="slotLength" empty="round" @keep="setSlot($event, slotUp)" />
    <ToggleField v-if="one?.slot" label="Upright slot" :value="slotUp" @keep="setSlot(slotLength ?? 0, $event)" />
  </template>
  <ToggleField v-else label="On the other side" :value="!!shared((p) => !!p.far)" @keep="put((p) => ({ ...p, far: $event }))" />
  <template v-if="kind !== 'bare'">
    <LengthField
      label="Mask margin"
      :value="shared((p) => p.mask?.margin ?? null)"
      empty="by rule"
      @keep="setOpening('mask', { margin: $event })"
    />
    <LengthField
      label="Paste margin"
      :value="shared((p) => p.paste?.margin ?? null)"
      empty="by rule"
      @keep="setOpening('paste', { margin: $event })"
    />
    <div class="windows" role="group" aria-label="Windows of the paste">
      <WholeField label="Windows" :value="grid.columns" :least="1" :most="30" tight @keep="grid.columns = $event" />
      <WholeField label="by" :value="grid.rows" :least="1" :most="30" tight @keep="grid.rows = $event" />
      <WholeField label="%" :value="grid.percent" :least="10" :most="95" tight @keep="grid.percent = $event" />
      <v-btn size="small" variant="outlined" @click="partPaste(grid.percent)">Part the paste</v-btn>
      <v-btn v-if="windows !== 0" size="small" variant="text" @click="partPaste(0)">In one piece</v-btn>
    </div>
    <div class="acts">
      <v-checkbox
        label="No paste"
        :model-value="!!shared((p) => !!p.paste?.none)"
        density="compact"
        hide-details
        @update:model-value="setOpening('paste', { none: !!$event })"
      />
      <v-checkbox
        label="Covered by mask"
        :model-value="!!shared((p) => !!p.mask?.none)"
        density="compact"
        hide-details
        @update:model-value="setOpening('mask', { none: !!$event })"
      />
    </div>
    <ChoiceField
      label="Joins areas"
      :value="shared((p) => p.join ?? '')"
      :options="[
        { value: '', title: 'by rule' },
        { value: 'solid', title: 'solidly' },
        { value: 'spokes', title: 'by spokes' },
        { value: 'none', title: 'not at all' },
      ]"
      @keep="put((p) => ({ ...p, join: $event }))"
    />
  </template>
</template>

<style scoped>
.windows {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.windows :deep(.field-row.tight) {
  grid-template-columns: auto 52px;
  column-gap: 5px;
}
.edge :deep(td) {
  padding: 1px 3px !important;
}
.cuts,
.acts {
  display: grid;
  grid-template-columns: 1fr 1fr;
}
</style>
