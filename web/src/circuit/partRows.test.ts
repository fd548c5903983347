import { describe, expect, it } from 'vitest'
import { baseColumns, cellsFor, type Column, filtered, rangeOf, readBlock, type Row, sorted, writeBlock } from './partRows'

const columns: Column[] = [...baseColumns, { field: 'Maker', name: 'Maker', own: true }]
const row = (id: number, designator: string, value: string, more: Record<string, string> = {}): Row => ({
  id,
  path: '',
  cells: { designator, value, footprint: '0603', fitted: 'yes', library: 'Resistor 0603', sheet: 'Power', ...more },
})
const rows = [row(1, 'R10', '1k'), row(2, 'R2', '10k', { Maker: 'Sennick' }), row(3, 'C1', '100n', { fitted: 'no' })]

describe('the table of parts', () => {
  it('finds rows in which all words stand, in any field or in one', () => {
    const names = (f: string) => filtered(rows, f, columns).map((r) => r.cells.designator)
    expect(names('')).toHaveLength(3)
    expect(names('10')).toEqual(['R10', 'R2', 'C1'])
    expect(names('designator:10')).toEqual(['R10'])
    expect(names('power sennick')).toEqual(['R2'])
    expect(names('fitted:no')).toEqual(['C1'])
    expect(names('nothing like it')).toEqual([])
    expect(names('librarypart:resistor maker:sen')).toEqual(['R2'])
  })
  it('sorts as people count', () => {
    expect(sorted(rows, 'designator', false).map((r) => r.cells.designator)).toEqual(['C1', 'R2', 'R10'])
    expect(sorted(rows, 'Maker', true)[0].cells.designator).toBe('R2')
  })
  it('changes only cells that differ and may be changed', () => {
    const all = rangeOf({ r: 2, c: 5 }, { r: 0, c: 1 })
    expect(all).toEqual({ top: 0, bottom: 2, left: 1, right: 5 })
    const cells = cellsFor(rows, columns, { top: 0, bottom: 2, left: 1, right: 5 }, () => '10k')
    expect(cells.some((c) => c.field === 'library' || c.field === 'sheet')).toBe(false)
    expect(cells.filter((c) => c.field === 'value').map((c) => c.id)).toEqual([1, 3])
  })
  it('names the use of the sheet with a cell', () => {
    const used = [{ ...rows[0], path: '7/9' }]
    expect(cellsFor(used, columns, { top: 0, bottom: 0, left: 0, right: 0 }, () => 'R99')).toEqual([
      { id: 1, field: 'designator', text: 'R99', path: '7/9' },
    ])
  })
  it('speaks the language of spreadsheets', () => {
    expect(readBlock('1k\t0603\r\n2k\t0805\r\n')).toEqual([['1k', '0603'], ['2k', '0805']]) // prettier-ignore
    expect(readBlock('1k')).toEqual([['1k']])
    expect(writeBlock(rows, columns, { top: 0, bottom: 1, left: 0, right: 1 })).toBe('R10\t1k\nR2\t10k')
    expect(readBlock(writeBlock(rows, columns, { top: 0, bottom: 2, left: 0, right: 6 }))[1][6]).toBe('Sennick')
  })
})
