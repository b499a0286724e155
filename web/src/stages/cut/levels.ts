/** Loudness of an angle's sound before its gain, in LUFS; none where nothing is heard. */
export type Loudness = number | null

const SILENT = -70
const [LOW, HIGH] = [-60, 12]

/** The gains that make all as loud as the one of index `like` is without any. */
export function gainsLike(like: number, all: readonly Loudness[]): number[] {
  const aim = all[like] ?? null
  return all.map((one) => {
    if (aim === null || one === null || one <= SILENT || aim <= SILENT) return 0
    return Math.round(Math.min(HIGH, Math.max(LOW, aim - one)) * 10) / 10
  })
}
