<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { drawPattern } from '../../board/draw'
import { boxOf } from '../../canvas/viewport'
import { offscreenPen } from '../../circuit/preview'
import type { Project } from '../../live/project'
import type { Pad } from '../../live/wire.gen'
import OneOf from '../../shell/fields/OneOf.vue'
import { useTaste } from '../../shell/taste'
import TablePanel from '../tables/TablePanel.vue'
import { useTable } from '../tables/useTable'

/** A table of pads from a datasheet or a file, and how they lie. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ take: [Pad[]]; close: [] }>()
const taste = useTaste()
const unit = ref<'mm' | 'mil' | 'in'>(taste.unit)
const picture = ref<HTMLCanvasElement>()
const { text, columns, answer, trouble } = useTable(
  (text, columns) => props.project.question('padList', { text, columns, unit: unit.value }),
  [unit],
)
watch(answer, async (r) => {
  await nextTick()
  if (picture.value && r?.list?.pads.length)
    drawPattern(offscreenPen(picture.value, boxOf(r.pattern.courtyard), 1, 80), r.pattern, taste.boardShade)
})
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
    <canvas
      v-show="pads.length"
      ref="picture"
      width="300"
      height="300"
      :class="'board-' + taste.boardShade"
      role="img"
      aria-label="The pads"
    />
    <p v-if="!answer" class="quiet hint">The pads are shown here before they are taken.</p>
  </TablePanel>
</template>

<style scoped>
canvas {
  display: block;
  width: 300px;
  height: 300px;
  border-radius: 8px;
  margin: 8px 0;
}
canvas.board-dark {
  background: #17131e;
}
canvas.board-light {
  background: #e4e8ee;
}
.hint {
  padding: 40px 20px;
}
</style>
