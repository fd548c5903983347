import type { Project } from '../live/project'

/** The supplies that are one key away, with their usual shapes. */
export const nearSupplies: [key: string, name: string, shape: string][] = [
  ['1', 'GND', 'ground'],
  ['2', '+3V3', 'arrow'],
  ['3', '+5V', 'bar'],
]

const key = 'gt.supplyShapes'
const read = (): Record<string, string> => {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '{}') as Record<string, string>
  } catch {
    return {}
  }
}

/** The shape a supply of the name is drawn with: as in this project, as it was drawn last, as is usual. */
export function shapeOf(project: Project, name: string): string | undefined {
  const drawn = project.all('supply').find((s) => s.name === name)
  return drawn?.shape ?? read()[name] ?? nearSupplies.find((s) => s[1] === name)?.[2]
}

export function rememberShape(name: string, shape: string) {
  localStorage.setItem(key, JSON.stringify({ ...read(), [name]: shape }))
}

/** Names of all supplies. */
export function supplyNames(project: Project): string[] {
  void project.docTick.value
  return [...new Set(project.all('supply').map((x) => x.name))].sort()
}
/** Names of labels and ports of a sheet, and of all supplies, offered while one types. */
export function namesOnSheet(project: Project, sheet: number): string[] {
  const out = new Set(supplyNames(project))
  for (const { kind, object } of project.standing(sheet))
    if (kind === 'label' || kind === 'port') out.add((object as { name: string }).name)
  return [...out].sort()
}
