/** How the library's parts are used throughout: small, quiet, on one line. Their look is in look.css and tokens.ts. */
const field = { density: 'compact', variant: 'outlined', hideDetails: 'auto', color: 'primary' } as const

export const defaults = {
  VTextField: field,
  VTextarea: { ...field, rows: 3 },
  VSelect: { ...field, menuProps: { maxHeight: 320 } },
  VAutocomplete: { ...field, autoSelectFirst: true, menuProps: { maxHeight: 320 } },
  VCombobox: { ...field, hideNoData: true, menuIcon: '', menuProps: { maxHeight: 320 } },
  VFileInput: field,
  VCheckbox: { density: 'compact', color: 'primary', hideDetails: 'auto' },
  VSwitch: { density: 'compact', color: 'primary', hideDetails: 'auto', inset: true },
  VBtn: { variant: 'text', density: 'comfortable' },
  VBtnToggle: { density: 'compact', variant: 'outlined', divided: true, mandatory: true },
  VList: { density: 'compact' },
  VTabs: { density: 'compact', height: 30, color: 'primary' },
  VTable: { density: 'compact' },
  VChip: { size: 'small', label: true },
  VTooltip: { openDelay: 400 },
  VMenu: { offset: 4 },
  VDialog: { maxWidth: 520, transition: 'fade-transition' },
  VProgressLinear: { color: 'primary', height: 4, rounded: true },
} as const
