import { isPaced, type Clip } from '@/api/types'
import { t } from '@/texts'
import { pointsOf } from './speed'

/** How a clip runs, in a word, where that is not as it is: `2 ×`, `ramp`, `frozen`, `backwards`. */
export function paceOf(clip: Clip): string {
  if (!isPaced(clip)) return ''
  const points = pointsOf(clip.speed)
  const first = points[0]?.speed ?? 1
  if (points.some((point) => point.speed !== first)) return t('motion.pace.ramp')
  if (first === 0) return t('motion.pace.frozen')
  if (first === 1) return ''
  const factor = `${Number(Math.abs(first).toFixed(2))} ×`
  if (first > 0) return factor
  return first === -1 ? t('motion.pace.justBackwards') : t('motion.pace.backwards', { factor })
}
