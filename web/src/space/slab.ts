import * as THREE from 'three'
import { drawPattern } from '../board/draw'
import { type Box } from '../canvas/viewport'
import { offscreenPen } from '../circuit/preview'
import type { Pattern } from '../live/wire.gen'

/** How thick the board beneath a footprint is shown, in millimetres. */
export const boardThick = 1.6

const mask = '#175b50'
const dots = 1400 // of a side of the picture that lies on the board

/** A piece of board beneath a footprint: its pads and silk lie on it as they are drawn flat. */
export function slabOf(pattern: Pattern, box: Box): THREE.Object3D {
  const [w, h] = [(box.maxX - box.minX) / 1e6, (box.maxY - box.minY) / 1e6]
  const c = document.createElement('canvas')
  c.width = Math.round(w > h ? dots : (dots * w) / h)
  c.height = Math.round(w > h ? (dots * h) / w : dots)
  const pen = offscreenPen(c, box, 0, 1e6)
  pen.ctx.fillStyle = mask
  pen.ctx.fillRect(box.minX / 1e6, box.minY / 1e6, w, h)
  drawPattern(pen, pattern, 'dark')
  const top = new THREE.CanvasTexture(c)
  top.colorSpace = THREE.SRGBColorSpace
  top.anisotropy = 8
  const side = new THREE.MeshStandardMaterial({ color: '#b59a63', roughness: 0.8 })
  const upper = new THREE.MeshStandardMaterial({ map: top, roughness: 0.55 })
  const lower = new THREE.MeshStandardMaterial({ color: mask, roughness: 0.6 })
  const slab = new THREE.Mesh(new THREE.BoxGeometry(w, h, boardThick), [side, side, side, side, upper, lower])
  slab.position.set((box.minX + box.maxX) / 2e6, (box.minY + box.maxY) / 2e6, -boardThick / 2)
  return slab
}

/** Gives back what the graphics hold of it. */
export function dispose(o: THREE.Object3D) {
  o.traverse((x) => {
    const m = x as THREE.Mesh
    m.geometry?.dispose()
    if (!Array.isArray(m.material)) return
    for (const k of m.material as THREE.MeshStandardMaterial[]) {
      k.map?.dispose()
      k.dispose()
    }
  })
}
