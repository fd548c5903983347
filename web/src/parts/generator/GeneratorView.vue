<script setup lang="ts">
import { computed, defineAsyncComponent, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import { drawPattern } from '../../board/draw'
import { boxOf } from '../../canvas/viewport'
import { offscreenPen } from '../../circuit/preview'
import { latest } from '../../live/latest'
import type { Project } from '../../live/project'
import type { Entry, Family, LandMade, Range, Recipe } from '../../live/wire.gen'
import ChoiceField from '../../shell/fields/ChoiceField.vue'
import EntryField from '../../shell/fields/EntryField.vue'
import OneOf from '../../shell/fields/OneOf.vue'
import TextField from '../../shell/fields/TextField.vue'
import WholeField from '../../shell/fields/WholeField.vue'
import { complain } from '../../shell/notices'
import { useTaste } from '../../shell/taste'
import FlawList from '../FlawList.vue'
import SidePanel from '../../shell/SidePanel.vue'
import { rangeWriting } from '../range'
import BodyDrawing from './BodyDrawing.vue'
import JointsTab from './JointsTab.vue'
import MakingTab from './MakingTab.vue'
import NumbersTab from './NumbersTab.vue'

const FootprintSpace = defineAsyncComponent(() => import('../../space/FootprintSpace.vue'))

/** A footprint from a body's dimensions: typed at the drawn body, computed and drawn as one types. */
const props = defineProps<{ project: Project; footprint?: number; name?: string }>()
const emit = defineEmits<{ made: [number]; close: [] }>()
const taste = useTaste()
const families = shallowRef<Family[]>([])
const recipe = ref<Recipe | null>(null)
const made = shallowRef<LandMade | null>(null)
const tab = ref<'numbers' | 'joints' | 'making'>('numbers')
const seen = ref<'flat' | 'space'>('flat')
const look = computed(() => made.value?.result && made.value.pattern && { footprint: made.value.result.footprint, pattern: made.value.pattern }) // prettier-ignore
const picture = ref<HTMLCanvasElement>()
const pictureRoom = ref<HTMLDivElement>()
const { width, height } = useElementSize(pictureRoom)
const old = computed(() => (void props.project.docTick.value, props.footprint ? props.project.get('footprint', props.footprint) : undefined)) // prettier-ignore
const family = computed(() => families.value.find((f) => f.id === recipe.value?.family))
const groups = computed(() => [...new Set(families.value.map((f) => f.group))].map((g) => ({ name: g, list: families.value.filter((f) => f.group === g) }))) // prettier-ignore

onMounted(async () => {
  families.value = await props.project.question('families', {}).catch((e) => (complain(e), []))
  const own = old.value?.recipe
  if (own) recipe.value = structuredClone(own)
  else choose('gullTwo')
})
function choose(id: string) {
  const f = families.value.find((x) => x.id === id)
  if (!f) return
  const making = recipe.value?.making ?? f.example.making
  recipe.value = { ...structuredClone(f.example), making, density: recipe.value?.density ?? 'nominal' }
}
const compute = latest(
  (r: Recipe) =>
    props.project
      .question('land', { recipe: r })
      .catch((e: Error) => ({ wrong: e.message, found: [], views: made.value?.views ?? [] }) as LandMade),
  (answer) => {
    made.value = answer
    void nextTick(paint)
  },
)
watch(recipe, (r) => r && void compute(JSON.parse(JSON.stringify(r)) as Recipe), { deep: true })
const result = computed(() => made.value?.result)
const bodyViews = computed(() => (made.value?.views ?? []).filter((v) => !v.section))
const sections = computed(() => (made.value?.views ?? []).filter((v) => v.section))

function paint() {
  const c = picture.value
  const p = made.value?.pattern
  if (!c || !width.value) return
  const dpr = Math.min(2, window.devicePixelRatio || 1)
  c.width = width.value * dpr
  c.height = height.value * dpr
  if (!p) return
  const pen = offscreenPen(c, boxOf(p.courtyard), 1.2, 160)
  pen.ctx.save()
  drawPattern(pen, p, taste.boardShade)
  pen.ctx.strokeStyle = '#8C8699'
  pen.ctx.setLineDash([4 * pen.px, 3 * pen.px])
  pen.ctx.lineWidth = pen.px
  pen.ctx.beginPath()
  p.courtyard.forEach((q, i) => (i ? pen.ctx.lineTo(q.x / 1e6, q.y / 1e6) : pen.ctx.moveTo(q.x / 1e6, q.y / 1e6)))
  pen.ctx.closePath()
  pen.ctx.stroke()
  pen.ctx.restore()
  const f = result.value?.footprint
  if (!f) return
  for (const pad of f.pads) {
    const small = Math.min(pad.size.x, pad.size.y) / 1e6
    if (small / pen.px < 9) continue
    pen.text(pad.number, pad.at.x / 1e6, pad.at.y / 1e6, Math.min(small * 0.6, 0.7), { colour: pad.hole ? '#EFE9F5' : '#17131E', weight: 600 }) // prettier-ignore
  }
}
watch([width, height, () => taste.boardShade], () => void nextTick(paint))

const set = (key: string, r: Range) => (recipe.value = { ...recipe.value!, dims: { ...recipe.value!.dims, [key]: r } })
function setOptional(key: string, r: Range | null) {
  const dims = { ...recipe.value!.dims }
  if (r) dims[key] = r
  else delete dims[key]
  recipe.value = { ...recipe.value!, dims }
}
const setCount = (key: string, n: number) => (recipe.value = { ...recipe.value!, counts: { ...recipe.value!.counts, [key]: n } })
const setChoice = (key: string, v: string) =>
  (recipe.value = { ...recipe.value!, choices: { ...recipe.value!.choices, [key]: v } })
function override(e: Entry, v: number | null) {
  const overrides = { ...recipe.value!.overrides }
  if (v === null) delete overrides[e.key]
  else overrides[e.key] = v
  recipe.value = { ...recipe.value!, overrides }
}
const drawn = computed(() => new Set(bodyViews.value.flatMap((v) => v.dims.map((d) => d.key))))
/** Dimensions that no line shows, as optional ones that are not given. */
const hidden = computed(() => (family.value?.dims ?? []).filter((d) => !drawn.value.has(d.key)))
const writing = computed(() => ({ ...rangeWriting(taste.unit) }))
const missing = computed(() => (recipe.value?.missing ?? []).join(' '))
const replaces = computed(() => (old.value && old.value.pads.length && !old.value.recipe ? old.value.pads.length : 0))

async function make() {
  if (!result.value) return
  const done = await props.project
    .edit('putFootprint', {
      ...(props.footprint ? { footprint: props.footprint } : {}),
      ...(props.name ? { name: props.name } : {}),
      recipe: recipe.value!,
    }) // prettier-ignore
    .catch(complain)
  if (done === undefined) return
  const name = props.name || recipe.value!.name || result.value.name
  const f = props.project.named('footprint', name)
  emit('made', props.footprint ?? f?.id ?? 0)
}
</script>

<template>
  <div class="drawing-page generator">
    <div class="drawing-middle">
      <div class="work">
        <div class="bar float">
          <v-select
            class="family"
            :model-value="recipe?.family"
            :items="
              groups.flatMap((g) => [
                { type: 'subheader', title: g.name },
                ...g.list.map((f) => ({ value: f.id, title: f.words })),
              ])
            "
            aria-label="Family"
            hide-details
            @update:model-value="choose"
          />
          <WholeField
            v-for="c in family?.counts ?? []"
            :key="c.key"
            tight
            :label="short(c.words)"
            :value="recipe?.counts?.[c.key] ?? c.usual"
            :least="c.least"
            :most="c.most"
            @keep="setCount(c.key, $event)"
          />
          <ChoiceField
            v-for="c in family?.choices ?? []"
            :key="c.key"
            tight
            :label="short(c.words)"
            :value="recipe?.choices?.[c.key] ?? c.options[0].value"
            :options="c.options.map((o) => ({ value: o.value, title: o.words }))"
            @keep="setChoice(c.key, $event)"
          />
          <TextField
            v-if="family?.group === 'Grids'"
            tight
            label="Missing"
            :value="missing"
            empty="A1 B2 …"
            @keep="recipe = { ...recipe!, missing: $event.split(/[\s,;]+/).filter((s) => s) }"
          />
        </div>
        <div class="views">
          <BodyDrawing
            v-for="(v, i) in bodyViews"
            :key="v.name"
            :class="i ? 'side' : 'top'"
            :view="v"
            :dims="recipe?.dims"
            :wrong="made?.dim"
            @keep="set"
          />
          <figure class="foot">
            <figcaption>
              Footprint <span v-if="result" class="mono name">{{ result.name }}</span>
              <OneOf
                class="seen"
                label="How the footprint is seen"
                :value="seen"
                :options="[
                  { value: 'flat', title: 'Flat' },
                  { value: 'space', title: 'In space' },
                ]"
                @keep="seen = $event"
              />
            </figcaption>
            <div ref="pictureRoom" class="paper" :class="'board-' + taste.boardShade">
              <canvas ref="picture" role="img" aria-label="The footprint as computed" />
              <FootprintSpace v-if="seen === 'space' && look" class="space" :look="look" />
              <p v-if="made?.wrong" class="impossible" role="alert">{{ made.wrong }}.</p>
            </div>
          </figure>
        </div>
      </div>
      <SidePanel>
        <OneOf
          label="Density"
          :value="recipe?.density ?? 'nominal'"
          :options="[
            { value: 'most', title: 'Most solder' },
            { value: 'nominal', title: 'Nominal' },
            { value: 'least', title: 'Least' },
          ]"
          @keep="recipe = { ...recipe!, density: String($event) }"
        />
        <template v-for="d in hidden" :key="d.key">
          <div class="optional">
            <EntryField
              :label="d.words"
              :value="recipe?.dims[d.key] ?? null"
              :writing="writing"
              empty="not given"
              figures
              @keep="setOptional(d.key, $event)"
            />
          </div>
        </template>
        <v-btn
          v-for="d in (family?.dims ?? []).filter((x) => x.optional && recipe?.dims[x.key])"
          :key="'no' + d.key"
          size="x-small"
          variant="text"
          class="drop"
          @click="setOptional(d.key, null)"
          >without {{ d.words }}</v-btn
        >
        <v-tabs v-model="tab" grow density="compact">
          <v-tab value="numbers">Numbers</v-tab>
          <v-tab value="joints">Joints</v-tab>
          <v-tab value="making">Making</v-tab>
        </v-tabs>
        <NumbersTab v-if="tab === 'numbers'" :result="result" @instead="override" />
        <JointsTab v-else-if="tab === 'joints'" :result="result" :sections="sections" />
        <MakingTab v-else-if="recipe" :making="recipe.making" @keep="recipe = { ...recipe!, making: $event }" />
        <FlawList v-if="result" :flaws="made?.found ?? []" clean="Nothing is wrong with it under this board’s rules." />
        <p v-if="replaces" class="quiet">It takes the place of {{ replaces }} pads drawn by hand; undo brings them back.</p>
        <div class="acts">
          <v-btn color="primary" variant="flat" :disabled="!result" @click="make">
            {{ old ? (old.recipe ? 'Generate anew' : 'Generate here') : 'Make the footprint' }}
          </v-btn>
          <v-btn variant="text" @click="emit('close')">Close</v-btn>
        </div>
      </SidePanel>
    </div>
  </div>
</template>

<script lang="ts">
/** Longer words of counts and choices without what follows a comma or semicolon. */
const short = (s: string) => {
  const t = s.split(/[;,]/)[0]
  return t[0].toUpperCase() + t.slice(1)
}
</script>

<style scoped src="../../board/paper.css"></style>
<style scoped>
.work {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 12px;
}
.bar {
  position: relative;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  padding: 8px 12px;
}
.family {
  flex: 0 0 290px;
}
.views {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 1.35fr 1fr;
  grid-template-rows: 1.25fr 1fr;
  gap: 10px;
}
.views .top {
  grid-row: 1 / 3;
}
.views > .side {
  grid-column: 2;
}
.foot {
  margin: 0;
  display: flex;
  flex-direction: column;
  min-height: 0;
  grid-column: 2;
}
.views:not(:has(.side)) .foot {
  grid-row: 1 / 3;
}
.foot figcaption {
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12px;
  padding: 0 2px 2px;
}
.seen {
  margin-left: auto;
}
.paper .space {
  position: absolute;
  inset: 0;
}
.name {
  color: rgb(var(--v-theme-primary));
}
.paper {
  position: relative;
  flex: 1;
  min-height: 0;
  border-radius: 10px;
  overflow: hidden;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.impossible {
  position: absolute;
  inset: 0;
  display: flex;
  align-items: center;
  padding: 0 24px;
  color: rgb(var(--v-theme-error));
  background: rgba(var(--v-theme-background), 0.88);
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
.v-tabs {
  flex: none;
}
.drop {
  align-self: flex-start;
}
</style>
