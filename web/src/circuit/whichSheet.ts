import type { LocationQuery } from 'vue-router'
import type { Project } from '../live/project'
import type { Crumb } from '../shell/commands'
import type { CircuitEditor } from './editor'

/** Which use of which sheet is on show, and the ways to others. */
export class WhichSheet {
  constructor(
    private readonly project: Project,
    private readonly ed: CircuitEditor,
    private readonly tell: (crumbs: Crumb[]) => void,
    private readonly opened: () => void,
    private readonly remember: (sheet: number, path: string) => void,
  ) {}

  has(sheet: number, path: string) {
    return this.project.usesOf(sheet).some((u) => (u.path ?? '') === path)
  }
  /** The way to the sheet on show: each name leads to the sheet it stands for. */
  tellWhere() {
    const p = this.project
    const crumbs: Crumb[] = []
    const ids = this.ed.path ? this.ed.path.split('/') : []
    const first = ids.length ? p.get('block', Number(ids[0])) : undefined
    const root = p.get('sheet', ids.length ? (first?.sheet ?? 0) : this.ed.sheet)
    if (root) crumbs.push({ name: root.name, go: () => void this.go(root.id, '') })
    ids.forEach((id, i) => {
      const b = p.get('block', Number(id))
      if (b) crumbs.push({ name: b.name, go: () => void this.go(b.of, ids.slice(0, i + 1).join('/')) })
    })
    this.tell(crumbs)
  }
  async show(sheet: number, path: string, frame = true) {
    const other = sheet !== this.ed.sheet || path !== this.ed.path
    await this.ed.load(sheet, path)
    this.tellWhere()
    this.ed.follow()
    if (other && frame) this.opened()
  }
  async go(sheet: number, path: string) {
    await this.show(sheet, path)
    this.remember(sheet, path)
  }
  /** To the sheet above, where the block stands that leads here. */
  up() {
    const ids = this.ed.path.split('/')
    const b = this.ed.path ? this.project.get('block', Number(ids[ids.length - 1])) : undefined
    if (b) void this.go(b.sheet, ids.slice(0, -1).join('/'))
  }
  /** Loads what is asked for, else what was on show, else the first sheet. */
  async load(query: LocationQuery) {
    const asked = { sheet: Number(query.sheet ?? 0), path: String(query.path ?? '') }
    const seen = { sheet: this.ed.sheet, path: this.ed.path }
    const top = this.project.places.value[0] ?? { sheet: 0, path: '' }
    const to = [asked, seen, this.project.here.value].find((x) => x.sheet && this.has(x.sheet, x.path)) ?? top
    await this.show(to.sheet, to.path ?? '', false)
  }
  /** Shows a use of the sheet an object stands on, the one on show if it is one. */
  async showFor(sheet: number, path?: string) {
    const here = sheet === this.ed.sheet ? this.ed.path : (this.project.usesOf(sheet)[0]?.path ?? '')
    await this.show(sheet, path !== undefined && this.has(sheet, path) ? path : here, false)
  }
}
