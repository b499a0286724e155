import { computed, toValue, type MaybeRefOrGetter } from 'vue'
import type { FilmStrip, Insert, Strip } from '@/api/types'
import { changedAt, toggledKey, valueAt } from '@/motion/keys'
import { keyedState, omitted, read } from '@/motion/props'
import { useScreen } from '@/player/inject'
import { FILM } from '@/stores/mixing'
import { useProject } from '@/stores/project'
import { tickOf } from '@/time'
import type { ChainOwner } from './chain'

/** The strip of a track, or of the film: its values at the playhead, and steps that set them. */
export function useStrip(of: MaybeRefOrGetter<string>) {
  const project = useProject()
  const { player } = useScreen()

  const film = computed(() => toValue(of) === FILM)
  const track = computed(() => project.tracks.find((one) => one.id === toValue(of)) ?? null)
  const strip = computed<Strip | FilmStrip | null>(() =>
    film.value ? (project.document?.strip ?? null) : (track.value?.strip ?? null),
  )
  /** Its keys count from the start of the timeline. */
  const local = computed(() => tickOf(player.shown.value, project.rate))
  const named = computed(() => ({
    track: film.value ? null : toValue(of),
    ...(film.value && { within: null }),
  }))

  const now = (path: string, fallback: number) =>
    (valueAt(read(strip.value, path), local.value) as number | undefined) ?? fallback
  const keyed = (path: string) => keyedState(read(strip.value, path), local.value)

  /** Values by path as they are, keys and all. */
  const setWhole = (values: Record<string, unknown>) =>
    project.edit({ kind: 'set_strip', ...named.value, values })
  const set = (path: string, value: number) =>
    setWhole({ [path]: changedAt(read(strip.value, path), local.value, value) })
  const toggleKey = (path: string, fallback: number) =>
    setWhole({ [path]: toggledKey(read(strip.value, path), local.value, fallback) })

  const chain: ChainOwner = {
    inserts: computed<Insert[]>(() => strip.value?.chain ?? []),
    owner: () => (film.value ? '' : toValue(of)),
    local,
    locked: computed(() => false),
    async add(kind) {
      const inserts = [{ kind }] as never
      const { made } = await project.make({ kind: 'add_inserts', ...named.value, inserts })
      return made[0] ?? strip.value?.chain?.at(-1)?.id ?? ''
    },
    addAll(inserts, name, instead = false) {
      const fresh = inserts.map((one) => omitted(one, 'id')) as never
      project.edit({ kind: 'add_inserts', ...named.value, inserts: fresh, name, instead })
    },
    set: (id, values) =>
      setWhole(Object.fromEntries(Object.entries(values).map(([k, v]) => [`chain/${id}/${k}`, v]))),
    remove: (insert) => project.edit({ kind: 'remove_insert', ...named.value, insert }),
    order: (insert, to) => project.edit({ kind: 'order_insert', ...named.value, insert, to }),
    noiseOf: () => (film.value ? null : { track: toValue(of) }),
  }

  return { film, track, strip, local, now, keyed, set, setWhole, toggleKey, chain }
}
