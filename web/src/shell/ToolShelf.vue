<script setup lang="ts">
/** A stage's tools. */
export interface Tool {
  id: string
  name: string
  icon: string
  keys?: string
}
defineProps<{ tools: Tool[]; current: string }>()
const emit = defineEmits<{ take: [string] }>()
</script>

<template>
  <div class="float shelf" role="toolbar" aria-label="Tools">
    <v-btn
      v-for="t in tools"
      :key="t.id"
      class="tool"
      stacked
      :active="t.id === current"
      :aria-pressed="t.id === current"
      :aria-label="t.name"
      :title="t.keys ? `${t.name} (${t.keys})` : t.name"
      @click="emit('take', t.id)"
    >
      <v-icon :icon="t.icon" size="19" />
      <span class="word">{{ t.name }}</span>
    </v-btn>
  </div>
</template>

<style scoped>
.shelf {
  pointer-events: auto;
  display: flex;
  padding: 4px;
  gap: 2px;
}
/* where the paper is narrow the tools draw together, and where that is not enough they stand in two rows: they keep their words */
@container paper (max-width: 770px) {
  .shelf {
    flex-wrap: wrap;
    justify-content: center;
    gap: 0;
  }
  .shelf .tool.v-btn--stacked {
    min-width: 42px;
    padding: 0 3px;
    font-size: 11px;
    letter-spacing: 0;
  }
}
.tool.v-btn--stacked {
  min-width: 54px;
  height: 46px;
  padding: 0 6px;
  font-size: 12px;
  --v-btn-height: 40px;
}
.tool.v-btn--active {
  background: rgba(var(--v-theme-primary), 0.2);
  box-shadow: inset 0 -2px 0 rgb(var(--v-theme-primary));
}
</style>
