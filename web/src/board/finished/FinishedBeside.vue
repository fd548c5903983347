<script setup lang="ts">
import { onMounted, ref, watch } from 'vue'
import CanvasView from '../../canvas/CanvasView.vue'
import type { Pen } from '../../canvas/pen'
import { Scene } from '../../canvas/scene'
import type { Box, Viewport } from '../../canvas/viewport'
import type { BoardEditor } from '../editor'
import { drawOverlay } from '../overlay'
import type { FinishedPicture } from './picture'

/** The finished board beside the one in work: it shows the same place, with what is picked and what the hand moves. */
const props = defineProps<{ editor: BoardEditor; picture: FinishedPicture | null }>()
const emit = defineEmits<{ follow: [] }>()
const canvas = ref<InstanceType<typeof CanvasView>>()
const scene = new Scene(() => 0)
const sheets = [
  { name: 'finished', order: 0, empty: () => !props.picture, paint: (pen: Pen, box: Box) => props.picture!.paint(pen, box) },
]
watch(() => props.picture, () => canvas.value?.refresh('finished')) // prettier-ignore
watch(() => [...props.editor.selection], () => canvas.value?.redraw()) // prettier-ignore
onMounted(() => emit('follow'))
defineExpose({ follow: (v: Viewport) => canvas.value?.follow(v) })
</script>

<template>
  <CanvasView
    ref="canvas"
    :scene="scene"
    label="The finished board"
    :ground="() => editor.look().colours.paper"
    :sheets="() => sheets"
    :mirror="editor.state.flipped"
    :overlay="(pen) => drawOverlay(editor, pen)"
    @ready="emit('follow')"
  />
</template>
