<script setup lang="ts">
import { ref, watch } from 'vue'
import { format, parse } from '../live/units'
import { useTaste } from './taste'

/** A field for a length: units and arithmetic, Enter keeps, Esc gives the old value back, dragging the label scrubs. */
const props = defineProps<{
  label: string
  value: number | null
  step?: number
  disabled?: boolean
  name?: string
  empty?: string
}>()
const emit = defineEmits<{ keep: [number] }>()
const taste = useTaste()
const text = ref('')
const trouble = ref('')
const editing = ref(false)
const show = () => (props.value === null ? '' : format(props.value, taste.unit, taste.unit === 'mm' ? 4 : 5))
watch(
  () => [props.value, taste.unit],
  () => {
    if (!editing.value) text.value = show()
  },
  { immediate: true },
)

function keep() {
  if (!editing.value) return
  editing.value = false
  if (text.value.trim() === show()) {
    text.value = show()
    trouble.value = ''
    return
  }
  try {
    const v = parse(text.value, taste.unit)
    trouble.value = ''
    text.value = format(v, taste.unit, 5)
    if (v !== props.value) emit('keep', v)
  } catch (e) {
    trouble.value = (e as Error).message
    editing.value = true
  }
}
function giveBack(e: KeyboardEvent) {
  editing.value = false
  trouble.value = ''
  text.value = show()
  ;(e.target as HTMLElement).blur()
}
function leave() {
  if (!editing.value) return
  keep()
  if (trouble.value) {
    editing.value = false
    text.value = show()
  }
}
let from: { x: number; v: number } | null = null
function grab(e: PointerEvent) {
  if (props.value === null || props.disabled) return
  from = { x: e.clientX, v: props.value }
  ;(e.target as HTMLElement).setPointerCapture(e.pointerId)
}
function scrub(e: PointerEvent) {
  if (!from) return
  text.value = format(from.v + Math.round((e.clientX - from.x) / 4) * (props.step ?? 100_000), taste.unit, 5)
}
function drop() {
  if (!from) return
  const v = parse(text.value, taste.unit)
  if (v !== from.v) emit('keep', v)
  from = null
}
</script>

<template>
  <label class="length" :class="{ bad: trouble }">
    <span class="name" @pointerdown="grab" @pointermove="scrub" @pointerup="drop">{{ label }}</span>
    <input
      v-model="text"
      class="mono"
      :disabled="disabled"
      :placeholder="value === null ? (empty ?? 'mixed') : ''"
      :aria-label="label"
      :aria-invalid="!!trouble"
      :data-test="name"
      @focus="editing = true"
      @keydown.enter.prevent="keep"
      @keydown.esc.stop="giveBack"
      @blur="leave"
    />
    <span class="unit quiet">{{ taste.unit }}</span>
    <span v-if="trouble" class="trouble" role="alert">{{ trouble }}</span>
  </label>
</template>

<style scoped>
.length {
  display: grid;
  grid-template-columns: 84px 1fr 26px;
  align-items: center;
  gap: 6px;
  position: relative;
}
.name {
  cursor: ew-resize;
  user-select: none;
}
input {
  min-width: 0;
  width: 100%;
  padding: 3px 7px;
  border-radius: 6px;
  border: 1px solid rgba(var(--v-border-color), 0.4);
  background: rgba(var(--v-border-color), 0.07);
  color: inherit;
  text-align: right;
  font-size: 12px;
}
.bad input {
  border-color: rgb(var(--v-theme-error));
}
.trouble {
  grid-column: 1 / -1;
  color: rgb(var(--v-theme-error));
  font-size: 12px;
}
.unit {
  font-size: 11px;
}
</style>
