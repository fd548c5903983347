import type { Kinds, StackLayer } from '../../live/wire.gen'
import { copperColour } from '../../shell/tokens'

/** One layer in the drawing of the stack: its band, and the middle of the line of fields that belongs to it. */
export interface Band {
  y: number
  h: number
  line: number
}

/** Layers that lie on the board rather than in it. */
export const coats = new Set(['mask', 'silk', 'finish'])

/**
 * Where the layers lie in a drawing of so many lines of a height: evenly, each in its line, copper thinner than what is between; or as
 * thick as they are, none below a pixel and a half, around the middle of the drawing.
 */
export function bandsOf(layers: readonly StackLayer[], row: number, even: boolean): Band[] {
  if (even) {
    const h = (l: StackLayer) => (l.kind === 'copper' ? row * 0.42 : coats.has(l.kind) ? row * 0.24 : row)
    return layers.map((l, i) => ({ y: i * row + (row - h(l)) / 2, h: h(l), line: (i + 0.5) * row }))
  }
  const whole = layers.reduce((sum, l) => sum + l.thickness, 0) || 1
  const height = Math.min(layers.length * row, 640)
  const least = 1.5
  const hs = layers.map((l) => Math.max((l.thickness / whole) * height, least))
  let y = (layers.length * row - hs.reduce((a, b) => a + b, 0)) / 2
  return layers.map((_, i) => {
    const band = { y, h: hs[i], line: (i + 0.5) * row }
    y += hs[i]
    return band
  })
}

/** The colour of each layer in the drawing. */
export function coloursOf(layers: readonly StackLayer[]): string[] {
  const n = layers.filter((l) => l.kind === 'copper').length
  let at = 0
  const of: Record<string, string> = { core: '#7C6A4E', prepreg: '#9A8A63', mask: '#4F6B58', silk: '#F4ECDC', finish: '#D9D2B8' }
  return layers.map((l) => of[l.kind] ?? copperColour(at++, n))
}

/** Between which layers vias lead, each span of each kind once, from above; at says where a layer lies, below zero nowhere. */
export function spansOf(vias: Iterable<Kinds['via']>, at: (layer: number) => number) {
  const spans = new Map<string, { from: number; to: number; laser: boolean }>()
  for (const v of vias) {
    const [from, to] = [at(v.from), at(v.to)]
    if (from >= 0 && to >= 0) spans.set(`${from} ${to} ${v.kind ?? ''}`, { from, to, laser: v.kind === 'laser' })
  }
  return [...spans.values()].sort((a, b) => a.from - b.from || b.to - a.to)
}
