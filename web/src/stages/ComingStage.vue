<script setup lang="ts">
import { computed } from 'vue'
import { stageOf } from './stages'

const props = defineProps<{ stage: string }>()
const found = computed(() => stageOf(props.stage))
</script>

<template>
  <div class="coming">
    <span class="pad" />
    <h2>{{ found?.name ?? 'Not here' }}</h2>
    <p>{{ found?.coming ?? 'There is no stage at this address.' }}</p>
  </div>
</template>

<style scoped>
.coming {
  position: absolute;
  inset: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 12px;
  text-align: center;
}
.pad {
  width: 40px;
  height: 40px;
  border-radius: 50%;
  border: 6px solid rgb(var(--v-theme-primary));
}
p {
  max-width: 460px;
  font-size: 15px;
}
</style>
