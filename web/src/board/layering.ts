import type { BoardEditor } from './editor'

/** Whether the lowest copper layer is worked on, so that the board is seen from there. */
function below(ed: BoardEditor) {
  const c = ed.copper
  return c.length > 1 && ed.state.layer === c[c.length - 1].id
}

/** The order in which what is drawn lies one over the other: a layer of the scene by its name, copper as copper-ID. */
export function orderOf(ed: BoardEditor, layer: string): number {
  switch (layer) {
    case 'board':
      return 0
    case 'silk-bottom':
      return below(ed) ? 90 : 1
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
      return below(ed) ? 88 : 3
    case 'mask-top':
    case 'paste-top':
      return below(ed) ? 3 : 88
    case 'pad-name':
      return 95
    case 'drawing':
      return 96
  }
  const fill = layer.startsWith('fill-')
  const id = Number(layer.slice(fill ? 'fill-'.length : 'copper-'.length))
  return (id === ed.state.layer ? 70 : 50 - ed.position(id)) - (fill ? 0.5 : 0)
}

/** How strongly a layer of the scene is drawn: the one in work in full, others dimmed, hidden ones not. */
export function alphaOf(ed: BoardEditor, layer: string): number {
  if (layer.startsWith('copper-') || layer.startsWith('fill-')) {
    const id = Number(layer.slice(layer.indexOf('-') + 1))
    return ed.state.hidden.includes(id) ? 0 : id === ed.state.layer ? 1 : 0.35
  }
  if (layer.startsWith('mask-') || layer.startsWith('paste-')) return layer.endsWith('bottom') === below(ed) ? 0.6 : 0.2
  if (layer === 'silk-top') return below(ed) ? 0.55 : 0.95
  if (layer === 'silk-bottom') return below(ed) ? 0.95 : 0.3
  return 1
}
