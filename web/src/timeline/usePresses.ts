import type { Clip, Track } from '@/api/types'
import type { Player } from '@/player/usePlayer'
import { useHand } from '@/stores/hand'
import { endOf, startOf, useProject } from '@/stores/project'
import type { useDrags } from '@/timeline/useDrags'
import { useLasso } from '@/timeline/useLasso'
import { frameOf } from '@/time'

/** Row of a track on the screen. */
export interface Lane {
  track: Track
  box: DOMRect
}

const TWICE = 350
/** Milliseconds between two taps that open a group. */

/** What a press on the timeline becomes: a tap, a drag, or a lasso. */
export function usePresses(
  player: Player,
  drags: ReturnType<typeof useDrags>,
  tickAt: (clientX: number) => number,
  lanes: () => Lane[],
) {
  const project = useProject()
  const hand = useHand()
  const lasso = useLasso(takeWithin)

  let pressed: { clip: Clip | null; x: number; y: number; pointer: number } | null = null
  let tapped = { id: '', at: 0 }

  function clipUnder(target: EventTarget | null): { clip: Clip; track: Track } | null {
    const id = (target as HTMLElement | null)?.closest<HTMLElement>('[data-clip]')?.dataset.clip
    return id ? project.findClip(id) : null
  }

  /** One pointer presses at a time: a second finger is the zoom's, a palm nobody's. */
  const isOther = (event: PointerEvent) => pressed !== null && event.pointerId !== pressed.pointer

  function down(event: PointerEvent) {
    if (isOther(event)) return
    const found = clipUnder(event.target)
    const { clientX: x, clientY: y, pointerId: pointer } = event
    pressed = { clip: found?.clip ?? null, x, y, pointer }
    const edge = (event.target as HTMLElement).dataset.edge as 'start' | 'end' | undefined
    if (edge || event.pointerType !== 'touch') {
      ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
    }
    if (found) drags.down(event, found.clip, found.track, edge ?? null)
    else if (event.button === 0) lasso.down(event)
  }

  function move(event: PointerEvent) {
    if (isOther(event)) return
    drags.move(event)
    lasso.move(event)
  }

  function up(event: PointerEvent) {
    if (isOther(event)) return
    const used = [drags.up(), lasso.up()].some(Boolean)
    const still = pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) < 8
    if (!used && pressed && still) tap(event, pressed.clip)
    pressed = null
  }

  function tap(event: PointerEvent, clip: Clip | null) {
    if (!clip) {
      hand.release()
      player.seek(frameOf(tickAt(event.clientX), project.rate))
      return
    }
    const id = clip.id ?? ''
    const again = tapped.id === id && event.timeStamp - tapped.at < TWICE
    tapped = { id, at: event.timeStamp }
    if (again && clip.kind === 'group') {
      hand.release()
      project.enter(id)
      player.seek(0)
      return
    }
    hand.take(id, event.shiftKey || event.ctrlKey || event.metaKey)
  }

  /** All clips that a rectangle on the screen touches. */
  function takeWithin(box: DOMRect) {
    const found: string[] = []
    const [from, to] = [tickAt(box.left), tickAt(box.right)]
    for (const { track, box: lane } of lanes()) {
      if (lane.bottom < box.top || lane.top > box.bottom) continue
      for (const clip of track.clips) {
        if (endOf(clip) > from && startOf(clip) < to) found.push(clip.id ?? '')
      }
    }
    hand.takeAll(found)
  }

  function onClipKey(event: KeyboardEvent) {
    const found = clipUnder(event.target)
    if (!found || (event.key !== 'Enter' && event.key !== ' ')) return
    event.preventDefault()
    event.stopPropagation()
    hand.take(found.clip.id ?? '', event.shiftKey)
  }

  function forget() {
    drags.forget()
    lasso.forget()
    pressed = null
  }

  const holds = () => drags.isLifted() || lasso.holds()

  return { lasso: lasso.box, down, move, up, onClipKey, forget, holds }
}
