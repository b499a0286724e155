import { computed } from 'vue'
import type { Clip, Step } from '@/api/types'
import { around, changedAt, toggledKey, valueAt } from '@/motion/keys'
import { everyKeyed, keyedState, read } from '@/motion/props'
import { useScreen } from '@/player/inject'
import { useMoment } from '@/inhand/useMoment'
import { useHand } from '@/stores/hand'
import { startOf, useProject } from '@/stores/project'
import { frameOf, tickOf } from '@/time'

/** Properties by path of what is in hand, as far as it fits, at the playhead. */
export function useProperties<C extends Clip>(fits: (clip: Clip) => clip is C) {
  const project = useProject()
  const hand = useHand()
  const { player } = useScreen()

  const held = computed(() => hand.found.filter(({ clip }) => fits(clip)))
  /** The clip whose values are shown; steps go to all in hand. */
  const clip = computed(() => (held.value[0]?.clip as C | undefined) ?? null)
  const ids = computed(() => held.value.map((one) => one.clip.id ?? ''))
  const locked = computed(() => held.value.some(({ track }) => track.locked))
  const { local, over, maySet } = useMoment(clip)

  const prop = (path: string) => read(clip.value, path)
  function now<T>(path: string, fallback: T): T {
    return (valueAt(prop(path), local.value) as T | undefined) ?? fallback
  }
  const keyed = (path: string) => keyedState(prop(path), local.value)

  const step = (values: Record<string, unknown>): Step => ({
    kind: 'adjust',
    clips: ids.value,
    values,
  })

  /** Values by path, as keys where there are some. */
  function placed(values: Record<string, unknown>): Record<string, unknown> {
    const entries = Object.entries(values)
    return Object.fromEntries(
      entries.map(([path, value]) => [path, changedAt(prop(path), local.value, value)]),
    )
  }

  function send(what: Step): Promise<boolean> {
    player.endTrial()
    return project.edit(what)
  }

  /** A step that sets values at the playhead, done if it may be there. */
  async function sendAt(values: Record<string, unknown>, what: Step): Promise<boolean> {
    if (maySet(values)) return send(what)
    player.tryOut(null)
    return false
  }

  function set(values: Record<string, unknown>) {
    const there = placed(values)
    return sendAt(there, step(there))
  }
  const trying = (values: Record<string, unknown>) => player.tryOut(step(placed(values)))
  const endTrial = () => player.tryOut(null)
  /** Values as they are, keys and all. */
  const setWhole = (values: Record<string, unknown>) => send(step(values))
  const tryWhole = (values: Record<string, unknown>) => player.tryOut(step(values))

  function toggleKey(path: string, fallback: unknown) {
    const values = { [path]: toggledKey(prop(path), local.value, fallback) }
    return sendAt(values, step(values))
  }

  /** Move the playhead to the next or previous key of anything in the layer. */
  function jump(way: 1 | -1) {
    if (!clip.value) return
    const start = startOf(clip.value)
    const at = tickOf(player.shown.value, project.rate) - start
    const found = everyKeyed(clip.value)
      .map((one) => around(one, at)[way > 0 ? 'after' : 'before'])
      .filter((tick) => tick !== null)
    if (!found.length) return
    const tick = way > 0 ? Math.min(...found) : Math.max(...found)
    player.seek(frameOf(start + tick, project.rate))
  }

  const hasKeys = computed(() => everyKeyed(clip.value).length > 0)

  return {
    clip,
    ids,
    locked,
    local,
    over,
    prop,
    now,
    keyed,
    step,
    send,
    sendAt,
    set,
    trying,
    endTrial,
    setWhole,
    tryWhole,
    toggleKey,
    jump,
    hasKeys,
  }
}

export type Properties = ReturnType<typeof useProperties<Clip>>
