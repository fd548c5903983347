<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed } from 'vue'
import type { Project } from '../live/project'
import { complain } from './notices'

/** Long work of the project that runs beside the hand: how far it is, and an end to it. */
const props = defineProps<{ project: Project }>()
const names: Record<string, string> = { check: 'Checking the board', files: 'Making the files', print: 'Printing', compare: 'Comparing', import: 'Importing', fill: 'Filling copper areas', act: 'Changing the design', search: 'Looking', picture: 'Drawing the board', model: 'Putting the board together', measure: 'Measuring the board' } // prettier-ignore
const job = computed(() => props.project.jobs.value[0])
const more = computed(() => props.project.jobs.value.length - 1)
</script>

<template>
  <div v-if="job" class="job" role="status">
    <span
      >{{ names[job.kind] ?? job.kind }}<template v-if="more > 0"> and {{ more }} more</template></span
    >
    <v-progress-linear
      :model-value="job.share * 100"
      :indeterminate="!job.share"
      color="primary"
      rounded
      aria-label="How much of it is done"
    />
    <v-btn :icon="mdiClose" size="x-small" aria-label="Stop it" title="Stop it" @click="project.stop(job.id).catch(complain)" />
  </div>
</template>

<style scoped>
.job {
  display: flex;
  align-items: center;
  gap: 8px;
  font-size: 12px;
  white-space: nowrap;
  min-width: 0;
}
.job span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.job .v-progress-linear {
  width: 56px;
  flex: none;
}
</style>
