<script setup lang="ts">
import { nextTick, onMounted, ref } from 'vue'

/** What is typed into a cell of a table, on the cell. */
defineProps<{
  label: string
  options?: string[]
  mono?: boolean
  wrong: string
  place: { left: number; top: number; width: number; height: number }
}>()
const text = defineModel<string | null>({ required: true })
const emit = defineEmits<{ keep: ['down' | 'right']; leave: []; back: [] }>()
const root = ref<HTMLDivElement>()
onMounted(() => {
  const typed = text.value
  void nextTick(() => {
    const i = root.value?.querySelector<HTMLInputElement>('input:not([type=hidden])')
    i?.focus({ preventScroll: true })
    if ((typed?.length ?? 0) !== 1) i?.select()
  })
})
function press(e: KeyboardEvent) {
  e.stopPropagation()
  if (e.key === 'Enter' || e.key === 'Tab') {
    e.preventDefault()
    void nextTick(() => emit('keep', e.key === 'Tab' ? 'right' : 'down')) // the library takes what is picked in its list first
  } else if (e.key === 'Escape') {
    e.preventDefault()
    emit('back')
  }
}
const left = (e: FocusEvent) => {
  const to = e.relatedTarget as HTMLElement | null
  if (!root.value?.contains(to) && !to?.closest('.v-overlay')) emit('leave')
}
</script>

<template>
  <div
    ref="root"
    class="editor"
    role="row"
    :style="{ left: place.left + 'px', top: place.top + 'px', width: place.width + 'px' }"
    @keydown="press"
    @focusout="left"
    @pointerdown.stop
    @dblclick.stop
  >
    <div role="gridcell">
      <v-combobox
        v-if="options"
        v-model="text"
        :items="options"
        :aria-label="label"
        :class="{ mono }"
        :error-messages="wrong"
        autocomplete="off"
      />
      <v-text-field v-else v-model="text" :aria-label="label" :class="{ mono }" :error-messages="wrong" autocomplete="off" />
    </div>
  </div>
</template>

<style scoped>
.editor {
  position: absolute;
  z-index: 1;
  --gt-control: 27px;
  background: rgb(var(--v-theme-background));
}
.editor :deep(.v-messages) {
  padding: 3px 8px;
  background: rgb(var(--v-theme-surface));
}
</style>
