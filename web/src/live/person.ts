import { reactive, watch } from 'vue'

/** Who works in this browser: a name of its own choosing, and what others see, if they said. */
export interface Person {
  id: string
  name: string
}

const key = 'gt.person'

function remembered(): Person {
  try {
    const p = JSON.parse(localStorage.getItem(key) ?? 'null') as Person | null
    if (typeof p?.id === 'string' && /^[A-Za-z0-9_-]{1,40}$/.test(p.id))
      return { id: p.id, name: String(p.name ?? '').slice(0, 40) }
  } catch {
    // what cannot be read is made anew
  }
  const bytes = crypto.getRandomValues(new Uint8Array(12))
  return { id: [...bytes].map((b) => b.toString(16).padStart(2, '0')).join(''), name: '' }
}

export const person = reactive<Person>(remembered())
localStorage.setItem(key, JSON.stringify(person))
watch(person, (p) => localStorage.setItem(key, JSON.stringify(p)))
