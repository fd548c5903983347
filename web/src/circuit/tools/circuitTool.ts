import type { Pen } from '../../canvas/scene'
import type { Tool } from '../../hands/tool'
import type { Kind } from '../../live/wire.gen'
import type { CircuitEditor } from '../editor'
import { play } from '../marks'

/** A tool of the circuit: what it holds can be turned and mirrored. */
export interface CircuitTool extends Tool {
  turn?(quarters: number): void
  mirror?(): void
}

/** What a placing tool would put down, at the origin. */
export interface Held {
  kind: Kind
  object: Record<string, unknown>
}

/** Draws what a placing tool holds where the hand is. */
export function paintHeld(ed: CircuitEditor, pen: Pen, held: Held | null, colour = ed.colours.select) {
  if (!held) return
  pen.ctx.globalAlpha = 0.85
  play(pen, ed.ghost.at(held.kind, held.object, ed.at.x, ed.at.y), ed.inks, colour)
  pen.ctx.globalAlpha = 1
}

export const origin = { x: 0, y: 0 }
export const turned = (turn: number, quarters: number) => (turn + quarters + 4) % 4
