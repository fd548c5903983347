<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../../live/project'
import type { Scope } from '../../live/wire.gen'
import ChoiceField from '../../shell/fields/ChoiceField.vue'
import TextField from '../../shell/fields/TextField.vue'

/** For what a rule holds, of plain parts: what is left open holds for all. */
const props = defineProps<{ project: Project; scope: Scope; title: string; classes: string[] }>()
const emit = defineEmits<{ keep: [Scope]; typing: [Scope] }>()
const things = [
  { value: '', title: 'anything' },
  { value: 'track', title: 'tracks' },
  { value: 'surfacePad', title: 'surface pads' },
  { value: 'throughPad', title: 'plated pads' },
  { value: 'via', title: 'vias' },
  { value: 'unplatedHole', title: 'unplated holes' },
  { value: 'pour', title: 'copper areas' },
  { value: 'figure', title: 'copper texts and figures' },
  { value: 'fiducial', title: 'fiducials' },
]
const classChoices = computed(() => [{ value: '', title: 'any' }, ...[...new Set([...props.classes, props.scope.class ?? ''])].filter((c) => c).map((c) => ({ value: c, title: c }))]) // prettier-ignore
const layers = computed(() => [{ value: 0, title: 'all' }, ...props.project.board.stack.filter((l) => l.kind === 'copper').map((l) => ({ value: l.id, title: l.name }))]) // prettier-ignore
const areas = computed(() => {
  void props.project.docTick.value
  return [{ value: 0, title: 'the whole board' }, ...props.project.all('ruleArea').map((a) => ({ value: a.id, title: a.name }))]
})
const part = computed(() => (props.scope.part ? (props.project.get('placed', props.scope.part)?.designator ?? '') : ''))
function withThese(fields: Partial<Scope>) {
  const next = { ...props.scope, ...fields }
  for (const k of Object.keys(next) as (keyof Scope)[]) if (!next[k]) delete next[k]
  return next
}
const set = (fields: Partial<Scope>) => emit('keep', withThese(fields))
const partCalled = (name: string) =>
  props.project.all('placed').find((x) => x.designator.toLowerCase() === name.trim().toLowerCase())
const setPart = (name: string) => set({ part: partCalled(name)?.id ?? 0 })
function checkPart(name: string) {
  if (name.trim() && !partCalled(name)) throw new Error(`No part of the board is called ${name.trim()}.`)
}
</script>

<template>
  <fieldset>
    <legend>{{ title }}</legend>
    <ChoiceField label="Kind of thing" :value="scope.thing ?? ''" :options="things" @keep="set({ thing: String($event) })" />
    <ChoiceField label="Class" :value="scope.class ?? ''" :options="classChoices" @keep="set({ class: String($event) })" />
    <TextField
      label="Nets called"
      :value="scope.net ?? ''"
      empty="any; * and ? stand for letters"
      @typing="emit('typing', withThese({ net: $event.trim() }))"
      @keep="set({ net: $event.trim() })"
    />
    <ChoiceField label="On the layer" :value="scope.layer ?? 0" :options="layers" @keep="set({ layer: Number($event) })" />
    <ChoiceField label="Within" :value="scope.area ?? 0" :options="areas" @keep="set({ area: Number($event) })" />
    <TextField label="Of the part" :value="part" empty="any" :check="checkPart" @keep="setPart" />
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 1px solid rgba(var(--v-border-color), 0.3);
  border-radius: 8px;
  padding: 6px 12px 10px;
  min-width: 0;
}
legend {
  font-weight: 600;
  padding: 0 4px;
}
</style>
