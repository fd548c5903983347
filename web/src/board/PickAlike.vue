<script setup lang="ts">
import { ref } from 'vue'
import type { Likeness } from '../live/wire.gen'
import { complain } from '../shell/notices'
import type { BoardEditor } from './editor'

/** Picks what else on the board has a property of what is picked. */
const props = defineProps<{ editor: BoardEditor; id: number }>()
const list = ref<Likeness[]>([])
async function open(is: boolean) {
  if (!is) return
  list.value = (await props.editor.project.question('alike', { id: props.id }).catch(complain)) || []
}
function take(l: Likeness) {
  props.editor.pickOnly([props.id, ...l.ids])
}
</script>

<template>
  <v-menu @update:model-value="open">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" size="small" variant="outlined">Pick alike …</v-btn>
    </template>
    <v-list density="compact" aria-label="Pick what has the same">
      <v-list-item v-for="l in list" :key="l.by" :disabled="l.ids.length < 2" @click="take(l)">
        <span class="by">{{ l.by }}</span> <span class="mono">{{ l.is || 'none' }}</span>
        <template #append>
          <span class="mono quiet count">{{ l.ids.length }}</span>
        </template>
      </v-list-item>
    </v-list>
  </v-menu>
</template>

<style scoped>
.by {
  display: inline-block;
  min-width: 130px;
}
.count {
  margin-left: 18px;
}
</style>
