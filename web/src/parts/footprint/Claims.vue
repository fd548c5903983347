<script setup lang="ts">
import { mdiCheck, mdiClose, mdiLinkOff } from '@mdi/js'
import { computed } from 'vue'
import { format } from '../../live/units'
import type { Dimension, Feature, Range } from '../../live/wire.gen'
import EntryField from '../../shell/fields/EntryField.vue'
import { useTaste } from '../../shell/taste'
import { idOf } from '../pieces'
import { rangeWriting } from '../range'
import type { FootprintEditor } from './editor'
import { locate } from './features'

/** What the datasheet says of dimensions, and what the footprint has: the evidence of its having been checked. */
const props = defineProps<{ editor: FootprintEditor }>()
const taste = useTaste()
const rows = computed(() => {
  void props.editor.project.docTick.value
  const said = props.editor.shown.value?.agreements ?? []
  return (props.editor.f?.dimensions ?? []).map((d) => ({ d, said: said.find((a) => a.id === d.id) }))
})
const told = computed(() => rows.value.filter((r) => r.d.says))
const agree = computed(() => told.value.filter((r) => r.said?.agrees).length)
const name = (f: Feature) => locate(props.editor.features(), f)?.name ?? 'what is gone'
const ways: Record<string, string> = { x: 'across', y: 'up', '': 'straight' }
const say = (nm: number) => format(nm, taste.unit, 4)
const writing = computed(() => rangeWriting(taste.unit))
const keep = (d: Dimension, says: Range) => props.editor.edit({ dimensions: [{ ...d, says }] })
function pick(d: Dimension) {
  props.editor.take('select')
  props.editor.selection.clear()
  props.editor.selection.add(idOf('dimension', d.id))
}
</script>

<template>
  <h3>
    Datasheet says, footprint has
    <span v-if="told.length" class="quiet count">{{ agree }} of {{ told.length }} agree</span>
  </h3>
  <p v-if="!rows.length" class="quiet">
    Measure between two features with <kbd>D</kbd>; then enter here what the datasheet’s drawing says, as 2.54, 5.8 .. 6.2 or 6 ±
    0.2.
  </p>
  <v-table v-else density="compact">
    <tbody>
      <tr
        v-for="{ d, said } in rows"
        :key="d.id"
        :class="{ now: editor.selection.has(idOf('dimension', d.id)) }"
        @click="pick(d)"
      >
        <td class="what">
          {{ name(d.a) }} <span class="quiet">to</span> {{ name(d.b) }} <span class="quiet">{{ ways[d.way ?? ''] }}</span>
        </td>
        <td class="says" @click.stop>
          <EntryField
            label="says"
            :value="d.says ?? null"
            :writing="writing"
            empty="says …"
            figures
            bare
            says="what the datasheet says"
            @keep="keep(d, $event)"
          />
        </td>
        <td class="mono has">{{ said && !said.lost ? say(said.has) : '' }}</td>
        <td class="sign">
          <v-icon v-if="said?.lost" :icon="mdiLinkOff" size="15" :title="said.lost" color="error" :aria-label="said.lost" />
          <v-icon
            v-else-if="d.says"
            :icon="said?.agrees ? mdiCheck : mdiClose"
            size="15"
            :color="said?.agrees ? 'secondary' : 'error'"
            :aria-label="said?.agrees ? 'agrees' : 'does not agree'"
          />
        </td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
.count {
  font-weight: 400;
  font-size: 12px;
}
.what {
  cursor: pointer;
  line-height: 1.3;
}
.says {
  width: 92px;
}
.has {
  text-align: right;
}
.sign {
  width: 20px;
}
tr.now {
  background: rgba(var(--v-theme-info), 0.14);
}
</style>
