import { computed } from 'vue'
import type { Step } from '@/api/types'
import type { Ease } from '@/motion/easing'
import { isKeyed, type Key } from '@/motion/keys'
import { keyedProps, read } from '@/motion/props'
import { useScreen } from '@/player/inject'
import { useClipboard, type CopiedKeys } from '@/stores/clipboard'
import { useHand } from '@/stores/hand'
import { useMoving, type KeyName } from '@/stores/moving'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { t } from '@/texts'
import { frameTicks, tickOf } from '@/time'

/** What can be done with the keys in hand, across properties and clips. */
export function useKeys() {
  const project = useProject()
  const moving = useMoving()
  const hand = useHand()
  const notes = useNotes()
  const clipboard = useClipboard()
  const { player } = useScreen()

  const count = computed(() => moving.keys.length)
  const frame = computed(() => frameTicks(project.rate))

  function send(step: Step): Promise<boolean> {
    player.endTrial()
    return project.edit(step)
  }

  /** A step that moves the keys in hand by ticks. */
  const shiftStep = (by: number): Step => ({ kind: 'shift_keys', keys: moving.named, by })

  function shift(by: number) {
    if (by) void sendMoved(shiftStep(by), (at) => at + by)
  }

  /** A step after which the keys in hand are elsewhere in time, and still in hand. */
  async function sendMoved(step: Step, there: (at: number) => number) {
    const before = moving.keys
    const after = before.map((key) => ({ ...key, at: there(key.at) }))
    // What is in hand is looked up when the document changes, so it is told first.
    moving.takeAll([...before, ...after])
    moving.takeAll((await send(step)) ? after : before)
  }

  const stretchStep = (factor: number, stays: 'first' | 'last'): Step => ({
    kind: 'stretch_keys',
    keys: moving.named,
    factor,
    stays,
  })
  const stretch = (factor: number) =>
    send(stretchStep(factor, 'first')).then(() => moving.release())
  const reverse = () => send({ kind: 'reverse_keys', keys: moving.named })
  const mirror = () => send({ kind: 'mirror_keys', keys: moving.named })
  const repeat = (way: 'again' | 'on' | 'back') =>
    send({ kind: 'repeat_keys', keys: moving.named, way })
  const remove = () => send({ kind: 'remove_keys', keys: moving.named })

  function ease(one: Ease) {
    moving.lastEase = one
    return send({ kind: 'ease_keys', keys: moving.named, ease: one as never })
  }

  const tryEase = (one: Ease) =>
    player.tryOut({ kind: 'ease_keys', keys: moving.named, ease: one as never })

  function keyOf(name: KeyName): Key | null {
    const prop = read(project.findClip(name.clip)?.clip, name.path)
    return isKeyed(prop) ? (prop.keys.find((key) => key.at === name.at) ?? null) : null
  }

  /** Of the keys in hand, times count from the first of all on the timeline. */
  function copy() {
    const start = (id: string) => project.findClip(id)?.clip.start ?? 0
    const first = Math.min(...moving.keys.map((key) => start(key.clip) + key.at))
    const found = new Map<string, CopiedKeys>()
    for (const name of moving.keys) {
      const key = keyOf(name)
      if (!key) continue
      const row = found.get(name.path) ?? { path: name.path, keys: [] }
      row.keys.push({ ...key, at: start(name.clip) + name.at - first })
      found.set(name.path, row)
    }
    for (const row of found.values()) row.keys.sort((a, b) => a.at - b.at)
    clipboard.keys = [...found.values()]
    notes.told(t('inhand.useKeys.keysCopied', count.value))
  }

  /** At the playhead; `relative` from where each clip is, instead of from where they were copied. */
  function paste(relative = false) {
    const at = tickOf(player.shown.value, project.rate)
    const copied = clipboard.keys as never
    return send({ kind: 'paste_keys', clips: hand.ids, at, copied, relative })
  }

  const later = (frames: number) =>
    send({ kind: 'later_keys', clips: hand.ids, by: frames * frame.value, paths: [] })

  /** Every key of the clips in hand. */
  function takeEvery() {
    moving.takeAll(
      hand.found.flatMap(({ clip }) =>
        keyedProps(clip).flatMap(({ path, prop }) =>
          prop.keys.map((key) => ({ clip: clip.id ?? '', path, at: key.at })),
        ),
      ),
    )
  }

  return {
    count,
    frame,
    shift,
    shiftStep,
    sendMoved,
    stretchStep,
    stretch,
    reverse,
    mirror,
    repeat,
    remove,
    ease,
    tryEase,
    keyOf,
    copy,
    paste,
    later,
    takeEvery,
  }
}

export type KeysInHand = ReturnType<typeof useKeys>
