<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { call } from '../../live/http'
import { latest } from '../../live/latest'
import { person } from '../../live/person'
import type { Project } from '../../live/project'
import type { Card, KeptAs, PinRow } from '../../live/wire.gen'
import OneOf from '../../shell/fields/OneOf.vue'
import TextField from '../../shell/fields/TextField.vue'
import { complain, say } from '../../shell/notices'
import FlawList from '../FlawList.vue'
import PatternPicture from '../PatternPicture.vue'
import SymbolPicture from '../SymbolPicture.vue'
import PartVersions from './PartVersions.vue'
import { typeWords } from '../symbol/pinTypes'
import WhoPanel from '../../shell/WhoPanel.vue'

/** A part with its pictures, which pin goes to which pad, where it is used and who checked it. */
const props = defineProps<{ project: Project; name: string; own: boolean }>()
const emit = defineEmits<{
  symbol: [number]
  footprint: [number]
  generate: [number | undefined, string]
  byHand: [string]
  gone: []
  changed: []
}>()
const card = shallowRef<Card | null>(null)
const trouble = ref('')
const kept = ref(0) // how often a version was kept
const today = () => new Date().toISOString().slice(0, 10)

const fetch = latest(
  (asked: { name: string; project: boolean }) => props.project.question('partCard', asked).catch((e: Error) => ((trouble.value = e.message), null)), // prettier-ignore
  (c) => {
    card.value = c
    if (c) trouble.value = ''
  },
)
const look = () => props.name && void fetch({ name: props.name, project: props.own })
watch(() => [props.name, props.own], look, { immediate: true })
watch(props.project.docTick, look)
const part = computed(() => (props.own ? card.value?.part : null))
const set = (fields: object) => props.project.edit('putLibraryPart', { part: { ...part.value!, ...fields } }).catch(complain)
function mapPad(row: PinRow, pad: string) {
  const padOf = { ...part.value!.padOf }
  if (!pad.trim() || pad.trim() === row.pin) delete padOf[row.pin]
  else padOf[row.pin] = pad.trim()
  return set({ padOf })
}
const footprints = computed(() => (void props.project.docTick.value, props.project.all('footprint').map((f) => f.name).sort())) // prettier-ignore
const own = computed(() => (card.value?.foot && props.own ? card.value.foot.id : 0))
const take = () => props.project.edit('takeParts', { names: [props.name] }).catch(complain)
const naming = ref(false)
function check(off: boolean) {
  const by = person.name
  if (!off && !by) {
    naming.value = true
    return
  }
  void props.project.edit('setChecked', { parts: [part.value!.id], ...(off ? { off } : { by, on: today() }) }).catch(complain)
}
/** Keeps the part in the library of the workspace, for all projects; the project notes which version it is there. */
async function keep() {
  try {
    const { version } = await call<KeptAs>('POST', `/projects/${props.project.id}/library`, {
      part: props.name,
      who: person.name,
    })
    kept.value++
    emit('changed')
    await props.project.edit('released', { part: part.value!.id, library: 'workspace', version })
    say(`${props.name} is version ${version} of the workspace’s library.`)
  } catch (e) {
    if (!String(e).includes('change nothing')) complain(e)
    else say(`${props.name} is in the workspace’s library as it is here.`)
  }
}
// ---- units, and footprints by density

const letter = (i: number) => String.fromCharCode(65 + i)
const addUnit = () => props.project.edit('addUnit', { part: part.value!.id }).catch(complain)
const removeUnit = (unit: number) => props.project.edit('removeUnit', { part: part.value!.id, unit }).catch(complain)
const densities = computed(() => {
  const of = card.value?.part?.densities ?? {}
  return ['most', 'nominal', 'least'].filter((d) => of[d]).map((d) => ({ value: of[d], title: d[0].toUpperCase() + d.slice(1) }))
})
const drop = () => props.project.edit('dropItems', { ids: [part.value!.id] }).then(() => emit('gone'), complain)
</script>

<template>
  <div v-if="card?.part" class="card">
    <h3>
      {{ card.part.name }} <span class="quiet prefix mono">{{ card.part.prefix }}</span>
    </h3>
    <p>{{ card.part.description }}</p>
    <p v-if="card.part.origin?.library" class="quiet">
      Version {{ card.part.origin.version }} of the {{ card.part.origin.library }} library.
    </p>
    <p class="state" :class="card.checked">
      <template v-if="card.checked === 'checked'"
        >Checked against its datasheet by {{ card.part.checked!.by }} on {{ card.part.checked!.on }}.</template
      >
      <template v-else-if="card.checked === 'lapsed'"
        >It was checked by {{ card.part.checked!.by }} on {{ card.part.checked!.on }} and has changed since.</template
      >
      <template v-else>Not checked against a datasheet.</template>
    </p>
    <div class="pictures">
      <figure v-for="(s, i) in card.symbols" :key="s.name">
        <figcaption v-if="card.symbols.length > 1" class="quiet">
          Unit {{ letter(i) }}
          <v-btn v-if="part" size="small" density="compact" variant="text" @click="removeUnit(i + 1)">Remove the unit</v-btn>
        </figcaption>
        <SymbolPicture :marks="s.marks" label="Symbol" />
        <v-btn v-if="own || s.id" size="small" variant="outlined" :disabled="!s.id" @click="emit('symbol', s.id!)">Symbol</v-btn>
      </figure>
      <figure v-if="card.pattern">
        <PatternPicture :pattern="card.pattern" :width="280" :height="170" label="Footprint" />
        <v-btn v-if="own" size="small" variant="outlined" @click="emit('footprint', own)">Footprint</v-btn>
      </figure>
    </div>
    <template v-if="part">
      <TextField label="Name" :value="part.name" @keep="set({ name: $event })" />
      <TextField label="Description" :value="part.description" @keep="set({ description: $event })" />
      <TextField label="Value" :value="part.value ?? ''" @keep="set({ value: $event })" />
      <TextField label="Prefix" :value="part.prefix" mono @keep="set({ prefix: $event })" />
      <TextField label="Keywords" :value="part.keywords ?? ''" @keep="set({ keywords: $event })" />
      <TextField
        label="Datasheet"
        :value="part.datasheet ?? ''"
        empty="where it is to be found"
        @keep="set({ datasheet: $event })"
      />
      <v-autocomplete
        :model-value="part.footprint || null"
        :items="footprints"
        label="Footprint"
        aria-label="Footprint"
        placeholder="none yet"
        persistent-placeholder
        density="compact"
        auto-select-first
        clearable
        hide-details
        @update:model-value="(v: string | null) => (v ?? '') !== part!.footprint && set({ footprint: v ?? '' })"
      />
      <OneOf
        v-if="densities.length > 1"
        label="Density of the footprint"
        :value="part.footprint"
        :options="densities"
        @keep="$event !== part!.footprint && set({ footprint: $event })"
      />
      <div class="acts">
        <v-btn v-if="!card.foot" size="small" variant="outlined" @click="emit('generate', undefined, part.name)"
          >Generate a footprint</v-btn
        >
        <v-btn v-if="!card.foot" size="small" variant="outlined" @click="emit('byHand', part.name)">Draw one by hand</v-btn>
        <v-btn v-if="card.checked !== 'checked'" size="small" variant="outlined" @click="check(false)">I checked it</v-btn>
        <v-btn v-else size="small" variant="text" @click="check(true)">Take the check back</v-btn>
        <v-btn size="small" variant="outlined" @click="addUnit">Add a unit</v-btn>
        <v-btn size="small" variant="outlined" @click="keep">Keep in the workspace</v-btn>
        <v-btn v-if="!card.used.length" size="small" variant="text" @click="drop">Remove</v-btn>
      </div>
    </template>
    <div v-else class="acts">
      <v-btn v-if="!card.have" size="small" color="primary" variant="flat" @click="take">Take into the project</v-btn>
      <span v-else class="quiet">The project has it.</span>
    </div>
    <p v-if="card.used.length" class="quiet">
      Used as
      <span class="mono"
        >{{ card.used.slice(0, 8).join(', ') }}{{ card.used.length > 8 ? ` and ${card.used.length - 8} more` : '' }}</span
      >
    </p>
    <WhoPanel v-model="naming" :project="project" why="Your name stands beside what you checked." required @said="check(false)" />
    <FlawList
      :flaws="card.found"
      clean="Pins and pads fit, and nothing is wrong with the footprint."
      @go="own && emit('footprint', own)"
    />
    <h3>Pins to pads</h3>
    <v-table density="compact" class="map">
      <thead>
        <tr>
          <th>Pin</th>
          <th>Name</th>
          <th>Type</th>
          <th>Pad</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(r, i) in card.rows" :key="i" :class="{ wrong: r.wrong }" :title="r.wrong || undefined">
          <td class="mono">{{ r.pin }}</td>
          <td class="mono">{{ r.name }}</td>
          <td class="quiet">{{ typeWords[r.type] ?? '' }}</td>
          <td class="mono pad">
            <TextField
              v-if="part && r.pin"
              label="pad"
              bare
              mono
              :says="`Pad of pin ${r.pin}`"
              :value="r.pad"
              @keep="mapPad(r, $event)"
            />
            <template v-else>{{ r.pad }}</template>
          </td>
        </tr>
      </tbody>
    </v-table>
  </div>
  <p v-else-if="trouble" class="quiet" role="alert">{{ trouble }}</p>
  <PartVersions :name="name" :tick="kept" @changed="(look(), emit('changed'))" />
</template>

<style scoped>
.card {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.prefix {
  font-weight: 400;
}
.pictures {
  display: grid;
  grid-template-columns: 1fr;
  gap: 8px;
}
figure {
  margin: 0;
  position: relative;
}
figure > .v-btn {
  position: absolute;
  right: 6px;
  bottom: 10px;
  background: rgb(var(--v-theme-surface));
}
.state {
  font-size: 12px;
  padding: 3px 8px;
  border-left: 3px solid rgba(var(--v-border-color), 0.5);
}
.state.checked {
  border-color: rgb(var(--v-theme-secondary));
}
.state.lapsed {
  border-color: rgb(var(--v-theme-error));
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.map {
  width: 100%;
  border-collapse: collapse;
  font-size: 12px;
}
.map th {
  text-align: left;
  font-weight: 500;
}
.map td {
  border-top: 1px solid rgba(var(--v-border-color), 0.18);
  padding: 1px 3px;
}
.map tr.wrong td {
  color: rgb(var(--v-theme-error));
}
.pad {
  width: 76px;
}
</style>
