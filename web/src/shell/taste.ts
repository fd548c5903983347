import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'

type Shade = 'dark' | 'light'

/** A choice that the browser remembers, as JSON. */
export const kept = <T>(key: string, first: T) => useLocalStorage<T>('gt.' + key, first, { serializer: { read: JSON.parse as (s: string) => T, write: JSON.stringify } }) // prettier-ignore

/** What a person chose for themselves, remembered in the browser. */
export const useTaste = defineStore('taste', () => {
  const frameShade = kept<Shade>('frame', 'dark')
  const circuitShade = kept<Shade>('circuit', 'light')
  const boardShade = kept<Shade>('board', 'dark')
  const detailsOpen = kept('details', true)
  const sheetsOpen = kept('sheets', true)
  const unit = kept<'mm' | 'in' | 'mil'>('unit', 'mm')
  const circuitGrid = kept('circuitGrid', 2_500_000)
  const boardGrid = kept('boardGrid', 635_000)
  const partGrid = kept('partGrid', 100_000)
  const gridOn = kept('gridOn', true)
  /** What becomes of the tracks that lead to a part when it is moved. */
  const tracks = kept<'along' | 'open'>('tracks', 'along')
  /** How what copper areas fill is drawn. */
  const fills = kept<'full' | 'edges' | 'hatch'>('fills', 'full')
  return {
    frameShade,
    circuitShade,
    boardShade,
    detailsOpen,
    sheetsOpen,
    unit,
    circuitGrid,
    boardGrid,
    partGrid,
    gridOn,
    tracks,
    fills,
    frame: computed(() => frameShade.value),
  }
})
