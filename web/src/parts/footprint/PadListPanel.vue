<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Project } from '../../live/project'
import type { Pad } from '../../live/wire.gen'
import OneOf from '../../shell/fields/OneOf.vue'
import { useTaste } from '../../shell/taste'
import PatternPicture from '../PatternPicture.vue'
import TablePanel from '../tables/TablePanel.vue'
import { useTable } from '../tables/useTable'

/** A table of pads from a datasheet or a file, and how they lie. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ take: [Pad[]]; close: [] }>()
const taste = useTaste()
const unit = ref<'mm' | 'mil' | 'in'>(taste.unit)
const { text, columns, answer, trouble } = useTable(
  (text, columns) => props.project.question('padList', { text, columns, unit: unit.value }),
  [unit],
)
const kinds = ['number', 'x', 'y', 'width', 'height', 'form', 'hole', 'turn'].map((k) => ({ value: k, title: k }))
const pads = computed(() => answer.value?.list?.pads ?? [])
</script>

<template>
  <TablePanel
    v-model:text="text"
    v-model:columns="columns"
    title="Paste a table of pads"
    label="Table of pads"
    hint="pad	x	y	width	height	hole&#10;1	0	0	1.8	1.8	1.1&#10;2	17.5/2	-3.25	1.8	1.8	1.1&#10;columns apart by tabs, commas or spaces"
    :kinds="kinds"
    :read="answer?.list ?? null"
    :wrong="answer?.list?.wrong ?? []"
    :trouble="trouble"
    :verb="pads.length === 1 ? 'Take this pad' : `Take these ${pads.length || ''} pads`"
    :able="pads.length > 0"
    @take="emit('take', pads)"
    @close="emit('close')"
  >
    <OneOf
      label="Unit of lengths that say none"
      :value="unit"
      :options="[
        { value: 'mm', title: 'mm' },
        { value: 'mil', title: 'mil' },
        { value: 'in', title: 'in' },
      ]"
      @keep="unit = $event"
    />
    <PatternPicture v-if="pads.length" class="picture" :pattern="answer!.pattern" :height="300" label="The pads" />
    <p v-if="!answer" class="quiet hint">The pads are shown here before they are taken.</p>
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
