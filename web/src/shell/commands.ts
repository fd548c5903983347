import { useEventListener } from '@vueuse/core'
import { onBeforeUnmount, onMounted, shallowRef } from 'vue'
import { type Command, justLeft, keyName, ofControl, typing } from './keys'
import { say } from './notices'

/** The commands of the stage on show and of the frame around it. */
export const stageCommands = shallowRef<Command[]>([])
export const frameCommands = shallowRef<Command[]>([])
export const helpOpen = shallowRef(false)
export const fieldOpen = shallowRef(false)

/** A step of the way to what is on show, in the top bar. */
export interface Crumb {
  name: string
  go: () => void
}

export const allCommands = () => [...stageCommands.value, ...frameCommands.value]

let word = ''
let saying: ReturnType<typeof setTimeout> | undefined
/** Says, once it is all typed, what was typed on after its field had gone. */
function lose(letter: string) {
  word += letter
  clearTimeout(saying)
  saying = setTimeout(() => {
    say(`“${word}” was typed after its field had closed: nothing was done with it.`, 'error')
    word = ''
  }, 400)
}

/** Puts a stage's commands in force while its page is shown; early keys come first and may take the press. */
export function useCommands(list: Command[], early?: (name: string, e: KeyboardEvent) => boolean, when = () => true) {
  const press = (e: KeyboardEvent) => {
    const overlaid = (e.target as HTMLElement | null)?.closest?.('.v-overlay') // keys in a menu are the menu's
    if (justLeft(e)) return lose(e.key)
    if (typing(e) || ofControl(e) || overlaid || !when() || document.querySelector('.v-overlay--active.v-dialog')) return
    const name = keyName(e)
    if (early?.(name, e)) {
      e.preventDefault()
      return
    }
    const c = list.find((c) => c.keys?.split(' / ').includes(name) && (c.enabled?.() ?? true))
    if (c) {
      e.preventDefault()
      c.run()
    }
  }
  useEventListener(window, 'keydown', press)
  onMounted(() => (stageCommands.value = list))
  onBeforeUnmount(() => (stageCommands.value = []))
}
