<script setup lang="ts">
import { mdiArrowDown, mdiArrowUp, mdiClose, mdiDeleteOutline, mdiPencilOutline } from '@mdi/js'
import { computed, onMounted, onUnmounted, ref, shallowRef, watch } from 'vue'
import type { Project } from '../../live/project'
import type { Filed, Range, Rule, RuleSeen, RulesShown } from '../../live/wire.gen'
import BodyDrawing from '../../parts/generator/BodyDrawing.vue'
import TextField from '../../shell/fields/TextField.vue'
import FilePick from '../../shell/fields/FilePick.vue'
import IconAct from '../../shell/IconAct.vue'
import { complain, say } from '../../shell/notices'
import { saveFile } from '../../shell/saving'
import { fits } from './patterns'
import type { BoardEditor } from '../editor'
import RuleEditor from './RuleEditor.vue'

/** The board's rules: those for everything at a small drawn board, those with a scope as sentences in their order, and the classes of nets. */
const props = defineProps<{ project: Project; editor: BoardEditor }>()
const emit = defineEmits<{ close: [] }>()
const shown = shallowRef<RulesShown | null>(null)
const making = ref<Rule | 'new' | null>(null)
const load = async () => (shown.value = await props.project.question('rulesSeen', {}).catch((e) => (complain(e), shown.value)))
onMounted(load)
watch(() => [props.project.docTick.value, props.project.derivedTick.value], load) // prettier-ignore
const dims = computed<Record<string, Range>>(() =>
  Object.fromEntries(Object.entries(shown.value?.numbers ?? {}).map(([k, v]) => [k, { min: v, max: v }])),
)
function setNumber(kind: string, r: Range) {
  if (r.min !== r.max) say('One length is meant here, not a span.', 'error')
  else props.project.edit('setRules', { rules: { [kind]: r.min } }).catch(complain)
}
const rules = computed(() => shown.value?.rules ?? [])
const order = (ids: number[]) => props.project.edit('orderRules', { ids }).catch(complain)
/** Rules for everything come first in the order, whatever is done to the others. */
function move(i: number, by: number) {
  const list = rules.value.map((r) => r.rule.id)
  const [id] = list.splice(i, 1)
  list.splice(i + by, 0, id)
  void order(list)
}
const drop = (r: Rule) => props.project.edit('remove', { ids: [r.id] }).catch(complain)
const light = (ids: number[]) => {
  props.editor.pointed.value = new Set(ids)
  props.editor.redraw()
}
onUnmounted(() => light([]))

// ---- rules in a file

const coming = shallowRef<Filed | null>(null)
const write = () => saveFile(`/projects/${props.project.id}/rules.json`, 'rules.json').catch(complain)
async function read(f: File | undefined) {
  if (f) coming.value = await props.project.question('rulesFile', { text: await f.text() }).catch((e) => (complain(e), null))
}
async function take() {
  const c = coming.value
  if (!c) return
  const done = await props.project.edit('takeRules', { numbers: c.numbers, rules: c.rules, classes: c.classes }).catch(complain)
  if (done !== undefined) coming.value = null
}

/** How many things a rule holds for now. */
function heldBy({ rule, holding: h }: RuleSeen) {
  if (rule.kind === 'spacing') return h.things === 1 ? '1 part' : `${h.things} parts`
  return `${h.things} ${h.things === 1 ? 'thing' : 'things'} on ${h.ofNets} ${h.ofNets === 1 ? 'net' : 'nets'}`
}

// ---- classes of nets

const pattern = ref('')
const given = ref('')
const classes = computed(() => Object.keys(shown.value?.classes ?? {}).sort())
const like = computed(() => {
  void props.project.docTick.value
  const p = pattern.value.trim()
  if (!p) return []
  return props.project.netList.value.map((n) => n.name).filter((n) => fits(p, n))
})
async function give() {
  const done = await props.project.edit('setNets', { nets: like.value, class: given.value.trim() }).catch(complain)
  if (done === undefined) return
  say(
    `${like.value.length} ${like.value.length === 1 ? 'net is' : 'nets are'} of ${given.value.trim() ? 'the class ' + given.value.trim() : 'no class'} now.`,
  )
}
</script>

<template>
  <div class="float rules" role="dialog" aria-label="Rules" @keydown.esc.stop="emit('close')">
    <header>
      <h3>Rules</h3>
      <v-btn size="small" variant="outlined" class="first" @click="write">Write them to a file</v-btn>
      <FilePick label="File of rules" accept=".json" @files="([f]) => read(f)">
        <template #default="{ choose }">
          <v-btn size="small" variant="outlined" @click="choose">Take from a file</v-btn>
        </template>
      </FilePick>
      <v-btn :icon="mdiClose" size="small" variant="text" aria-label="Close the rules" @click="emit('close')" />
    </header>
    <div v-if="coming" class="coming" role="status">
      <p>
        The file holds {{ Object.keys(coming.numbers).length }} numbers for everything and {{ coming.rules.length }}
        {{ coming.rules.length === 1 ? 'rule' : 'rules' }} for some things, in place of the {{ rules.length }} there are.
        <span v-for="l in coming.left" :key="l" class="left">{{ l }}</span>
      </p>
      <v-btn size="small" color="primary" variant="flat" @click="take">Take them</v-btn>
      <v-btn size="small" variant="text" @click="coming = null">Cancel</v-btn>
    </div>
    <div class="body">
      <BodyDrawing v-if="shown" class="sampler" named :view="shown.sampler" :dims="dims" @keep="setNumber" />
      <ul v-if="shown?.conflicts.length" class="conflicts" role="alert" aria-label="Rules that cannot be kept together">
        <li v-for="c in shown.conflicts" :key="c">{{ c }}</li>
      </ul>
      <section>
        <div class="head">
          <h4>Rules for some things</h4>
          <span class="quiet">the more is said of what one holds for, the more it counts; of those alike the upper one</span>
          <v-btn size="small" variant="outlined" @click="making = 'new'">New rule</v-btn>
        </div>
        <RuleEditor
          v-if="making && shown"
          :key="making === 'new' ? 'new' : making.id"
          :project="project"
          :kinds="shown.kinds"
          :classes="classes"
          :rule="making === 'new' ? undefined : making"
          @done="((making = null), light([]))"
          @holds="light"
        />
        <p v-else-if="!rules.length" class="quiet">
          There are none: the numbers above hold for everything. Make one to ask for more, or less, of some nets, layers, areas or
          parts.
        </p>
        <ol v-if="rules.length">
          <li
            v-for="(r, i) in rules"
            :key="r.rule.id"
            :class="{ trouble: r.trouble }"
            @mouseenter="light(r.holding.ids)"
            @mouseleave="light([])"
            @focusin="light(r.holding.ids)"
          >
            <span class="says">
              {{ r.says }}
              <span class="quiet">
                {{ r.trouble || heldBy(r) }}
              </span>
            </span>
            <IconAct :icon="mdiArrowUp" :disabled="!i" label="Before the one above" @click="move(i, -1)" />
            <IconAct :icon="mdiArrowDown" :disabled="i === rules.length - 1" label="After the one below" @click="move(i, 1)" />
            <IconAct :icon="mdiPencilOutline" :label="`Change: ${r.says}`" @click="making = r.rule" />
            <IconAct :icon="mdiDeleteOutline" :label="`Take away: ${r.says}`" @click="drop(r.rule)" />
          </li>
        </ol>
      </section>
      <section>
        <div class="head">
          <h4>Classes of nets</h4>
          <span v-if="!classes.length" class="quiet">a class gathers nets that rules hold for together</span>
          <span v-for="c in classes" :key="c" class="mono tag">{{ c }} {{ shown?.classes[c] }}</span>
        </div>
        <div class="give">
          <TextField
            label="Nets called"
            :value="pattern"
            empty="+3V*, DATA?"
            @typing="pattern = $event"
            @keep="pattern = $event"
          />
          <TextField label="Class" :value="given" empty="none" @keep="given = $event" />
          <v-btn size="small" variant="outlined" :disabled="!like.length" @click="give">
            {{ like.length ? `Give it to ${like.length}` : 'Give' }}
          </v-btn>
        </div>
        <p class="quiet" role="status">
          <template v-if="pattern.trim() && !like.length">No net is called so.</template>
          <template v-else-if="like.length">{{ like.slice(0, 12).join(', ') }}{{ like.length > 12 ? ' …' : '' }}</template>
        </p>
      </section>
    </div>
  </div>
</template>

<style scoped>
.rules {
  position: absolute;
  inset: 12px;
  z-index: 7;
  display: flex;
  flex-direction: column;
  padding: 12px 16px;
}
header {
  display: flex;
  gap: 8px;
  align-items: center;
}
.first {
  margin-left: auto;
}
.coming {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
}
.left {
  display: block;
  color: rgb(var(--v-theme-error));
}
.body {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.conflicts {
  margin: 0;
  padding: 6px 12px 6px 26px;
  border-left: 3px solid rgb(var(--v-theme-error));
}
.sampler {
  flex: none;
  height: 390px;
}
.head {
  display: flex;
  align-items: baseline;
  gap: 10px;
}
.head .v-btn {
  margin-left: auto;
}
h4 {
  margin: 0;
}
ol {
  padding-left: 20px;
  margin: 6px 0;
}
li {
  border-top: 1px solid rgba(var(--v-border-color), 0.18);
}
li .says {
  display: inline-block;
  width: calc(100% - 130px);
  vertical-align: middle;
}
.trouble .quiet {
  color: rgb(var(--v-theme-error));
}
.give {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 12px;
  align-items: center;
  margin-top: 6px;
}
.tag {
  font-size: 12px;
}
</style>
