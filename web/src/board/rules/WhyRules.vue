<script setup lang="ts">
import { ref, watch } from 'vue'
import type { Project } from '../../live/project'
import type { Asked } from '../../live/wire.gen'
import { useIntoView } from '../../shell/intoView'
import { complain } from '../../shell/notices'

/** Which rules hold for what is picked, and which they beat: one thing by itself, or two as they stand to each other. */
const props = defineProps<{ project: Project; ids: number[] }>()
const asked = ref<Asked[] | null>(null)
const words: Record<string, string> = {
  clearance: 'Clearance',
  withinPart: 'Within one part',
  edgeClearance: 'To the edge',
  holeClearance: 'Between holes',
  trackWidth: 'New tracks',
  leastWidth: 'Least width',
  leastHole: 'Least hole',
  leastRing: 'Least ring',
  viaDiameter: 'Via',
  viaHole: 'Via’s hole',
  maskMargin: 'Mask margin',
  pasteMargin: 'Paste margin',
  silkWidth: 'Silk lines',
  spokeWidth: 'Spokes',
  spokeGap: 'Gap of spokes',
  holeCopper: 'Holes to copper',
  maskWeb: 'Webs of mask',
  silkApart: 'Silk off openings',
  leastSilk: 'Least silk',
  letterHeight: 'Letters',
  heightAbove: 'Height above',
  heightBelow: 'Height below',
  joined: 'Joined',
}
async function ask() {
  const said = await props.project.question('why', { ids: props.ids }).catch(complain)
  if (said) asked.value = said
}
const root = ref<HTMLElement>()
useIntoView(() => !!asked.value, root)
watch(() => props.ids.join(), () => (asked.value = null)) // prettier-ignore
watch(() => props.project.derivedTick.value, () => asked.value && void ask()) // prettier-ignore
</script>

<template>
  <section ref="root" class="why" aria-label="Rules that hold here">
    <v-btn v-if="!asked" size="small" variant="outlined" @click="ask">
      {{ ids.length === 2 ? 'Why? Rules between these two' : 'Why? Rules that hold here' }}
    </v-btn>
    <p v-else-if="!asked.length" class="quiet">No rule holds here: these two share no copper layer, or are of one net.</p>
    <dl v-else>
      <template v-for="(a, i) in asked" :key="i">
        <dt>
          {{ words[a.kind] ?? a.kind }} <span class="mono">{{ a.value }}</span>
          <span v-if="a.measured" class="quiet"
            >, is <span class="mono">{{ a.measured }}</span></span
          >
        </dt>
        <dd>{{ a.says }}</dd>
        <dd v-for="b in a.beaten" :key="b" class="quiet">instead of: {{ b }}</dd>
      </template>
    </dl>
  </section>
</template>

<style scoped>
.why {
  margin-top: 10px;
}
dl {
  display: grid;
  gap: 1px;
}
dt {
  margin-top: 7px;
  font-weight: 500;
}
dd {
  font-size: 12.5px;
  margin: 0 0 0 10px;
}
</style>
