<script setup lang="ts">
import { ref } from 'vue'

/** Lets a person choose files; what is shown for it is given by whoever uses it. */
defineProps<{ label: string; accept: string; several?: boolean }>()
const emit = defineEmits<{ files: [File[]] }>()
const input = ref<HTMLInputElement>()
const choose = () => input.value?.click()
function chosen() {
  const files = [...(input.value?.files ?? [])]
  if (input.value) input.value.value = '' // the same one can be chosen again
  if (files.length) emit('files', files)
}
defineExpose({ choose })
</script>

<template>
  <slot :choose="choose" />
  <input ref="input" type="file" hidden :accept="accept" :multiple="several" :aria-label="label" @change="chosen" />
</template>
