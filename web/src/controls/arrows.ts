const WAYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

/** Where an arrow key leads, up positive; null for other keys. */
export function arrowWay(event: KeyboardEvent): [number, number] | null {
  return WAYS[event.key] ?? null
}
