/** How angles lie beside each other, as `kitecore.render.wall` lays them. */
import type { Size } from './placing'

export interface Grid {
  columns: number
  rows: number
}

const FAVOURED = 1.2

/** The grid for so many pictures of the canvas's shape. */
export function gridOf(count: number, canvas: Size): Grid {
  const shape = canvas.width / canvas.height
  const strain = (columns: number) => {
    const rows = Math.ceil(count / columns)
    return (
      Math.abs(Math.log((columns * shape) / rows / FAVOURED)) + Math.log((columns * rows) / count)
    )
  }
  let columns = 1
  for (let tried = 2; tried <= count; tried++) if (strain(tried) < strain(columns)) columns = tried
  return { columns, rows: Math.ceil(count / columns) }
}

/** The shape of the whole wall. */
export function shapeOf({ columns, rows }: Grid, canvas: Size): Size {
  return { width: columns * canvas.width, height: rows * canvas.height }
}
