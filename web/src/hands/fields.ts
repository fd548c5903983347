/** One option of a tool in hand, as the tool's file tells it; OptionStrip shows it. */
export type Field =
  | { as: 'words'; text: string; mono?: boolean; quiet?: boolean; wrong?: boolean; said?: string }
  | { as: 'length'; label: string; value: number | null; empty?: string; keep: (v: number) => void; enter?: () => void }
  | NameField
  | { as: 'angle'; label: string; value: number; keep: (v: number) => void }
  | { as: 'whole'; label: string; value: number; least: number; most: number; keep: (v: number) => void }
  /** Per cent. */
  | { as: 'share'; label: string; value: number; keep: (v: number) => void }
  | { as: 'tick'; label: string; value: boolean; keep: (v: boolean) => void }
  | ChoiceOf<'one'>
  | ChoiceOf<'choice'>
  | { as: 'press'; text: string; title?: string; press: () => void }

/** A name that is typed while the tool waits; main: typing it comes first when the tool is taken. */
interface NameField {
  as: 'name'
  label: string
  value: string
  names: readonly string[]
  empty?: string
  main?: boolean
  type: (v: string) => void
}
type Value = string | number | boolean
interface Option {
  value: Value
  title: string
  keys?: string
  swatch?: string
}
interface ChoiceOf<As> {
  as: As
  label: string
  value: Value
  options: readonly Option[]
  mono?: boolean
  keep: (v: Value) => void
}

/** One of a few, all in sight. */
export const oneOf = <V extends Value>(label: string, value: V, options: readonly (Option & { value: V })[], keep: (v: V) => void, mono = false): Field => ({ as: 'one', label, value, options, mono, keep: (v) => keep(v as V) }) // prettier-ignore
/** One of several, in a list. */
export const choice = <V extends Value>(label: string, value: V, options: readonly (Option & { value: V })[], keep: (v: V) => void): Field => ({ as: 'choice', label, value, options, keep: (v) => keep(v as V) }) // prettier-ignore
export const words = (text: string, more: Partial<Extract<Field, { as: 'words' }>> = {}): Field => ({ as: 'words', text, ...more }) // prettier-ignore
