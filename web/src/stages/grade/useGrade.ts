import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { isPictured, type PicturedClip, type Step } from '@/api/types'
import { around, changedAt, toggledKey, valueAt } from '@/motion/keys'
import { everyKeyed, keyedState, read } from '@/motion/props'
import { useMoment } from '@/inhand/useMoment'
import { useScreen } from '@/player/inject'
import { useGrading } from '@/stores/grading'
import { useHand } from '@/stores/hand'
import { startOf, useProject } from '@/stores/project'
import { frameOf, tickOf } from '@/time'

export type Grade = Schemas['Grade']
export type Zone = Schemas['Zone']

/** The grade of what is in hand, or of the zone that is worked on, at the playhead. */
export function useGrade() {
  const project = useProject()
  const hand = useHand()
  const grading = useGrading()
  const { player } = useScreen()

  const held = computed(() => hand.found.filter(({ clip }) => isPictured(clip)))
  /** The clip whose values are shown; steps go to all in hand. */
  const clip = computed(() => (held.value[0]?.clip as PicturedClip | undefined) ?? null)
  const ids = computed(() => held.value.map((one) => one.clip.id ?? ''))
  const locked = computed(() => held.value.some(({ track }) => track.locked))
  const grade = computed<Grade | null>(() => clip.value?.grade ?? null)
  const zones = computed<Zone[]>(() => grade.value?.zones ?? [])
  const zone = computed(() => zones.value.find((one) => one.id === grading.zone) ?? null)
  const { local, maySet } = useMoment(clip)

  /** What a path names: in the grade, or in the zone's own adjustments. */
  function prop(path: string): unknown {
    const from: unknown = zone.value ? zone.value.adjust : grade.value
    return read(from, path)
  }

  /** Its value at the playhead, or what it is by default. */
  function now<T>(path: string, fallback: T): T {
    return (valueAt(prop(path), local.value) as T | undefined) ?? fallback
  }

  const keyed = (path: string) => keyedState(prop(path), local.value)

  /** Values by path as they are sent: as keys where there are some, and within the zone. */
  function placed(values: Record<string, unknown>): Record<string, unknown> {
    const prefix = zone.value ? 'adjust/' : ''
    return Object.fromEntries(
      Object.entries(values).map(([path, value]) => [
        prefix + path,
        changedAt(prop(path), local.value, value),
      ]),
    )
  }

  function step(values: Record<string, unknown>): Step {
    return { kind: 'set_grade', clips: ids.value, values, zone: zone.value?.id ?? null }
  }

  function set(values: Record<string, unknown>): Promise<boolean> {
    return sendAt(placed(values))
  }

  /** Values set at the playhead, if they may be there. */
  async function sendAt(values: Record<string, unknown>): Promise<boolean> {
    if (maySet(values)) return send(step(values))
    player.tryOut(null)
    return false
  }

  function trying(values: Record<string, unknown>) {
    player.tryOut(step(placed(values)))
  }

  /** Values of the zone itself: its amount, its masks and ranges. */
  const setZone = (values: Record<string, unknown>) => sendAt(values)
  const tryZone = (values: Record<string, unknown>) => player.tryOut(step(values))

  function send(what: Step): Promise<boolean> {
    player.endTrial()
    return project.edit(what)
  }

  /** Set a key at the playhead, or take away the one that is there. */
  function toggleKey(path: string, fallback: unknown) {
    const next = toggledKey(prop(path), local.value, fallback)
    const whole = (zone.value ? 'adjust/' : '') + path
    return sendAt({ [whole]: next })
  }

  /** Move the playhead to the next or previous key of anything in the grade. */
  function jump(way: 1 | -1) {
    if (!clip.value) return
    const start = startOf(clip.value)
    const at = tickOf(player.shown.value, project.rate) - start
    const found = everyKeyed(grade.value)
      .map((one) => around(one, at)[way > 0 ? 'after' : 'before'])
      .filter((tick) => tick !== null)
    if (!found.length) return
    const tick = way > 0 ? Math.min(...found) : Math.max(...found)
    player.seek(frameOf(start + tick, project.rate))
  }

  const hasKeys = computed(() => everyKeyed(grade.value).length > 0)

  return {
    clip,
    ids,
    locked,
    grade,
    zones,
    zone,
    local,
    prop,
    now,
    keyed,
    set,
    trying,
    setZone,
    tryZone,
    send,
    toggleKey,
    jump,
    hasKeys,
  }
}
