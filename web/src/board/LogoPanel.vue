<script setup lang="ts">
import { nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import { useElementSize } from '@vueuse/core'
import { traceRing } from '../canvas/arcs'
import { call } from '../live/http'
import { latest } from '../live/latest'
import { format } from '../live/units'
import type { LogoSeen } from '../live/wire.gen'
import CentredPanel from '../shell/CentredPanel.vue'
import FilePick from '../shell/fields/FilePick.vue'
import LengthField from '../shell/fields/LengthField.vue'
import { useTaste } from '../shell/taste'
import { boardColours } from '../shell/tokens'
import type { Logo } from './tools/figure'

/** A logo for the board from a drawing (SVG): what it fills is shown before it is taken into the hand. */
const emit = defineEmits<{ close: []; taken: [Logo] }>()
const taste = useTaste()
const pick = ref<{ choose: () => void }>()
const file = shallowRef<File | null>(null)
const seen = shallowRef<LogoSeen | null>(null)
const trouble = ref('')
const width = ref(10_000_000)
const picture = ref<HTMLCanvasElement>()
const room = ref<HTMLDivElement>()
const size = useElementSize(room)

const look = latest(
  (f: File) => call<LogoSeen>('POST', `/logo?width=${width.value}`, f).catch((e: Error) => ((trouble.value = e.message), null)), // prettier-ignore
  (answer) => {
    seen.value = answer
    if (answer) trouble.value = ''
    void nextTick(paint)
  },
)
function chosen([f]: File[]) {
  if (f.size > 2 << 20) trouble.value = `The drawing ${f.name} has ${f.size >> 20} MB; 2 MB is the most.`
  else file.value = f
}
watch([file, width], () => file.value && void look(file.value))
watch([size.width, size.height], () => paint())
onMounted(() => pick.value?.choose())

function paint() {
  const c = picture.value
  if (!c || !seen.value) return
  const dpr = window.devicePixelRatio || 1
  c.width = size.width.value * dpr
  c.height = size.height.value * dpr
  const ctx = c.getContext('2d')!
  const colours = boardColours[taste.boardShade]
  const scale = Math.min(
    (c.width * 0.86) / (seen.value.size.x / 1e6),
    (c.height * 0.86) / Math.max(seen.value.size.y / 1e6, 1e-3),
  )
  ctx.setTransform(scale, 0, 0, -scale, c.width / 2, c.height / 2)
  ctx.beginPath()
  for (const r of seen.value.rings) traceRing(ctx, r)
  ctx.fillStyle = colours.silkTop
  ctx.fill('evenodd')
}
function take() {
  if (file.value && seen.value) emit('taken', { name: file.value.name.replace(/\.svg$/i, ''), seen: seen.value })
}
const mm = (nm: number) => format(nm, taste.unit, 2)
</script>

<template>
  <CentredPanel label="A logo from a drawing" :width="520" @close="emit('close')">
    <div ref="room" class="room">
      <canvas v-show="seen" ref="picture" aria-label="What the drawing fills" role="img" />
      <p v-if="!seen && !trouble" class="quiet">
        An SVG drawing becomes filled shapes: lines as wide as they are drawn, white takes away from what lies beneath.
      </p>
    </div>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <template v-if="seen">
      <LengthField label="Width" :least="100_000" :value="width" @keep="width = $event" />
      <p class="quiet">
        <span class="mono">{{ mm(seen.size.x) }} × {{ mm(seen.size.y) }}</span> {{ taste.unit }},
        <span class="mono">{{ seen.corners }}</span> corners.
        <template v-if="seen.leftOut.length">Left out: {{ seen.leftOut.join(', ') }}.</template>
      </p>
    </template>
    <template #acts>
      <FilePick ref="pick" v-slot="{ choose }" label="Drawing" accept=".svg,image/svg+xml" @files="chosen">
        <v-btn variant="outlined" @click="choose">{{ file ? 'Another drawing' : 'Choose a drawing' }}</v-btn>
      </FilePick>
      <v-btn color="primary" variant="flat" :disabled="!seen || !!trouble" @click="take">Take it in hand</v-btn>
    </template>
  </CentredPanel>
</template>

<style scoped>
.room {
  height: 220px;
  display: grid;
  place-items: center;
}
canvas {
  width: 100%;
  height: 100%;
}
.wrong {
  color: rgb(var(--v-theme-error));
}
</style>
