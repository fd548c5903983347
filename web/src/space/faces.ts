import * as THREE from 'three'
import { FinishedPicture } from '../board/finished/picture'
import { offscreenPen } from '../circuit/preview'
import type { Painted } from '../live/wire.gen'

/** How many pixels the longer side of a face's picture has at most. */
const most = 2048
/** How far a face lies outside the laminate, in millimetres: as its mask does. */
const outside = 0.02

/** A face of the finished board as a picture that lies on it, with its holes left free; thick is that of the board, in millimetres. */
export function faceOf(view: Painted, thick: number): THREE.Mesh {
  const { min, max } = view.box
  const [w, h] = [(max.x - min.x) / 1e6, (max.y - min.y) / 1e6]
  const c = document.createElement('canvas')
  c.width = Math.max(1, Math.round(w > h ? most : (most * w) / h))
  c.height = Math.max(1, Math.round(w > h ? (most * h) / w : most))
  const box = { minX: min.x, minY: min.y, maxX: max.x, maxY: max.y }
  new FinishedPicture(view).paint(offscreenPen(c, box, 0, 1e6), box)
  const map = new THREE.CanvasTexture(c)
  map.colorSpace = THREE.SRGBColorSpace
  map.anisotropy = 4
  const z = view.bottom ? -thick - outside : outside
  const [x0, y0, x1, y1] = [min.x / 1e6, min.y / 1e6, max.x / 1e6, max.y / 1e6]
  const g = new THREE.BufferGeometry()
  g.setAttribute('position', new THREE.Float32BufferAttribute([x0, y0, z, x1, y0, z, x1, y1, z, x0, y1, z], 3))
  g.setAttribute('uv', new THREE.Float32BufferAttribute([0, 0, 1, 0, 1, 1, 0, 1], 2))
  g.setIndex(view.bottom ? [0, 2, 1, 0, 3, 2] : [0, 1, 2, 0, 2, 3])
  g.computeVertexNormals()
  return new THREE.Mesh(g, new THREE.MeshLambertMaterial({ map, alphaTest: 0.5 }))
}
