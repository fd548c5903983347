<script setup lang="ts">
import { mdiCheckCircleOutline } from '@mdi/js'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { BoardEditor } from '../board/editor'
import PlacePictures from '../board/PlacePictures.vue'
import { latest } from '../live/latest'
import type { Project } from '../live/project'
import type { Difference, Questions } from '../live/wire.gen'
import { complain, say } from '../shell/notices'
import { useTaste } from '../shell/taste'
import { type Apart, apartOf } from './against'

/** The circuit against the board: in what they differ, both pictures side by side, and each mended from here. */
const props = defineProps<{ project: Project }>()
const router = useRouter()
const editor = new BoardEditor(props.project, useTaste())
const differences = shallowRef<Difference[] | null>(null)
const load = latest(
  () => props.project.question('differences', {}).catch((e) => (complain(e), null)),
  (list) => (differences.value = list ?? []),
)
const offs = [
  props.project.onChange((changes, whole) => (whole ? editor.reload() : editor.changed(changes))),
  props.project.onDerived((d) => editor.derived(d)),
]
onBeforeUnmount(() => offs.forEach((off) => off()))
onMounted(() => {
  editor.load()
  void load(undefined)
})
watch(() => [props.project.derivedTick.value, props.project.docTick.value], () => void load(undefined)) // prettier-ignore

const list = computed(() => (void props.project.derivedTick.value, differences.value ? apartOf(props.project, differences.value) : null)) // prettier-ignore
const most = 400 // rows that are shown; what follows shows once those are mended
const groups = computed(() => {
  const out = new Map<string, Apart[]>()
  for (const a of (list.value ?? []).slice(0, most)) out.set(a.group, [...(out.get(a.group) ?? []), a])
  return [...out]
})
const key = ref('')
const shown = computed(() => list.value?.find((a) => a.key === key.value) ?? list.value?.[0])
/** Where what is shown lies, for the pictures. */
const place = computed<Difference | null>(() => {
  const a = shown.value
  if (!a || (!a.part && !a.on)) return null
  return { key: a.key, kind: '', text: a.text, part: a.part, path: a.path, on: a.on }
})
const able = (a: Apart) => !!a.link || (!!a.difference && a.difference.kind !== 'none')
const busy = ref(false)
/** Mends one: carries it over, or draws the way that is missing. What comes after it in the list is shown then. */
async function mend(a: Apart) {
  const rest = list.value ?? []
  const next = rest[rest.indexOf(a) + 1]?.key ?? ''
  busy.value = true
  try {
    if (a.difference) await props.project.edit('carry', { keys: [a.difference.key] })
    else if (a.link) await join(a.link)
    key.value = next
  } catch (e) {
    complain(e)
  }
  busy.value = false
}
/** Draws a way between what should be joined, from whichever layer there is one. */
async function join(l: NonNullable<Apart['link']>) {
  let why: unknown
  for (const layer of editor.copper) {
    const asks: Questions['finish']['asks'] = {
      from: l.a,
      begun: l.a,
      layer: layer.id,
      net: l.net,
      hops: editor.copper.length > 1,
    }
    const way = await props.project.question('finish', asks).catch((e) => ((why ??= e), null))
    if (!way) continue
    await props.project.edit('drawTrack', { net: l.net, runs: way.runs })
    say('A way was found and drawn.')
    return
  }
  throw why
}
function go(a: Apart) {
  const t = String(Date.now())
  const board = `/project/${props.project.id}/board`
  if (a.finding) void router.push({ path: board, query: { finding: a.finding.key, t } })
  else if (a.link) void router.push({ path: board, query: { net: props.project.netName(a.link.net), t } })
  else if (a.on) void router.push({ path: board, query: { id: String(a.on), t } })
  else if (a.part) void router.push({ path: `/project/${props.project.id}/circuit`, query: { id: String(a.part), t } })
}
function keys(e: KeyboardEvent) {
  const rows = list.value ?? []
  const at = shown.value ? rows.indexOf(shown.value) : -1
  const to = e.key === 'ArrowDown' ? at + 1 : e.key === 'ArrowUp' ? at - 1 : null
  if (to === null || !rows[to]) return
  e.preventDefault()
  key.value = rows[to].key
}
</script>

<template>
  <p v-if="!list" class="quiet wait" role="status">Circuit and board are compared …</p>
  <div v-else-if="!list.length" class="same">
    <v-icon :icon="mdiCheckCircleOutline" size="34" color="secondary" />
    <p>The board is what the circuit says: the same parts, footprints and nets, all joined, and no nets joined that are two.</p>
    <p class="quiet">
      Compared at revision <span class="mono">{{ project.derivedRev.value }}</span>, as you work.
    </p>
  </div>
  <div v-else class="against">
    <div class="left" @keydown="keys">
      <p class="quiet">
        <span class="mono">{{ list.length }}</span> {{ list.length === 1 ? 'difference' : 'differences' }} at revision
        <span class="mono">{{ project.derivedRev.value }}</span><template v-if="list.length > most"
          >; the first {{ most }} are listed</template
        >
      </p>
      <v-list density="compact" bg-color="transparent" role="listbox" aria-label="Differences of circuit and board">
        <template v-for="[name, rows] in groups" :key="name">
          <v-list-subheader
            >{{ name }} <span class="mono n">{{ rows.length }}</span></v-list-subheader
          >
          <v-list-item
            v-for="a in rows"
            :key="a.key"
            role="option"
            :active="a === shown"
            :aria-selected="a === shown"
            @click="key = a.key"
          >
            <span class="what">{{ a.text }}</span>
          </v-list-item>
        </template>
      </v-list>
    </div>
    <div v-if="shown" class="right">
      <p class="text">{{ shown.text }}</p>
      <PlacePictures v-if="place" tall :editor="editor" :difference="place" />
      <div class="acts">
        <v-btn v-if="able(shown)" color="primary" variant="flat" :disabled="busy" @click="mend(shown)">{{
          shown.link ? 'Find a way' : 'Carry it to the board'
        }}</v-btn>
        <v-btn variant="outlined" @click="go(shown)">Show the place</v-btn>
        <v-progress-circular v-if="busy" indeterminate size="20" width="2" aria-label="It is being mended" />
      </div>
      <p v-if="shown.finding" class="quiet">
        What joins nets that are two is taken away on the board, or the circuit is drawn so.
      </p>
    </div>
  </div>
</template>

<style scoped>
.against {
  flex: 1;
  min-height: 0;
  display: flex;
  gap: 18px;
}
.left {
  width: 420px;
  flex: none;
  overflow-y: auto;
}
.what {
  white-space: normal;
  font-size: 13px;
}
.right {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.text {
  font-size: 15px;
}
.acts {
  display: flex;
  gap: 10px;
  align-items: center;
}
.n {
  margin-left: 6px;
}
.same {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 10px;
  padding: 28px 0;
  font-size: 15px;
}
.wait {
  padding: 28px 0;
}
</style>
