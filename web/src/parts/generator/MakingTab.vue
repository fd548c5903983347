<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue'
import { call } from '../../live/http'
import type { Making, Recipe } from '../../live/wire.gen'
import ChoiceField from '../../shell/fields/ChoiceField.vue'
import LengthField from '../../shell/fields/LengthField.vue'
import { complain } from '../../shell/notices'

/** What is made and how; ways of making are kept by the names people give them, for all projects. */
const props = defineProps<{ making: Recipe['making'] }>()
const emit = defineEmits<{ keep: [Recipe['making']] }>()
const makes = [
  { id: 'silk', name: 'Silk' },
  { id: 'outline', name: 'Assembly outline' },
  { id: 'courtyard', name: 'Courtyard' },
  { id: 'mark', name: 'Mark of pin 1' },
  { id: 'body', name: 'Body in space' },
]
const lengths: [keyof Recipe['making'], string][] = [
  ['fabrication', 'Board’s tolerance'],
  ['placement', 'Placement tolerance'],
  ['round', 'Pads rounded to'],
  ['gap', 'Least gap of pads'],
  ['silkWidth', 'Silk lines'],
  ['silkGap', 'Silk to pads'],
  ['yardRound', 'Courtyard rounded to'],
]
function toggleMake(id: string, on: boolean) {
  const leave = new Set(props.making.leave ?? [])
  if (on) leave.delete(id)
  else leave.add(id)
  emit('keep', { ...props.making, leave: [...leave] })
}
const makings = shallowRef<Making[]>([])
const name = ref<string | null>(null)
onMounted(() => void call<Making[]>('GET', '/makings').then((l) => (makings.value = l), complain))
function takeMaking(called: string | null) {
  name.value = called
  const m = makings.value.find((x) => x.name === called)
  if (m) emit('keep', structuredClone(m.making))
}
const keepMaking = () =>
  call<Making[]>('PUT', '/makings', { name: name.value?.trim(), making: props.making }).then((l) => (makings.value = l), complain) // prettier-ignore
const dropMaking = () =>
  call<Making[]>('DELETE', '/makings?name=' + encodeURIComponent(name.value ?? '')).then((l) => ((makings.value = l), (name.value = null)), complain) // prettier-ignore
</script>

<template>
  <v-combobox
    :model-value="name"
    :items="makings.map((m) => m.name)"
    label="Kept as"
    aria-label="Kept as"
    density="compact"
    hide-details
    @update:model-value="takeMaking"
  />
  <div class="acts">
    <v-btn size="small" variant="outlined" :disabled="!name?.trim()" @click="keepMaking">Keep under this name</v-btn>
    <v-btn v-if="makings.some((m) => m.name === name)" size="small" variant="text" @click="dropMaking">Drop it</v-btn>
  </div>
  <LengthField
    v-for="[k, words] in lengths"
    :key="k"
    :label="words"
    :value="props.making[k] as number"
    :step="10_000"
    @keep="emit('keep', { ...props.making, [k]: $event })"
  />
  <ChoiceField
    label="Surface pads"
    :value="props.making.form"
    :options="[
      { value: 'rounded', title: 'rounded' },
      { value: 'rect', title: 'rectangles' },
      { value: 'oval', title: 'oval' },
    ]"
    @keep="emit('keep', { ...props.making, form: $event })"
  />
  <v-checkbox
    v-for="m in makes"
    :key="m.id"
    :label="m.name"
    :model-value="!props.making.leave?.includes(m.id)"
    density="compact"
    hide-details
    @update:model-value="toggleMake(m.id, !!$event)"
  />
</template>

<style scoped>
.acts {
  display: flex;
  gap: 8px;
}
</style>
