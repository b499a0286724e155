type Pair = [number, number]

/** A size with one side set and the other along in proportion; of a side that was nothing, as much. */
export function grownTogether(size: Pair, axis: number, value: number): Pair {
  const before = size[axis] ?? 0
  const other = before ? (size[1 - axis] ?? 1) * (value / before) : value
  const rounded = Number(other.toFixed(4))
  return axis ? [rounded, value] : [value, rounded]
}
