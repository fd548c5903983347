export type DrawForm = 'line' | 'arrow' | 'rectangle' | 'ellipse' | 'timing' | 'picture'

/** What can be chosen of the circuit's things, and what it is called. */
export const tints = ['sky', 'moss', 'rose', 'sand', 'lilac', 'none'] as const
const tintNames = { sky: 'Sky', moss: 'Moss', rose: 'Rose', sand: 'Sand', lilac: 'Lilac', none: 'Plain' }
export const tintChoices = (colours: Record<string, string>) =>
  tints.map((value) => ({ value: value as string, title: tintNames[value], swatch: colours['tab-' + value] || colours.paper }))

export const wayChoices: { value: 'in' | 'out' | 'both'; title: string }[] = [
  { value: 'in', title: 'In' },
  { value: 'out', title: 'Out' },
  { value: 'both', title: 'Both ways' },
]

/** Shapes of supply marks, with the name that is usual for each. */
export const shapes = [
  { value: 'ground', title: 'Ground', usual: 'GND' },
  { value: 'earth', title: 'Earth', usual: 'PE' },
  { value: 'chassis', title: 'Chassis', usual: 'CHASSIS' },
  { value: 'bar', title: 'Bar', usual: '+5V' },
  { value: 'arrow', title: 'Arrow', usual: '+3V3' },
  { value: 'ring', title: 'Ring', usual: 'VIN' },
]

export const forms: { value: DrawForm; title: string }[] = [
  { value: 'line', title: 'Line' },
  { value: 'arrow', title: 'Arrow' },
  { value: 'rectangle', title: 'Rectangle' },
  { value: 'ellipse', title: 'Ellipse' },
  { value: 'timing', title: 'Timing diagram' },
  { value: 'picture', title: 'Picture' },
]
export const formChoices = forms.filter((f) => f.value !== 'timing' && f.value !== 'picture')
