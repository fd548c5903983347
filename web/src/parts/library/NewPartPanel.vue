<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Project } from '../../live/project'
import type { Listed } from '../../live/wire.gen'
import { complain } from '../../shell/notices'
import PinListPanel from '../symbol/PinListPanel.vue'

/** A new part of the project: its name, and its pins from the datasheet's table or drawn later. */
const props = defineProps<{ project: Project }>()
const emit = defineEmits<{ made: [string]; footprint: []; close: [] }>()
const name = ref('')
const prefix = ref('U')
const description = ref('')
const pasting = ref(false)
const ok = computed(() => name.value.trim() && prefix.value.trim())
async function make(pins: Listed[] = [], layout = 'type') {
  const n = name.value.trim()
  const part = { id: 0, name: n, description: description.value.trim(), prefix: prefix.value.trim(), symbol: '', footprint: '' }
  const done = await props.project.edit('putLibraryPart', { part, ...(pins.length ? { pins, layout } : {}) }).catch(complain)
  if (done !== undefined) emit('made', n)
}
</script>

<template>
  <PinListPanel v-if="pasting" :project="project" verb="Make the part" @take="make" @close="pasting = false" />
  <div v-else class="float panel" role="dialog" aria-label="New part" @keydown.esc.stop="emit('close')">
    <h3>New part</h3>
    <v-text-field
      v-model="name"
      label="Name"
      aria-label="Name of the part"
      autofocus
      hide-details
      @keydown.enter="ok && make()"
    />
    <v-text-field
      v-model="prefix"
      label="Prefix of its designators"
      aria-label="Prefix of its designators"
      class="mono"
      hide-details
    />
    <v-text-field v-model="description" label="What it is" aria-label="What it is" hide-details />
    <p class="quiet">
      It belongs to this project. Its symbol begins with the datasheet’s table of pins, or with an empty body to draw them at.
    </p>
    <div class="acts">
      <v-btn color="primary" variant="flat" :disabled="!ok" @click="pasting = true">Paste its pins</v-btn>
      <v-btn variant="outlined" :disabled="!ok" @click="make()">Draw its pins</v-btn>
      <v-btn variant="text" @click="emit('footprint')">Only a footprint</v-btn>
      <v-btn variant="text" @click="emit('close')">Close</v-btn>
    </div>
  </div>
</template>

<style scoped>
.panel {
  position: absolute;
  left: 50%;
  top: 40%;
  transform: translate(-50%, -50%);
  width: 420px;
  padding: 16px;
  z-index: 20;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
