import type { Pen } from '../../canvas/pen'
import { type Box, meets } from '../../canvas/viewport'
import type { Painted, PaintedCell, PaintedCoat } from '../../live/wire.gen'

/** Shapes near each other, as the canvas paints them. Places are micrometres. */
interface Cell {
  box: Box
  fill: Path2D | null
  lines: { width: number; path: Path2D }[]
}
interface Coat {
  name: string
  colour: string
  opacity: number
  cells: Cell[]
  areas: Path2D | null
  within: Cell[] | null
  without: Cell[]
}

const cellOf = (c: PaintedCell): Cell => ({
  box: { minX: c.box.min.x, minY: c.box.min.y, maxX: c.box.max.x, maxY: c.box.max.y },
  fill: c.fill ? new Path2D(c.fill) : null,
  lines: (c.lines ?? []).map((l) => ({ width: l.width, path: new Path2D(l.path) })),
})
const coatOf = (c: PaintedCoat): Coat => ({
  name: c.name,
  colour: c.colour,
  opacity: c.opacity,
  cells: (c.cells ?? []).map(cellOf),
  areas: c.areas ? new Path2D(c.areas) : null,
  within: c.all ? null : (c.within ?? []).map(cellOf),
  without: (c.without ?? []).map(cellOf),
})

function paintCells(ctx: CanvasRenderingContext2D, cells: Cell[], colour: string, box: Box) {
  ctx.fillStyle = ctx.strokeStyle = colour
  for (const c of cells) {
    if (!meets(c.box, box)) continue
    if (c.fill) ctx.fill(c.fill)
    for (const l of c.lines) {
      ctx.lineWidth = l.width
      ctx.stroke(l.path)
    }
  }
}

/** A canvas beside, of the size and with the places of another one. */
function beside(canvas: HTMLCanvasElement, like: CanvasRenderingContext2D): CanvasRenderingContext2D {
  if (canvas.width !== like.canvas.width || canvas.height !== like.canvas.height) {
    canvas.width = like.canvas.width
    canvas.height = like.canvas.height
  }
  const ctx = canvas.getContext('2d')!
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.globalCompositeOperation = 'source-over'
  ctx.clearRect(0, 0, canvas.width, canvas.height)
  ctx.setTransform(like.getTransform())
  ctx.lineCap = ctx.lineJoin = 'round'
  return ctx
}

/** A face of the finished board, coat upon coat, painted of the shapes that the files are made of. */
export class FinishedPicture {
  private readonly coats: Coat[]
  private readonly one = document.createElement('canvas')
  private readonly two = document.createElement('canvas')

  constructor(view: Painted) {
    this.coats = (view.coats ?? []).map(coatOf)
  }

  paint(pen: Pen, box: Box) {
    const { ctx } = pen
    ctx.save()
    ctx.scale(1e-3, 1e-3) // millimetres to micrometres
    for (const c of this.coats) this.coat(ctx, c, box)
    ctx.restore()
  }

  private coat(ctx: CanvasRenderingContext2D, c: Coat, box: Box) {
    if (!c.areas && !c.cells.some((k) => meets(k.box, box))) return
    const off = beside(this.one, ctx)
    paintCells(off, c.cells, c.colour, box)
    if (c.areas) off.fill(c.areas)
    const lay = (onto: CanvasRenderingContext2D, from: HTMLCanvasElement, how: GlobalCompositeOperation) => {
      onto.save()
      onto.setTransform(1, 0, 0, 1, 0, 0)
      onto.globalCompositeOperation = how
      onto.drawImage(from, 0, 0)
      onto.restore()
    }
    if (c.within) {
      paintCells(beside(this.two, ctx), c.within, '#000', box)
      lay(off, this.two, 'destination-in')
    }
    off.globalCompositeOperation = 'destination-out'
    paintCells(off, c.without, '#000', box)
    ctx.globalAlpha = c.opacity
    lay(ctx, this.one, 'source-over')
    ctx.globalAlpha = 1
  }
}
