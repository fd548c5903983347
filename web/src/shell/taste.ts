import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'

type Shade = 'dark' | 'light'

function kept<T>(key: string, first: T) {
  const raw = localStorage.getItem('gt.' + key)
  const r = ref<T>(raw === null ? first : (JSON.parse(raw) as T))
  watch(r, (v) => localStorage.setItem('gt.' + key, JSON.stringify(v)))
  return r
}

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
  const gridOn = kept('gridOn', true)
  return {
    frameShade,
    circuitShade,
    boardShade,
    detailsOpen,
    sheetsOpen,
    unit,
    circuitGrid,
    boardGrid,
    gridOn,
    frame: computed(() => frameShade.value),
  }
})
