<script setup lang="ts" generic="V extends string | number | boolean">
/** One of a few, all seen at once as a row of buttons. */
defineProps<{
  label: string
  value: V
  options: readonly { value: V; title: string; swatch?: string; keys?: string }[]
  mono?: boolean
}>()
const emit = defineEmits<{ keep: [V] }>()
</script>

<template>
  <v-btn-toggle :model-value="value" :aria-label="label" role="radiogroup" @update:model-value="(v: V) => emit('keep', v)">
    <v-btn
      v-for="o in options"
      :key="String(o.value)"
      :value="o.value"
      :class="{ mono }"
      role="radio"
      :aria-checked="o.value === value"
      @click="o.value === value && emit('keep', o.value)"
    >
      <i v-if="o.swatch !== undefined" class="swatch" :style="{ background: o.swatch }" />{{ o.title }}
      <kbd v-if="o.keys">{{ o.keys }}</kbd>
    </v-btn>
  </v-btn-toggle>
</template>
