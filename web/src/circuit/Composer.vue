<script setup lang="ts">
import { nextTick, onMounted, ref, watch } from 'vue'
import { Previewer } from '../live/previewer'
import type { CircuitEditor } from './editor'
import { marksBox, play } from './marks'
import { offscreenPen } from './preview'
import type { Draft } from './editor'

/** Where the text of a note or a timing diagram is written, with the drawing beside it. */
const props = defineProps<{ editor: CircuitEditor; draft: Draft }>()
const emit = defineEmits<{ close: [] }>()
const text = ref(props.draft.text)
const area = ref<{ focus: () => void }>()
const canvas = ref<HTMLCanvasElement>()
const trouble = ref('')
const ed = props.editor
const asks = new Previewer(ed.project)

const object = () => {
  const old = props.draft.id ? ed.project.find(props.draft.id)?.object : undefined
  const base = { sheet: ed.sheet, at: props.draft.at, text: text.value }
  return props.draft.kind === 'note'
    ? { width: 60e6, size: 2.9e6, tint: ed.note.state.tint, ...old, ...base }
    : { slot: 8e6, ...old, ...base }
}
async function show() {
  await nextTick()
  asks.ask('item', { item: { kind: props.draft.kind, object: object() } }, (drawn) => {
    const marks = drawn.marks ?? []
    const c = canvas.value
    if (!c || !marks.length) return
    play(offscreenPen(c, marksBox(marks)), marks, { colours: ed.colours, pictures: null })
  })
  if (props.draft.kind === 'timing')
    ed.project.question('timing', { text: text.value }).then(
      () => (trouble.value = ''),
      (e: Error) => (trouble.value = e.message),
    )
}
watch(text, show)
onMounted(() => {
  void show()
  setTimeout(() => area.value?.focus(), 60) // after the press that opened it has had its effect
})
async function keep() {
  if (!text.value.trim()) {
    emit('close')
    return
  }
  const ok = await ed.project
    .edit('drawItem', { item: { kind: props.draft.kind, object: object() } })
    .catch((e: Error) => (trouble.value = e.message))
  if (typeof ok !== 'string') emit('close')
}
</script>

<template>
  <div class="float composer" role="dialog" :aria-label="draft.kind === 'note' ? 'Write a note' : 'Write a timing diagram'">
    <h3>{{ draft.kind === 'note' ? 'Note' : 'Timing diagram' }}</h3>
    <v-textarea
      ref="area"
      v-model="text"
      class="mono"
      rows="9"
      spellcheck="false"
      :aria-label="draft.kind === 'note' ? 'Text of the note' : 'Text of the timing diagram'"
      @keydown.esc.stop="emit('close')"
      @keydown.ctrl.enter.prevent="keep"
    />
    <canvas
      ref="canvas"
      width="420"
      height="150"
      role="img"
      aria-label="How it will look"
      :style="{ background: editor.colours.paper }"
    />
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <p v-else class="quiet small">
      <template v-if="draft.kind === 'note'"># heading · - item · *strong*</template>
      <template v-else
        >NAME: high 2, low 3, free 1, any 1, data 4 "text", clock 8, gap 1 · slot 10 ns · mark 3 "text" · span 1 4 "t1"</template
      >
    </p>
    <div class="ends">
      <v-btn size="small" @click="emit('close')">Leave it</v-btn>
      <v-btn size="small" color="primary" variant="flat" @click="keep">Put on the sheet <kbd>Ctrl Enter</kbd></v-btn>
    </div>
  </div>
</template>

<style scoped>
.composer {
  position: absolute;
  right: 16px;
  top: 16px;
  width: 452px;
  padding: 14px 16px;
  z-index: 8;
}
h3 {
  font-size: 14px;
  margin-bottom: 8px;
}
canvas {
  width: 420px;
  height: 150px;
  border-radius: 8px;
  margin: 8px 0 4px;
}
.small {
  font-size: 12px;
}
.trouble {
  color: rgb(var(--v-theme-error));
  font-size: 12.5px;
}
.ends {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 8px;
}
</style>
