<script setup lang="ts">
/** A stage's tools, at the bottom; the options of the tool in hand stand above it. */
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
  <div class="shelf-place">
    <div v-if="$slots.default" class="float strip"><slot /></div>
    <div class="float shelf" role="toolbar" aria-label="Tools">
      <button
        v-for="t in tools"
        :key="t.id"
        class="tool"
        :class="{ on: t.id === current }"
        :aria-pressed="t.id === current"
        :title="t.keys ? `${t.name} (${t.keys})` : t.name"
        :data-tool="t.id"
        @click="emit('take', t.id)"
      >
        <v-icon :icon="t.icon" size="19" />
        <span>{{ t.name }}</span>
      </button>
    </div>
  </div>
</template>

<style scoped>
.shelf-place {
  position: absolute;
  bottom: 12px;
  left: 0;
  right: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 8px;
  pointer-events: none;
  z-index: 5;
}
.shelf,
.strip {
  pointer-events: auto;
}
.shelf {
  display: flex;
  padding: 4px;
  gap: 2px;
}
.strip {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 12px;
  max-width: 92%;
  flex-wrap: wrap;
}
.tool {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 2px;
  min-width: 52px;
  padding: 5px 5px 4px;
  border: 0;
  border-radius: 7px;
  background: none;
  color: inherit;
  font:
    500 12px Barlow,
    sans-serif;
  cursor: pointer;
}
.tool:hover {
  background: rgba(var(--v-border-color), 0.14);
}
.tool.on {
  background: rgba(var(--v-theme-primary), 0.22);
  box-shadow: inset 0 -2px 0 rgb(var(--v-theme-primary));
}
</style>
