<script setup lang="ts">
import { computed } from 'vue'
import type { Project } from '../live/project'
import type { Teardrops } from '../live/wire.gen'
import LengthField from '../shell/fields/LengthField.vue'
import WholeField from '../shell/fields/WholeField.vue'
import { complain } from '../shell/notices'

/** How tracks widen towards pads and vias. */
const props = defineProps<{ project: Project }>()
const like = computed(() => (void props.project.docTick.value, props.project.board.teardrops))
const things = [
  { value: 'surfacePad', title: 'surface pads' },
  { value: 'throughPad', title: 'pads with holes' },
  { value: 'via', title: 'vias' },
] as const
const put = (teardrops: Teardrops | null) => props.project.edit('setTeardrops', { teardrops }).catch(complain)
const set = (more: Partial<Teardrops>) => put({ ...like.value!, ...more })
/** Zeros are the usual ones. */
const usual: Teardrops = { length: 0, breadth: 0, most: 0, on: [] }
function tick(thing: (typeof things)[number]['value'], on: boolean) {
  const list = things.map((t) => t.value).filter((t) => (t === thing ? on : like.value?.on.includes(t)))
  return put(list.length ? { ...(like.value ?? usual), on: list } : null)
}
</script>

<template>
  <h3>Teardrops at</h3>
  <v-checkbox
    v-for="t in things"
    :key="t.value"
    :label="t.title"
    :model-value="!!like?.on.includes(t.value)"
    hide-details
    density="compact"
    @update:model-value="tick(t.value, !!$event)"
  />
  <template v-if="like">
    <WholeField
      label="Length, % of the pad"
      :value="like.length / 10"
      :least="10"
      :most="300"
      @keep="set({ length: $event * 10 })"
    />
    <WholeField
      label="Breadth, % of the pad"
      :value="like.breadth / 10"
      :least="20"
      :most="100"
      @keep="set({ breadth: $event * 10 })"
    />
    <LengthField label="At most" :value="like.most" :step="50_000" @keep="set({ most: $event })" />
    <p class="quiet">They give way to everything of other nets, and follow tracks that move.</p>
  </template>
</template>
