import type { CircuitEditor } from './editor'

/** What the mouse buttons and keys do right now. */
export function hint(s: CircuitEditor['state'], picked: number, view: string): string {
  if (view !== 'drawing')
    return 'type or Enter edits what is picked · Shift extends · Ctrl D fills down · Ctrl C and Ctrl V speak with spreadsheets · Del empties'
  if (s.warning) return s.warning
  switch (s.tool) {
    case 'part':
      return 'click places · Q E turn · M mirror · arrows and Enter place by keys · N another part · Esc ends'
    case 'wire':
    case 'bundle':
      return 'click sets a corner · Tab bends the other way · A any angle · Enter or double click ends · Esc steps back'
    case 'paste':
      return 'click puts the copies down · Q E turn · M mirror · Esc leaves it'
    case 'tap':
      return 'click on a bundle leads a member out · Q E turn · Esc ends'
    case 'label':
      return 'click names the net there · Q E turn · Esc ends'
    case 'port':
      return 'click places the port · Q E turn · Esc ends'
    case 'supply':
      return 'click places · 1 GND · 2 +3V3 · 3 +5V · Q E turn · Esc ends'
    case 'open':
      return 'click marks a pin as left open on purpose · Esc ends'
    case 'block':
      return 'drag the block, or click · double click on it later enters its sheet · Esc ends'
    case 'cluster':
      return 'drag a frame around what belongs together · Esc ends'
    case 'note':
      return 'click where the note shall begin · Esc ends'
    case 'draw':
      return s.drawForm === 'timing' || s.drawForm === 'picture'
        ? 'click where it shall stand · Esc ends'
        : 'drag from one end to the other · Esc ends'
  }
  return picked
    ? 'drag moves, wires follow · Q E turn · M mirror · Del removes · V value · R designator or name'
    : 'click picks · drag picks by box · middle drag moves the paper · wheel zooms · N part · C wire'
}
