import { Previewer } from '../live/previewer'
import type { Project } from '../live/project'
import type { Kind, Mark } from '../live/wire.gen'
import { moved } from './marks'

/** What a tool holds in its hand, drawn by the core at the origin and carried by the hand. */
export class Ghost {
  private key = ''
  private marks: Mark[] = []
  private readonly asks: Previewer

  constructor(
    project: Project,
    private readonly arrived: () => void,
  ) {
    this.asks = new Previewer(project)
  }

  /** Marks of the object at a place; the last ones known while new ones are on their way. */
  at(kind: Kind, object: Record<string, unknown>, x: number, y: number): Mark[] {
    const key = kind + JSON.stringify(object)
    if (key !== this.key) {
      if (!this.key.startsWith(kind)) this.marks = []
      this.key = key
      this.asks.ask('item', { item: { kind, object } }, (drawn) => {
        if (this.key !== key) return
        this.marks = drawn.marks ?? []
        this.arrived()
      })
    }
    return moved(this.marks, x, y)
  }
}
