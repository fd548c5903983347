<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { latest } from '../../live/latest'
import type { Project } from '../../live/project'
import type { Rule, RuleHeld, RuleKindWords, Scope } from '../../live/wire.gen'
import ChoiceField from '../../shell/fields/ChoiceField.vue'
import LengthField from '../../shell/fields/LengthField.vue'
import { complain } from '../../shell/notices'
import ScopeFields from './ScopeFields.vue'

/** A rule that is being made or changed: its sentence and what it would hold for are told while one chooses. */
const props = defineProps<{ project: Project; kinds: RuleKindWords[]; classes: string[]; rule?: Rule }>()
const emit = defineEmits<{ done: []; holds: [number[]] }>()
const made = ref<Rule>(
  props.rule
    ? (JSON.parse(JSON.stringify(props.rule)) as Rule)
    : { id: 0, kind: 'clearance', order: 0, a: {}, b: {}, value: { fixed: props.project.rule('clearance') } },
)
const kind = computed(() => props.kinds.find((k) => k.kind === made.value.kind))
const held = ref<RuleHeld | null>(null)
const look = latest(
  (r: Rule) => props.project.question('ruleHolds', { rule: r }).catch((e) => (complain(e), null)),
  (answer) => {
    held.value = answer
    emit('holds', answer?.holding.ids ?? [])
  },
)
/** What it would hold for with what is being typed. */
const meant = ref<Rule>(made.value)
function typing(fields: Partial<Rule>) {
  meant.value = { ...made.value, ...fields }
  void look(JSON.parse(JSON.stringify(meant.value)) as Rule)
}
watch(made, () => typing({}), { deep: true, immediate: true })
const scoped = computed(() => Object.keys(meant.value.a ?? {}).length + Object.keys(meant.value.b ?? {}).length > 0)
const root = ref<HTMLElement>()
onMounted(() => root.value?.scrollIntoView({ block: 'start' })) // it may open below what is in view
function setKind(k: string) {
  const pairs = props.kinds.find((x) => x.kind === k)?.pairs
  made.value = { ...made.value, kind: k, value: { fixed: props.project.rule(k) }, ...(pairs ? {} : { b: {} }) }
}
const counts = computed(() => {
  const h = held.value?.holding
  if (!h) return ''
  const things = h.things === 1 ? '1 thing' : `${h.things} things`
  const nets = h.ofNets
    ? ` of ${h.ofNets === 1 ? '1 net' : `${h.ofNets} nets`} (${h.nets.join(', ')}${h.ofNets > h.nets.length ? ' …' : ''})`
    : ''
  return `It holds for ${things}${nets}${kind.value?.pairs && Object.keys(made.value.b ?? {}).length ? `, against ${h.others}` : ''}.`
})
async function keep() {
  const done = await props.project.edit('putRule', { rule: made.value }).catch(complain)
  if (done !== undefined) emit('done')
}
</script>

<template>
  <section ref="root" class="editor" aria-label="A rule">
    <div class="row">
      <ChoiceField
        label="What"
        :value="made.kind"
        :options="kinds.map((k) => ({ value: k.kind, title: k.words }))"
        @keep="setKind(String($event))"
      />
      <LengthField
        label="Value"
        :value="made.value.fixed ?? 0"
        :step="10_000"
        @keep="made = { ...made, value: { fixed: $event } }"
      />
      <LengthField
        label="On inner layers"
        :value="made.inner?.fixed ?? null"
        empty="the same"
        :step="10_000"
        @keep="made = { ...made, inner: { fixed: $event } }"
      />
    </div>
    <div class="scopes">
      <ScopeFields
        :project="project"
        :scope="made.a ?? {}"
        :classes="classes"
        :title="kind?.pairs ? 'Between' : 'For'"
        @typing="typing({ a: $event })"
        @keep="(a: Scope) => (made = { ...made, a })"
      />
      <ScopeFields
        v-if="kind?.pairs"
        :project="project"
        :scope="made.b ?? {}"
        :classes="classes"
        title="and"
        @typing="typing({ b: $event })"
        @keep="(b: Scope) => (made = { ...made, b })"
      />
    </div>
    <p class="says" role="status">
      <template v-if="held?.wrong">{{ held.wrong }}</template>
      <template v-else-if="!scoped">Say for what it is to hold; a rule for everything there is already.</template>
      <template v-else
        >{{ held?.says }} <span class="quiet">{{ counts }}</span></template
      >
    </p>
    <div class="acts">
      <v-btn size="small" color="primary" variant="flat" :disabled="!scoped || !!held?.wrong" @click="keep">
        {{ made.id ? 'Keep the rule' : 'Add the rule' }}
      </v-btn>
      <v-btn size="small" variant="text" @click="emit('done')">Cancel</v-btn>
    </div>
  </section>
</template>

<style scoped>
.editor {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.row {
  display: grid;
  grid-template-columns: 1.3fr 1fr 1fr;
  gap: 12px;
}
.scopes {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 12px;
}
.says {
  margin: 0;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
