import { inNaturalOrder } from '../live/natural'
import type { Project } from '../live/project'

/** The nets of the board as choices, in their natural order. */
export const netChoices = (project: Project) =>
  inNaturalOrder(project.all('net'), (n) => n.name).map((n) => ({ value: n.id, title: n.name }))
