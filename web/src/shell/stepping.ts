import type { Router } from 'vue-router'
import type { Project } from '../live/project'
import type { Took } from '../live/wire.gen'
import { actName } from './acts'
import { complain, say } from './notices'

/** What an undo took back, or a redo did again, in a sentence. */
export function recounted(step: 'undo' | 'redo', { act, what, where }: Took) {
  const on = where ? `, on ${where}` : ''
  return `${step === 'undo' ? 'Taken back' : 'Done again'}: ${actName(act)}${what ? `: ${what}${on}` : ''}.`
}

/** Takes the last step of one's own back, or does it again, and says what that was; what is not in view can be gone to. */
export async function takeStep(project: Project, router: Router, step: 'undo' | 'redo') {
  try {
    const took = await project[step]()
    if (!took) return
    const { stage, id } = took
    const to = stage && id ? { path: `/project/${project.id}/${stage}`, query: { id: String(id), t: String(Date.now()) } } : null
    const here = router.currentRoute.value.path === to?.path && (stage !== 'circuit' || project.onSheet(id!))
    say(recounted(step, took), 'plain', to && !here ? { label: 'Show', run: () => void router.push(to) } : undefined)
  } catch (e) {
    complain(e)
  }
}
