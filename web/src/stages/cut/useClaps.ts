import { computed } from 'vue'
import type { MulticamClip } from '@/api/types'
import { useAngles } from '@/stores/angles'
import { filesOf } from './files'

/** The claps of a multicam clip's angles: told by a person, or found when it was lined up. */
export function useClaps(clip: () => MulticamClip) {
  const store = useAngles()
  const scene = computed(() => clip().scene ?? '')
  const told = computed(() => store.claps[scene.value] ?? {})
  const begins = (angle: number) => filesOf(clip()).find((file) => file.angle === angle)?.at ?? 0

  /** The tick of the clip's own time at which an angle claps; null where that is not known. */
  function at(angle: number): number | null {
    const mine = told.value[angle]
    if (mine !== undefined) return begins(angle) + mine
    const all = store.found[scene.value] ?? []
    const clap = all.find((one) => one.clap !== null && one.clap !== undefined)?.clap
    const found = all.find((one) => one.angle === angle)
    const by = begins(angle) - (found?.at ?? 0)
    return clap === undefined || clap === null || !found ? null : clap + by
  }

  function mark(angle: number, tick: number) {
    const mine = { ...told.value, [angle]: tick - begins(angle) }
    store.claps = { ...store.claps, [scene.value]: mine }
  }

  /** Ticks by which an angle is moved for its clap to fall on that of another. */
  function apart(angle: number, other: number): number | null {
    const [mine, its] = [at(angle), at(other)]
    return angle === other || mine === null || its === null ? null : its - mine
  }
  return { at, mark, apart }
}
