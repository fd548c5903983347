<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, onUnmounted, watch } from 'vue'
import type { Project } from '../live/project'
import { complain } from '../shell/notices'
import type { BoardEditor } from './editor'
import { touchMarks } from './touches'

/** Where nets touch the copper areas of the layer in work: what the marks mean, with how many there are. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const { editor } = props
async function load() {
  if (!editor.state.touching) return
  const list = await props.project.question('touches', { layer: editor.state.layer }).catch(complain)
  if (!list || !editor.state.touching) return
  editor.touches.value = list
  editor.redraw()
}
watch(() => [editor.state.touching, editor.state.layer, props.project.derivedTick.value].join(), () => void load(), { immediate: true }) // prettier-ignore
onUnmounted(() => (editor.touches.value = []))
const layer = computed(() => editor.copper.find((l) => l.id === editor.state.layer)?.name ?? '')
const behind = computed(() => 'fills' in props.project.behind.value)
const counts = computed(() => touchMarks.map((m) => ({ ...m, n: editor.touches.value.filter((t) => t.how === m.how).length })))
function close() {
  editor.state.touching = false
  editor.touches.value = []
  editor.redraw()
}
</script>

<template>
  <div v-if="editor.state.touching" class="float legend" role="group" :aria-label="`What touches ${layer}`">
    <header>
      <h4>Touching {{ layer }}</h4>
      <v-btn :icon="mdiClose" size="x-small" variant="text" aria-label="Hide what touches the areas" @click="close" />
    </header>
    <p v-if="behind" class="quiet" role="status">Being filled anew: this is of before.</p>
    <p v-if="!editor.touches.value.length" class="quiet">No copper area on this layer, or nothing within it.</p>
    <div v-for="c in counts" v-else :key="c.how" class="line">
      <svg width="16" height="16" viewBox="-8 -8 16 16" aria-hidden="true"><path :d="c.path" :class="c.how" /></svg>
      <span>{{ c.title }}</span>
      <span class="mono">{{ c.n }}</span>
    </div>
  </div>
</template>

<style scoped>
.legend {
  position: absolute;
  right: 12px;
  top: 92px;
  width: 200px;
  z-index: 4;
  padding: 8px 12px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
h4 {
  margin: 0;
}
.line {
  display: grid;
  grid-template-columns: 20px 1fr auto;
  align-items: center;
}
path {
  fill: none;
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1.8;
}
path.solid {
  fill: rgb(var(--v-theme-on-surface));
}
path.none {
  stroke: rgb(var(--v-theme-error));
}
</style>
