import { Previewer } from '../live/previewer'
import type { Project } from '../live/project'
import type { Kind, PaperMark } from '../live/wire.gen'
import { moved } from './marks'

/** What a tool holds in its hand, drawn by the core at the origin and carried by the hand. */
export class Ghost {
  private key = ''
  private marks: PaperMark[] = []
  private readonly asks: Previewer

  constructor(
    project: Project,
    private readonly arrived: () => void,
  ) {
    this.asks = new Previewer(project)
  }

  /** Marks of the object at a place; the last ones known while new ones are on their way. */
  at(kind: Kind, object: Record<string, unknown>, x: number, y: number): PaperMark[] {
    const key = kind + JSON.stringify(object)
    if (key !== this.key) {
      if (!this.key.startsWith(kind)) this.marks = []
      this.key = key
      this.asks.ask({ t: 'paintItem', item: { kind, object } }, (m) => {
        if (this.key !== key) return
        this.marks = m.drawn?.[0]?.marks ?? []
        this.arrived()
      })
    }
    return moved(this.marks, x, y)
  }
}
