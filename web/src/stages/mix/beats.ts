/** How many of the beats that were found count. */
export type Pace = 'half' | 'as_found' | 'double' | 'onsets'

interface Found {
  at: number[]
  first: number
  tempo: number
  /** Where anything begins, beat or not. */
  onsets: number[]
}

const BAR = 4

/** Beats at another pace; `shift` is by how many of them bars begin later. */
export function chosenBeats(
  { at, first, tempo, onsets }: Found,
  pace: Pace,
  shift: number,
): Omit<Found, 'onsets'> {
  if (pace === 'onsets') return { at: onsets, first: 0, tempo }
  const around = (number: number) => ((number % BAR) + BAR) % BAR
  if (pace === 'half') {
    // Every other one, so that those that begin bars stay.
    const odd = first % 2
    const kept = at.filter((_, number) => number % 2 === odd)
    return { at: kept, first: around((first - odd) / 2 + shift), tempo: tempo / 2 }
  }
  if (pace === 'double') {
    const more = at.flatMap((one, number) => {
      const next = at[number + 1]
      return next === undefined ? [one] : [one, Math.round((one + next) / 2)]
    })
    return { at: more, first: around(first * 2 + shift), tempo: tempo * 2 }
  }
  return { at, first: around(first + shift), tempo }
}
