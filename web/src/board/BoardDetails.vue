<script setup lang="ts">
import { mdiLockOpenVariantOutline, mdiLockOutline } from '@mdi/js'
import { computed } from 'vue'
import type { Boxed } from '../live/objects'
import type { Project } from '../live/project'
import type { Kinds, Placed } from '../live/wire.gen'
import { complain } from '../shell/notices'
import AngleField from '../shell/fields/AngleField.vue'
import ChoiceField from '../shell/fields/ChoiceField.vue'
import LengthField from '../shell/fields/LengthField.vue'
import { arcOf, pieceLength, ringBox } from '../canvas/arcs'
import { format } from '../live/units'
import { useTaste } from '../shell/taste'
import WholeField from '../shell/fields/WholeField.vue'
import type { BoardEditor } from './editor'
import AreaDetails from './AreaDetails.vue'
import GapsBelow from './GapsBelow.vue'
import JoinField from './JoinField.vue'
import { joinWays } from './pours'
import ManyDetails from './ManyDetails.vue'
import PickAlike from './PickAlike.vue'
import DrawnDetails from './DrawnDetails.vue'
import FiducialFields from './FiducialFields.vue'
import TeardropFields from './TeardropFields.vue'
import StitchingDetails from './StitchingDetails.vue'
import ViaDetails from './ViaDetails.vue'
import PourDetails from './PourDetails.vue'
import PlaceNotes from './PlaceNotes.vue'
import SeveralParts from './SeveralParts.vue'
import WhyRules from './rules/WhyRules.vue'

const props = defineProps<{ project: Project; editor: BoardEditor }>()
const taste = useTaste()
const picked = computed(() => {
  void props.project.docTick.value
  return [...props.editor.selection].map((id) => props.project.find(id)).filter((b) => !!b)
})
const one = computed(() => (picked.value.length === 1 ? picked.value[0] : undefined))
const placed = computed(() => (one.value?.kind === 'placed' ? (one.value.object as Placed) : undefined))
const tracks = computed(() => picked.value.filter((b) => b.kind === 'track').map((b) => b.object as Kinds['track']))
const allTracks = computed(
  () =>
    tracks.value.length > 0 &&
    tracks.value.every((t) => t.net === tracks.value[0].net) &&
    picked.value.every((b) => b.kind === 'track' || b.kind === 'via'),
)
/** The kind of drawn things when nothing else is picked. */
const drawnKind = computed(() => {
  const [first] = picked.value
  return first && (first.kind === 'legend' || first.kind === 'figure' || (first.kind === 'dimension' && one.value)) && picked.value.every((b) => b.kind === first.kind) ? first.kind : null // prettier-ignore
})
const board = computed(() => (void props.project.docTick.value, props.project.board))
const size = computed(() => (board.value.outline?.length ? ringBox(board.value.outline) : null))
const set = (fields: { x?: number; y?: number; angle?: number; bottom?: boolean }) =>
  props.project.edit('setPlaced', { id: one.value!.object!.id, ...fields, tracks: taste.tracks }).catch(complain)
const setHole = (fields: { diameter?: number; land?: number; keep?: number }) =>
  props.project.edit('setHole', { ids: [one.value!.object!.id], ...fields }).catch(complain)
const copper = computed(() => board.value.stack.filter((l) => l.kind === 'copper'))
const area = computed(() => (one.value?.kind === 'ruleArea' ? (one.value.object as Kinds['ruleArea']) : undefined))
const pours = computed(() => (void props.project.docTick.value, props.project.all('pour')))
/** Nets of the picked part that have a copper area, where its pads are few enough to be told apart. */
const poured = computed(() => {
  const nets = placed.value && Object.keys(placed.value.nets).length <= 64 ? Object.values(placed.value.nets) : []
  return new Set(pours.value.map((p) => p.net).filter((n) => nets.includes(n)))
})
const stitchings = computed(() => (void props.project.docTick.value, props.project.all('stitching')))
const stitching = computed(() => (one.value?.kind === 'stitching' ? (one.value.object as Kinds['stitching']) : undefined))
const pick = (id: number) => props.editor.pickOnly([id])
const pour = computed(() => (one.value?.kind === 'pour' ? (one.value.object as Kinds['pour']) : undefined))
/** What others can be like. */
const likenable = computed(() => (one.value && ['placed', 'track', 'via', 'hole', 'legend', 'figure'].includes(one.value.kind) ? one.value.object!.id : 0)) // prettier-ignore
/** What can be asked why: one thing of copper, or two. */
const reasoned = computed(() =>
  picked.value.length > 0 &&
  picked.value.length < 3 &&
  picked.value.every((b) => ['placed', 'track', 'via', 'hole', 'pour'].includes(b.kind))
    ? picked.value.map((b) => b.object!.id)
    : null,
)
const setRule = (k: string, v: number) => props.project.edit('setRules', { rules: { [k]: v } }).catch(complain)
const rule = (k: string) => (void props.project.docTick.value, props.project.rule(k))
const width = computed(() => {
  const w = new Set(tracks.value.map((t) => t.width))
  return w.size === 1 ? [...w][0] : null
})
/** The radius of what is round among the pieces, when it is one. */
const radius = computed(() => {
  const r = new Set(tracks.value.flatMap((t) => (t.mid ? [Math.round(arcOf(t.a, t.mid, t.b)?.r ?? 0)] : [])))
  return r.size === 1 ? [...r][0] : null
})
const total = computed(() => tracks.value.reduce((s, t) => s + pieceLength(t.a, t.mid, t.b), 0))
const say = (nm: number) => `${format(nm, taste.unit, 3)} ${taste.unit}`
const rules: [string, string][] = [
  ['clearance', 'Clearance'],
  ['withinPart', 'Within one part'],
  ['edgeClearance', 'To the edge'],
  ['holeClearance', 'Holes'],
  ['trackWidth', 'New tracks'],
  ['leastWidth', 'Least width'],
  ['leastHole', 'Least hole'],
  ['leastRing', 'Least ring'],
  ['viaDiameter', 'Via'],
  ['viaHole', 'Via’s hole'],
  ['maskMargin', 'Mask margin'],
  ['pasteMargin', 'Paste margin'],
  ['silkWidth', 'Silk lines'],
  ['spacing', 'Parts apart'],
  ['spokeWidth', 'Spokes'],
  ['spokeGap', 'Gap of spokes'],
  ['holeCopper', 'Holes to copper'],
  ['maskWeb', 'Webs of mask'],
  ['silkApart', 'Silk off openings'],
  ['leastSilk', 'Least silk'],
  ['letterHeight', 'Letters'],
  ['heightAbove', 'Height above'],
  ['heightBelow', 'Height below'],
]
const resize = (to: { width?: number; height?: number }) => props.project.edit('sizeEdge', to).catch(complain)
</script>

<template>
  <template v-if="placed">
    <h3>
      <span class="mono">{{ placed.designator }}</span> {{ placed.value }}
      <v-btn
        :icon="placed.locked ? mdiLockOutline : mdiLockOpenVariantOutline"
        size="x-small"
        :aria-label="placed.locked ? 'Unlock' : 'Lock'"
        @click="editor.lock()"
      />
    </h3>
    <p class="quiet">{{ placed.footprint }}</p>
    <LengthField label="x" :value="placed.at.x" :disabled="placed.locked" @keep="set({ x: $event })" />
    <LengthField label="y" :value="placed.at.y" :disabled="placed.locked" @keep="set({ y: $event })" />
    <AngleField label="Angle" :value="placed.angle" @keep="set({ angle: $event })" />
    <ChoiceField
      label="Side"
      :value="placed.bottom ? 'bottom' : 'top'"
      :options="['top', 'bottom']"
      @keep="set({ bottom: $event === 'bottom' })"
    />
    <JoinField v-if="pours.length" :project="project" :ids="[placed.id]" />
    <v-table>
      <tbody>
        <tr v-for="(net, pad) in placed.nets" :key="pad">
          <td class="mono">{{ pad }}</td>
          <td class="mono net">{{ project.netName(net) }}</td>
          <td v-if="poured.size" class="join">
            <ChoiceField
              v-if="poured.has(net)"
              :label="`Areas join pad ${pad}`"
              bare
              :value="placed.joins?.[pad] ?? ''"
              :options="joinWays"
              @keep="project.edit('setJoins', { ids: [placed.id], pad: String(pad), join: $event }).catch(complain)"
            />
          </td>
        </tr>
      </tbody>
    </v-table>
    <div v-if="Object.keys(placed.nets).length > 7" class="acts">
      <v-btn size="small" variant="outlined" @click="editor.state.escaping = true">Lead pads out</v-btn>
    </div>
    <ManyDetails :editor="editor" :picked="picked as Boxed[]" />
    <PlaceNotes :project="project" :editor="editor" :part="placed" />
  </template>
  <template v-else-if="allTracks">
    <h3>{{ tracks.length === 1 ? 'Track' : `${tracks.length} pieces of track` }}</h3>
    <p>
      Net <span class="mono">{{ project.netName(tracks[0].net) }}</span>
    </p>
    <LengthField
      label="Width"
      :value="width"
      @keep="project.edit('setTrack', { ids: tracks.map((t) => t.id), width: $event }).catch(complain)"
    />
    <LengthField
      label="Corners’ radius"
      :value="radius"
      empty="–"
      @keep="project.edit('roundTracks', { ids: tracks.map((t) => t.id), radius: $event }).catch(complain)"
    />
    <v-checkbox
      label="free of the mask"
      :model-value="tracks.every((t) => t.bare)"
      :indeterminate="tracks.some((t) => t.bare) && !tracks.every((t) => t.bare)"
      hide-details
      density="compact"
      @update:model-value="project.edit('setTrack', { ids: tracks.map((t) => t.id), bare: !!$event }).catch(complain)"
    />
    <p class="quiet">
      Length <span class="mono">{{ say(total) }}</span>
    </p>
    <GapsBelow v-if="pours.length" :project="project" :ids="tracks.map((t) => t.id)" />
    <div class="acts">
      <v-btn size="small" variant="outlined" @click="editor.tidy()">Tidy</v-btn>
      <v-btn size="small" variant="outlined" @click="editor.removeWhole()">Remove the whole track</v-btn>
      <v-btn size="small" variant="outlined" @click="editor.removeNet()">All of the net</v-btn>
    </div>
  </template>
  <DrawnDetails
    v-else-if="drawnKind"
    :project="project"
    :editor="editor"
    :kind="drawnKind"
    :ids="picked.map((b) => b.object!.id)"
  />
  <ViaDetails v-else-if="one && one.kind === 'via'" :project="project" :via="one.object as Kinds['via']" @pick="pick" />
  <template v-else-if="one && one.kind === 'hole'">
    <h3>Hole</h3>
    <LengthField label="x" :value="(one.object as Kinds['hole']).at.x" @keep="set({ x: $event })" />
    <LengthField label="y" :value="(one.object as Kinds['hole']).at.y" @keep="set({ y: $event })" />
    <LengthField label="Diameter" :value="(one.object as Kinds['hole']).diameter" @keep="setHole({ diameter: $event })" />
    <LengthField
      label="Copper"
      :value="(one.object as Kinds['hole']).land || null"
      empty="not plated"
      @keep="setHole({ land: $event })"
    />
    <LengthField label="Kept free" :value="(one.object as Kinds['hole']).keep ?? 0" @keep="setHole({ keep: $event })" />
    <p class="quiet">Copper is the diameter of its plated ring, 0 none; kept free is how far beyond it nothing may lie.</p>
  </template>
  <AreaDetails v-else-if="area" :project="project" :editor="editor" :area="area" />
  <StitchingDetails v-else-if="stitching" :project="project" :editor="editor" :stitching="stitching" />
  <PourDetails v-else-if="pour" :project="project" :editor="editor" :pour="pour" />
  <template v-else-if="picked.length">
    <SeveralParts :editor="editor" :parts="picked.filter((b) => b.kind === 'placed').length" :things="picked.length" />
    <ManyDetails :editor="editor" :picked="picked as Boxed[]" />
  </template>
  <template v-else>
    <h3>Board</h3>
    <LengthField label="Width" :value="size ? Math.round(size.maxX - size.minX) : null" @keep="resize({ width: $event })" />
    <LengthField label="Height" :value="size ? Math.round(size.maxY - size.minY) : null" @keep="resize({ height: $event })" />
    <WholeField
      label="Copper layers"
      :value="copper.length"
      :least="1"
      :most="32"
      @keep="project.edit('setLayers', { copper: $event }).catch(complain)"
    />
    <ChoiceField
      label="Parts stand"
      :value="board.oneSide ? 'one' : 'both'"
      :options="[
        { value: 'both', title: 'on both sides' },
        { value: 'one', title: 'on the upper side' },
      ]"
      @keep="project.edit('setSides', { oneSide: $event === 'one' }).catch(complain)"
    />
    <v-checkbox
      label="Paste for parts not fitted, too"
      :model-value="!board.noPaste"
      hide-details
      density="compact"
      @update:model-value="project.edit('setPaste', { unfitted: !!$event }).catch(complain)"
    />
    <div class="acts">
      <v-btn size="small" variant="outlined" @click="editor.state.stacking = true">Stack of the board</v-btn>
      <v-btn size="small" variant="outlined" @click="editor.state.ruling = true">Rules of the board</v-btn>
      <v-btn size="small" variant="outlined" @click="editor.state.widths = true">Widths for currents</v-btn>
    </div>
    <template v-if="pours.length">
      <h3>Copper areas</h3>
      <v-btn v-for="p in pours" :key="p.id" class="pour" variant="text" size="small" @click="pick(p.id)">
        <span class="mono">{{ p.name }}</span>
        <span class="quiet">{{ p.layers.map((l) => copper.find((c) => c.id === l)?.name).join(', ') }}</span>
      </v-btn>
    </template>
    <template v-if="stitchings.length">
      <h3>Stitchings</h3>
      <v-btn v-for="s in stitchings" :key="s.id" class="pour" variant="text" size="small" @click="pick(s.id)">
        <span class="mono">{{ s.name }}</span>
        <span class="quiet">{{ { '': 'grid', edge: 'edge', along: 'beside tracks' }[s.pattern ?? ''] }}</span>
      </v-btn>
    </template>
    <FiducialFields v-if="size" :project="project" :editor="editor" @pick="editor.pickOnly($event)" />
    <TeardropFields :project="project" />
    <h3>Rules for everything</h3>
    <LengthField v-for="[k, name] in rules" :key="k" :label="name" :value="rule(k)" :step="10_000" @keep="setRule(k, $event)" />
  </template>
  <div v-if="likenable" class="acts"><PickAlike :id="likenable" :editor="editor" /></div>
  <WhyRules v-if="reasoned" :project="project" :ids="reasoned" />
</template>

<style scoped>
.join {
  width: 130px;
}
.pour.v-btn {
  width: 100%;
  justify-content: flex-start;
}
.pour :deep(.v-btn__content) {
  gap: 10px;
}
.acts {
  display: flex;
  gap: 6px;
  flex-wrap: wrap;
}
</style>
