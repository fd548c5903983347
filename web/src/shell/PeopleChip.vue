<script setup lang="ts">
import { mdiAccountMultipleOutline } from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import type { VTextField } from 'vuetify/components'
import { person } from '../live/person'
import type { Project } from '../live/project'
import { complain, say } from './notices'

/** A quiet count of who is in the project; a press says who one is. */
const props = defineProps<{ project: Project }>()
const naming = ref(false)
const name = ref('')
const input = ref<InstanceType<typeof VTextField>>()
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
function open() {
  naming.value = true
  name.value = person.name
  void nextTick(() => setTimeout(() => input.value?.select(), 40))
}
function keep() {
  naming.value = false
  props.project.introduce(name.value).catch(complain)
}
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
  <v-dialog v-model="naming" width="380" aria-label="Who you are">
    <form class="float who" @submit.prevent="keep">
      <h3>Who are you?</h3>
      <p class="quiet">Others in the project see this name beside what you do. It is remembered in this browser.</p>
      <v-text-field ref="input" v-model="name" maxlength="40" aria-label="Your name" hide-details />
      <div class="acts">
        <v-btn @click="naming = false">Not now</v-btn>
        <v-btn type="submit" color="primary" variant="flat">That is me</v-btn>
      </div>
    </form>
  </v-dialog>
</template>

<style scoped>
.who {
  padding: 18px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.acts {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
