import { computed, ref, shallowRef, type Ref } from 'vue'
import { isPaced, type Clip, type Step, type Track } from '@/api/types'
import { SNAP_REACH, useFelt, useSnapping } from '@/controls/useSnapping'
import type { Player } from '@/player/usePlayer'
import { useHand } from '@/stores/hand'
import { endOf, startOf, useProject } from '@/stores/project'
import { t } from '@/texts'
import { snap, type Target } from '@/timeline/snapping'
import { toPx, toTick } from '@/timeline/scale'
import { trimRoom } from '@/timeline/trimming'
import { useViewing } from '@/stores/viewing'
import { frameOf, frameTicks, momentOf, nearestFrame } from '@/time'

export interface Draft {
  id: string
  start: number
  end: number
  /** Set while the whole clip is moved. */
  track: string | null
}

/** What a press on a clip would drag. */
export interface Drag {
  kind: 'trim' | 'move' | 'slip'
  edge: 'start' | 'end'
  clip: Clip
  track: Track
  /** Whether a finger need not rest first: ends are dragged, clips only once they are lifted. */
  atOnce: boolean
}

/** Dragging clips and their ends: what is under the finger moves at once, the step is sent on drop. */
export function useDrags(zoom: Ref<number>, player: Player, trackAt: (y: number) => Track | null) {
  const project = useProject()
  const hand = useHand()
  const snapping = useSnapping()
  const viewing = useViewing()
  const draft = ref<Draft | null>(null)
  const snapped = ref<Target | null>(null)
  useFelt(() => snapped.value && `${snapped.value.name} ${snapped.value.tick}`)
  /** How far the source of a clip is being slipped, in ticks. */
  const slip = ref<{ id: string; by: number } | null>(null)
  /** Where on the page the finger is that drags. */
  const finger = ref(0)
  const dragging = shallowRef<Drag | null>(null)
  const active = computed(() => draft.value !== null || slip.value !== null)

  const frame = () => frameTicks(project.rate)
  const onFrame = (tick: number) => Math.round(tick / frame()) * frame()

  /** What a press on a clip drags; nothing on a locked track. */
  function dragOf(clip: Clip, track: Track, edge: 'start' | 'end' | null): Drag | null {
    if (track.locked) return null
    const kind = edge ? 'trim' : hand.slips && isPaced(clip) ? 'slip' : 'move'
    return { kind, edge: edge ?? 'start', clip, track, atOnce: Boolean(edge) || hand.slips }
  }

  function lift(drag: Drag) {
    if (drag.atOnce) return
    takeUp(drag.clip)
    draft.value = whole(drag)
  }

  function whole({ clip, track }: Drag): Draft {
    return { id: clip.id ?? '', start: startOf(clip), end: endOf(clip), track: track.id ?? null }
  }

  function move(drag: Drag, by: number, y: number) {
    finger.value = y
    dragging.value = drag
    if (drag.kind === 'trim') trimTo(drag, by)
    else if (drag.kind === 'slip') slipTo(drag, by)
    else moveTo(drag, by, y)
  }

  /** What is lifted comes in hand, unless it is among what already is. */
  function takeUp(clip: Clip) {
    if (!hand.ids.includes(clip.id ?? '')) hand.takeAll([clip.id ?? ''])
  }

  function targets(without: string[]): Target[] {
    const found: Target[] = [
      { tick: 0, name: t('timeline.useDrags.beginning') },
      { tick: player.frame.value * frame(), name: t('timeline.useDrags.playhead') },
    ]
    for (const marker of project.markers) {
      found.push({ tick: marker.at, name: marker.name || t('timeline.useDrags.marker') })
    }
    for (const track of project.tracks) {
      for (const clip of track.clips) {
        if (without.includes(clip.id ?? '')) continue
        const name = clip.name || t('timeline.useDrags.clip')
        found.push({ tick: startOf(clip), name: t('timeline.useDrags.startOf', { name }) })
        found.push({ tick: endOf(clip), name: t('timeline.useDrags.endOf', { name }) })
        for (const marker of clip.markers ?? []) {
          found.push({
            tick: startOf(clip) + marker.at,
            name: marker.name || t('timeline.useDrags.marker'),
          })
        }
      }
    }
    return found
  }

  function drawn(edges: number[], without: string[]): number {
    const reach = toTick(SNAP_REACH, zoom.value)
    const found = snapping.active.value ? snap(edges, targets(without), reach) : null
    snapped.value = found
    return found?.by ?? 0
  }

  /** The clip under the finger, and those in hand with it. */
  function together(clip: Clip): string[] {
    const id = clip.id ?? ''
    return hand.ids.includes(id) ? hand.ids : [id]
  }

  function slipTo({ clip }: Drag, px: number) {
    const by = -toTick(px, zoom.value)
    const step = Math.round(by / frame()) * frame()
    if (slip.value?.by === step) return
    slip.value = { id: clip.id ?? '', by: step }
    hand.slipBy = step
    const at = frameOf(startOf(clip), project.rate)
    player.tryOut({ kind: 'slip', clips: [clip.id ?? ''], by: step }, at)
  }

  function trimTo({ clip, track, edge }: Drag, px: number) {
    const from = edge === 'start' ? startOf(clip) : endOf(clip)
    let to = from + toTick(px, zoom.value)
    to = onFrame(to + drawn([to], together(clip)))
    const [low, high] = trimRoom(clip, track, frame())
    to =
      edge === 'start'
        ? Math.min(Math.max(to, low), endOf(clip) - frame())
        : Math.max(Math.min(to, high), startOf(clip) + frame())
    const old = draft.value
    draft.value = {
      id: clip.id ?? '',
      start: edge === 'start' ? to : startOf(clip),
      end: edge === 'end' ? to : endOf(clip),
      track: null,
    }
    const changed = !old || old.start !== draft.value.start || old.end !== draft.value.end
    if (changed) showEdge(clip, track, edge, to)
  }

  /** The picture at the end that is being dragged, as it will be. */
  function showEdge(clip: Clip, track: Track, edge: 'start' | 'end', to: number) {
    if (track.kind === 'sound') return
    const first = track.closes_gaps ? startOf(clip) : to
    const at = edge === 'start' ? first : to - frame()
    player.tryOut(trimStep(clip, edge, to), frameOf(Math.max(0, at), project.rate))
  }

  function moveTo({ clip, track }: Drag, px: number, y: number) {
    let start = startOf(clip) + toTick(px, zoom.value)
    const under = trackAt(y)
    const target = under && !under.locked && fits(clip, under) ? under : track
    if (target.closes_gaps) {
      start = Math.max(0, start)
      snapped.value = {
        tick: nearestJoin(target, clip, start),
        name: t('timeline.useDrags.goesInHere'),
      }
    } else {
      start = onFrame(start + drawn([start, start + clip.length], together(clip)))
      start = Math.max(0, start)
    }
    draft.value = {
      id: clip.id ?? '',
      start,
      end: start + clip.length,
      track: target.id ?? null,
    }
  }

  /** Where on a track without gaps the clip would go in, as seen now. */
  function nearestJoin(track: Track, clip: Clip, start: number): number {
    const joins = [0]
    for (const other of track.clips) if (other.id !== clip.id) joins.push(endOf(other))
    return joins.reduce((a, b) => (Math.abs(b - start) < Math.abs(a - start) ? b : a))
  }

  function fits(clip: Clip, track: Track): boolean {
    if (track.kind === 'sound') return clip.kind === 'sound' || clip.kind === 'video'
    return clip.kind !== 'sound'
  }

  function drop(drag: Drag) {
    snapped.value = null
    if (drag.kind === 'slip') dropSlip(drag)
    else dropDraft(drag)
  }

  function dropDraft(drag: Drag) {
    const result = draft.value
    const step = result && stepOf(drag, result)
    if (!step) {
      draft.value = null
      player.tryOut(null)
      return
    }
    player.endTrial()
    project.edit(step).then(() => {
      if (draft.value === result) draft.value = null
    })
  }

  function dropSlip(drag: Drag) {
    const result = slip.value
    hand.slipBy = 0
    if (!result?.by) {
      slip.value = null
      player.tryOut(null)
      return
    }
    player.endTrial()
    project
      .edit({ kind: 'slip', clips: together(drag.clip), by: result.by })
      .then(() => (slip.value = null))
  }

  function stepOf(used: Drag, result: Draft): Step | null {
    const { clip, track, edge } = used
    if (used.kind === 'trim') {
      const to = edge === 'start' ? result.start : result.end
      const from = edge === 'start' ? startOf(clip) : endOf(clip)
      return to === from ? null : trimStep(clip, edge, to)
    }
    if (result.start === startOf(clip) && result.track === track.id) return null
    const start = onFrame(result.start)
    const others = together(clip)
    if (others.length > 1 && result.track === track.id && !track.closes_gaps) {
      return { kind: 'shift', clips: others, by: start - startOf(clip) }
    }
    return { kind: 'move', clip: clip.id ?? '', to: start, track: result.track }
  }

  function trimStep(clip: Clip, edge: 'start' | 'end', to: number): Step {
    const also = together(clip).filter((id) => id !== clip.id)
    return { kind: 'trim', clip: clip.id ?? '', edge, to, also }
  }

  /** What is told at the finger: the moment, the length and how much that is more or less. */
  const told = computed(() => {
    const [now, drag] = [draft.value, dragging.value]
    if (!now || !drag) return null
    const { clip, kind } = drag
    const atEnd = kind === 'trim' && drag.edge === 'end'
    const at = atEnd ? now.end : now.start
    const by = at - (atEnd ? endOf(clip) : startOf(clip))
    const moment = (ticks: number) =>
      momentOf(nearestFrame(Math.abs(ticks), project.rate), project.rate, viewing.clock)
    const change = `${by < 0 ? '−' : '+'}${moment(by)}`
    const first = moment(kind === 'trim' ? now.end - now.start : at)
    return { px: toPx(at, zoom.value), y: finger.value, words: `${first}  ${change}` }
  })

  /** As if nothing had been dragged. */
  function forget() {
    if (draft.value || slip.value) player.tryOut(null)
    draft.value = slip.value = null
    hand.slipBy = 0
    snapped.value = null
  }

  return {
    draft,
    slipOf: (id: string | undefined) => (slip.value?.id === id ? (slip.value?.by ?? 0) : 0),
    active,
    dragOf,
    lift,
    move,
    drop,
    forget,
    told,
    snapPx: computed(() => (snapped.value ? toPx(snapped.value.tick, zoom.value) : null)),
    snapName: computed(() => snapped.value?.name ?? ''),
  }
}
