import type { Project } from './project'
import type { Message, Request } from './wire.gen'

/**
 * Asks for previews one at a time: while one is on its way only the last further wish is
 * kept, so that the hand is never behind a queue.
 */
export class Previewer {
  private busy = false
  private next: (() => void) | null = null
  private epoch = 0

  constructor(private readonly project: Project) {}

  ask(r: Partial<Request> & { t: string }, show: (m: Message) => void) {
    const epoch = this.epoch
    const run = () => {
      this.busy = true
      this.project
        .look(r)
        .then((m) => epoch === this.epoch && show(m))
        .catch(() => undefined)
        .finally(() => {
          this.busy = false
          const next = this.next
          this.next = null
          next?.()
        })
    }
    if (this.busy) this.next = run
    else run()
  }

  /** Forgets answers that are still on their way. */
  stop() {
    this.epoch++
    this.next = null
  }
}
