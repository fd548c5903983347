<script setup lang="ts">
/** A small button of an icon alone, in a line of a list; what it does is its label. */
defineProps<{ icon: string; label: string; title?: string; disabled?: boolean }>()
</script>

<template>
  <v-btn :icon="icon" size="x-small" variant="text" :disabled="disabled" :title="title ?? label" :aria-label="label" />
</template>
