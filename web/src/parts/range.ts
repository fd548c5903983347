import { format, parse, type Unit } from '../live/units'
import type { Range } from '../live/wire.gen'
import type { Writing } from '../shell/fields/entry'

/** A dimension with its tolerance as people write it: "1.27", "5.8 .. 6.2", "6 ± 0.2", with units and arithmetic. */
export function readRange(text: string, unit: Unit): Range {
  const at = (t: string) => parse(t, unit)
  const range = /^(.*?)(?:\.{2,3}|…|–)(.*)$/.exec(text)
  const about = /^(.*?)(?:±|\+\/?-)(.*)$/.exec(text)
  let out: Range
  if (range) out = { min: at(range[1]), max: at(range[2]) }
  else if (about) out = { min: at(about[1]) - at(about[2]), max: at(about[1]) + at(about[2]) }
  else out = { min: at(text), max: at(text) }
  if (out.min > out.max) throw new Error(`“${text.trim()}” is less at most than at least.`)
  return out
}

export const showRange = (r: Range, unit: Unit, digits = 4): string =>
  r.min === r.max ? format(r.min, unit, digits) : `${format(r.min, unit, digits)} .. ${format(r.max, unit, digits)}`

export const rangeWriting = (unit: Unit): Writing<Range> => ({
  show: (r) => showRange(r, unit),
  read: (text) => readRange(text, unit),
})
