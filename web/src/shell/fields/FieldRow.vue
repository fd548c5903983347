<script setup lang="ts">
/** A field with its label on the left and what is wrong with it below. */
defineProps<{ label: string; trouble?: string; scrubs?: boolean; tight?: boolean; bare?: boolean }>()
defineEmits<{ grab: [PointerEvent]; drag: [PointerEvent]; drop: []; give: [] }>()
</script>

<template>
  <div class="field-row" :class="{ tight, bare }">
    <span
      v-if="!bare"
      class="field-label"
      :class="{ scrubs }"
      :title="scrubs ? 'Drag to change' : undefined"
      aria-hidden="true"
      @pointerdown="$emit('grab', $event)"
      @pointermove="$emit('drag', $event)"
      @pointerup="$emit('drop')"
      @pointercancel="$emit('give')"
      >{{ label }}</span
    >
    <slot />
    <span v-if="trouble" class="field-trouble" role="alert">{{ trouble }}</span>
  </div>
</template>

<style>
.field-row {
  display: grid;
  grid-template-columns: 88px minmax(0, 1fr);
  align-items: center;
  column-gap: 8px;
}
.field-row.tight {
  grid-template-columns: auto minmax(104px, auto);
}
.field-row.bare {
  grid-template-columns: minmax(0, 1fr);
}
.field-label {
  line-height: 1.25;
  user-select: none;
}
.field-label.scrubs {
  cursor: ew-resize;
}
.field-trouble {
  grid-column: 1 / -1;
  padding-top: 2px;
  color: rgb(var(--v-theme-error));
  font-size: 12px;
}
</style>
