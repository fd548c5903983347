import { shallowRef } from 'vue'
import { weight } from '../live/derived'
import type { Project } from '../live/project'
import type { Finding } from '../live/wire.gen'

/** The findings that are walked through, by their keys: those that the checks' table shows, in its order. */
export const walked = shallowRef<string[]>([])

let at = ''

/** The hand is at a finding; the walk goes on from there. */
export const standAt = (key: string) => (at = key)

/** The next finding of the walk, or the one before; none: there is nothing to walk through. */
export function step(project: Pick<Project, 'findings'>, by: 1 | -1): Finding | undefined {
  let keys = walked.value.filter((k) => project.findings.has(k))
  if (!keys.length)
    keys = [...project.findings.values()]
      .filter((f) => !f.excused && f.severity !== 'note')
      .sort((a, b) => weight(a.severity) - weight(b.severity))
      .map((f) => f.key)
  if (!keys.length) return undefined
  const now = keys.indexOf(at)
  const next = now < 0 ? (by > 0 ? 0 : keys.length - 1) : (now + by + keys.length) % keys.length
  at = keys[next]
  return project.findings.get(at)
}
