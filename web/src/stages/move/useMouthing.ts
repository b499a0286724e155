import { computed, onBeforeUnmount, onMounted, watch } from 'vue'
import type { MouthClip } from '@/api/types'
import { ownStretch, ownTick, posedIn, posesOf } from '@/motion/mouth'
import { useScreen } from '@/player/inject'
import { useMouth } from '@/stores/mouth'
import { useProject } from '@/stores/project'
import { frameTicks, tickOf } from '@/time'

const REST = 'closed'
/** Milliseconds that a tile is held until letting go means that the mouth closes again. */
const HELD = 200

/**
 * Posing a mouth by taps and digits while its bench is there. While the film plays they are collected
 * and land as one step at the pause.
 */
export function useMouthing(clip: () => MouthClip) {
  const project = useProject()
  const mouth = useMouth()
  const { player } = useScreen()

  const poses = computed(() => posesOf(clip()))
  const own = computed(() => ownTick(clip(), tickOf(player.shown.value, project.rate)))
  const stretch = computed(() => ownStretch(clip()))
  const rows = computed(() => posedIn(clip(), stretch.value.low, stretch.value.high))
  /** The stretch in which the playhead stands. */
  const here = computed(
    () => rows.value.find(({ from, to }) => from <= own.value && own.value < to) ?? null,
  )
  const live = computed(
    () =>
      mouth.taps.findLast(({ frame }) => frame <= player.shown.value)?.pose ??
      here.value?.pose ??
      '',
  )
  const id = () => clip().id ?? ''
  /** When the turns begin that are meant: the one under the playhead, or all with its pose. */
  function meant(): number[] {
    const now = here.value
    const all = mouth.change === 'alike'
    const turns = rows.value.filter((one) => (all ? one.pose === now?.pose : one === now))
    return turns.map(({ at }) => at).filter((at) => at >= 0)
  }

  const tapAt = (frame: number, pose: string) => (mouth.taps = [...mouth.taps, { frame, pose }])

  function tap(pose: string) {
    if (player.playing.value) {
      tapAt(player.shown.value, pose)
      return
    }
    const now = here.value
    if (mouth.change === 'from-here' || !now || now.at < 0) {
      const at = tickOf(player.shown.value, project.rate)
      project.edit({ kind: 'say', clip: id(), taps: [{ at, pose }] })
      return
    }
    project.edit({ kind: 'pose_turns', clip: id(), at: meant(), pose })
  }

  let pressed: { frame: number; since: number; pose: string } | null = null
  /** A finger goes down on a tile; while the film plays, the mouth closes where it is lifted. */
  function press(pose: string) {
    pressed = { frame: player.shown.value, since: performance.now(), pose }
    tap(pose)
  }
  function release() {
    const held = pressed
    pressed = null
    if (!held || held.pose === REST || !poses.value.includes(REST)) return
    // By the clock: on a busy device the picture may stand while a finger is down.
    if (!player.playing.value || performance.now() - held.since < HELD) return
    tapAt(Math.max(player.shown.value, held.frame + 1), REST)
  }

  /** What was tapped becomes one step; what was there from the first tap to now goes. */
  async function land() {
    const tapped = mouth.taps
    if (!tapped.length) return
    const taps = tapped.map(({ frame, pose }) => ({ at: tickOf(frame, project.rate), pose }))
    const until = Math.max(
      tickOf(player.shown.value, project.rate),
      ...taps.map(({ at }) => at + frameTicks(project.rate)),
    )
    await project.edit(
      { kind: 'say', clip: id(), taps, until },
      ({ code }) => code === 'nothing_changes',
    )
    mouth.taps = mouth.taps.slice(tapped.length)
  }

  watch(
    () => player.playing.value,
    (on) => {
      if (!on) land()
    },
  )
  onMounted(() => {
    mouth.taker = (index) => {
      const pose = poses.value[index]
      if (pose) tap(pose)
    }
  })
  onBeforeUnmount(() => {
    land()
    mouth.taker = null
  })

  return { poses, own, stretch, rows, here, live, meant, press, release }
}
