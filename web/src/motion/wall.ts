/** How pictures of one shape lie beside each other. */

export interface Size {
  width: number
  height: number
}

export interface Grid {
  columns: number
  rows: number
  /** Columns left of them for the film, which is as high as all rows together. */
  beside: number
}

/** The grid in which so many pictures, or with the film beside them, are as large as can be. */
export function gridOf(count: number, picture: Size, place: Size, film = false): Grid {
  const grids = Array.from({ length: Math.max(1, count) }, (_, index) => {
    const rows = Math.ceil(count / (index + 1))
    return { columns: index + 1, rows, beside: film ? rows : 0 }
  })
  const sizeIn = (grid: Grid) => {
    const { width, height } = shapeOf(grid, picture)
    return Math.min(place.width / width, place.height / height)
  }
  return grids.reduce((best, grid) => (sizeIn(grid) > sizeIn(best) ? grid : best))
}

/** The shape of the whole of it. */
export function shapeOf({ columns, rows, beside }: Grid, picture: Size): Size {
  return { width: (beside + columns) * picture.width, height: rows * picture.height }
}
