import type { Pen } from '../canvas/scene'
import type { Point } from '../live/wire.gen'
import type { Command } from '../shell/keys'
import type { Field } from './fields'

/** The hand's place, how far it may miss, and the keys that are held. */
export interface Press {
  at: Point
  tolerance: number
  shiftKey: boolean
  altKey: boolean
}

/** What the hand holds from pressing until it lets go: a corner, what was picked, a box. */
export interface Grab {
  move(p: Press): void
  /** The hand lets go. */
  drop(p: Press): void
  /** It is given up. */
  cancel?(): void
  paint?(pen: Pen): void
}

/** A tool of a stage: all there is to know about it is in its file. */
export interface Tool {
  readonly id: string
  readonly name: string
  readonly icon: string
  readonly keys: string
  /** It comes into the hand, or goes out of it. */
  take?(): void
  drop?(): void
  /** Where it would act for a hand at a place: on the grid, if it says nothing. */
  aim?(p: Point, tolerance: number): Point
  down(p: Press): void
  move?(p: Press): void
  up?(p: Press): void
  double?(p: Press): void
  /** Steps back one level; tells whether there was one. */
  back?(): boolean
  /** Takes a key while it is in the hand; tells whether it did. */
  key?(name: string): boolean
  /** What can be done with it by name, from anywhere on the stage. */
  commands?(): Command[]
  /** Ids of its commands that the menu shows while it is in the hand. */
  readonly menu?: string[]
  /** Its options, above the tools. */
  strip?(): Field[]
  hint(): string
  paint?(pen: Pen): void
}
