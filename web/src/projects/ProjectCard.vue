<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'
import { useIntersectionObserver, useTimeoutFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import type { Glance } from '../live/wire.gen'
import { type Entry, openMenu, placeOf } from '../shell/menu'
import { glanceOf } from './glances'
import TraceLine from './TraceLine.vue'

/** A project or an example in the list: its picture, how far it is, and what can be done with it. */
const props = defineProps<{
  id: number
  revision: number
  name: string
  line: string
  to: string
  entries: (Entry | null)[]
  troubled?: boolean
}>()
const root = ref<HTMLElement>()
const glance = ref<Glance | null>(null)
const seen = ref(false)
useIntersectionObserver(root, ([e]) => (seen.value ||= e.isIntersecting))
/** What is not known yet is asked again. */
const again = useTimeoutFn(() => asked.value++, 3000, { immediate: false })
const asked = ref(0)
watch(
  () => [asked.value, seen.value, props.id, props.revision, props.troubled],
  async () => {
    if (!seen.value || props.troubled) return
    glance.value = await glanceOf(props.id).catch(() => null)
    if (glance.value?.board === 'pending' || glance.value?.behind) again.start()
  },
  { immediate: true },
)
const picture = computed(() =>
  glance.value
    ? `/api/projects/${props.id}/picture.svg?r=${glance.value.revision}&behind=${!!glance.value.behind || glance.value.board === 'pending'}`
    : '',
)
/** Who has it open now. */
const here = computed(() => {
  const all = glance.value?.people ?? []
  const named = all.filter((n) => n)
  if (!named.length) return all.length ? `${all.length} in it now` : ''
  const more = all.length - Math.min(named.length, 2)
  return `${named.slice(0, 2).join(', ')}${more ? ` and ${more} more` : ''} in it now`
})
const menu = (e: MouseEvent) => openMenu(placeOf(e, e.currentTarget as HTMLElement), props.entries)
</script>

<template>
  <article ref="root" class="card" :aria-label="name" @contextmenu.prevent="menu">
    <router-link :to="to" class="picture" :class="glance?.picture || 'none'" tabindex="-1" aria-hidden="true">
      <img v-if="glance?.picture" :src="picture" alt="" />
      <span v-else-if="glance || troubled" class="quiet">{{ troubled ? 'cannot be shown' : 'nothing drawn yet' }}</span>
      <v-progress-circular v-else indeterminate size="22" width="2" color="primary" aria-label="Being drawn" />
    </router-link>
    <div class="words">
      <div class="first">
        <router-link :to="to" class="name">{{ name }}</router-link>
        <v-btn :icon="mdiDotsVertical" size="x-small" :aria-label="`What can be done with ${name}`" @click="menu" />
      </div>
      <slot />
      <div class="last">
        <span class="quiet line"
          >{{ line
          }}<template v-if="here">
            · <strong>{{ here }}</strong></template
          ></span
        >
        <TraceLine v-if="glance" :glance="glance" />
      </div>
    </div>
  </article>
</template>

<style scoped>
.card {
  display: flex;
  flex-direction: column;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 10px;
  overflow: hidden;
  background: rgb(var(--v-theme-surface));
}
.card:hover {
  border-color: rgba(var(--v-theme-primary), 0.7);
}
.picture {
  display: flex;
  align-items: center;
  justify-content: center;
  height: 168px;
  padding: 10px;
  background: #17131e;
  text-decoration: none;
  color: inherit;
}
.picture.circuit {
  background: #eef1f5;
}
.picture.none {
  background: rgba(var(--v-border-color), 0.1);
}
.picture img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.words {
  display: flex;
  flex-direction: column;
  gap: 3px;
  padding: 9px 8px 9px 14px;
}
.first,
.last {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
}
.last {
  padding-right: 6px;
}
.name {
  overflow: hidden;
  font-size: 15px;
  font-weight: 500;
  text-overflow: ellipsis;
  white-space: nowrap;
  color: inherit;
  text-decoration: none;
}
.name:hover {
  text-decoration: underline;
}
.line {
  overflow: hidden;
  font-size: 12px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
