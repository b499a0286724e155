import { joinsNear } from '@/inhand/joins'
import type { Player } from '@/player/usePlayer'
import { useHand } from '@/stores/hand'
import { startOf, useProject } from '@/stores/project'
import { frameOf } from '@/time'

type Way = 1 | -1

/** Going from where the playhead is to the next thing of a kind, or the one before. */
export function useLandmarks(player: Player) {
  const project = useProject()
  const hand = useHand()

  function goAmong(ticks: number[], way: Way) {
    const here = player.frame.value
    const frames = ticks.map((tick) => frameOf(tick, project.rate)).sort((a, b) => a - b)
    const to = way > 0 ? frames.find((one) => one > here) : frames.findLast((one) => one < here)
    if (to !== undefined) player.seek(to)
  }

  function toJoin(way: Way) {
    const joins = joinsNear(project.tracks, hand.one?.track)
    goAmong(
      joins.map((join) => join.at),
      way,
    )
  }

  /** Markers of the timeline, and those of clips where they lie on it. */
  function toMarker(way: Way) {
    const clips = project.tracks.flatMap((track) => track.clips)
    const onClips = clips.flatMap((clip) =>
      (clip.markers ?? []).map((marker) => startOf(clip) + marker.at),
    )
    goAmong([...project.markers.map((marker) => marker.at), ...onClips], way)
  }

  return { toJoin, toMarker }
}
