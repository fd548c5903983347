<script setup lang="ts">
import { onMounted, ref } from 'vue'

/** A panel over the middle of a page. It takes the keys, and Esc closes it; what it decides stands in its last row. */
defineProps<{ label: string; title?: string; width: number }>()
const emit = defineEmits<{ close: [] }>()
const panel = ref<HTMLElement>()
/** What is in it may have taken the keys already. */
onMounted(() => panel.value?.contains(document.activeElement) || panel.value?.focus())
/** What is marked as wrong in a field is mended before the panel does what it is for. */
function decide(e: MouseEvent) {
  const act = (e.target as HTMLElement).closest('button')
  const wrong = panel.value?.querySelector<HTMLInputElement>('.v-input--error input')
  if (!act?.classList.contains('bg-primary') || !wrong) return
  e.stopPropagation()
  e.preventDefault()
  wrong.focus()
  wrong.select()
}
</script>

<template>
  <div
    ref="panel"
    class="float panel"
    role="dialog"
    tabindex="-1"
    :aria-label="label"
    :style="{ width: width + 'px' }"
    @keydown.esc.stop="emit('close')"
  >
    <h3>{{ title ?? label }}</h3>
    <slot />
    <div class="acts" @click.capture="decide"><slot name="acts" /></div>
  </div>
</template>

<style scoped>
.panel {
  position: absolute;
  left: 50%;
  top: 50%;
  transform: translate(-50%, -50%);
  max-width: 96%;
  max-height: 92%;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 16px;
  z-index: 20;
}
.panel:focus {
  outline: none;
}
.acts {
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
