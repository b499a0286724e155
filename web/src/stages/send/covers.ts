import type { ExportOut } from '@/api/types'
import { useProject } from '@/stores/project'
import { frameOf } from '@/time'

const TICKS = 705_600_000

/** Seconds that a film lasts. */
export function lasts(film: ExportOut): number {
  const rate = film.settings.rate ?? useProject().rate
  return (film.frames * rate.den) / rate.num
}

/** The picture that a film shows after so many seconds. */
export function coverAt(film: ExportOut, seconds: number): string {
  const project = useProject()
  const tick = (film.settings.first ?? 0) + Math.round(seconds * TICKS)
  const frame = frameOf(tick, project.rate)
  return `/api/projects/${project.id}/revisions/${film.revision}/frames/${frame}?long_side=320`
}
