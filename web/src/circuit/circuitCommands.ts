import { nudges } from '../canvas/page'
import type { Command } from '../shell/keys'
import type { CircuitEditor } from './editor'

interface Hands {
  tools: Command[]
  replace(): void
  editPicked(field: 'designator' | 'value'): void
  frameAll(): void
  frameSelection(): void
  tolerance(): number
  panel(p: 'find' | 'numbers'): void
  view(v: string): void
  up(): void
  print(): void
  svg(): void
  paper(): void
  grid(): void
}

/** All commands of the circuit stage. */
export function circuitCommands(ed: CircuitEditor, h: Hands): Command[] {
  const picked = () => ed.picks && ed.selection.size > 0
  const change = (id: string, title: string, keys: string | undefined, run: () => void, enabled?: () => boolean): Command => ({ id, title, keys, group: 'Change', run, enabled }) // prettier-ignore
  const see = (id: string, title: string, keys: string | undefined, run: () => void): Command => ({ id, title, keys, group: 'See', run }) // prettier-ignore
  return [
    ...h.tools,
    change('left', 'Turn left', 'Q', () => ed.turn(1)),
    change('right', 'Turn right', 'E', () => ed.turn(-1)),
    change('mirror', 'Mirror', 'M', () => ed.mirror()),
    change('remove', 'Remove', 'Del / Backspace', () => ed.remove(), picked),
    change('rename', 'Edit the value in place', 'V', () => h.editPicked('value'), picked),
    change('designate', 'Edit the designator or name in place', 'R', () => h.editPicked('designator'), picked),
    change('replace', 'Replace the parts by another of the library', 'Shift R', () => h.replace(), picked),
    change('copy', 'Copy', 'Ctrl C', () => void ed.copy()),
    change('cut', 'Cut', 'Ctrl X', () => ed.cut(), picked),
    change('paste', 'Take the copies into the hand', 'Ctrl V', () => ed.paste()),
    change('duplicate', 'Duplicate', 'Ctrl D', () => ed.duplicate()),
    change('markOpen', 'Mark the free pins as left open', 'Shift O', () => ed.markOpen(), picked),
    change('all', 'Select all', 'Ctrl A', () => ed.selectAll()),
    change('column', 'Line up in a column', undefined, () => ed.arrange('column'), picked),
    change('row', 'Line up in a row', undefined, () => ed.arrange('row'), picked),
    change('across', 'Spread evenly across', undefined, () => ed.arrange('across'), picked),
    change('down', 'Spread evenly down', undefined, () => ed.arrange('down'), picked),
    change('numbers', 'Number the parts by position …', undefined, () => h.panel('numbers')),
    change('find-replace', 'Find and replace in values, names and texts …', 'Ctrl F', () => h.panel('find')),
    ...nudges('Nudge what is picked, or lead the hand,', (dx, dy) => ed.nudge(dx, dy)),
    see('frame', 'Frame what is drawn, then the sheet', 'F', () => h.frameAll()),
    see('frameSel', 'Frame the selection', 'Shift F', () => h.frameSelection()),
    see('net', 'Highlight the net under the cursor', 'H', () => ed.project.light(ed.netUnder(ed.raw, h.tolerance()))),
    see('grid', 'Grid on or off', 'G', () => h.grid()),
    see('paper', 'Dark or light paper', undefined, () => h.paper()),
    see('up', 'Up to the sheet above', 'Ctrl ArrowUp', () => h.up()),
    see('drawing', 'Show the drawing', undefined, () => h.view('drawing')),
    see('table', 'Show the table of parts', undefined, () => h.view('parts')),
    see('nets', 'Show the nets', undefined, () => h.view('nets')),
    see('print', 'Print all sheets as PDF', 'Ctrl P', () => h.print()),
    see('svg', 'Save this sheet as SVG', undefined, () => h.svg()),
  ]
}
