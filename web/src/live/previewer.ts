import type { Project } from './project'
import type { Questions } from './wire.gen'

/**
 * Asks for previews one at a time: while one is on its way only the last further wish is
 * kept, so that the hand is never behind a queue.
 */
export class Previewer {
  private busy = false
  private next: (() => void) | null = null
  private epoch = 0

  constructor(private readonly project: Project) {}

  ask<K extends keyof Questions>(kind: K, fields: Questions[K]['asks'], show: (answer: Questions[K]['answers']) => void) {
    const epoch = this.epoch
    const run = () => {
      this.busy = true
      this.project
        .question(kind, fields)
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
