/** Things copied on a sheet; kept in the browser so that they reach other tabs too. */
export interface Clip {
  items: { kind: string; object: unknown }[]
  from: { x: number; y: number }
}
const key = 'gt.clip'
export const copyClip = (c: Clip) => localStorage.setItem(key, JSON.stringify(c))
export function readClip(): Clip | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as Clip | null
  } catch {
    return null
  }
}
