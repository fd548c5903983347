import { describe, expect, it } from 'vitest'
import { changesIn, type Column, filtered, ordered, pasted, rangeOf, readBlock, sorted, writeBlock } from './columns'

type Row = Record<string, string>
const column = (field: string, name: string, o: Partial<Column<Row>> = {}): Column<Row> => ({
  field,
  name,
  width: 100,
  text: (r) => r[field] ?? '',
  ...o,
})
const columns = [
  column('designator', 'Designator'),
  column('value', 'Value'),
  column('footprint', 'Footprint'),
  column('fitted', 'Fitted'),
  column('library', 'Library part', { fixed: true }),
  column('sheet', 'Sheet', { fixed: true }),
  column('Maker', 'Maker'),
]
const row = (designator: string, value: string, more: Row = {}): Row => ({
  designator,
  value,
  footprint: '0603',
  fitted: 'yes',
  library: 'Resistor 0603',
  sheet: 'Power',
  ...more,
})
const rows = [row('R10', '1k'), row('R2', '10k', { Maker: 'Sennick' }), row('C1', '100n', { fitted: 'no' })]

describe('a table', () => {
  it('finds rows in which all words stand, in any column or in one', () => {
    const names = (f: string) => filtered(rows, f, columns).map((r) => r.designator)
    expect(names('')).toHaveLength(3)
    expect(names('10')).toEqual(['R10', 'R2', 'C1'])
    expect(names('designator:10')).toEqual(['R10'])
    expect(names('power sennick')).toEqual(['R2'])
    expect(names('fitted:no')).toEqual(['C1'])
    expect(names('nothing like it')).toEqual([])
    expect(names('librarypart:resistor maker:sen')).toEqual(['R2'])
  })
  it('sorts as people count, by figures where the column has them, and not at all when not asked', () => {
    const names = (c: Column<Row> | undefined, down: boolean) => sorted(rows, c, down).map((r) => r.designator)
    expect(names(columns[0], false)).toEqual(['C1', 'R2', 'R10'])
    expect(names(columns[0], true)).toEqual(['R10', 'R2', 'C1'])
    expect(names(columns[6], true)[0]).toBe('R2')
    expect(names(undefined, true)).toEqual(['R10', 'R2', 'C1'])
    const byOhms = column('value', 'Value', { rank: (r) => ({ '1k': 1000, '10k': 10_000, '100n': -1 })[r.value]! })
    expect(names(byOhms, false)).toEqual(['C1', 'R10', 'R2'])
    expect(names(byOhms, true)).toEqual(['R2', 'R10', 'C1'])
  })
  it('takes values for what they are, however they are written', () => {
    const valued = [columns[0], column('value', 'Value', { valued: true })]
    const list = [
      row('C1', '10u'),
      row('C2', '10 µF 25 V'),
      row('C3', '100n'),
      row('C4', '10000n'),
      row('C5', '4u7'),
      row('U1', '1N4148'),
      row('U2', '74HC00'),
    ]
    const found = (f: string) => filtered(list, f, valued).map((r) => r.designator)
    for (const f of ['10u', '10µ', '10uF', '10 uF', 'value:10µF', '0.01mF']) expect(found(f), f).toEqual(['C1', 'C2', 'C4'])
    expect(found('4.7u')).toEqual(['C5'])
    expect(found('10')).toEqual(['C1', 'C2', 'C3', 'C4'])
    expect(found('74')).toEqual(['U2'])
    expect(sorted(list, valued[1], false).map((r) => r.value)).toEqual([
      '100n',
      '4u7',
      '10u',
      '10 µF 25 V',
      '10000n',
      '1N4148',
      '74HC00',
    ])
    expect(sorted(list, valued[1], true).map((r) => r.value)).toEqual([
      '74HC00',
      '1N4148',
      '10u',
      '10 µF 25 V',
      '10000n',
      '4u7',
      '100n',
    ])
  })
  it('changes only cells that differ and may be changed', () => {
    const range = rangeOf({ r: 2, c: 5 }, { r: 0, c: 1 })
    expect(range).toEqual({ top: 0, bottom: 2, left: 1, right: 5 })
    const changes = changesIn(rows, columns, range, () => '10k')
    expect(changes.some((c) => c.field === 'library' || c.field === 'sheet')).toBe(false)
    expect(changes.filter((c) => c.field === 'value').map((c) => c.row.designator)).toEqual(['R10', 'C1'])
    expect(changesIn(rows, columns, { top: 2, bottom: 9, left: 0, right: 0 }, () => 'X')).toHaveLength(1)
  })
  it('takes a block in from its upper left, cut where the table ends; one cell fills the range', () => {
    const range = { top: 1, bottom: 1, left: 1, right: 1 }
    const texts = (b: string) => pasted(rows, columns, range, readBlock(b)).map((c) => [c.row.designator, c.field, c.text])
    expect(texts('1k\t0805 \n2k\t1206\n3k\t2512\n')).toEqual([
      ['R2', 'value', '1k'],
      ['C1', 'value', '2k'],
      ['R2', 'footprint', '0805'],
      ['C1', 'footprint', '1206'],
    ])
    const one = pasted(rows, columns, { top: 0, bottom: 2, left: 3, right: 3 }, [['no']])
    expect(one.map((c) => c.row.designator)).toEqual(['R10', 'R2'])
  })
  it('speaks the language of spreadsheets', () => {
    expect(readBlock('1k\t0603\r\n2k\t0805\r\n')).toEqual([['1k', '0603'], ['2k', '0805']]) // prettier-ignore
    expect(readBlock('1k')).toEqual([['1k']])
    expect(writeBlock(rows, columns, { top: 0, bottom: 1, left: 0, right: 1 })).toBe('R10\t1k\nR2\t10k')
    expect(readBlock(writeBlock(rows, columns, { top: 0, bottom: 2, left: 0, right: 6 }))[1][6]).toBe('Sennick')
  })
  it('keeps the order of columns somebody gave; new columns stand where they were made', () => {
    const names = (order: string[]) => ordered(columns.slice(0, 4), order).map((c) => c.field)
    expect(names([])).toEqual(['designator', 'value', 'footprint', 'fitted'])
    expect(names(['fitted', 'designator', 'value', 'footprint'])).toEqual(['fitted', 'designator', 'value', 'footprint'])
    expect(names(['value', 'designator', 'gone', 'fitted'])).toEqual(['value', 'designator', 'footprint', 'fitted'])
  })
})
