import { ref } from 'vue'
import type { Project } from '../live/project'
import { complain, say } from '../shell/notices'
import { saveFile } from '../shell/saving'

/** Printing all sheets as one PDF, which can be stopped. */
export function usePrinting(project: Project) {
  const printing = ref<AbortController | null>(null)
  async function print() {
    const stop = new AbortController()
    printing.value = stop
    try {
      const headers = await saveFile(`/projects/${project.id}/circuit.pdf`, 'circuit.pdf', stop.signal)
      const replaced = decodeURIComponent((headers.get('X-Replaced') ?? '').replace(/\+/g, ' '))
      if (replaced)
        say(
          `The type of the drawings does not have ${[...replaced].join(' ')}; a question mark stands for each in the PDF.`,
          'warning',
        )
    } catch (e) {
      if (!stop.signal.aborted) complain(e)
    } finally {
      printing.value = null
    }
  }
  return { printing, print }
}
