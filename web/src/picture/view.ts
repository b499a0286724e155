/** How closely the picture is looked at: its size against what fits, and its shift in pixels. */
export interface View {
  zoom: number
  x: number
  y: number
}

interface Size {
  width: number
  height: number
}

/** So close that single pixels can be touched. */
export const CLOSEST = 24

/** Larger by a factor, what is at a point (from the middle of the room) staying there. */
export function closerBy(view: View, factor: number, at: { x: number; y: number }): View {
  const zoom = Math.min(CLOSEST, Math.max(1, view.zoom * factor))
  const grown = zoom / view.zoom
  return { zoom, x: at.x - (at.x - view.x) * grown, y: at.y - (at.y - view.y) * grown }
}

/** Not moved farther than its edges: what is smaller than the room stays in its middle. */
export function keptInside(view: View, room: Size, fitted: Size): View {
  const reach = (length: number, space: number) => Math.max(0, (length * view.zoom - space) / 2)
  const bounded = (value: number, most: number) => Math.min(most, Math.max(-most, value)) + 0
  return {
    zoom: view.zoom,
    x: bounded(view.x, reach(fitted.width, room.width)),
    y: bounded(view.y, reach(fitted.height, room.height)),
  }
}
