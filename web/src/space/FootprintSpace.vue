<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import * as THREE from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { boxOf } from '../canvas/viewport'
import type { NamedFootprint } from '../live/wire.gen'
import { bytesOf } from '../live/base64'
import { dispose, slabOf } from './slab'
import { bodyOf } from './solids'

/**
 * A footprint in space: a piece of board with its pads, and the body that stands on them, to scale. Dragging turns it, the wheel comes
 * nearer; the arrows and + and − do the same, Home shows it as at first. Nothing is drawn while nothing moves.
 */
const props = defineProps<{ look: NamedFootprint }>()
const canvas = ref<HTMLCanvasElement>()
const trouble = ref('')
const bare = ref(false)
let renderer: THREE.WebGLRenderer | null = null
let controls: OrbitControls | null = null
const scene = new THREE.Scene()
const camera = new THREE.PerspectiveCamera(28, 1, 0.1, 2000)
camera.up.set(0, 0, 1)
let shown: THREE.Object3D | null = null
let size = 10

function paint() {
  if (renderer) renderer.render(scene, camera)
}
/** From the front, somewhat to the left and above. */
function home() {
  const c = controls!.target
  const far = size * 1.5
  camera.position.set(c.x - far * 0.5, c.y - far * 0.95, c.z + far * 0.75)
  camera.near = far / 100
  camera.far = far * 20
  camera.updateProjectionMatrix()
  controls!.update()
  paint()
}
async function show() {
  if (!renderer || !controls) return
  if (shown) {
    scene.remove(shown)
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
  scene.add(all)
  const box = new THREE.Box3().setFromObject(all)
  size = box.getSize(new THREE.Vector3()).length()
  box.getCenter(controls.target)
  home()
}
function press(e: KeyboardEvent) {
  if (!controls) return
  const arm = camera.position.clone().sub(controls.target)
  const side = new THREE.Vector3().crossVectors(camera.up, arm).normalize()
  const tilt = (a: number) => {
    const next = arm.clone().applyAxisAngle(side, a)
    const up = next.angleTo(camera.up)
    if (up > 0.05 && up < Math.PI - 0.05) arm.copy(next)
  }
  if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') arm.applyAxisAngle(camera.up, e.key === 'ArrowLeft' ? -0.15 : 0.15)
  else if (e.key === 'ArrowUp') tilt(-0.12)
  else if (e.key === 'ArrowDown') tilt(0.12)
  else if (e.key === '+' || e.key === '=') arm.multiplyScalar(0.85)
  else if (e.key === '-') arm.multiplyScalar(1 / 0.85)
  else if (e.key === 'Home') return void (e.preventDefault(), home())
  else return
  e.preventDefault()
  e.stopPropagation()
  camera.position.copy(controls.target).add(arm)
  controls.update()
  paint()
}
onMounted(() => {
  try {
    renderer = new THREE.WebGLRenderer({ canvas: canvas.value!, antialias: true, alpha: true, preserveDrawingBuffer: true })
  } catch {
    trouble.value = 'This browser has no graphics for pictures in space (WebGL).'
    return
  }
  renderer.setPixelRatio(Math.min(2, devicePixelRatio))
  scene.add(new THREE.HemisphereLight('#ffffff', '#5a5568', 2.2))
  const sun = new THREE.DirectionalLight('#ffffff', 2.4)
  sun.position.set(-4, -6, 10)
  scene.add(sun)
  controls = new OrbitControls(camera, canvas.value)
  controls.addEventListener('change', paint)
  void show()
})
useResizeObserver(canvas, ([e]) => {
  const { width, height } = e.contentRect
  if (!renderer || !width || !height) return
  renderer.setSize(width, height, false)
  camera.aspect = width / height
  camera.updateProjectionMatrix()
  paint()
})
watch(() => props.look, show)
onBeforeUnmount(() => {
  controls?.dispose()
  if (shown) dispose(shown)
  renderer?.dispose()
})
</script>

<template>
  <div class="space">
    <canvas
      ref="canvas"
      tabindex="0"
      role="img"
      :aria-label="`${look.footprint?.name} in space; arrows turn it, plus and minus come nearer and go away`"
      @keydown="press"
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
