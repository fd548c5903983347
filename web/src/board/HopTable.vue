<script setup lang="ts">
import { mdiCheck, mdiClose, mdiMinus } from '@mdi/js'
import { computed } from 'vue'
import type { BoardEditor } from './editor'

/** What a hop at the hand would take, and why not something better; a click asks for one way. */
const props = defineProps<{ editor: BoardEditor }>()
const tool = computed(() => props.editor.track)
const state = computed(() => tool.value.state)
const shown = computed(() => state.value.routing !== '' && state.value.choosing)
function by(i: number) {
  state.value.hopBy = state.value.hopBy === i + 1 ? 0 : i + 1
  tool.value.ahead()
}
</script>

<template>
  <div v-if="shown" class="float hops" role="group" aria-label="Ways of a hop here">
    <h4>A hop here</h4>
    <p v-if="!state.ways.length" class="quiet">A plated hole of the net is here.</p>
    <v-btn
      v-for="(w, i) in state.ways"
      :key="i"
      class="way"
      size="small"
      variant="text"
      :class="{ fits: w.fits, on: state.hopBy === i + 1 }"
      :aria-pressed="state.hopBy === i + 1"
      @mousedown.prevent
      @click="by(i)"
    >
      <v-icon :icon="w.fits ? mdiCheck : w.why ? mdiClose : mdiMinus" size="16" />
      <span class="says"
        >{{ w.says || 'No way' }}<small v-if="w.why" class="quiet">{{ w.why }}</small></span
      >
    </v-btn>
  </div>
</template>

<style scoped>
.hops {
  position: absolute;
  right: 12px;
  top: 92px;
  width: 270px;
  max-height: 45%;
  overflow-y: auto;
  z-index: 4;
  padding: 10px 8px;
}
h4 {
  margin: 0 8px 4px;
}
p {
  margin: 0 8px;
}
.way.v-btn {
  width: 100%;
  height: auto;
  min-height: 30px;
  padding: 4px 8px;
  justify-content: flex-start;
  text-align: left;
  white-space: normal;
}
.way :deep(.v-btn__content) {
  gap: 8px;
  white-space: normal;
}
.way.on {
  background: rgba(var(--v-theme-primary), 0.18);
}
.fits .v-icon {
  color: rgb(var(--v-theme-secondary));
}
.says small {
  display: block;
  font-size: 11.5px;
}
</style>
