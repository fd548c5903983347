<script setup lang="ts">
import {
  mdiAlignHorizontalCenter,
  mdiAlignHorizontalDistribute,
  mdiAlignHorizontalLeft,
  mdiAlignHorizontalRight,
  mdiAlignVerticalBottom,
  mdiAlignVerticalCenter,
  mdiAlignVerticalDistribute,
  mdiAlignVerticalTop,
} from '@mdi/js'
import { ref } from 'vue'
import LengthField from '../shell/fields/LengthField.vue'
import type { BoardEditor } from './editor'
import { lineUps } from './lineUps'

/** What can be done with several parts at once. */
const props = defineProps<{ editor: BoardEditor; parts: number; things: number }>()
const gap = ref(500_000)
const icons: Record<string, string> = {
  left: mdiAlignHorizontalLeft,
  right: mdiAlignHorizontalRight,
  top: mdiAlignVerticalTop,
  bottom: mdiAlignVerticalBottom,
  column: mdiAlignHorizontalCenter,
  row: mdiAlignVerticalCenter,
  across: mdiAlignHorizontalDistribute,
  down: mdiAlignVerticalDistribute,
}
</script>

<template>
  <h3>{{ props.things }} things picked</h3>
  <div class="icons" role="group" aria-label="Line up">
    <v-btn
      v-for="[how, title] in lineUps"
      :key="how"
      :icon="icons[how]"
      size="small"
      variant="outlined"
      rounded="lg"
      :aria-label="title"
      :title="title"
      :disabled="(how === 'across' || how === 'down') && props.things < 3"
      @click="editor.lineUp(how)"
    />
  </div>
  <LengthField label="Gap" :value="gap" @keep="gap = $event" />
  <div class="acts">
    <v-btn size="small" variant="outlined" @click="editor.lineUp('packAcross', gap)">Beside each other</v-btn>
    <v-btn size="small" variant="outlined" @click="editor.lineUp('packDown', gap)">Below each other</v-btn>
  </div>
  <div class="acts">
    <v-btn v-if="parts === 2" size="small" variant="outlined" @click="editor.swap()">Change places</v-btn>
    <v-btn v-if="parts" size="small" variant="outlined" @click="editor.orderLabels()">Designators in order</v-btn>
  </div>
  <p class="quiet">The first that was picked stays where it is; of those that are spread, the outermost.</p>
</template>

<style scoped>
.icons {
  display: grid;
  grid-template-columns: repeat(4, auto);
  gap: 6px;
  justify-content: start;
  margin: 6px 0;
}
.acts {
  display: flex;
  gap: 6px;
  margin-top: 6px;
}
</style>
