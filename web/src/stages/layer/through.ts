import type { Schemas } from '@/api/client'

type Through = Schemas['CutThrough']
type Marked = Pick<Through, 'views' | 'edge'> & { through?: Through | null }

const marksOf = ({ views, edge }: Marked) => JSON.stringify([views, edge])

/**
 * Why a cut-out should be found again: it was marked anew since, or the clip shows more of its file, in
 * ticks, than was looked at.
 */
export function whyAgain(cutout: Marked | null, low: number, high: number): '' | 'anew' | 'short' {
  const then = cutout?.through
  if (!cutout || !then) return ''
  if (marksOf(cutout) !== marksOf(then)) return 'anew'
  return low < then.first || high > then.last ? 'short' : ''
}
