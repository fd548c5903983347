import type { Project } from '../live/project'
import type { Difference, Finding, Link } from '../live/wire.gen'

/** Something in which the board is not what the circuit says, and where it lies in both. */
export interface Apart {
  key: string
  group: 'Parts' | 'Nets' | 'Joints missing' | 'Joints too many'
  text: string
  /** What carrying would change; none: it is a matter of copper. */
  difference?: Difference
  link?: Link & { net: number }
  finding?: Finding
  /** Where it lies: the part in the circuit, and what on the board. */
  part?: number
  path?: string
  on?: number
}

/** The part of a pad as links name it: U3 of "pad U3.14"; of anything else, nothing. */
const partOf = (name: string) => /^pad ([^.]+)\./.exec(name)?.[1] ?? ''

/** All in which the board is not what the circuit says: what carrying would change, links that are open, and copper that joins nets. */
export function apartOf(project: Project, differences: Difference[]): Apart[] {
  const placed = (designator: string) => project.all('placed').find((p) => p.designator === designator)
  const out: Apart[] = differences.map((d) => {
    const net = d.kind === 'rename' ? project.named('net', d.from ?? '')?.id : undefined
    const bears = net ? project.all('placed').find((p) => Object.values(p.nets).includes(net)) : undefined
    const on = d.on || bears?.id
    const group = d.kind === 'rename' || d.kind === 'nets' ? 'Nets' : 'Parts'
    return { key: d.key, group, text: d.text, difference: d, part: d.part || bears?.part, path: d.path || bears?.path, on }
  })
  for (const [net, list] of project.links)
    for (const [i, l] of list.entries()) {
      const p = placed(partOf(l.fromName)) ?? placed(partOf(l.toName))
      const name = project.netName(net)
      out.push({
        key: `link ${net} ${i}`,
        group: 'Joints missing',
        text: `${name}: ${l.fromName} and ${l.toName} are one net in the circuit and are not joined on the board.`,
        link: { ...l, net },
        part: p?.part,
        path: p?.path,
        on: p?.id,
      })
    }
  for (const f of project.findingList.value)
    if (f.kind === 'clearance' && !f.excused && (f.measured ?? 0) <= 0) {
      const p = f.objects?.map((id) => project.find(id)).find((o) => o?.kind === 'placed')?.object as { id: number; part: number; path?: string } | undefined // prettier-ignore
      out.push({
        key: f.key,
        group: 'Joints too many',
        text: f.text,
        finding: f,
        part: p?.part,
        path: p?.path,
        on: p?.id ?? f.objects?.[0],
      })
    }
  return out
}
