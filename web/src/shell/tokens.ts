/** All colours of the product, in one place. */
export const palette = {
  plum: '#17131E',
  raised: '#221C2C',
  line: '#3A3247',
  text: '#EFE9F5',
  quiet: '#A79DB8',
  gold: '#E7B549',
  verdigris: '#3DB8A3',
  coral: '#FF6F61',
  periwinkle: '#8D9BFF',
  fog: '#EEF1F5',
  ink: '#24304A',
}

export const themes = {
  dark: {
    dark: true,
    colors: {
      background: palette.plum,
      surface: palette.raised,
      primary: palette.gold,
      secondary: palette.verdigris,
      error: palette.coral,
      info: palette.periwinkle,
      'on-background': palette.text,
      'on-surface': palette.text,
      'on-primary': '#241A05',
    },
    variables: { 'border-color': '#A79DB8', 'border-opacity': 0.28, 'medium-emphasis-opacity': 0.78 },
  },
  light: {
    dark: false,
    colors: {
      background: '#E4E8EE',
      surface: '#F8F9FB',
      primary: '#7A5200',
      secondary: '#0F6B5D',
      error: '#B3261E',
      info: '#3D4BC0',
      'on-background': '#1E1928',
      'on-surface': '#1E1928',
      'on-primary': '#FFFFFF',
    },
    variables: { 'border-color': '#3A3247', 'border-opacity': 0.25, 'medium-emphasis-opacity': 0.8 },
  },
}

/** Colours of a drawn circuit, on fog paper or on plum, by the names core/paper uses. */
export type CircuitColours = Record<
  | 'paper'
  | 'dots'
  | 'ink'
  | 'body'
  | 'wire'
  | 'bundle'
  | 'label'
  | 'port'
  | 'supply'
  | 'frame'
  | 'quiet'
  | 'open'
  | 'block'
  | 'select'
  | 'others'
  | 'net',
  string
> &
  Record<string, string>
export const circuitColours: Record<'light' | 'dark', CircuitColours> = {
  light: {
    paper: palette.fog,
    dots: '#C3CBD8',
    ink: palette.ink,
    body: '#DDE4EC',
    wire: '#96671D',
    bundle: '#96671D',
    label: '#1E7F70',
    port: '#4350C8',
    supply: '#24304A',
    frame: '#7C879B',
    quiet: '#56617A',
    open: '#D9432F',
    block: '#E9EBFA',
    select: '#5361E0',
    others: '#A23B8F',
    net: '#E9A400',
    'tint-port': '#E3E6FB',
    ...tints(['#DCEAF5', '#E2EDD6', '#F5E1E7', '#F3EAD5', '#E8E2F4'], ['#C5DCEF', '#D0E3BC', '#EDC9D5', '#E9D8B2', '#D7CBEC'], ['#5E93BC', '#6F9A45', '#BF6C88', '#A98643', '#8A74BB', '#7C879B']), // prettier-ignore
  },
  dark: {
    paper: '#1C1825',
    dots: '#3A3349',
    ink: '#E6E0EF',
    body: '#302A3D',
    wire: '#D9A441',
    bundle: '#D9A441',
    label: '#4FC9B4',
    port: '#A3AEFF',
    supply: '#E6E0EF',
    frame: '#6F667F',
    quiet: '#A79DB8',
    open: '#FF6F61',
    block: '#28243F',
    select: '#9AA6FF',
    others: '#E07CCB',
    net: '#FFD873',
    'tint-port': '#2A2748',
    ...tints(['#1D2935', '#232C21', '#33222B', '#302A1F', '#2A2438'], ['#2A4459', '#37492C', '#553040', '#504228', '#43365F'], ['#6FA8D4', '#8AB85C', '#D98BA5', '#C6A25A', '#A792D8', '#6F667F']), // prettier-ignore
  },
}

/** Colours of clusters, notes and shapes: areas, tabs and lines, in the order of the tints' names. */
function tints(areas: string[], tabs: string[], lines: string[]): Record<string, string> {
  const out: Record<string, string> = { 'tint-none': '', 'tab-none': '' }
  for (const [i, name] of ['sky', 'moss', 'rose', 'sand', 'lilac', 'none'].entries()) {
    if (areas[i]) out['tint-' + name] = areas[i]
    if (tabs[i]) out['tab-' + name] = tabs[i]
    out['line-' + name] = lines[i]
  }
  return out
}

const inner = ['#8088F5', '#E27BB1', '#93C05B', '#C98A4B', '#63B4E8', '#B79BEA']

/** The colour of a copper layer of a board with n of them. */
export function copperColour(at: number, n: number): string {
  if (at === 0) return '#E7B549'
  if (at === n - 1) return '#35B7A6'
  const round = Math.floor((at - 1) / inner.length)
  return darker(inner[(at - 1) % inner.length], 0.74 ** round)
}

const darker = (hex: string, by: number) =>
  by === 1 ? hex : '#' + [1, 3, 5].map((i) => Math.round(parseInt(hex.slice(i, i + 2), 16) * by).toString(16).padStart(2, '0')).join('') // prettier-ignore

/** A colour laid over another, as strongly as the share says. */
export const mixed = (hex: string, over: string, share: number) =>
  '#' + [1, 3, 5].map((i) => Math.round(parseInt(hex.slice(i, i + 2), 16) * share + parseInt(over.slice(i, i + 2), 16) * (1 - share)).toString(16).padStart(2, '0')).join('') // prettier-ignore

/** Hatch angles tell copper layers apart without colour. */
export const hatchAngle = (at: number) => [45, 135, 0, 90, 22, 158, 67, 112][at % 8]

export interface BoardColours {
  paper: string
  dots: string
  edge: string
  inside: string
  barrel: string
  bore: string
  silkTop: string
  silkBottom: string
  link: string
  linkNet: string
  finding: string
  select: string
  others: string
  text: string
  yard: string
  mask: string
  paste: string
  agrees: string
  /** What is on the drawing alone: dimensions, notes. */
  drawing: string
}
export const boardColours: Record<'light' | 'dark', BoardColours> = {
  dark: {
    paper: palette.plum,
    dots: '#2C2538',
    edge: '#F4ECDC',
    inside: '#1E1828',
    barrel: '#D9906F',
    bore: '#100C16',
    silkTop: '#F4ECDC',
    silkBottom: '#C9B8E8',
    link: '#F4ECDC',
    linkNet: '#FFFFFF',
    finding: palette.coral,
    select: palette.periwinkle,
    others: '#E07CCB',
    text: palette.text,
    yard: '#6F667F',
    mask: '#A06BD0',
    paste: '#9FB4C9',
    agrees: palette.verdigris,
    drawing: '#9FCFE6',
  },
  light: {
    paper: '#E4E8EE',
    dots: '#C5CBD6',
    edge: '#2B2536',
    inside: '#F6F5F0',
    barrel: '#B8694A',
    bore: '#FDFDFD',
    silkTop: '#4A4436',
    silkBottom: '#6A54A0',
    link: '#3A3247',
    linkNet: '#000000',
    finding: '#C93A2B',
    select: '#3D4BC0',
    others: '#A23B8F',
    text: '#1E1928',
    yard: '#8C8699',
    mask: '#7B3FB0',
    paste: '#4F6A85',
    agrees: '#0F6B5D',
    drawing: '#1F6784',
  },
}
