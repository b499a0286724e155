import type { Player } from '@/player/usePlayer'
import { findGroup } from '@/stores/groups'
import { useHand } from '@/stores/hand'
import { useProject } from '@/stores/project'
import { nearestFrame, tickOf } from '@/time'
import { innerTick, outerTick } from '@/motion/inside'

/** Going into groups and out of them; the playhead stays on the same moment. */
export function useInside(player: Player) {
  const project = useProject()
  const hand = useHand()

  const group = (id: string) => findGroup(project.document?.tracks ?? [], id)

  function show(go: () => void, tick: number) {
    if (player.playing.value) player.pause()
    hand.release()
    go()
    player.seek(nearestFrame(tick, project.rate))
  }

  function enter(id: string) {
    const found = group(id)
    const now = tickOf(player.frame.value, project.rate)
    show(() => project.enter(id), found ? innerTick(found, now) : 0)
  }

  /** Out again, to so many groups that stay open. */
  function leaveTo(depth: number) {
    const left = project.opened.slice(depth).map(group).reverse()
    const now = tickOf(player.frame.value, project.rate)
    const tick = left.reduce((at, one) => (one ? outerTick(one, at) : at), now)
    show(() => project.leaveTo(depth), tick)
  }

  return { enter, leaveTo, leave: () => leaveTo(project.opened.length - 1) }
}
