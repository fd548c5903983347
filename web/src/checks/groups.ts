import type { Project } from '../live/project'
import { naturally } from '../live/natural'
import type { Finding } from '../live/wire.gen'

/** By what findings are grouped. */
export type By = 'kind' | 'rule' | 'net' | 'part' | 'sheet' | 'layer'

export const ways: { value: By; title: string }[] = [
  { value: 'kind', title: 'Kind' },
  { value: 'rule', title: 'Rule' },
  { value: 'net', title: 'Net' },
  { value: 'part', title: 'Part' },
  { value: 'sheet', title: 'Sheet' },
  { value: 'layer', title: 'Layer' },
]

/** Findings that have something in common. */
export interface Group {
  name: string
  findings: Finding[]
}

type Known = Pick<Project, 'get' | 'kind' | 'netName'>

/** The nets that a finding is about: those that its text names in brackets, or after its key. */
function netsOf(f: Finding, project: Known): string[] {
  const out = new Set<string>()
  for (const id of f.objects ?? []) {
    const o = (project.get('track', id) ?? project.get('via', id) ?? project.get('pour', id)) as { net?: number } | undefined
    if (o?.net) out.add(project.netName(o.net))
  }
  for (const m of f.text.matchAll(/\(([^()]+)\)/g)) if (f.stage === 'board') out.add(m[1])
  const named = /(?:^links |The net )(\S+)/.exec(f.key.startsWith('links ') ? f.key : f.text)
  if (named) out.add(named[1])
  return [...out]
}

/** The parts that a finding is about. */
function partsOf(f: Finding, project: Known): string[] {
  const out = new Set<string>()
  for (const id of f.objects ?? []) {
    const p = (project.get('placed', id) ?? project.get('part', id)) as { designator: string } | undefined
    if (p?.designator) out.add(p.designator)
  }
  return [...out]
}

const layerOf = (f: Finding, layers: { id: number; name: string }[]) => layers.find((l) => l.id === f.layer)?.name

/** What a finding is of, as groups of a way are called. */
export function namesOf(f: Finding, by: By, project: Known, layers: { id: number; name: string }[]): string[] {
  switch (by) {
    case 'kind':
      return [f.rule]
    case 'rule':
      return f.says ? [f.says] : []
    case 'net':
      return netsOf(f, project)
    case 'part':
      return partsOf(f, project)
    case 'sheet':
      return f.stage === 'circuit' && f.place ? [f.place] : []
    case 'layer':
      return [layerOf(f, layers)].filter((n): n is string => !!n)
  }
}

/** Findings by what they have in common; one may be of several groups. Those of none come last. */
export function grouped(list: Finding[], by: By, project: Known, layers: { id: number; name: string }[]): Group[] {
  const of = new Map<string, Finding[]>()
  const rest: Finding[] = []
  for (const f of list) {
    const names = namesOf(f, by, project, layers)
    if (!names.length) rest.push(f)
    for (const n of names) of.set(n, [...(of.get(n) ?? []), f])
  }
  const out = [...of].map(([name, findings]) => ({ name, findings })).sort((a, b) => naturally(a.name, b.name))
  return rest.length ? [...out, { name: 'Of none', findings: rest }] : out
}
