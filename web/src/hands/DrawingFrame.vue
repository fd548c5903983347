<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import Footline from '../shell/Footline.vue'
import { useTaste } from '../shell/taste'
import ToolShelf from '../shell/ToolShelf.vue'
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
const taste = useTaste()
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
        <div v-if="ed.state.warning" class="float warning" role="alert">{{ ed.state.warning }}</div>
        <ToolShelf v-if="!away" :tools="tools" :current="ed.state.tool" @take="hand.take">
          <template v-if="hand.fields.value.length" #default>
            <OptionStrip ref="options" :fields="hand.fields.value" @done="emit('focus')" @back="back" />
          </template>
        </ToolShelf>
      </div>
      <slot name="side" />
    </div>
    <Footline
      :at="hand.at.value"
      :from="hand.lastClick.value"
      :grid="grid"
      :grid-on="taste.gridOn"
      :unit="taste.unit"
      :hint="hint ?? hand.hint.value"
      @grid="emit('grid')"
    />
  </div>
</template>

<style scoped>
.warning {
  position: absolute;
  top: 12px;
  left: 50%;
  transform: translateX(-50%);
  padding: 6px 14px;
  border-left: 3px solid rgb(var(--v-theme-error));
  z-index: 7;
}
</style>
