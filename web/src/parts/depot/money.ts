import type { Cost } from '../../live/wire.gen'

/** Money, kept in millionths of a euro: cents, and as many more places as a small price needs. As core/ordering writes it. */
export function euro(millionths: number): string {
  const places = millionths !== 0 && millionths < 1_000 ? 6 : millionths !== 0 && millionths < 100_000 ? 4 : 2
  return (millionths / 1e6).toFixed(places) + ' €'
}

export const pieces = (n: number) => n.toLocaleString('en-GB').replace(/,/g, '\u2009')

/** What a quantity comes to, for each piece that was wanted. */
export const eachOf = (c: Cost | null) => (c ? euro(c.each) : '–')
