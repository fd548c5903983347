import { type Component, defineAsyncComponent } from 'vue'
import type { Project } from '../live/project'

/** How far a stage is: nothing there yet, in work, done and current; pending: not known yet. */
export type StageState = 'none' | 'work' | 'done' | 'pending'

/** All there is to know about a stage of the job; the trace, the pages and the commands are made from these. */
export interface Stage {
  id: string
  name: string
  /** Its page; without one the stage is still to come, and says what it will be. */
  page?: Component
  /** Fetches the page before it is shown. */
  fetch?: () => unknown
  coming?: string
  state: (p: Project) => StageState
  /** Whether findings of its own are counted beside its pad. */
  counts?: boolean
  /** Whether it no longer agrees with what comes before it, and what that is called. */
  stale?: (p: Project) => string
}

const carried = (p: Project) => p.stages.value.board !== 'none' && p.stages.value.differences > 0

const page = (load: () => Promise<{ default: Component }>) => ({ page: defineAsyncComponent(load), fetch: load })

/** The stages along the trace, in the order of the job. */
export const stages: Stage[] = [
  {
    id: 'circuit',
    name: 'Circuit',
    ...page(() => import('../circuit/CircuitPage.vue')),
    state: (p) => p.stages.value.circuit as StageState,
    counts: true,
  },
  {
    id: 'parts',
    name: 'Parts',
    ...page(() => import('../parts/PartsPage.vue')),
    state: (p) => p.stages.value.library as StageState,
    counts: true,
  },
  {
    id: 'board',
    name: 'Board',
    ...page(() => import('../board/BoardPage.vue')),
    state: (p) => p.stages.value.board as StageState,
    counts: true,
    stale: (p) => (carried(p) ? 'the circuit changed since it was carried over' : ''),
  },
  {
    id: 'signals',
    name: 'Signals',
    coming: 'Here the impedance, coupling and waveforms of the board’s tracks will be computed from their real cross-sections.',
    state: () => 'none',
  },
  {
    id: 'checks',
    name: 'Checks',
    ...page(() => import('../checks/ChecksPage.vue')),
    state: (p) =>
      p.stages.value.circuit === 'none' ? 'none' : p.openFindings.value.length ? 'work' : p.current.value ? 'done' : 'pending',
  },
  {
    id: 'panel',
    name: 'Panel',
    coming:
      'Here several boards will be put into one panel with rails, fiducials and scored lines. Until then the handoff is for a single board.',
    state: () => 'none',
  },
  {
    id: 'handoff',
    name: 'Handoff',
    ...page(() => import('../handoff/HandoffPage.vue')),
    state: (p) => (!p.handoff.value ? 'none' : p.handoffCurrent.value ? 'done' : 'work'),
    stale: (p) => (p.handoff.value && !p.handoffCurrent.value ? 'the design changed since the files were made' : ''),
  },
]

export const stageOf = (id: string) => stages.find((s) => s.id === id)
