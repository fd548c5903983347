<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { Project } from '../live/project'
import { type StageState, stages } from '../stages/stages'

const props = defineProps<{ project: Project }>()
const route = useRoute()

const along = computed(() => {
  const p = props.project
  return stages.map((s, i) => {
    const state = s.state(p)
    const count = s.counts ? p.openFindings.value.filter((f) => f.stage === s.id && f.severity !== 'todo').length : 0
    // the way above a stage that no longer agrees with what comes before it is broken
    return {
      ...s,
      state,
      count,
      link: stages[i + 1]?.stale?.(p) ? 'broken' : 'solid',
      tip: p.whole.value ? tip(s.name, state, count, s.stale?.(p) ?? '') : `${s.name}: being opened`,
    }
  })
})

function tip(name: string, state: StageState, count: number, stale: string) {
  const word = { none: 'nothing here yet', work: 'in work', done: 'done and current', pending: 'not known yet' }[state]
  return `${name}: ${stale || word}${count ? `, ${count} to look at` : ''}`
}
</script>

<template>
  <nav class="rail" aria-label="The trace: stages of the job">
    <template v-for="(s, i) in along" :key="s.id">
      <router-link
        :to="`/project/${project.id}/${s.id}`"
        class="stage"
        :class="{ here: route.params.stage === s.id }"
        :title="s.tip"
      >
        <span class="pad" :class="s.state"><i /></span>
        <span v-if="s.count" class="count" aria-hidden="true">{{ s.count }}</span>
        <span class="name">{{ s.name }}</span><span class="heard">{{ s.tip.slice(s.name.length) }}</span>
      </router-link>
      <span v-if="i < along.length - 1" class="way" :class="s.link" aria-hidden="true" />
    </template>
  </nav>
</template>

<style scoped>
.rail {
  width: 76px;
  flex: none;
  display: flex;
  flex-direction: column;
  align-items: center;
  padding: 16px 0 40px;
  background: rgb(var(--v-theme-surface));
  border-right: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
}
.stage {
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 5px;
  width: 66px;
  padding: 6px 0 5px;
  border-radius: 8px;
  text-decoration: none;
  color: rgba(var(--v-theme-on-surface), 0.82);
}
.stage:hover {
  background: rgba(var(--v-border-color), 0.12);
}
.stage.here {
  color: rgb(var(--v-theme-on-surface));
  background: rgba(var(--v-theme-primary), 0.16);
}
.name {
  font-size: 12px;
  font-weight: 500;
}
.pad {
  width: 20px;
  height: 20px;
  border-radius: 50%;
  border: 3px solid rgb(var(--v-theme-primary));
  overflow: hidden;
  display: block;
}
.pad i {
  display: block;
  width: 100%;
  height: 100%;
}
.pad.work i {
  background: linear-gradient(to top, rgb(var(--v-theme-primary)) 50%, transparent 50%);
}
/* what is over in a moment is not seen */
.pad.pending {
  animation: pending 0s 0.35s forwards;
}
@keyframes pending {
  to {
    border-style: dotted;
  }
}
.pad.done i {
  background: rgb(var(--v-theme-primary));
}
.count {
  position: absolute;
  top: 1px;
  left: 41px;
  min-width: 17px;
  height: 17px;
  padding: 0 4px;
  border-radius: 9px;
  background: rgb(var(--v-theme-error));
  color: #1c0c0a;
  font:
    600 11px/17px Barlow,
    sans-serif;
  text-align: center;
}
.v-theme--light .count {
  color: #fff;
}
.way {
  flex: 1;
  max-height: 44px;
  min-height: 8px;
  width: 3px;
  background: rgb(var(--v-theme-primary));
}
.way.broken {
  background: repeating-linear-gradient(to bottom, rgb(var(--v-theme-error)) 0 5px, transparent 5px 11px);
}
</style>
