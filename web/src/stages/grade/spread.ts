/** Up to `many` whole numbers from `first` to `last`, evenly spread, without the very ends. */
export function spread(first: number, last: number, many: number): number[] {
  const places = Array.from({ length: many }, (_, index) => (index + 0.5) / many)
  return [...new Set(places.map((place) => Math.round(first + (last - first) * place)))]
}
