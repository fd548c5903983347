<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, watch } from 'vue'
import type { Project } from '../live/project'
import { heldWord, holdKeys } from './keyHold'
import { keyName } from './keys'

/**
 * Asks before an act that would join or part nets. Enter does it, Esc leaves all as it is; other keys wait until it is answered. An Enter that
 * follows what somebody types on, having not seen the question, answers nothing.
 */
const props = defineProps<{ project: Project }>()
/** A question is read before it is answered, and a word that is being typed is over, in milliseconds. */
const reading = 350
let since = 0
let other = -Infinity
function hears(e: KeyboardEvent) {
  const name = keyName(e)
  if (name === 'Esc') return 'heard'
  const typing = e.timeStamp - other <= reading
  if (name === 'Enter' && !typing) return e.timeStamp - since > reading ? 'heard' : 'nobody'
  other = e.timeStamp
  return 'waits'
}
const asked = computed(() => props.project.asking.value)
let answered = () => {}
watch(
  asked,
  (q) => {
    answered()
    if (!q) return
    since = performance.now()
    other = -Infinity
    holdKeys(new Promise<void>((done) => (answered = done)), { hears, long: true })
  },
  { flush: 'sync' },
)
onBeforeUnmount(() => answered())
function press(e: KeyboardEvent) {
  const name = keyName(e)
  if (!asked.value || (name !== 'Enter' && name !== 'Esc')) return
  e.preventDefault()
  e.stopImmediatePropagation()
  if (name === 'Enter') asked.value.go()
  else asked.value.leave()
}
onMounted(() => window.addEventListener('keydown', press, true))
onBeforeUnmount(() => window.removeEventListener('keydown', press, true))
const then = computed(heldWord)
</script>

<template>
  <div v-if="asked" class="float ask" role="alertdialog" aria-label="Before this is done">
    <span>{{ asked.text }}</span>
    <span v-if="then" class="then quiet"
      >then: <span class="mono">{{ then }}</span></span
    >
    <v-btn size="small" color="primary" variant="flat" @click="asked.go()">Do it all the same <kbd>Enter</kbd></v-btn>
    <v-btn size="small" @click="asked.leave()">Leave it <kbd>Esc</kbd></v-btn>
  </div>
</template>

<style scoped>
.ask {
  position: absolute;
  top: 58px;
  left: 50%;
  transform: translateX(-50%);
  max-width: 640px;
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 10px 8px 14px;
  border-left: 3px solid rgb(var(--v-theme-error));
  z-index: 20;
}
.ask > span {
  flex: 1;
}
.ask > .then {
  flex: none;
  font-size: 12px;
}
kbd {
  margin-left: 6px;
  border-color: currentColor;
}
</style>
