<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Project } from '../live/project'
import { format } from '../live/units'
import type { Placed, PlaceNote } from '../live/wire.gen'
import LengthField from '../shell/fields/LengthField.vue'
import OneOf from '../shell/fields/OneOf.vue'
import TextField from '../shell/fields/TextField.vue'
import { useIntoView } from '../shell/intoView'
import { complain, say } from '../shell/notices'
import { useTaste } from '../shell/taste'
import type { BoardEditor } from './editor'

/** Where a part is to stand: notes with numbers, checked as it moves, or words. */
const props = defineProps<{ project: Project; editor: BoardEditor; part: Placed }>()
const taste = useTaste()
const adding = ref(false)
const root = ref<HTMLElement>()
useIntoView(() => adding.value, root)
const kind = ref<'within' | 'edge' | 'text'>('within')
const distance = ref(3_000_000)
const near = ref('')
const words = ref('')
const notes = computed(() => props.part.notes ?? [])
const line = (i: number) => props.editor.notes.value.find((n) => n.part === props.part.id && n.note === i)
const length = (nm: number) => `${format(nm, taste.unit, 2)} ${taste.unit}`
function text(n: PlaceNote) {
  if (n.kind === 'text') return n.text
  if (n.kind === 'edge') return `at the edge, within ${length(n.distance ?? 0)}`
  const other = n.of ? props.project.get('placed', n.of) : undefined
  return `within ${length(n.distance ?? 0)} of ${other?.designator ?? 'a part that is gone'}${n.pad ? '.' + n.pad : ''}`
}
const keep = (list: PlaceNote[]) => props.project.edit('setNotes', { id: props.part.id, notes: list }).catch(complain)
/** U1.4 names a part and its pad; U1 the part alone. */
function named(): { of: number; pad?: string } | null {
  const [designator, pad] = near.value.trim().split('.')
  const other = props.project.all('placed').find((p) => p.designator.toLowerCase() === designator.toLowerCase())
  if (!other) {
    say(`There is no ${designator || 'part'} on the board that it could be near.`, 'error')
    return null
  }
  return { of: other.id, ...(pad ? { pad } : {}) }
}
async function add() {
  let n: PlaceNote
  if (kind.value === 'within') {
    const of = named()
    if (!of) return
    n = { kind: 'within', distance: distance.value, ...of }
  } else if (kind.value === 'edge') n = { kind: 'edge', distance: distance.value }
  else n = { kind: 'text', text: words.value }
  if ((await keep([...notes.value, n])) !== undefined) adding.value = false
}
</script>

<template>
  <section ref="root" aria-label="Where it is to stand">
    <h4>Where it is to stand</h4>
    <ul v-if="notes.length">
      <li v-for="(n, i) in notes" :key="i" :class="{ off: line(i) && !line(i)!.holds }">
        <span>{{ text(n) }}</span>
        <span v-if="line(i) && !line(i)!.lost" class="mono has">{{ line(i)!.holds ? '✓' : '✗' }} {{ length(line(i)!.has) }}</span>
        <v-btn
          :icon="mdiClose"
          size="x-small"
          variant="text"
          :aria-label="`Take the note away: ${text(n)}`"
          @click="keep(notes.filter((_, k) => k !== i))"
        />
      </li>
    </ul>
    <template v-if="adding">
      <OneOf
        label="Kind of note"
        :value="kind"
        :options="[
          { value: 'within', title: 'Near a part' },
          { value: 'edge', title: 'At the edge' },
          { value: 'text', title: 'Words' },
        ]"
        @keep="kind = $event"
      />
      <TextField v-if="kind === 'within'" label="Near" :value="near" empty="U1.4" @keep="near = $event" />
      <LengthField v-if="kind !== 'text'" label="Within" :value="distance" @keep="distance = $event" />
      <TextField v-else label="Words" :value="words" empty="flat side to the left" @keep="words = $event" />
      <div class="acts">
        <v-btn size="small" color="primary" variant="flat" @click="add">Add the note</v-btn>
        <v-btn size="small" variant="text" @click="adding = false">Cancel</v-btn>
      </div>
    </template>
    <v-btn v-else size="small" variant="outlined" @click="((kind = 'within'), (adding = true))">Add a note</v-btn>
  </section>
</template>

<style scoped>
h4 {
  margin: 10px 0 4px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0 0 6px;
}
li {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12.5px;
}
li .has {
  margin-left: auto;
  white-space: nowrap;
}
.off {
  color: rgb(var(--v-theme-error));
}
.acts {
  display: flex;
  gap: 6px;
  margin-top: 6px;
}
</style>
