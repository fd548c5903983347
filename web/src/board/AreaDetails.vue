<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import type { Kinds } from '../live/wire.gen'
import TextField from '../shell/fields/TextField.vue'
import { complain } from '../shell/notices'
import { thingWords } from './draw'
import type { BoardEditor } from './editor'
import LayerTicks from './LayerTicks.vue'

/** An area of the board: its name, what it keeps out, on which layers. */
const props = defineProps<{ project: Project; editor: BoardEditor; area: Kinds['ruleArea'] }>()
const put = (f: Partial<Kinds['ruleArea']>) => props.project.edit('putArea', { area: { ...props.area, ...f } }).catch(complain)
const kept = computed(() => props.area.keepOut ?? [])
/** None named are all. */
const layers = computed(() => (props.area.layers?.length ? props.area.layers : props.editor.copper.map((l) => l.id)))
function keep(kind: string, on: boolean) {
  put({ keepOut: on ? [...kept.value, kind] : kept.value.filter((k) => k !== kind) })
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
  <LayerTicks :editor="editor" :layers="layers" @keep="put({ layers: $event.length === editor.copper.length ? [] : $event })" />
  <p class="quiet">Drag its corners to shape it, a side’s middle to make another, with Shift to bend the side.</p>
</template>
