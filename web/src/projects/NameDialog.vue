<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Starts } from '../live/wire.gen'

/** Asks for a project's name and, for a new one, what it begins with. */
export interface Naming {
  title: string
  keep: string
  name: string
  start?: string // a template's key, or "copy:" and the id of an example
}
const props = defineProps<{ naming: Naming | null; starts: Starts | null; save: (n: Naming) => Promise<unknown> }>()
const emit = defineEmits<{ close: [] }>()
const name = ref('')
const start = ref('')
const trouble = ref('')
const busy = ref(false)
const input = ref<{ focus: () => void; select: () => void }>()
watch(
  () => props.naming,
  (n) => {
    if (!n) return
    name.value = n.name
    start.value = n.start ?? ''
    trouble.value = ''
    void nextTick(() => setTimeout(() => name.value === n.name && input.value?.select(), 40)) // what is typed meanwhile stays
  },
  { immediate: true },
)
const choices = computed(() => [
  ...(props.starts?.templates ?? []).map((t) => ({ value: t.key, title: t.name, text: t.text })),
  ...(props.starts?.examples ?? []).map((e) => ({
    value: `copy:${e.id}`,
    title: `A copy of ${e.name}`,
    text: `Example with ${e.parts} parts.`,
  })),
])
const text = computed(() => choices.value.find((c) => c.value === start.value)?.text)
async function keep() {
  if (!props.naming || busy.value) return
  busy.value = true
  try {
    await props.save({ ...props.naming, name: name.value, start: props.naming.start === undefined ? undefined : start.value })
    emit('close')
  } catch (e) {
    trouble.value = (e as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog :model-value="!!naming" width="440" :aria-label="naming?.title ?? 'Name'" @update:model-value="emit('close')">
    <v-card v-if="naming" :title="naming.title">
      <v-card-text>
        <form id="naming" @submit.prevent="keep">
          <v-text-field
            ref="input"
            v-model="name"
            label="Name"
            aria-label="Name of the project"
            :error-messages="trouble"
            autofocus
            autocomplete="off"
          />
          <template v-if="naming.start !== undefined">
            <v-select v-model="start" class="start" label="Begins with" aria-label="Begins with" :items="choices" />
            <p v-if="text" class="quiet said">{{ text }}</p>
          </template>
        </form>
      </v-card-text>
      <v-card-actions>
        <v-btn @click="emit('close')">Leave it</v-btn>
        <v-btn color="primary" variant="flat" type="submit" form="naming" :loading="busy">{{ naming.keep }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.start {
  margin-top: 16px;
}
.said {
  margin-top: 8px;
}
</style>
