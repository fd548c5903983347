<script setup lang="ts">
import { computed, onBeforeUnmount, shallowRef, watch } from 'vue'
import { useEventListener } from '@vueuse/core'
import { useRoute, useRouter } from 'vue-router'
import { step } from '../checks/walk'
import { call } from '../live/http'
import { Project } from '../live/project'
import type { Created } from '../live/wire.gen'
import AskBar from '../shell/AskBar.vue'
import CommandField from '../shell/CommandField.vue'
import { type Crumb, fieldOpen, frameCommands, helpOpen } from '../shell/commands'
import { keyName, typing } from '../shell/keys'
import { complain, drop, refusalsGo, say } from '../shell/notices'
import { takeStep } from '../shell/stepping'
import { useTaste } from '../shell/taste'
import TopBar from '../shell/TopBar.vue'
import TraceRail from '../shell/TraceRail.vue'
import ComingStage from './ComingStage.vue'
import { stageOf, stages } from './stages'

const route = useRoute()
const router = useRouter()
const taste = useTaste()
const project = new Project(Number(route.params.id), route.query.look === '1', String(route.params.stage))
const where = shallowRef<Crumb[]>([])
;(window as unknown as Record<string, unknown>).goldenTrace = project // for a look from the browser's console

const stage = computed(() => String(route.params.stage))
const page = computed(() => stageOf(stage.value)?.page)
void stageOf(stage.value)?.fetch?.() // while the project is on its way
watch(stage, () => (where.value = []))
watch([project.name, stage], () => (document.title = `${project.name.value || 'Golden Trace'} · ${stage.value} · Golden Trace`))

watch(project.told, (t) => t && say(t.text, t.bad ? 'warning' : 'plain'))
watch(project.succeeded, refusalsGo)
const onItsWay = computed(() => {
  const n = project.pending.value
  if (!n) return 'Nothing is waiting to be kept.'
  return `${n === 1 ? 'One edit is' : `${n} edits are`} on the way and not kept yet; leave this window open.`
})

async function takeCopy() {
  try {
    const made = await call<Created>('POST', `/projects/${project.id}/duplicate`)
    await router.push(`/project/${made.id}/${stage.value}`)
  } catch (e) {
    complain(e)
  }
}
/** The notice of the finding that was gone to last. */
let walked = 0
/** To the next finding, or the one before, wherever its place is. */
function walk(by: 1 | -1) {
  const f = step(project, by)
  if (!f) return void say('There is no finding to go to.')
  drop(walked)
  walked = say(f.text, f.severity === 'fault' ? 'error' : f.severity === 'warning' ? 'warning' : 'plain')
  void router.push({ path: `/project/${project.id}/${f.stage}`, query: { finding: f.key, t: String(Date.now()) } })
}
const go = (s: string) => void router.push(`/project/${project.id}/${s}`)
frameCommands.value = [
  {
    id: 'find',
    title: 'Find a part, net, text or command',
    keys: 'Ctrl K / /',
    group: 'Everywhere',
    run: () => (fieldOpen.value = true),
  },
  { id: 'undo', title: 'Undo', keys: 'Ctrl Z', group: 'Everywhere', run: () => void takeStep(project, router, 'undo') },
  {
    id: 'redo',
    title: 'Redo',
    keys: 'Ctrl Shift Z / Ctrl Y',
    group: 'Everywhere',
    run: () => void takeStep(project, router, 'redo'),
  },
  { id: 'next-finding', title: 'Go to the next finding', keys: '.', group: 'Everywhere', run: () => walk(1) },
  { id: 'last-finding', title: 'Go to the finding before', keys: ',', group: 'Everywhere', run: () => walk(-1) },
  { id: 'help', title: 'Keys of this stage', keys: '?', group: 'Everywhere', run: () => (helpOpen.value = true) },
  {
    id: 'shade',
    title: 'Dark or light frame',
    group: 'Everywhere',
    run: () => (taste.frameShade = taste.frameShade === 'dark' ? 'light' : 'dark'),
  },
  {
    id: 'details',
    title: 'Fold the details away or out',
    group: 'Everywhere',
    run: () => (taste.detailsOpen = !taste.detailsOpen),
  },
  ...stages
    .filter((s) => s.page)
    .map((s) => ({ id: 'go-' + s.id, title: `Go to ${s.id}`, group: 'Stages', run: () => go(s.id) })),
  { id: 'projects', title: 'Go to all projects', group: 'Stages', run: () => void router.push('/') },
]

function press(e: KeyboardEvent) {
  const name = keyName(e)
  if (name === 'Esc' && (helpOpen.value || fieldOpen.value)) {
    helpOpen.value = fieldOpen.value = false
    return
  }
  const own = name === 'Ctrl K' || !typing(e)
  const c = own && frameCommands.value.find((c) => c.keys?.split(' / ').includes(name))
  if (c) {
    e.preventDefault()
    c.run()
  }
}
useEventListener(window, 'keydown', press)
onBeforeUnmount(() => {
  frameCommands.value = []
  project.close()
})
</script>

<template>
  <div class="frame">
    <TraceRail :project="project" />
    <div class="right">
      <TopBar :project="project" :where="where" />
      <div v-if="project.state.value === 'lost'" class="banner passing" role="alert">
        The connection to the program is lost and is being sought again. {{ onItsWay }}
      </div>
      <div v-else-if="project.silent.value" class="banner passing" role="alert">
        The program has not answered for a while. {{ onItsWay }}
      </div>
      <div v-if="project.missing.value.length" class="banner soft" role="status">
        {{ project.missing.value.length }} {{ project.missing.value.length === 1 ? 'object' : 'objects' }} of this project cannot
        be read and {{ project.missing.value.length === 1 ? 'is' : 'are' }} left out:
        {{ project.missing.value.slice(0, 2).join('; ') }}{{ project.missing.value.length > 2 ? ' …' : '.' }}
        <a :href="`/api/projects/${project.id}/raw`" download>Save the project as it is kept</a>
      </div>
      <div v-if="project.looks.value" class="banner soft looks" role="status">
        You look at this project without changing it.
        <v-btn size="small" variant="outlined" @click="takeCopy">Take a copy to change</v-btn>
      </div>
      <main class="stage" aria-label="Stage">
        <div v-if="project.state.value === 'gone'" class="message">
          <template v-if="project.was">
            <h2>This project was deleted.</h2>
            <p>It can be brought back from the list of projects by whoever deleted it.</p>
          </template>
          <template v-else>
            <h2>There is no such project here.</h2>
            <p>Its address names none that this program keeps; one that was deleted can be brought back by whoever deleted it.</p>
          </template>
          <v-btn color="primary" variant="flat" to="/">All projects</v-btn>
        </div>
        <div v-else-if="project.state.value === 'broken'" class="message">
          <h2>This project cannot go on.</h2>
          <p>{{ project.trouble.value }}</p>
          <p>In the list of projects it can be saved as it is kept, and its last acts can be taken back.</p>
          <v-btn color="primary" variant="flat" to="/">All projects</v-btn>
        </div>
        <div v-else-if="!project.has(stage)" class="message">
          <v-progress-circular indeterminate color="primary" aria-label="Opening the project" />
        </div>
        <component :is="page" v-else-if="page" :key="stage" :project="project" @where="where = $event" />
        <ComingStage v-else :stage="stage" />
        <AskBar :project="project" />
      </main>
    </div>
    <CommandField :project="project" />
  </div>
</template>

<style scoped>
.frame {
  display: flex;
  height: 100vh;
  width: 100vw;
}
.right {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  position: relative;
}
.stage {
  position: relative;
  flex: 1;
  min-height: 0;
}
.banner {
  padding: 6px 16px;
  background: rgb(var(--v-theme-error));
  color: #1c0c0a;
  font-weight: 500;
}
/* What comes and goes by itself lies over the stage: a drawing never moves beneath the hand. */
.passing {
  position: absolute;
  left: 50%;
  top: 56px;
  transform: translateX(-50%);
  max-width: 90%;
  border-radius: 8px;
  z-index: 40;
}
.v-theme--light .banner {
  color: #fff;
}
.looks {
  display: flex;
  align-items: center;
  gap: 14px;
}
.soft {
  background: rgba(var(--v-theme-warning), 0.22);
  color: inherit;
}
.v-theme--light .soft {
  color: inherit;
}
.message {
  position: absolute;
  inset: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 14px;
}
</style>
