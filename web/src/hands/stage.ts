import { shallowReactive } from 'vue'
import { snap } from '../canvas/geometry'
import type { Pen, Scene } from '../canvas/scene'
import { type Box, boxOf, union } from '../canvas/viewport'
import type { Project } from '../live/project'
import type { Kind, Kinds, PartRef, Point } from '../live/wire.gen'
import { complain } from '../shell/notices'
import type { useTaste } from '../shell/taste'
import type { Grab, Press, Tool } from './tool'

/** What every stage with a canvas keeps for its page to show. */
export interface StageState {
  tool: string
  hovered: number
  hoverNet: string
  /** What the program says of what the hand is about to do. */
  warning: string
}
type Keys = { shiftKey: boolean; altKey: boolean }
const none: Keys = { shiftKey: false, altKey: false }

/** An act that is seen as it would be: Enter does it, Esc and whatever else the hand does give it up. Both tell whether there was one. */
export interface Weighed {
  go(): boolean
  drop(): boolean
  paint(pen: Pen): void
}

/**
 * A stage with a canvas: what is drawn on it, what is picked, and the hand with the tool it holds. A stage says what
 * stands on it and what its tools are; how picking, boxes, dragging and keys go is the same everywhere.
 */
export abstract class Stage {
  abstract readonly scene: Scene
  abstract readonly state: StageState
  /** The first is the one that picks. */
  abstract readonly tools: Tool[]
  readonly selection = shallowReactive(new Set<number>())
  /** Where the hand acts, and its own place off the grid. */
  at: Point = { x: 0, y: 0 }
  raw: Point = { x: 0, y: 0 }
  /** What the hand holds while it is pressed. */
  grab: Grab | null = null
  /** The hand is led by the arrow keys: Enter presses. */
  keyed = false
  redraw: () => void = () => undefined
  /** Brings a place into view. */
  show: (p: Point) => void = () => undefined

  constructor(
    readonly project: Project,
    readonly taste: ReturnType<typeof useTaste>,
  ) {}

  // ---- what the stage says

  /** The grid that the hand keeps to, and the step of the arrow keys. */
  /** Whether it is seen from behind, so that x goes to the left. */
  get mirrored() {
    return false
  }
  abstract get grid(): number
  abstract get step(): number
  /** What lies under a place, best first. */
  abstract under(p: Point, tolerance: number): number[]
  abstract netUnder(p: Point, tolerance: number): string
  /** What a box is held against to pick the thing; null: boxes do not pick it. */
  abstract roomOf(id: number): Box | null
  /** What is picked and moved when the hand drags; null: it cannot be. */
  abstract hold(p: Press): Grab | null
  /** Something on what is picked that the hand takes by itself: a corner, a text. */
  handle(p: Press): Grab | null {
    void p
    return null
  }
  /** What is picked together with a thing. */
  together(id: number): number[] {
    return [id]
  }
  /** Whether a box picks the thing only when it is all inside, whichever way it is drawn. */
  picksWhole(id: number): boolean {
    void id
    return false
  }
  /** The least side of a box that picks, in nanometres. */
  readonly leastBox: number = 200_000
  /** The picked things as parts of the circuit, and the things that parts are here. */
  abstract partsPicked(): PartRef[]
  abstract idsOf(parts: PartRef[]): number[]
  /** The kind of thing that parts are here. */
  abstract readonly partKind: Kind
  /** An act that is seen before it is done, where the stage has such ones. */
  protected readonly weighed: Weighed | null = null
  /** Steps back from what is done with what is picked, before that is given up. */
  pickedBack(): boolean {
    return false
  }
  /** Steps back one level where neither hand nor tool nor selection has any. */
  lastBack(): boolean {
    return false
  }

  // ---- picking

  pick(id: number, add = false) {
    const group = this.together(id)
    if (add && this.selection.has(id)) {
      group.forEach((g) => this.selection.delete(g))
      return
    }
    if (!add) this.selection.clear()
    group.forEach((g) => this.selection.add(g))
  }
  /** Picks these and nothing else. */
  pickOnly(ids: Iterable<number>) {
    this.weighed?.drop()
    this.selection.clear()
    for (const id of ids) this.selection.add(id)
    this.redraw()
  }
  /** The picked objects of a kind. */
  picked<K extends Kind>(kind: K): Kinds[K][] {
    return [...this.selection].map((id) => this.project.get(kind, id)).filter((o) => !!o)
  }
  boxOf(ids: Iterable<number>): Box | null {
    let b: Box | null = null
    for (const id of ids) {
      const x = this.scene.boxOf(id)
      if (x) b = union(b, x)
    }
    return b
  }
  /** The middle of things, on a grid. */
  middleOf(ids: Iterable<number>, grid: number): Point {
    const b = this.boxOf(ids)!
    return snap({ x: (b.minX + b.maxX) / 2, y: (b.minY + b.maxY) / 2 }, grid)
  }

  // ---- the hand

  get tool(): Tool {
    return this.tools.find((t) => t.id === this.state.tool)!
  }
  get picks() {
    return this.state.tool === this.tools[0].id
  }
  take(id: string) {
    this.letGo()
    this.tool.drop?.()
    this.state.tool = id
    this.state.warning = ''
    this.tool.take?.()
    this.redraw()
  }
  /** Gives up what the hand holds. */
  letGo() {
    this.weighed?.drop()
    this.grab?.cancel?.()
    this.grab = null
  }

  private press(p: Point, tolerance: number, e: Keys): Press {
    return { at: p, tolerance, shiftKey: e.shiftKey, altKey: e.altKey }
  }
  private aim(p: Point, tolerance: number) {
    return this.tool.aim?.(p, tolerance) ?? snap(p, this.grid)
  }
  down(p: Point, tolerance: number, e: Keys = none) {
    this.weighed?.drop()
    this.keyed = false
    this.raw = p
    this.at = this.aim(p, tolerance)
    this.tool.down(this.press(p, tolerance, e))
    this.redraw()
  }
  move(p: Point, tolerance: number, e: Keys = none) {
    this.keyed = false
    this.raw = p
    this.at = this.aim(p, tolerance)
    const press = this.press(p, tolerance, e)
    if (this.grab) this.grab.move(press)
    else this.tool.move?.(press)
    this.redraw()
  }
  up(p: Point, tolerance = 0, e: Keys = none) {
    const press = this.press(p, tolerance, e)
    const held = this.grab
    this.grab = null
    if (held) held.drop(press)
    else this.tool.up?.(press)
    this.redraw()
  }
  double(p: Point, tolerance: number) {
    this.tool.double?.(this.press(p, tolerance, none))
    this.redraw()
  }
  key(name: string): boolean {
    return this.tool.key?.(name) ?? false
  }
  /** Steps back one level; tells whether there was one. */
  back(): boolean {
    if (this.weighed?.drop()) return true
    if (this.grab) this.letGo()
    else if (this.tool.back?.()) return (this.redraw(), true)
    else if (this.keyed && this.picks && !this.selection.size) this.keyed = false
    else if (!this.picks) this.take(this.tools[0].id)
    else if (this.pickedBack()) return (this.redraw(), true)
    else if (this.selection.size) this.selection.clear()
    else if (this.project.lit.value) this.project.light('')
    else if (!this.lastBack()) return false
    this.redraw()
    return true
  }
  paint(pen: Pen) {
    this.weighed?.paint(pen)
    this.grab?.paint?.(pen)
    this.tool.paint?.(pen)
  }

  // ---- the hand led by keys

  /** Moves the hand by steps of the grid, when a tool is in it or nothing is picked. */
  lead(dx: number, dy: number, tolerance = 0): boolean {
    if (this.picks && this.selection.size) return false
    const from = snap(this.at, this.step)
    const to = { x: from.x + dx * this.step, y: from.y + dy * this.step }
    this.move(to, tolerance)
    this.at = to
    this.keyed = true
    this.show(to)
    return true
  }
  /** Presses where the keys led the hand. */
  pressAt(tolerance: number): boolean {
    if (this.weighed?.go()) return true
    if (!this.keyed) return false
    if (this.picks) {
      const id = this.under(this.at, tolerance)[0]
      if (id === undefined) return false
      this.pick(id)
    } else if (this.grab) this.up(this.at, tolerance)
    else {
      this.down(this.at, tolerance)
      if (!this.grab) this.tool.up?.(this.press(this.at, tolerance, none))
      this.keyed = true
    }
    this.redraw()
    return true
  }

  // ---- with the other stages and windows

  /** Tells which parts are picked here. */
  share() {
    const parts = this.partsPicked()
    if (JSON.stringify(parts) !== JSON.stringify(this.project.picked.value)) this.project.pick(parts)
  }
  /** Takes over what was picked elsewhere, as far as it stands here. */
  follow() {
    const ids = this.idsOf(this.project.picked.value)
    const own = [...this.selection].filter((id) => this.project.kind(id) === this.partKind)
    if (ids.length === own.length && ids.every((id) => this.selection.has(id))) return
    this.pickOnly(ids)
  }

  run<K extends Parameters<Project['edit']>[0]>(kind: K, fields: Parameters<typeof this.project.edit<K>>[1]) {
    return this.project.edit(kind, fields).catch(complain)
  }
  /** Removes what is picked. */
  remove() {
    if (this.selection.size) void this.run('remove', { ids: [...this.selection] })
  }
}

/** The box around two places. */
export const between = (a: Point, b: Point) => boxOf([a, b])
