<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import { format } from '../live/units'
import type { BoardFigure, Commands, DimensionDrawn, Kinds, Legend } from '../live/wire.gen'
import AngleField from '../shell/fields/AngleField.vue'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import LengthField from '../shell/fields/LengthField.vue'
import TextField from '../shell/fields/TextField.vue'
import { complain } from '../shell/notices'
import { useTaste } from '../shell/taste'
import { surfaces } from './drawn'
import type { BoardEditor } from './editor'
import { fontChoice, fontFields } from './tools/text'

/** Texts, figures or a dimension of the board, one or several of a kind. */
const props = defineProps<{ project: Project; editor: BoardEditor; kind: 'legend' | 'figure' | 'dimension'; ids: number[] }>()
const taste = useTaste()
const all = computed(() => (void props.project.docTick.value, props.ids.map((id) => props.project.get(props.kind, id)).filter((o) => !!o))) // prettier-ignore
const drawn = computed(() => all.value as (Legend | BoardFigure)[])
const texts = computed(() => (props.kind === 'legend' ? (all.value as Legend[]) : []))
const figures = computed(() => (props.kind === 'figure' ? (all.value as BoardFigure[]) : []))
const one = computed(() => (all.value.length === 1 ? all.value[0] : undefined))
const dimension = computed(() => (props.kind === 'dimension' ? (one.value as Kinds['dimension'] | undefined) : undefined))
const measured = computed<DimensionDrawn | undefined>(() => (void props.project.derivedTick.value, dimension.value && props.project.dimensions.get(dimension.value.id))) // prettier-ignore
/** What all of them have, or null where they differ. */
function shared<T, V>(list: T[], of: (o: T) => V): V | null {
  const values = new Set(list.map(of))
  return values.size === 1 ? [...values][0] : null
}
const setText = (f: Omit<Commands['setLegend'], 'ids'>) => props.project.edit('setLegend', { ids: props.ids, ...f }).catch(complain) // prettier-ignore
const setFigure = (f: Omit<Commands['setFigure'], 'ids'>) => props.project.edit('setFigure', { ids: props.ids, ...f }).catch(complain) // prettier-ignore
const setDrawn = (f: { on?: string; layer?: number; bottom?: boolean; apart?: number }) =>
  props.kind === 'legend' ? setText(f) : setFigure(f)
const setPlace = (f: Omit<Commands['setPlaced'], 'id'>) => props.project.edit('setPlaced', { id: one.value!.id, ...f }).catch(complain) // prettier-ignore
const setDimension = (f: Omit<Commands['setDimension'], 'id'>) => props.project.edit('setDimension', { id: one.value!.id, ...f }).catch(complain) // prettier-ignore

const on = computed(() => shared(drawn.value, (o) => o.on ?? ''))
const layer = computed(() => shared(drawn.value, (o) => o.layer ?? 0))
const bottom = computed(() => shared(drawn.value, (o) => !!o.bottom))
const font = computed(() => shared(texts.value, (l) => (l.font === 'own' ? `own ${l.face}` : (l.font ?? ''))))
const layers = computed(() => props.editor.copper.map((l) => ({ value: String(l.id), title: l.name })))
function chooseFont(v: string) {
  if (v === 'file') props.editor.chooseFont(props.ids)
  else setText({ font: '', face: 0, ...fontFields(v) })
}
const corners = computed(() => figures.value.reduce((n, f) => n + f.lines.reduce((m, l) => m + l.length, 0), 0))
const title = computed(() => {
  const n = all.value.length
  const what = { legend: ['Text', 'texts'], figure: ['Figure', 'figures'], dimension: ['Dimension', 'dimensions'] }[props.kind]
  const name = props.kind === 'figure' && n === 1 ? figures.value[0]?.name : ''
  return n === 1 ? name || what[0] : `${n} ${what[1]}`
})
</script>

<template>
  <h3>{{ title }}</h3>
  <template v-if="dimension">
    <p class="mono">{{ format(measured?.length ?? 0, taste.unit, 3) }} {{ taste.unit }}</p>
    <ChoiceField
      label="Measured"
      :value="dimension.way ?? ''"
      :options="[
        { value: '', title: 'straight' },
        { value: 'x', title: 'across' },
        { value: 'y', title: 'upright' },
      ]"
      @keep="setDimension({ way: $event })"
    />
    <LengthField label="Lies off" :value="dimension.off" @keep="setDimension({ off: $event })" />
    <TextField label="Words" :value="dimension.text ?? ''" @keep="setDimension({ text: $event })" />
    <p class="quiet">It stays on the drawing and follows what it measures.</p>
  </template>
  <template v-else>
    <TextField v-if="texts.length === 1" label="Text" :value="texts[0].text" @keep="setText({ text: $event })" />
    <template v-if="texts.length">
      <LengthField label="Height" :value="shared(texts, (l) => l.height)" @keep="setText({ height: $event })" />
      <ChoiceField
        label="Font"
        :value="font ?? 'mixed'"
        :options="[...(font === null ? [{ value: 'mixed', title: 'mixed' }] : []), ...fontChoice(editor)]"
        @keep="chooseFont"
      />
      <LengthField
        v-if="font === ''"
        label="Line width"
        :value="shared(texts, (l) => l.stroke ?? 0) || null"
        empty="by height"
        @keep="setText({ stroke: $event })"
      />
    </template>
    <template v-if="texts.length === 1">
      <LengthField label="x" :value="texts[0].at.x" @keep="setPlace({ x: $event })" />
      <LengthField label="y" :value="texts[0].at.y" @keep="setPlace({ y: $event })" />
      <AngleField label="Angle" :value="texts[0].angle" @keep="setPlace({ angle: $event })" />
    </template>
    <template v-if="figures.length">
      <TextField v-if="figures.length === 1" label="Name" :value="figures[0].name ?? ''" @keep="setFigure({ name: $event })" />
      <LengthField label="Line width" :value="shared(figures, (f) => f.width ?? 0)" @keep="setFigure({ width: $event })" />
      <v-checkbox
        label="filled"
        :model-value="figures.every((f) => f.filled)"
        :indeterminate="figures.some((f) => f.filled) && !figures.every((f) => f.filled)"
        hide-details
        density="compact"
        @update:model-value="setFigure({ filled: !!$event })"
      />
    </template>
    <ChoiceField
      label="On"
      :value="on ?? 'mixed'"
      :options="[...(on === null ? [{ value: 'mixed', title: 'mixed' }] : []), ...surfaces]"
      @keep="setDrawn({ on: $event })"
    />
    <ChoiceField
      v-if="on === 'copper'"
      label="Layer"
      :value="String(layer ?? '')"
      :options="layers"
      @keep="setDrawn({ layer: Number($event) })"
    />
    <ChoiceField
      label="Side"
      :value="bottom === null ? 'mixed' : bottom ? 'bottom' : 'top'"
      :options="bottom === null ? ['mixed', 'top', 'bottom'] : ['top', 'bottom']"
      @keep="setDrawn({ bottom: $event === 'bottom' })"
    />
    <LengthField
      v-if="on === ''"
      label="Off pads"
      :value="shared(drawn, (o) => o.apart ?? 0)"
      @keep="setDrawn({ apart: $event })"
    />
    <p v-if="figures.length" class="quiet">
      <span class="mono">{{ corners }}</span> corners.
    </p>
    <p v-if="on === 'mask'" class="quiet">The mask is open there, so that copper beneath lies bare.</p>
    <p v-if="on === 'copper'" class="quiet">Copper of no net, held against all others.</p>
  </template>
</template>
