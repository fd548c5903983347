/** Ways to line things up, with their words; the first that was picked stays, of those spread the outermost. */
export const lineUps: [string, string][] = [
  ['left', 'Line up their left edges'],
  ['right', 'Line up their right edges'],
  ['top', 'Line up their upper edges'],
  ['bottom', 'Line up their lower edges'],
  ['column', 'Middles above each other'],
  ['row', 'Middles beside each other'],
  ['across', 'Equal gaps across'],
  ['down', 'Equal gaps up and down'],
]
