/** How pictures of one shape lie beside each other. */

export interface Size {
  width: number
  height: number
}

export interface Grid {
  columns: number
  rows: number
}

/** The grid in which so many pictures are as large as a place lets them be. */
export function gridOf(count: number, picture: Size, place: Size): Grid {
  const sizeIn = (columns: number) => {
    const rows = Math.ceil(count / columns)
    return Math.min(place.width / (columns * picture.width), place.height / (rows * picture.height))
  }
  let columns = 1
  for (let tried = 2; tried <= count; tried++) if (sizeIn(tried) > sizeIn(columns)) columns = tried
  return { columns, rows: Math.ceil(count / columns) }
}

/** The shape of the whole of it. */
export function shapeOf({ columns, rows }: Grid, picture: Size): Size {
  return { width: columns * picture.width, height: rows * picture.height }
}
