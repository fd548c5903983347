<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Project } from '../../live/project'
import type { Listed } from '../../live/wire.gen'
import OneOf from '../../shell/fields/OneOf.vue'
import SymbolPicture from '../SymbolPicture.vue'
import TablePanel from '../tables/TablePanel.vue'
import { useTable } from '../tables/useTable'
import { typeWords } from './pinTypes'

/** A table of pins from a datasheet or a file, and the symbol it makes. */
const props = defineProps<{ project: Project; verb: string }>()
const emit = defineEmits<{ take: [Listed[], string]; close: [] }>()
const layout = ref('type')
const { text, columns, answer, trouble } = useTable(
  (text, columns) => props.project.question('pinList', { text, columns, layout: layout.value }),
  [layout],
)
const kinds = ['number', 'name', 'type', 'side'].map((k) => ({ value: k, title: k }))
const layouts = [
  { value: 'type', title: 'By type' },
  { value: 'order', title: 'In order' },
  { value: 'around', title: 'Two rows' },
  { value: 'sides', title: 'Four sides' },
]
const pins = computed(() => answer.value?.list?.pins ?? [])
const wrong = computed(() => pins.value.flatMap((p) => p.wrong ?? []))
/** How many pins there are of each type. */
const counts = computed(() => {
  const out: Record<string, number> = {}
  for (const p of pins.value) out[p.type] = (out[p.type] ?? 0) + 1
  return out
})
</script>

<template>
  <TablePanel
    v-model:text="text"
    v-model:columns="columns"
    title="Paste a pin list"
    label="Table of pins"
    hint="1	VDD	P&#10;2	SCL	I&#10;3	SDA	I/O&#10;columns apart by tabs, commas or spaces"
    :kinds="kinds"
    :read="answer?.list ?? null"
    :wrong="wrong"
    :trouble="trouble"
    :verb="verb"
    :able="pins.length > 0"
    @take="emit('take', pins, layout)"
    @close="emit('close')"
  >
    <OneOf label="How the pins are laid out" :value="layout" :options="layouts" @keep="layout = String($event)" />
    <SymbolPicture
      v-if="answer?.marks.length"
      class="picture"
      :marks="answer.marks"
      :width="300"
      :height="300"
      label="The symbol"
    />
    <p v-if="!answer" class="quiet hint">The symbol is shown here before anything is taken.</p>
    <p v-else class="quiet">
      <span class="mono">{{ pins.length }}</span> pins:
      <template v-for="(n, t, i) in counts" :key="t">{{ i ? ', ' : '' }}{{ n }} {{ typeWords[t] }}</template>
    </p>
  </TablePanel>
</template>

<style scoped>
.picture {
  margin: 8px 0;
}
.hint {
  padding: 40px 20px;
}
</style>
