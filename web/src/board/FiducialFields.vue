<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import { complain } from '../shell/notices'
import type { BoardEditor } from './editor'

/** The fiducials of both sides, by which an assembler's machine finds the board. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const emit = defineEmits<{ pick: [number[]] }>()
const sides = computed(() => {
  void props.project.docTick.value
  const { copper } = props.editor
  const dots = props.project.all('figure').filter((f) => f.fiducial)
  const on = (layer: number) => dots.filter((f) => f.layer === layer).map((f) => f.id)
  const list = [{ bottom: false, title: 'upper', ids: on(copper[0].id) }]
  if (copper.length > 1) list.push({ bottom: true, title: 'lower', ids: on(copper[copper.length - 1].id) })
  return list
})
const put = (bottom: boolean) => props.project.edit('putFiducials', { bottom }).catch(complain)
</script>

<template>
  <h3>Fiducials</h3>
  <div v-for="s in sides" :key="s.title" class="side">
    <span>{{ s.ids.length || 'none' }} on the {{ s.title }} side</span>
    <v-btn v-if="s.ids.length" size="x-small" variant="text" @click="emit('pick', s.ids)">Pick</v-btn>
    <v-btn size="x-small" variant="outlined" @click="put(s.bottom)">{{ s.ids.length ? 'Put anew' : 'Put three' }}</v-btn>
  </div>
</template>

<style scoped>
.side {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 30px;
}
.side span {
  flex: 1;
}
</style>
