<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import ToolShelf from '../shell/ToolShelf.vue'
import Footline from './Footline.vue'
import HandWarning from './HandWarning.vue'
import OptionStrip from './OptionStrip.vue'
import type { Stage } from './stage'
import type { useStage } from './useStage'

/**
 * What the page of every drawing has: the paper with what lies on it, what the hand is warned of, the shelf of tools with the options of the one in
 * hand, details beside it, and the line below. The page names it "strip", since useStage leads the hand to its options.
 */
const props = defineProps<{
  ed: Stage & { state: { tool: string; warning: string } }
  hand: ReturnType<typeof useStage>
  grid: number
  /** Something else than the drawing is seen: the tools are out of the way. */
  away?: boolean
  hint?: string
}>()
const emit = defineEmits<{ grid: []; focus: [] }>()
const options = useTemplateRef<{ select: () => void }>('options')
const tools = computed(() => props.ed.tools.filter((t) => t.keys))
function back() {
  emit('focus')
  props.ed.back()
}
defineExpose({ select: () => options.value?.select() })
</script>

<template>
  <div class="drawing-page">
    <div class="drawing-middle">
      <div class="drawing-paper">
        <slot />
        <div class="drawing-tools">
          <HandWarning :state="ed.state" />
          <template v-if="!away">
            <div v-if="hand.fields.value.length" class="float strip" role="group" aria-label="Options">
              <OptionStrip ref="options" :fields="hand.fields.value" @done="emit('focus')" @back="back" />
            </div>
            <ToolShelf :tools="tools" :current="ed.state.tool" @take="hand.take" />
          </template>
        </div>
      </div>
      <slot name="side" />
    </div>
    <Footline :hand="hand" :grid="grid" :hint="hint" @grid="emit('grid')" />
  </div>
</template>

<style scoped>
.drawing-tools {
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
.strip {
  pointer-events: auto;
  display: flex;
  align-items: center;
  gap: 6px 12px;
  padding: 6px 12px;
  max-width: 96%;
  flex-wrap: wrap;
}
.strip :deep(.v-checkbox) {
  flex: none;
}
</style>
