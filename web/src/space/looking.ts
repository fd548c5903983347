import * as THREE from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import type { Print } from './pictured'

/** What is seen from where: the direction from which things are looked at, and what is up then. */
export const sides = {
  top: { title: 'Top', from: [0, -1e-4, 1] },
  bottom: { title: 'Bottom', from: [0, -1e-4, -1] },
  front: { title: 'Front', from: [0, -1, 0] },
  back: { title: 'Back', from: [0, 1, 0] },
  left: { title: 'Left', from: [-1, 0, 0] },
  right: { title: 'Right', from: [1, 0, 0] },
} as const
export type Side = keyof typeof sides

/** A frame that comes so many milliseconds after the one before is late, or in good time. */
const slowest = 45
const quickest = 22
/** How coarsely it is drawn at most while it moves. */
const coarsest = 0.34
/** After so many milliseconds without a move it rests. */
const rest = 160

/**
 * Looks at things in space, in millimetres with z up. Dragging turns it, the wheel comes nearer; the arrows and + and − do the same, Home
 * shows it as at first. Nothing is drawn while nothing moves.
 */
export class Looking {
  readonly scene = new THREE.Scene()
  readonly camera = new THREE.PerspectiveCamera(28, 1, 0.1, 2000)
  readonly controls: OrbitControls
  private readonly renderer: THREE.WebGLRenderer
  private frame = 0
  private resting = 0
  private last = 0
  /** How finely it is drawn while it moves, of the pixels of the screen. */
  private fine = 0.9
  private ratio = 0
  /** Called before each frame is drawn, while it moves or when it rests. */
  onFrame: (moves: boolean) => void = () => undefined
  /** How often it was drawn. */
  frames = 0
  /** The middle and the size of what is looked at. */
  private middle = new THREE.Vector3()
  private size = 10

  /** Throws where the browser has no graphics for it. */
  constructor(private readonly canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({ canvas, antialias: false, alpha: true, preserveDrawingBuffer: true })
    this.camera.up.set(0, 0, 1)
    this.scene.add(new THREE.HemisphereLight('#ffffff', '#5a5568', 2.2))
    const sun = new THREE.DirectionalLight('#ffffff', 2.4)
    sun.position.set(-4, -6, 10)
    this.scene.add(sun)
    this.controls = new OrbitControls(this.camera, canvas)
    this.controls.addEventListener('change', this.paint)
  }

  /** Draws in the next frame; a hundred times asked for before, once. */
  readonly paint = () => {
    if (!this.frame) this.frame = requestAnimationFrame(() => this.moved())
  }
  private get seen() {
    return this.canvas.isConnected && this.canvas.clientWidth > 0 && !document.hidden
  }
  /** Draws while it moves: as finely as there is time for. What was too coarse is drawn once more when it rests. */
  private moved() {
    this.frame = 0
    if (!this.seen) return
    const now = performance.now()
    const gap = now - this.last
    if (gap < 400) {
      if (gap > slowest) this.fine = Math.max(coarsest, this.fine * 0.8)
      else if (gap < quickest) this.fine = Math.min(1, this.fine * 1.1)
    }
    this.last = now
    this.render(this.fine * devicePixelRatio, true)
    clearTimeout(this.resting)
    this.resting = window.setTimeout(this.draw, rest)
  }
  /** Draws as finely as it is to be seen at rest. */
  readonly draw = () => {
    cancelAnimationFrame(this.frame)
    clearTimeout(this.resting)
    this.frame = 0
    // where moving is quick there is time to draw more finely than the screen, so that edges are smooth
    if (this.seen) this.render(devicePixelRatio * (this.fine < 1 ? 1 : 1.5), false)
  }
  private render(ratio: number, moves: boolean) {
    if (this.ratio !== ratio) this.renderer.setPixelRatio((this.ratio = ratio))
    this.onFrame(moves)
    this.renderer.render(this.scene, this.camera)
    this.frames++
  }

  /** Draws a scene of its own, whole, onto a picture. */
  readonly print: Print = (scene, camera, onto) => {
    const planes = this.renderer.clippingPlanes
    this.renderer.clippingPlanes = []
    this.renderer.setRenderTarget(onto)
    this.renderer.render(scene, camera)
    this.renderer.setRenderTarget(null)
    this.renderer.clippingPlanes = planes
  }

  /** What is cut away: all on the far side of the plane. */
  cut(plane: THREE.Plane | null) {
    this.renderer.clippingPlanes = plane ? [plane] : []
    this.paint()
  }

  resize(width: number, height: number) {
    if (!width || !height) return
    this.renderer.setSize(width, height, false)
    this.camera.aspect = width / height
    this.camera.updateProjectionMatrix()
    this.draw()
  }

  /** What is looked at is so large. */
  around(box: THREE.Box3) {
    box.getCenter(this.middle)
    this.size = Math.max(box.getSize(new THREE.Vector3()).length(), 1)
    this.camera.near = this.size / 150
    this.camera.far = this.size * 30
    this.camera.updateProjectionMatrix()
  }
  /** What is looked at became larger or smaller: it is seen from as much farther or nearer. */
  fit(box: THREE.Box3) {
    const before = this.size
    this.around(box)
    const arm = this.camera.position.clone().sub(this.controls.target)
    this.camera.position.copy(this.controls.target).addScaledVector(arm, this.size / before)
    this.controls.update()
  }
  private from(x: number, y: number, z: number) {
    this.controls.target.copy(this.middle)
    this.camera.position.set(x, y, z).add(this.middle)
    this.controls.update()
    this.paint()
  }
  /** From the front, somewhat to the left and above. */
  home() {
    const far = this.size * 1.25
    this.from(-far * 0.5, -far * 0.95, far * 0.8)
  }
  side(s: Side) {
    const [x, y, z] = sides[s].from
    const wide = Math.min(1, this.camera.aspect)
    const far = (this.size * 1.9) / wide
    this.from(x * far, y * far, z * far)
  }
  /** Comes to a box as it looks now. */
  goTo(box: THREE.Box3) {
    const arm = this.camera.position.clone().sub(this.controls.target)
    const near = Math.max(box.getSize(new THREE.Vector3()).length() * 4, this.size / 8)
    box.getCenter(this.controls.target)
    this.camera.position.copy(this.controls.target).add(arm.setLength(Math.min(arm.length(), near)))
    this.controls.update()
    this.paint()
  }
  get above() {
    return this.camera.position.z > this.middle.z
  }

  /** A key that turns it or comes nearer. */
  press(e: KeyboardEvent) {
    const arm = this.camera.position.clone().sub(this.controls.target)
    const across = new THREE.Vector3().crossVectors(this.camera.up, arm).normalize()
    const tilt = (a: number) => {
      const next = arm.clone().applyAxisAngle(across, a)
      const up = next.angleTo(this.camera.up)
      if (up > 0.05 && up < Math.PI - 0.05) arm.copy(next)
    }
    if (e.ctrlKey || e.metaKey || e.altKey) return
    if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') arm.applyAxisAngle(this.camera.up, e.key === 'ArrowLeft' ? -0.15 : 0.15)
    else if (e.key === 'ArrowUp') tilt(-0.12)
    else if (e.key === 'ArrowDown') tilt(0.12)
    else if (e.key === '+' || e.key === '=') arm.multiplyScalar(0.85)
    else if (e.key === '-') arm.multiplyScalar(1 / 0.85)
    else if (e.key === 'Home') return void (e.preventDefault(), e.stopPropagation(), this.home())
    else return
    e.preventDefault()
    e.stopPropagation()
    this.camera.position.copy(this.controls.target).add(arm)
    this.controls.update()
    this.paint()
  }

  /** What lies under a place of the canvas, from −1 to 1 to the right and upwards, the nearest first. */
  under(x: number, y: number, among: THREE.Object3D[]) {
    const ray = new THREE.Raycaster()
    ray.setFromCamera(new THREE.Vector2(x, y), this.camera)
    return ray.intersectObjects(among, true)
  }

  picture(): Promise<Blob | null> {
    this.draw()
    return new Promise((take) => this.canvas.toBlob(take, 'image/png'))
  }

  end() {
    cancelAnimationFrame(this.frame)
    clearTimeout(this.resting)
    this.controls.dispose()
    this.renderer.dispose()
  }
}
