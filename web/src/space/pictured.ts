import * as THREE from 'three'

/** How many pixels the longer side of a picture has. */
const most = 1536
/** Of how few triangles something is as quickly drawn as its picture. */
const few = 400
/** From which share of a pixel on that it covers a thing is seen there: below a half, so that thin tracks do not break. */
const covered = 0.3

/** Draws a scene as an orthographic camera sees it. */
export type Print = (scene: THREE.Scene, camera: THREE.Camera, onto: THREE.WebGLRenderTarget) => void

/**
 * A flat thing as a picture of itself on a rectangle at its place, which costs next to nothing to draw, for as long as it moves. Undefined:
 * the thing itself costs as little.
 */
export function pictured(mesh: THREE.Mesh, print: Print): THREE.Mesh | undefined {
  if ((mesh.geometry.index?.count ?? 0) / 3 < few) return undefined
  const still = new THREE.Mesh(mesh.geometry, new THREE.MeshBasicMaterial({ color: 'white', side: THREE.DoubleSide }))
  still.applyMatrix4(mesh.matrix)
  const box = new THREE.Box3().setFromObject(still)
  const { min, max } = box
  const [w, h] = [max.x - min.x, max.y - min.y]
  const onto = new THREE.WebGLRenderTarget(Math.ceil(w > h ? most : (most * w) / h), Math.ceil(w > h ? (most * h) / w : most), {
    depthBuffer: false,
    generateMipmaps: true,
    minFilter: THREE.LinearMipmapLinearFilter,
  })
  const camera = new THREE.OrthographicCamera(min.x, max.x, max.y, min.y, 0, 2)
  camera.position.z = max.z + 1
  print(new THREE.Scene().add(still), camera, onto)
  ;(still.material as THREE.Material).dispose()

  const { color, opacity, transparent } = mesh.material as THREE.MeshLambertMaterial
  const material = new THREE.MeshLambertMaterial({ color, opacity, transparent, alphaMap: onto.texture, side: THREE.DoubleSide })
  material.alphaTest = covered * opacity
  material.addEventListener('dispose', () => onto.dispose())
  const picture = new THREE.Mesh(new THREE.PlaneGeometry(w, h), material)
  picture.raycast = () => undefined // what it is a picture of is met
  box.getCenter(picture.position)
  return picture
}
