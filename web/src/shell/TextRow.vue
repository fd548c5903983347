<script setup lang="ts">
import { ref, watch } from 'vue'

const props = defineProps<{ label: string; value: string; mixed?: boolean; mono?: boolean; name?: string; options?: string[] }>()
const emit = defineEmits<{ keep: [string] }>()
const text = ref(props.value)
watch(
  () => props.value,
  (v) => (text.value = v),
)
const keep = () => {
  if (text.value !== props.value) emit('keep', text.value)
}
const back = (e: KeyboardEvent) => {
  text.value = props.value
  ;(e.target as HTMLElement).blur()
}
const blur = (e: Event) => (e.target as HTMLElement).blur()
</script>

<template>
  <label class="row">
    <span>{{ label }}</span>
    <select
      v-if="options"
      :value="value"
      :aria-label="label"
      :data-test="name"
      @change="emit('keep', ($event.target as HTMLSelectElement).value)"
    >
      <option v-for="o in options" :key="o" :value="o">{{ o || 'none' }}</option>
    </select>
    <input
      v-else
      v-model="text"
      :class="{ mono }"
      :placeholder="mixed ? 'mixed' : ''"
      :aria-label="label"
      :data-test="name"
      @keydown.enter="blur"
      @keydown.esc.stop="back"
      @blur="keep"
    />
  </label>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 84px 1fr;
  align-items: center;
  gap: 6px;
}
input,
select {
  min-width: 0;
  width: 100%;
  padding: 3px 7px;
  border-radius: 6px;
  border: 1px solid rgba(var(--v-border-color), 0.4);
  background: rgba(var(--v-border-color), 0.07);
  color: inherit;
  font-size: 12.5px;
}
option {
  background: rgb(var(--v-theme-surface));
}
</style>
