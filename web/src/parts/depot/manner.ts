import { call } from '../../live/http'
import type { DepotManner } from '../../live/wire.gen'
import type { Entry } from '../../shell/menu'
import { complain } from '../../shell/notices'

const words: Record<string, string> = { well: 'well', slowly: 'slowly', failing: 'with a failure', absent: 'not at all' }

/** How the simulated depot answers, as lines of a menu: it is a stand-in, and one can see that a real one's troubles are borne. */
export async function mannerEntries(then: () => void): Promise<Entry[]> {
  const now = await call<DepotManner>('GET', '/depot/manner').catch(() => null)
  if (!now) return [{ title: 'This depot is a real one', run: () => undefined }]
  return Object.entries(words).map(([answers, text]) => ({
    title: `${now.answers === answers ? '✓ ' : ''}The simulated depot answers ${text}`,
    run: () => void call<DepotManner>('PUT', '/depot/manner', { answers }).then(then, complain),
  }))
}
