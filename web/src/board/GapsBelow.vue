<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { format } from '../live/units'
import type { Project } from '../live/project'
import type { Gap } from '../live/wire.gen'
import { complain } from '../shell/notices'
import { useTaste } from '../shell/taste'

/** Where picked tracks run over gaps of the copper areas beside their layer, and the least width that would fill these. */
const props = defineProps<{ project: Project; ids: number[] }>()
const taste = useTaste()
const gaps = ref<Gap[]>([])
async function look() {
  gaps.value = (await props.project.question('gaps', { ids: props.ids }).catch(() => null)) ?? []
}
watch(() => [props.ids.join(), props.project.derivedTick.value].join(), () => void look(), { immediate: true }) // prettier-ignore
const say = (nm: number) => `${format(nm, taste.unit, 2)} ${taste.unit}`
const list = computed(() =>
  gaps.value.map((g) => ({
    ...g,
    of: props.project.get('pour', g.area),
    on: props.project.board.stack.find((l) => l.id === g.layer)?.name ?? '',
  })),
)
const fill = (g: (typeof list.value)[number]) => g.of && props.project.edit('putPour', { pour: { ...g.of, leastWidth: g.width } }).catch(complain) // prettier-ignore
</script>

<template>
  <div v-for="g in list" :key="`${g.area} ${g.layer}`" class="gap">
    <p>
      <span class="mono">{{ say(g.open) }}</span> of it run over gaps of <span class="mono">{{ g.of?.name }}</span> on {{ g.on
      }}<template v-if="g.width"
        >; a least width of <span class="mono">{{ say(g.width) }}</span> would fill
        <span class="mono">{{ say(g.fills ?? 0) }}</span></template
      >.
    </p>
    <v-btn v-if="g.width" size="small" variant="outlined" @click="fill(g)">Let it be as thin</v-btn>
  </div>
</template>

<style scoped>
.gap {
  margin: 6px 0;
}
</style>
