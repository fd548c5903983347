import type { BoardEditor } from './editor'

/** Which nets' open links are seen. */
export function linksSeen(ed: BoardEditor): (net: number) => boolean {
  const { links, linkClass, hideSupplies } = ed.state
  if (links === 'none') return () => false
  const supplies = new Set(hideSupplies ? ed.project.all('supply').map((s) => s.name) : [])
  const picked = links === 'picked' ? new Set(ed.picked('placed').flatMap((p) => Object.values(p.nets))) : null
  return (net) => {
    const n = ed.project.get('net', net)
    if (supplies.has(n?.name ?? '')) return false
    return picked ? picked.has(net) : links !== 'class' || n?.class === linkClass
  }
}
