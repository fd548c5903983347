import {
  mdiChip,
  mdiCloseThick,
  mdiCursorDefaultOutline,
  mdiDrawPen,
  mdiFlashOutline,
  mdiSelectGroup,
  mdiTagOutline,
  mdiTextBoxOutline,
  mdiVectorPolyline,
} from '@mdi/js'
import { nudges } from '../canvas/page'
import type { Command } from '../shell/keys'
import type { CircuitEditor } from './editor'
import { nearSupplies } from './supplies'
import { blockIcon, bundleIcon, portIcon, tapIcon } from './icons'

export const tools = [
  { id: 'select', name: 'Select', icon: mdiCursorDefaultOutline, keys: 'S' },
  { id: 'part', name: 'Part', icon: mdiChip, keys: 'N' },
  { id: 'wire', name: 'Wire', icon: mdiVectorPolyline, keys: 'C' },
  { id: 'bundle', name: 'Bundle', icon: bundleIcon, keys: 'U' },
  { id: 'tap', name: 'Tap', icon: tapIcon, keys: 'I' },
  { id: 'label', name: 'Label', icon: mdiTagOutline, keys: 'T' },
  { id: 'port', name: 'Port', icon: portIcon, keys: 'X' },
  { id: 'supply', name: 'Supply', icon: mdiFlashOutline, keys: 'P' },
  { id: 'open', name: 'Left open', icon: mdiCloseThick, keys: 'O' },
  { id: 'block', name: 'Block', icon: blockIcon, keys: 'K' },
  { id: 'cluster', name: 'Cluster', icon: mdiSelectGroup, keys: 'L' },
  { id: 'note', name: 'Note', icon: mdiTextBoxOutline, keys: 'W' },
  { id: 'draw', name: 'Draw', icon: mdiDrawPen, keys: 'J' },
]

interface Hands {
  take(tool: string): void
  replace(): void
  editPicked(field: 'designator' | 'value'): void
  frameAll(): void
  frameSelection(): void
  hold(on: boolean): void
  tolerance(): number
  panel(p: 'find' | 'numbers'): void
  view(v: string): void
  up(): void
  print(): void
  svg(): void
  paper(): void
  grid(): void
}

/** All commands of the circuit stage, and the keys that come before them. */
export function circuitCommands(ed: CircuitEditor, h: Hands) {
  const picked = () => ed.state.tool === 'select' && ed.selection.size > 0
  const change = (id: string, title: string, keys: string | undefined, run: () => void, enabled?: () => boolean): Command => ({ id, title, keys, group: 'Change', run, enabled }) // prettier-ignore
  const see = (id: string, title: string, keys: string | undefined, run: () => void): Command => ({ id, title, keys, group: 'See', run }) // prettier-ignore
  const commands: Command[] = [
    ...tools.map((t) => ({
      id: t.id,
      title: t.id === 'select' ? 'Select' : `${t.name} tool`,
      keys: t.keys,
      group: 'Draw',
      run: () => h.take(t.id),
    })),
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
    see('net', 'Highlight the net under the cursor', 'H', () => ed.project.light(ed.hand.netUnder(ed.raw, h.tolerance()))),
    see('grid', 'Grid on or off', 'G', () => h.grid()),
    see('paper', 'Dark or light paper', undefined, () => h.paper()),
    see('up', 'Up to the sheet above', 'Ctrl ArrowUp', () => h.up()),
    see('drawing', 'Show the drawing', undefined, () => h.view('drawing')),
    see('table', 'Show the table of parts', undefined, () => h.view('parts')),
    see('nets', 'Show the nets', undefined, () => h.view('nets')),
    see('print', 'Print all sheets as PDF', 'Ctrl P', () => h.print()),
    see('svg', 'Save this sheet as SVG', undefined, () => h.svg()),
  ]
  const early = (name: string): boolean => {
    const wiring = ed.state.tool === 'wire' || ed.state.tool === 'bundle'
    if (name === 'Esc') return ed.back()
    if (name === 'Enter' && ed.press(h.tolerance())) return true
    if (name === 'Enter' && wiring) {
      ed.hand.finish()
      return true
    }
    if ((name === 'Tab' || name === 'Space') && wiring && ed.hand.path.length) {
      ed.state.lead = ed.state.lead === '' ? ed.hand.other() : ed.state.lead === 'level' ? 'upright' : 'level'
      ed.hand.ahead()
      ed.redraw()
      return true
    }
    if (name === 'A' && wiring) {
      ed.state.freeAngle = !ed.state.freeAngle
      ed.hand.ahead()
      return true
    }
    if (name === 'Backspace' && ed.hand.path.length) return ed.back()
    if (name === 'Enter' && ed.state.tool === 'select' && ed.selection.size === 1) {
      const b = ed.project.get('block', [...ed.selection][0])
      if (b) {
        ed.enter(b.of, ed.path ? `${ed.path}/${b.id}` : String(b.id))
        return true
      }
    }
    const near = ed.state.tool === 'supply' && nearSupplies.find((x) => x[0] === name)
    if (near) {
      ed.hand.supply(near[1])
      return true
    }
    if (name === 'Space') h.hold(true)
    return false
  }
  return { commands, early }
}
