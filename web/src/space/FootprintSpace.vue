<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import * as THREE from 'three'
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { boxOf } from '../canvas/viewport'
import type { NamedFootprint } from '../live/wire.gen'
import { bytesOf } from '../live/base64'
import { Looking } from './looking'
import { dispose, slabOf } from './slab'
import { bodyOf } from './solids'

/** A footprint in space: a piece of board with its pads, and the body that stands on them, to scale. */
const props = defineProps<{ look: NamedFootprint }>()
const canvas = ref<HTMLCanvasElement>()
const trouble = ref('')
const bare = ref(false)
let looking: Looking | null = null
let shown: THREE.Object3D | null = null

async function show() {
  if (!looking) return
  if (shown) {
    looking.scene.remove(shown)
    dispose(shown)
  }
  const { footprint, pattern, model } = props.look
  const all = new THREE.Group()
  const yard = boxOf(pattern.courtyard)
  const rim = 0.12 * Math.max(yard.maxX - yard.minX, yard.maxY - yard.minY) + 5e5
  all.add(slabOf(pattern, { minX: yard.minX - rim, minY: yard.minY - rim, maxX: yard.maxX + rim, maxY: yard.maxY + rim }))
  trouble.value = ''
  let body: THREE.Object3D = bodyOf(footprint?.solids ?? [])
  if (model)
    try {
      const file = await new GLTFLoader().parseAsync(bytesOf(model).buffer as ArrayBuffer, '')
      body = new THREE.Group().add(file.scene)
      body.rotation.x = Math.PI / 2 // glTF: metres, y up
      body.scale.setScalar(1000)
    } catch {
      trouble.value = 'The body’s file cannot be shown.'
    }
  bare.value = !model && !footprint?.solids?.length
  all.add(body)
  shown = all
  looking.scene.add(all)
  looking.around(new THREE.Box3().setFromObject(all))
  looking.home()
}
onMounted(() => {
  try {
    looking = new Looking(canvas.value!)
  } catch {
    trouble.value = 'This browser has no graphics for pictures in space (WebGL).'
    return
  }
  void show()
})
useResizeObserver(canvas, ([e]) => looking?.resize(e.contentRect.width, e.contentRect.height))
watch(() => props.look, show)
onBeforeUnmount(() => {
  if (shown) dispose(shown)
  looking?.end()
})
</script>

<template>
  <div class="space">
    <canvas
      ref="canvas"
      tabindex="0"
      role="img"
      :aria-label="`${look.footprint?.name} in space; arrows turn it, plus and minus come nearer and go away`"
      @keydown="looking?.press($event)"
    />
    <p v-if="trouble || bare" class="quiet" role="status">{{ trouble || 'The footprint says nothing of its body.' }}</p>
  </div>
</template>

<style scoped>
.space {
  position: relative;
}
canvas {
  display: block;
  width: 100%;
  height: 100%;
  border-radius: 8px;
  background: radial-gradient(circle at 50% 40%, #4a4560, #1c1826);
}
canvas:focus-visible {
  outline: 2px solid rgb(var(--v-theme-info));
}
p {
  position: absolute;
  left: 10px;
  bottom: 6px;
  margin: 0;
  font-size: 11.5px;
  color: #d9d5e4;
}
</style>
