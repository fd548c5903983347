<script setup lang="ts">
import { mdiImageOutline, mdiVectorSquare } from '@mdi/js'
import type { Project } from '../../live/project'
import OneOf from '../../shell/fields/OneOf.vue'
import { complain } from '../../shell/notices'
import { saveFile } from '../../shell/saving'
import type { BoardEditor } from '../editor'
import { showBoard } from './seeing'

/** How the board is seen: as it is worked on, as it will be, or in space; in its place or beside it. */
const props = defineProps<{ project: Project; editor: BoardEditor; below: boolean; rev: number; behind: boolean; says: string }>()
const state = props.editor.state
const save = (form: string) =>
  saveFile(
    `/projects/${props.project.id}/finished.${form}?side=${props.below ? 'bottom' : 'top'}${state.finishedParts ? '' : '&bare=1'}`,
    `board.${form}`,
  ).catch(complain)
</script>

<template>
  <div class="float sight">
    <div class="row">
      <OneOf
        label="How the board is seen"
        :value="state.sight"
        :options="[
          { value: 'work', title: 'In work' },
          { value: 'finished', title: 'As it will be' },
          { value: 'space', title: 'In space' },
        ]"
        @keep="showBoard(editor, $event)"
      />
      <v-checkbox
        v-if="state.sight !== 'work'"
        v-model="state.beside"
        label="Beside"
        density="compact"
        hide-details
        title="Beside what is worked on"
      />
    </div>
    <div v-if="state.sight === 'finished'" class="row">
      <v-checkbox v-model="state.finishedParts" label="Parts" density="compact" hide-details />
      <span class="quiet">{{ below ? 'from below' : 'from above' }}</span>
      <span class="grow" />
      <v-btn size="x-small" variant="text" :prepend-icon="mdiImageOutline" @click="save('png')">PNG</v-btn>
      <v-btn size="x-small" variant="text" :prepend-icon="mdiVectorSquare" @click="save('svg')">SVG</v-btn>
    </div>
    <p v-if="state.sight === 'finished' && (behind || says)" class="quiet" role="status">
      <template v-if="says">{{ says }}</template>
      <template v-else
        >as of revision <span class="mono">{{ rev }}</span></template
      >
    </p>
  </div>
</template>

<style scoped>
.sight {
  padding: 4px 6px;
}
.row {
  display: flex;
  align-items: center;
  gap: 8px;
}
.grow {
  flex: 1;
}
p {
  margin: 0 4px 2px;
  font-size: 12px;
}
</style>
