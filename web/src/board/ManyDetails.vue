<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Boxed } from '../live/objects'
import type { Kinds, Placed } from '../live/wire.gen'
import LengthField from '../shell/fields/LengthField.vue'
import TextField from '../shell/fields/TextField.vue'
import { complain, say } from '../shell/notices'
import type { BoardEditor } from './editor'

/** What can be changed of many things at once: widths of tracks, heights of texts and designators, pads of parts of one footprint. */
const props = defineProps<{ editor: BoardEditor; picked: Boxed[] }>()
const of = <K extends keyof Kinds>(kind: K) => props.picked.filter((b) => b.kind === kind).map((b) => b.object as Kinds[K])
const parts = computed(() => of('placed') as Placed[])
const tracks = computed(() => of('track'))
const texts = computed(() => of('legend'))
/** What all of a list have, or null where they differ. */
function shared<T>(list: T[], value: (o: T) => number): number | null {
  const all = new Set(list.map(value))
  return all.size === 1 ? [...all][0] : null
}
const ids = (list: { id: number }[]) => list.map((o) => o.id)
const edit = props.editor.project.edit.bind(props.editor.project)

const footprint = computed(() => {
  const names = new Set(parts.value.map((p) => p.footprint))
  return names.size === 1 ? [...names][0] : ''
})
const open = ref(false)
const name = ref('')
const outward = ref(300_000)
const around = ref(0)
watch(footprint, (f) => ((open.value = false), (name.value = f ? `${f}, by hand` : '')), { immediate: true })
async function vary() {
  const done = await edit('varyFootprint', { ids: ids(parts.value), name: name.value.trim(), outward: outward.value, around: around.value }).catch(complain) // prettier-ignore
  if (!done) return
  say(
    `${parts.value.length === 1 ? 'The part has' : `${parts.value.length} parts have`} the footprint ${name.value} of this project now.`,
  )
  open.value = false
}
async function withTracks() {
  const more = await props.editor.project.question('tracksOf', { ids: ids(parts.value) }).catch(complain)
  if (more && !more.length) say('No tracks join these parts alone.')
  for (const id of more || []) props.editor.selection.add(id)
  props.editor.redraw()
}
</script>

<template>
  <LengthField
    v-if="tracks.length"
    label="Track width"
    :value="shared(tracks, (t) => t.width)"
    @keep="edit('setTrack', { ids: ids(tracks), width: $event }).catch(complain)"
  />
  <LengthField
    v-if="texts.length"
    label="Text height"
    :value="shared(texts, (t) => t.height)"
    @keep="edit('setLegend', { ids: ids(texts), height: $event }).catch(complain)"
  />
  <template v-if="parts.length">
    <LengthField
      label="Designators"
      :value="shared(parts, (p) => p.letters || 1_000_000)"
      @keep="edit('setLetters', { ids: ids(parts), height: $event }).catch(complain)"
    />
    <div class="acts">
      <v-btn v-if="parts.length > 1" size="small" variant="outlined" @click="withTracks">With their tracks</v-btn>
      <v-btn v-if="footprint && !open" size="small" variant="outlined" @click="open = true">Other pads …</v-btn>
    </div>
    <div v-if="open" class="pads" role="group" aria-label="Other pads">
      <p class="quiet">
        A variant of {{ footprint }} in this project, given to
        {{ parts.length === 1 ? 'this part' : `these ${parts.length} parts` }} here and in the circuit.
      </p>
      <TextField label="Its name" :value="name" @keep="name = $event" />
      <LengthField label="Outward" :value="outward" @keep="outward = $event" />
      <LengthField label="All around" :value="around" @keep="around = $event" />
      <div class="acts">
        <v-btn size="small" variant="text" @click="open = false">Cancel</v-btn>
        <v-btn size="small" color="primary" variant="flat" @click="vary">Give it to them</v-btn>
      </div>
    </div>
  </template>
</template>

<style scoped>
.acts {
  display: flex;
  gap: 6px;
  margin-top: 6px;
  flex-wrap: wrap;
}
.pads {
  border-left: 2px solid rgb(var(--v-theme-primary));
  padding-left: 10px;
  margin-top: 8px;
}
</style>
