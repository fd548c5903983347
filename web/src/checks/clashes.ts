import type { CheckTable } from '../live/wire.gen'

/** What may not meet on a net, as a sentence, and the pairs of pin types it stands for. */
export interface Clash {
  text: string
  pairs: string[]
}

/** The clashes of one severity; a type that clashes with every type is one sentence. */
export function clashesOf(table: CheckTable, severity: string): Clash[] {
  const holds = (p: string) => table.pairs[p] === severity
  const of = (type: string) => Object.keys(table.pairs).filter((p) => p.split('|').includes(type))
  const whole = table.types.filter((t) => of(t).every(holds))
  const out: Clash[] = whole.map((t) => ({ text: `${table.words[t]} meets anything`, pairs: of(t) }))
  const said = new Set(out.flatMap((c) => c.pairs))
  for (const p of Object.keys(table.pairs)) {
    if (!holds(p) || said.has(p)) continue
    const [a, b] = p.split('|')
    out.push({ text: `${table.words[a]} meets ${a === b ? 'another' : table.words[b]}`, pairs: [p] })
  }
  return out.map((c) => ({ ...c, text: c.text[0].toUpperCase() + c.text.slice(1) }))
}

/** A pair as the table has it, whichever of the two comes first. */
export const pairOf = (table: CheckTable, a: string, b: string) => (`${a}|${b}` in table.pairs ? `${a}|${b}` : `${b}|${a}`)
