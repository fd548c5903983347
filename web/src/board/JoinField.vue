<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import type { Kinds } from '../live/wire.gen'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import { complain } from '../shell/notices'
import { joinWays } from './pours'

/** How copper areas join vias, and the pads of parts. */
const props = defineProps<{ project: Project; ids: number[] }>()
const value = computed(() => {
  void props.project.docTick.value
  const all = props.ids.flatMap((id) => {
    const via = props.project.get('via', id)
    if (via) return [via.join ?? '']
    const p: Kinds['placed'] | undefined = props.project.get('placed', id)
    return p ? Object.keys(p.nets).map((pad) => p.joins?.[pad] ?? '') : []
  })
  const ways = [...new Set(all)]
  return ways.length === 1 ? ways[0] : ways.length ? null : ''
})
</script>

<template>
  <ChoiceField
    label="Areas join"
    :value="value"
    :options="joinWays"
    @keep="project.edit('setJoins', { ids, join: $event }).catch(complain)"
  />
</template>
