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
const inFront = new Set(['finished', 'net', 'links', 'findings'])

/** How strongly a layer of the scene is drawn: the one in work in full, others dimmed, hidden ones not. */
export function alphaOf(ed: BoardEditor, layer: string): number {
  if (ed.finished) return layer === 'drawing' || layer === 'dots' || inFront.has(layer) ? 1 : 0
  if (layer.startsWith('copper-') || layer.startsWith('fill-')) {
    const id = Number(layer.slice(layer.indexOf('-') + 1))
    return ed.state.hidden.includes(id) ? 0 : id === ed.state.layer ? 1 : 0.35
  }
  if (layer.startsWith('mask-') || layer.startsWith('paste-')) return layer.endsWith('bottom') === ed.below ? 0.6 : 0.2
  if (layer === 'silk-top') return ed.below ? 0.55 : 0.95
  if (layer === 'silk-bottom') return ed.below ? 0.95 : 0.3
  return 1
}
