import { isHolding, type Clip, type Track } from '@/api/types'
import type { Player } from '@/player/usePlayer'
import { useGrip } from '@/controls/useGrip'
import { useHand } from '@/stores/hand'
import { endOf, startOf, useProject } from '@/stores/project'
import type { Drag, useDrags } from '@/timeline/useDrags'
import { firstEndingAfter } from '@/timeline/scale'
import { useInside } from '@/timeline/useInside'
import { useLasso } from '@/timeline/useLasso'
import { frameOf } from '@/time'

/** Row of a track on the screen. */
export interface Lane {
  track: Track
  box: DOMRect
}

/** Milliseconds between two taps that open a group. */
const TWICE = 350
/** Milliseconds after which a resting finger lifts a clip. */
const LIFTS = 260
/** Milliseconds after which a finger resting on an empty place draws a lasso. */
const DRAWS = 320

/** What lies under a press. */
interface Pressed {
  clip: Clip | null
  drag: Drag | null
}

/** What a press on the timeline becomes: a tap, a drag, or a lasso. */
export function usePresses(
  player: Player,
  drags: ReturnType<typeof useDrags>,
  tickAt: (clientX: number) => number,
  lanes: () => Lane[],
) {
  const inside = useInside(player)
  const project = useProject()
  const hand = useHand()
  const lasso = useLasso(takeWithin)
  let tapped = { id: '', at: 0 }

  function clipUnder(target: EventTarget | null): { clip: Clip; track: Track } | null {
    const id = (target as HTMLElement | null)?.closest<HTMLElement>('[data-clip]')?.dataset.clip
    return id ? project.findClip(id) : null
  }

  /** The clip of a crowd that lies at a press. */
  function inCrowd(event: PointerEvent): { clip: Clip; track: Track } | null {
    const crowd = (event.target as HTMLElement).closest('[data-crowd]')
    const id = crowd?.closest<HTMLElement>('[data-track]')?.dataset.track
    const track = id && project.tracks.find((one) => one.id === id)
    const clip = track && track.clips[firstEndingAfter(track.clips, tickAt(event.clientX))]
    return clip ? { clip, track } : null
  }

  function down(event: PointerEvent) {
    const found = clipUnder(event.target) ?? inCrowd(event)
    const edge = (event.target as HTMLElement).dataset.edge as 'start' | 'end' | undefined
    const drag = found && drags.dragOf(found.clip, found.track, edge ?? null)
    grip.down(event, { clip: found?.clip ?? null, drag })
  }

  const grip = useGrip<Pressed>({
    slop: 5,
    rest: ({ clip, drag }) => (drag?.atOnce ? 0 : clip ? LIFTS : DRAWS),
    lift({ event }, { clip, drag }) {
      if (event.pointerType === 'touch' && !drag?.atOnce) navigator.vibrate?.(12)
      if (drag && clip) drags.lift(drag)
    },
    move({ x, y, dx, dy }, { clip, drag }) {
      if (drag) drags.move(drag, dx, y)
      else if (!clip) lasso.draw({ x: x - dx, y: y - dy }, { x, y })
    },
    drop(_, { drag }) {
      if (drag) drags.drop(drag)
      lasso.end()
    },
    tap: ({ event }, { clip }) => tap(event, clip),
    cancel() {
      drags.forget()
      lasso.end()
    },
  })

  function tap(event: PointerEvent, clip: Clip | null) {
    if (!clip) {
      hand.release()
      player.seek(frameOf(tickAt(event.clientX), project.rate))
      return
    }
    const id = clip.id ?? ''
    const again = tapped.id === id && event.timeStamp - tapped.at < TWICE
    tapped = { id, at: event.timeStamp }
    if (again && isHolding(clip)) {
      inside.enter(id)
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

  return { lasso: lasso.box, down, onClipKey, forget: grip.cancel, holds: grip.isLifted }
}
