/**
 * Pins, pads, figures and dimensions are told apart by refs within their symbol or footprint, as core/design/refs.go says. On a
 * canvas each has a number of its own, made of what it is and its ref.
 */
const whats = ['pad', 'silk', 'body', 'dimension', 'text', 'courtyard', 'beneath', 'pin', 'figure'] as const
export type What = (typeof whats)[number]
const room = 1_000_000

export const idOf = (what: What, ref: number) => whats.indexOf(what) * room + ref
export const pieceOf = (id: number): { what: What; ref: number } => ({ what: whats[Math.floor(id / room)], ref: id % room })

/** The ref of the thing at a place of its list. */
export const refOf = (thing: { id?: number }, place: number) => thing.id || place + 1

/** The things of a list with their refs. */
export const withRefs = <T extends { id?: number }>(list: readonly T[]): (T & { id: number })[] =>
  list.map((t, i) => ({ ...t, id: refOf(t, i) }))
