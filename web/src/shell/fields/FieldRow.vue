<script setup lang="ts">
/** A field with its label on the left, its unit on the right and what is wrong with it below. */
defineProps<{ label: string; unit?: string; trouble?: string; scrubs?: boolean; tight?: boolean }>()
defineEmits<{ grab: [PointerEvent]; drag: [PointerEvent]; drop: []; give: [] }>()
</script>

<template>
  <div class="field-row" :class="{ tight, united: unit !== undefined }">
    <span
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
    <span v-if="unit !== undefined" class="field-unit quiet" aria-hidden="true">{{ unit }}</span>
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
.field-row.united {
  grid-template-columns: 88px minmax(0, 1fr) 26px;
}
.field-row.tight {
  grid-template-columns: auto minmax(90px, auto);
}
.field-row.tight.united {
  grid-template-columns: auto 96px auto;
}
.field-label {
  line-height: 1.25;
  user-select: none;
}
.field-label.scrubs {
  cursor: ew-resize;
}
.field-unit {
  font-size: 11px;
}
.field-trouble {
  grid-column: 1 / -1;
  padding-top: 2px;
  color: rgb(var(--v-theme-error));
  font-size: 12px;
}
</style>
