<script setup lang="ts">
import { onBeforeUnmount, onMounted } from 'vue'
import type { Project } from '../live/project'
import { keyName } from './keys'

/** Asks before an act that would join or part nets. Enter does it, Esc leaves all as it is. */
const props = defineProps<{ project: Project }>()
function press(e: KeyboardEvent) {
  const asked = props.project.asking.value
  const name = keyName(e)
  if (!asked || (name !== 'Enter' && name !== 'Esc')) return
  e.preventDefault()
  e.stopImmediatePropagation()
  if (name === 'Enter') asked.go()
  else asked.leave()
}
onMounted(() => window.addEventListener('keydown', press, true))
onBeforeUnmount(() => window.removeEventListener('keydown', press, true))
</script>

<template>
  <div v-if="project.asking.value" class="float ask" role="alertdialog" aria-label="Before this is done">
    <span>{{ project.asking.value.text }}</span>
    <v-btn size="small" color="primary" variant="flat" @click="project.asking.value.go()"
      >Do it all the same <kbd>Enter</kbd></v-btn
    >
    <v-btn size="small" @click="project.asking.value.leave()">Leave it <kbd>Esc</kbd></v-btn>
  </div>
</template>

<style scoped>
.ask {
  position: absolute;
  top: 58px;
  left: 50%;
  transform: translateX(-50%);
  max-width: 640px;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 10px 8px 14px;
  border-left: 3px solid rgb(var(--v-theme-error));
  z-index: 20;
}
.ask span {
  flex: 1;
}
kbd {
  margin-left: 6px;
  border-color: currentColor;
}
</style>
