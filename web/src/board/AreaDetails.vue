<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import type { Kinds } from '../live/wire.gen'
import TextField from '../shell/fields/TextField.vue'
import { complain } from '../shell/notices'
import { thingWords } from './draw'
import type { BoardEditor } from './editor'

/** An area of the board: its name, what it keeps out, on which layers. */
const props = defineProps<{ project: Project; editor: BoardEditor; area: Kinds['ruleArea'] }>()
const put = (f: Partial<Kinds['ruleArea']>) => props.project.edit('putArea', { area: { ...props.area, ...f } }).catch(complain)
const kept = computed(() => props.area.keepOut ?? [])
const layers = computed(() => props.area.layers ?? [])
function keep(kind: string, on: boolean) {
  put({ keepOut: on ? [...kept.value, kind] : kept.value.filter((k) => k !== kind) })
}
function layer(id: number, on: boolean) {
  const all = props.editor.copper.map((l) => l.id)
  const now = layers.value.length ? layers.value : all
  const next = on ? [...now, id] : now.filter((l) => l !== id)
  if (next.length) put({ layers: next.length === all.length ? [] : all.filter((l) => next.includes(l)) })
}
</script>

<template>
  <h3>Area</h3>
  <TextField label="Name" :value="area.name" @keep="put({ name: $event })" />
  <h4>Keeps out</h4>
  <v-checkbox
    v-for="(words, kind) in thingWords"
    :key="kind"
    :label="words"
    :model-value="kept.includes(kind)"
    hide-details
    density="compact"
    @update:model-value="keep(kind, !!$event)"
  />
  <h4>On</h4>
  <v-checkbox
    v-for="l in editor.copper"
    :key="l.id"
    :label="l.name"
    :model-value="!layers.length || layers.includes(l.id)"
    :disabled="layers.length === 1 && layers.includes(l.id)"
    hide-details
    density="compact"
    @update:model-value="layer(l.id, !!$event)"
  />
  <p class="quiet">Drag its corners to shape it, a side’s middle to make another, with Shift to bend the side.</p>
</template>
