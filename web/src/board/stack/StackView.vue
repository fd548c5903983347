<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose, mdiDeleteOutline, mdiPlus } from '@mdi/js'
import { computed, onMounted, ref, shallowRef, watch } from 'vue'
import type { Project } from '../../live/project'
import type { Commands, ReadyStack, StackLayer, StackSeen } from '../../live/wire.gen'
import ChoiceField from '../../shell/fields/ChoiceField.vue'
import LengthField from '../../shell/fields/LengthField.vue'
import OneOf from '../../shell/fields/OneOf.vue'
import TextField from '../../shell/fields/TextField.vue'
import IconAct from '../../shell/IconAct.vue'
import { openMenu, placeOf } from '../../shell/menu'
import { complain } from '../../shell/notices'
import { useTaste } from '../../shell/taste'
import { format } from '../../live/units'
import type { BoardEditor } from '../editor'
import { netChoices } from '../nets'
import HolesTab from './HolesTab.vue'
import PartField from './PartField.vue'
import StackDrawing from './StackDrawing.vue'
import { coats, spansOf } from './bands'

/** The stack of the board: its section large, with a line of fields for each layer, and what is to be said of the whole. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const emit = defineEmits<{ close: [] }>()
const taste = useTaste()
const row = 38
const even = ref(true)
const view = ref<'layers' | 'holes'>('layers')
const lit = ref(0)
const seen = shallowRef<StackSeen | null>(null)
const load = async () => (seen.value = await props.project.question('stack', {}).catch((e) => (complain(e), seen.value)))
onMounted(load)
watch(() => props.project.docTick.value, load)
const board = computed(() => (void props.project.docTick.value, props.project.board))
const layers = computed<StackLayer[]>(() => board.value.stack)
const told = (id: number) => seen.value?.layers.find((l) => l.id === id)
const nets = computed(() => [{ value: 0, title: 'no plane' }, ...netChoices(props.project)])
const plane = (id: number) => {
  const of = told(id)?.planes ?? []
  return of.length > 1 ? null : (of[0] ?? 0)
}
const set = (id: number, f: Omit<Commands['setLayer'], 'id'>) => props.project.edit('setLayer', { id, ...f }).catch(complain)
const setPlane = (layer: number, net: number) => props.project.edit('setPlane', { layer, net }).catch(complain)
const move = (id: number, down: boolean) => props.project.edit('moveLayer', { id, down }).catch(complain)
const drop = (id: number) => props.project.edit('dropLayer', { id }).catch(complain)
const add = (kind: string, at: number, below: boolean) => props.project.edit('addLayer', { of: kind, at, below }).catch(complain)
const words: Record<string, string> = { copper: 'Copper', core: 'Core', prepreg: 'Prepreg', mask: 'Mask', silk: 'Silk', finish: 'Finish' } // prettier-ignore
function more(e: MouseEvent, l: StackLayer) {
  const inside = !coats.has(l.kind)
  const entries = [true, false].flatMap(
    (below) =>
    ['copper', 'core', 'prepreg'].map((k) => ({ title: `${words[k]} ${below ? 'below' : 'above'} it`, run: () => add(k, l.id, below), enabled: () => inside })), // prettier-ignore
  )
  const side = ['finish', 'mask', 'silk'].map((k) => ({
    title: `${words[k]} on this side`,
    run: () => add(k, l.id, lowerHalf(l)),
  }))
  openMenu(placeOf(e, e.currentTarget as HTMLElement), [...entries, null, ...side])
}
/** Coats that are added at a layer lie on the side it is nearer to. */
const lowerHalf = (l: StackLayer) => layers.value.indexOf(l) >= layers.value.length / 2
const barrels = computed(() => {
  void props.project.docTick.value
  return spansOf(props.project.all('via'), (id) => layers.value.findIndex((l) => l.id === id))
})
const long = (nm: number) => `${format(nm, taste.unit, 3)} ${taste.unit}`
const off = computed(() => (seen.value && board.value.wanted ? seen.value.thickness - board.value.wanted : 0))
const houses = computed(() => {
  const by = new Map<string, ReadyStack[]>()
  for (const r of seen.value?.ready ?? []) by.set(r.by, [...(by.get(r.by) ?? []), r])
  return [...by]
})
/** The ready-made stack that would replace holes somebody made: they are asked about first. */
const replacing = ref<ReadyStack | null>(null)
function take(r: ReadyStack, holes?: 'keep' | 'take') {
  const own = (seen.value?.ownHoles ?? 0) + (seen.value?.ownWays ?? 0)
  replacing.value = own && !holes ? r : null
  if (!replacing.value) void props.project.edit('takeStack', { house: r.house, name: r.name, holes }).catch(complain)
}
const own = computed(() => {
  const count = (n = 0, one: string) => (n ? [`${n} ${n === 1 ? one : one + 's'}`] : [])
  return [...count(seen.value?.ownHoles, 'hole'), ...count(seen.value?.ownWays, 'way')].join(' and ')
})
</script>

<template>
  <div class="float stack" role="dialog" aria-label="Stack" @keydown.esc.stop="emit('close')">
    <header>
      <h3>Stack</h3>
      <OneOf
        label="View"
        :value="view"
        :options="[
          { value: 'layers', title: 'Layers' },
          { value: 'holes', title: 'Holes' },
        ]"
        @keep="view = $event as typeof view"
      />
      <OneOf
        v-if="view === 'layers'"
        label="Proportion"
        :value="even ? 'even' : 'true'"
        :options="[
          { value: 'even', title: 'Even' },
          { value: 'true', title: 'As thick as they are' },
        ]"
        @keep="even = $event === 'even'"
      />
      <span class="total">
        Thickness <b class="mono">{{ seen ? long(seen.thickness) : '' }}</b>
      </span>
      <LengthField
        class="wanted"
        label="wanted"
        tight
        :value="board.wanted || null"
        empty="not said"
        @keep="project.edit('setThickness', { wanted: $event }).catch(complain)"
      />
      <span v-if="off" class="quiet mono">{{ off > 0 ? '+' : '−' }}{{ long(Math.abs(off)) }}</span>
      <v-btn class="last" :icon="mdiClose" size="small" variant="text" aria-label="Close the stack" @click="emit('close')" />
    </header>
    <ul v-if="seen?.uneven?.length || seen?.notes?.length" class="notes" aria-label="What is to be heeded">
      <li v-for="u in seen?.uneven" :key="u">Not symmetric, so that the board may warp: {{ u }}.</li>
      <li v-for="n in seen?.notes" :key="n">{{ n }}</li>
    </ul>
    <div class="body">
      <HolesTab v-if="view === 'holes'" :project="project" />
      <div v-else class="whole">
        <StackDrawing
          class="section"
          :layers="layers"
          :row="row"
          :even="even"
          :lit="lit"
          :barrels="barrels"
          @point="lit = $event"
        />
        <div class="lines">
          <div class="line heads quiet" aria-hidden="true">
            <span>Thickness</span><span>Layer</span><span>Material</span><span>Weight, εr</span><span>Rough, loss</span
            ><span>Plane of, kind</span>
          </div>
          <div
            v-for="l in layers"
            :key="l.id"
            class="line"
            :class="{ lit: l.id === lit }"
            :style="{ height: row + 'px' }"
            role="group"
            :aria-label="l.name"
            @mouseenter="lit = l.id"
            @mouseleave="lit = 0"
            @focusin="lit = l.id"
          >
            <LengthField
              label="Thickness"
              :says="`Thickness of ${l.name}`"
              bare
              :step="l.kind === 'copper' ? 1000 : 10_000"
              :value="l.thickness"
              @keep="set(l.id, { thickness: $event })"
            />
            <TextField label="Name" :says="`Name of ${l.name}`" bare :value="l.name" @keep="set(l.id, { name: $event })" />
            <TextField
              label="Material"
              :says="`Material of ${l.name}`"
              bare
              :value="l.material"
              empty="material"
              @keep="set(l.id, { material: $event })"
            />
            <template v-if="l.kind === 'copper'">
              <PartField
                label="Weight"
                :says="`Weight of ${l.name}, ounces`"
                unit="oz"
                :value="l.thickness"
                :whole="35_000"
                @keep="set(l.id, { thickness: $event })"
              />
              <PartField
                label="Rough"
                :says="`Roughness of ${l.name}, µm`"
                unit="µm"
                :value="l.roughness ?? 0"
                :whole="1000"
                @keep="set(l.id, { roughness: $event })"
              />
              <ChoiceField
                label="Holds"
                :says="`What ${l.name} is for`"
                bare
                :value="plane(l.id)"
                :options="nets"
                @keep="setPlane(l.id, $event)"
              />
            </template>
            <template v-else>
              <PartField
                label="Constant"
                :says="`Dielectric constant of ${l.name}`"
                unit="εr"
                :value="l.permittivity ?? 0"
                :whole="1000"
                :disabled="l.kind === 'finish'"
                @keep="set(l.id, { permittivity: $event })"
              />
              <PartField
                label="Loss"
                :says="`Loss tangent of ${l.name}`"
                unit="tan δ"
                :value="l.loss ?? 0"
                :whole="1_000_000"
                :disabled="l.kind === 'finish'"
                @keep="set(l.id, { loss: $event })"
              />
              <ChoiceField
                v-if="!coats.has(l.kind)"
                label="Kind"
                :says="`What ${l.name} is`"
                bare
                :value="l.kind"
                :options="[
                  { value: 'core', title: 'core' },
                  { value: 'prepreg', title: 'prepreg' },
                ]"
                @keep="set(l.id, { of: $event })"
              />
              <span v-else class="quiet">{{ l.kind }}</span>
            </template>
            <span class="acts">
              <IconAct :icon="mdiArrowUp" :disabled="coats.has(l.kind)" :label="`Move ${l.name} up`" @click="move(l.id, false)" />
              <IconAct
                :icon="mdiArrowDown"
                :disabled="coats.has(l.kind)"
                :label="`Move ${l.name} down`"
                @click="move(l.id, true)"
              />
              <IconAct :icon="mdiPlus" :label="`Add a layer at ${l.name}`" aria-haspopup="menu" @click="more($event, l)" />
              <IconAct
                :icon="mdiDeleteOutline"
                :title="told(l.id)?.holds ? `${l.name} holds ${told(l.id)?.holds}` : `Remove ${l.name}`"
                :label="`Remove ${l.name}`"
                @click="drop(l.id)"
              />
            </span>
          </div>
        </div>
      </div>
      <section v-if="view === 'layers'" class="ready" aria-label="Ready-made stacks">
        <h4>Ready-made</h4>
        <div v-if="replacing" class="asks" role="alertdialog" aria-label="What becomes of the board’s own holes">
          <p>{{ replacing.name }} of {{ replacing.by }} brings holes of its own. The board has {{ own }} that you made.</p>
          <v-btn size="small" color="primary" variant="flat" @click="take(replacing, 'keep')">Keep mine</v-btn>
          <v-btn size="small" variant="outlined" @click="take(replacing, 'take')">Take theirs</v-btn>
          <v-btn size="small" variant="text" @click="replacing = null">Leave the stack as it is</v-btn>
        </div>
        <template v-for="[by, list] in houses" :key="by">
          <p class="by">{{ by }}</p>
          <div class="offers">
            <v-btn v-for="r in list" :key="r.name" size="small" variant="outlined" :title="r.text" @click="take(r)">{{
              r.name
            }}</v-btn>
          </div>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.asks {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 10px;
  padding: 6px 10px;
  border-left: 3px solid rgb(var(--v-theme-primary));
}
.asks p {
  width: 100%;
}
.stack {
  position: absolute;
  inset: 12px;
  z-index: 7;
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px 16px;
}
header {
  display: flex;
  gap: 14px;
  align-items: center;
}
h3,
h4 {
  margin: 0;
}
.last {
  margin-left: auto;
}
.notes {
  margin: 0;
  padding: 4px 12px 4px 26px;
  border-left: 3px solid rgb(var(--v-theme-error));
}
.body {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
}
.whole {
  display: flex;
  align-items: flex-start;
}
.lines {
  flex: 1;
  min-width: 0;
}
.line {
  display: grid;
  grid-template-columns: 94px minmax(98px, 1fr) minmax(96px, 1.1fr) 72px 84px minmax(86px, 1fr) 90px;
  gap: 6px;
  align-items: center;
  border-radius: 4px;
}
.heads {
  height: 22px;
  font-size: 12px;
  white-space: nowrap;
}
.section {
  margin-top: 22px;
  flex: none;
}
.line.lit {
  background: rgba(var(--v-theme-on-surface), 0.06);
}
.line :deep(.v-field__input) {
  padding-inline: 6px;
}
.acts {
  display: flex;
}
.acts .v-btn {
  width: 22px;
}
.ready {
  margin-top: 12px;
}
.by {
  margin: 6px 0 4px;
}
.offers {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
</style>
