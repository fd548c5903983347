<script setup lang="ts">
/** What the program says of what the hand is about to do: above the tools, where nothing else lies. */
defineProps<{ state: { warning: string } }>()
</script>

<template>
  <div v-if="state.warning" class="float warning" role="alert">{{ state.warning }}</div>
</template>

<style scoped>
.warning {
  padding: 6px 14px;
  border-left: 3px solid rgb(var(--v-theme-error));
}
</style>
