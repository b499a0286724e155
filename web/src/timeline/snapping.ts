/** A place that something dragged was drawn to. */
export interface Snap {
  tick: number
  /** What is there, in a word. */
  name: string
  /** How far what is dragged has to go to be there. */
  by: number
}

export interface Target {
  tick: number
  name: string
}

/**
 * The nearest of `targets` to any of `edges`, if it is within `reach`; all in ticks.
 */
export function snap(edges: number[], targets: Target[], reach: number): Snap | null {
  let best: Snap | null = null
  for (const edge of edges) {
    for (const { tick, name } of targets) {
      const by = tick - edge
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by)))
        best = { tick, name, by }
    }
  }
  return best
}
