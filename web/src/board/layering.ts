import type { BoardEditor } from './editor'

/** The order in which what is drawn lies one over the other: a layer of the scene by its name, copper as copper-ID. */
export function orderOf(ed: BoardEditor, layer: string): number {
  switch (layer) {
    case 'board':
      return 0
    case 'silk-bottom':
      return ed.below ? 90 : 1
    case 'area':
      return 69.8 // over what copper areas fill, below tracks and pads
    case 'barrel':
      return 80
    case 'bore':
      return 81
    case 'silk-top':
      return 91
    case 'mask-bottom':
    case 'paste-bottom':
      return ed.below ? 88 : 3
    case 'mask-top':
    case 'paste-top':
      return ed.below ? 3 : 88
    case 'pad-name':
      return 95
    case 'drawing':
      return 96
  }
  const fill = layer.startsWith('fill-')
  const id = Number(layer.slice(fill ? 'fill-'.length : 'copper-'.length))
  const deep = ed.state.flipped ? ed.copper.length - ed.position(id) : ed.position(id)
  return (id === ed.state.layer ? 70 : 50 - deep) - (fill ? 0.5 : 0)
}

/** What lies over the finished board. */
const inFront = new Set(['finished', 'tints', 'tints below', 'net', 'links', 'findings', 'dots'])

/** How strongly a layer of the scene is drawn: the one in work in full, others dimmed, hidden ones not. */
export function alphaOf(ed: BoardEditor, layer: string): number {
  if (ed.finished) return layer === 'drawing' || (inFront.has(layer) && !layer.startsWith('tints')) ? 1 : 0
  const { hidden, others, unseen } = ed.state
  const alone = ed.state.netAlone && ed.project.lit.value !== ''
  if (layer.startsWith('copper-') || layer.startsWith('fill-')) {
    const id = Number(layer.slice(layer.indexOf('-') + 1))
    if (hidden.includes(id)) return 0
    if (alone) return 0.12
    if (id === ed.state.layer || others === 'plain') return 1
    return others === 'next' && Math.abs(ed.position(id) - ed.position(ed.state.layer)) > 1 ? 0 : 0.35
  }
  const surface = layer.startsWith('mask-')
    ? 'mask'
    : layer.startsWith('paste-')
      ? 'paste'
      : layer.startsWith('silk-')
        ? ''
        : null
  if (surface !== null && unseen.includes(surface)) return 0
  if (alone && layer !== 'board' && !inFront.has(layer)) return 0.2
  if (surface) return layer.endsWith('bottom') === ed.below ? 0.6 : 0.2
  if (layer === 'silk-top') return ed.below ? 0.55 : 0.95
  if (layer === 'silk-bottom') return ed.below ? 0.95 : 0.3
  return 1
}
