<script setup lang="ts">
import { mdiAccountMultipleOutline } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { person } from '../live/person'
import type { Project } from '../live/project'
import { say } from './notices'
import WhoPanel from './WhoPanel.vue'

/** A quiet count of who is in the project; a press says who one is. */
const props = defineProps<{ project: Project }>()
const naming = ref(false)
const others = computed(() => props.project.people.value.filter((p) => !p.you))
const title = computed(() =>
  others.value.length
    ? `Here too: ${others.value.map((p) => p.name || 'somebody without a name').join(', ')}. You are ${person.name || 'without a name'}.`
    : '',
)
let asked = false
watch(
  () => others.value.length,
  (n) => {
    if (!n || person.name || asked) return
    asked = true // once
    say('Somebody else is in this project too.', 'plain', { label: 'Say who you are', run: open })
  },
)
const open = () => (naming.value = true)
</script>

<template>
  <v-btn
    v-if="others.length"
    size="small"
    class="people"
    :prepend-icon="mdiAccountMultipleOutline"
    :title="title"
    :aria-label="`${others.length + 1} people. ${title}`"
    @click="open"
    >{{ others.length + 1 }}</v-btn
  >
  <WhoPanel v-model="naming" :project="project" why="Others in the project see this name beside what you do." />
</template>
