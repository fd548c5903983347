/** Electrical types of pins, as they are offered. */
export const pinTypes = [
  { value: 'input', title: 'input' },
  { value: 'output', title: 'output' },
  { value: 'both', title: 'both ways' },
  { value: 'triState', title: 'three-state' },
  { value: 'passive', title: 'passive' },
  { value: 'supplyIn', title: 'supply in' },
  { value: 'supplyOut', title: 'supply out' },
  { value: 'openCollector', title: 'open collector' },
  { value: 'openEmitter', title: 'open emitter' },
  { value: 'notConnected', title: 'not connected' },
]
export const typeWords = Object.fromEntries(pinTypes.map((t) => [t.value, t.title]))

/** What is drawn where a pin meets the body. */
export const pinShapes = [
  { value: '', title: 'plain' },
  { value: 'negated', title: 'negated' },
  { value: 'clock', title: 'clock' },
  { value: 'negatedClock', title: 'negated clock' },
  { value: 'low', title: 'active low' },
]
