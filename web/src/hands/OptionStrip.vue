<script setup lang="ts">
import { ref } from 'vue'
import AngleField from '../shell/fields/AngleField.vue'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import HandName from '../shell/fields/HandName.vue'
import LengthField from '../shell/fields/LengthField.vue'
import OneOf from '../shell/fields/OneOf.vue'
import WholeField from '../shell/fields/WholeField.vue'
import type { Field } from './fields'

/** The options of the tool in hand. Done: the keys go back to the drawing. */
defineProps<{ fields: Field[] }>()
const emit = defineEmits<{ done: []; back: [] }>()
const names = ref<InstanceType<typeof HandName>[]>([])
defineExpose({ select: () => names.value[0]?.select() })
</script>

<template>
  <template v-for="(f, i) in fields" :key="`${f.as} ${i}`">
    <span
      v-if="f.as === 'words'"
      :class="{ mono: f.mono, quiet: f.quiet, wrong: f.wrong }"
      :role="f.said || f.wrong ? 'status' : undefined"
      :aria-label="f.said"
      >{{ f.text }}</span
    >
    <LengthField
      v-else-if="f.as === 'length'"
      :label="f.label"
      :value="f.value"
      :empty="f.empty"
      tight
      @keep="f.keep"
      @entered="f.enter?.()"
    />
    <AngleField v-else-if="f.as === 'angle'" :label="f.label" :value="f.value" tight @keep="f.keep" />
    <WholeField
      v-else-if="f.as === 'whole'"
      :label="f.label"
      :value="f.value"
      :least="f.least"
      :most="f.most"
      tight
      @keep="f.keep"
    />
    <v-slider
      v-else-if="f.as === 'share'"
      class="share"
      :model-value="f.value"
      :label="f.label"
      :aria-label="f.label"
      :min="0"
      :max="100"
      :step="5"
      density="compact"
      hide-details
      @end="f.keep($event)"
    />
    <HandName
      v-else-if="f.as === 'name'"
      ref="names"
      :label="f.label"
      :value="f.value"
      :names="f.names"
      :empty="f.empty"
      @type="f.type"
      @done="emit('done')"
      @back="emit('back')"
    />
    <v-checkbox
      v-else-if="f.as === 'tick'"
      :model-value="f.value"
      :label="f.label"
      hide-details
      @update:model-value="(f.keep(!!$event), emit('done'))"
    />
    <OneOf
      v-else-if="f.as === 'one'"
      :label="f.label"
      :value="f.value"
      :options="f.options"
      :mono="f.mono"
      @keep="(f.keep($event), emit('done'))"
    />
    <ChoiceField
      v-else-if="f.as === 'choice'"
      :label="f.label"
      tight
      :value="f.value as string"
      :options="f.options as { value: string; title: string; swatch?: string }[]"
      @keep="(f.keep($event), emit('done'))"
    />
    <v-btn v-else size="small" variant="outlined" :title="f.title" @click="f.press()">{{ f.text }}</v-btn>
  </template>
</template>

<style scoped>
.share {
  width: 190px;
}
.wrong {
  color: rgb(var(--v-theme-error));
}
</style>
