<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import type { VTextField } from 'vuetify/components'
import { person } from '../live/person'
import type { Project } from '../live/project'
import { complain } from './notices'

/** Asks who somebody is. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ project: Project; why: string; required?: boolean }>()
const emit = defineEmits<{ said: [string] }>()
const name = ref('')
const input = ref<InstanceType<typeof VTextField>>()
watch(
  open,
  (is) => {
    if (!is) return
    name.value = person.name
    void nextTick(() => setTimeout(() => input.value?.select(), 40))
  },
  { immediate: true },
)
function keep() {
  const said = name.value.trim()
  if (props.required && !said) return
  open.value = false
  void props.project.introduce(said).then(() => emit('said', said), complain)
}
</script>

<template>
  <v-dialog v-model="open" width="380" aria-label="Who you are">
    <form class="float who" @submit.prevent="keep">
      <h3>Who are you?</h3>
      <p class="quiet">{{ why }} It is remembered in this browser.</p>
      <v-text-field ref="input" v-model="name" maxlength="40" aria-label="Your name" hide-details />
      <div class="acts">
        <v-btn @click="open = false">Not now</v-btn>
        <v-btn type="submit" color="primary" variant="flat" :disabled="required && !name.trim()">That is me</v-btn>
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
