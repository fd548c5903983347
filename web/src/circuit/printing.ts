import { ref } from 'vue'
import type { Project } from '../live/project'
import { complain, say } from '../shell/notices'

/** Printing all sheets as one PDF, which can be stopped. */
export function usePrinting(project: Project) {
  const printing = ref<AbortController | null>(null)
  async function print() {
    const stop = new AbortController()
    printing.value = stop
    try {
      const r = await fetch(`/api/projects/${project.id}/circuit.pdf`, { signal: stop.signal })
      if (!r.ok) throw new Error(((await r.json()) as { error: string }).error)
      const a = document.createElement('a')
      a.href = URL.createObjectURL(await r.blob())
      a.download = (r.headers.get('Content-Disposition') ?? '').match(/filename="(.+)"/)?.[1] ?? 'circuit.pdf'
      a.click()
      const replaced = decodeURIComponent((r.headers.get('X-Replaced') ?? '').replace(/\+/g, ' '))
      if (replaced)
        say(`The type of the drawings does not have ${[...replaced].join(' ')}; a question mark stands for each in the PDF.`)
      setTimeout(() => URL.revokeObjectURL(a.href), 10_000)
    } catch (e) {
      if (!stop.signal.aborted) complain(e)
    } finally {
      printing.value = null
    }
  }
  return { printing, print }
}
