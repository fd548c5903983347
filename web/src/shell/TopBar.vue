<script setup lang="ts">
import { mdiHelpCircleOutline, mdiMagnify, mdiRedo, mdiThemeLightDark, mdiUndo } from '@mdi/js'
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import type { Project } from '../live/project'
import type { Unit } from '../live/units'
import { actName } from './acts'
import { type Crumb, fieldOpen, helpOpen } from './commands'
import { takeStep } from './stepping'
import JobsChip from './JobsChip.vue'
import PeopleChip from './PeopleChip.vue'
import { useTaste } from './taste'

const props = defineProps<{ project: Project; where: Crumb[] }>()
const taste = useTaste()
const kept = computed(() => {
  const t = props.project.history.value.kept
  return t && !t.startsWith('0001') ? new Date(t).toLocaleTimeString('en-GB') : ''
})
const stateText = computed(
  () =>
    ({
      opening: 'opening…',
      coming: 'opening…',
      open: props.project.pending.value ? 'on its way …' : kept.value ? `kept ${kept.value}` : 'kept',
      lost: props.project.pending.value ? 'not connected, not kept yet' : 'not connected',
      gone: 'deleted',
      broken: 'cannot go on',
    })[props.project.state.value],
)
const router = useRouter()
const undo = () => takeStep(props.project, router, 'undo')
const redo = () => takeStep(props.project, router, 'redo')
const units: Unit[] = ['mm', 'in', 'mil']
</script>

<template>
  <header class="bar">
    <div class="path">
      <router-link to="/" class="home" aria-label="All projects">Projects</router-link>
      <span class="quiet">/</span>
      <strong class="title">{{ project.name.value }}</strong>
      <template v-for="(c, i) in where" :key="i">
        <span class="quiet">/</span>
        <v-btn v-if="i < where.length - 1" size="small" class="link" @click="c.go">{{ c.name }}</v-btn>
        <span v-else class="where" aria-current="location">{{ c.name }}</span>
      </template>
    </div>
    <v-btn class="find" variant="outlined" :prepend-icon="mdiMagnify" @click="fieldOpen = true">
      Find a part, net, text or command
      <template #append><kbd>Ctrl K</kbd></template>
    </v-btn>
    <div class="right">
      <JobsChip :project="project" />
      <PeopleChip :project="project" />
      <span
        class="kept"
        :class="[project.state.value, { silent: project.silent.value, way: project.pending.value }]"
        role="status"
        >{{ stateText }}</span
      >
      <v-btn
        :icon="mdiUndo"
        size="small"
        :disabled="!project.history.value.undo"
        aria-label="Undo"
        :title="`Undo ${actName(project.history.value.undo)} (Ctrl Z)`"
        @click="undo"
      />
      <v-btn
        :icon="mdiRedo"
        size="small"
        :disabled="!project.history.value.redo"
        aria-label="Redo"
        :title="`Redo ${actName(project.history.value.redo)} (Ctrl Shift Z)`"
        @click="redo"
      />
      <v-btn
        size="small"
        class="mono"
        min-width="44"
        :aria-label="`Unit: ${taste.unit}`"
        title="Unit of lengths"
        @click="taste.unit = units[(units.indexOf(taste.unit) + 1) % 3]"
        >{{ taste.unit }}</v-btn
      >
      <v-btn
        :icon="mdiThemeLightDark"
        size="small"
        aria-label="Dark or light frame"
        title="Dark or light frame"
        @click="taste.frameShade = taste.frameShade === 'dark' ? 'light' : 'dark'"
      />
      <v-btn :icon="mdiHelpCircleOutline" size="small" aria-label="Keys" title="Keys (?)" @click="helpOpen = true" />
    </div>
  </header>
</template>

<style scoped>
.bar {
  height: 44px;
  flex: none;
  display: grid;
  grid-template-columns: 1fr 340px 1fr;
  align-items: center;
  gap: 12px;
  padding: 0 8px 0 14px;
  background: rgb(var(--v-theme-surface));
  border-bottom: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
}
.path {
  display: flex;
  align-items: center;
  gap: 7px;
  min-width: 0;
  white-space: nowrap;
  overflow: hidden;
}
.home {
  color: inherit;
  opacity: 0.85;
  text-decoration: none;
}
.home:hover {
  text-decoration: underline;
}
.title,
.where {
  overflow: hidden;
  text-overflow: ellipsis;
}
.link.v-btn {
  padding: 0 4px;
  min-width: 0;
  height: 24px;
}
.find.v-btn {
  height: 30px;
  justify-content: flex-start;
  padding: 0 8px;
  background: rgba(var(--v-border-color), 0.07);
  font-weight: 400;
}
.find :deep(.v-btn__content) {
  flex: 1;
  justify-content: flex-start;
  opacity: 0.85;
}
.find :deep(.v-icon) {
  font-size: 16px;
}
.right {
  display: flex;
  align-items: center;
  justify-content: flex-end;
  gap: 2px;
}
.kept {
  font-size: 12px;
  color: rgb(var(--v-theme-secondary));
  margin-right: 8px;
  white-space: nowrap;
}
.kept.way {
  color: rgb(var(--v-theme-on-surface));
  opacity: 0.85;
}
.kept.lost,
.kept.silent,
.kept.broken,
.kept.gone {
  color: rgb(var(--v-theme-error));
  font-weight: 600;
}
</style>
