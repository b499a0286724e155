import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { MulticamClip } from '@/api/types'
import { stretchesOf } from '@/motion/angles'
import { useScreen } from '@/player/inject'
import { useAngles } from '@/stores/angles'
import { useProject } from '@/stores/project'
import { tickOf } from '@/time'

/** What a tap on an angle changes: from the playhead on, or the stretch it stands in. */
export type Change = 'from-here' | 'stretch'

/**
 * Switching by taps and digits, while its panel is there. While the film plays taps are collected
 * and land as one step at the pause.
 */
export function useSwitching(clip: () => MulticamClip) {
  const project = useProject()
  const angles = useAngles()
  const { player } = useScreen()
  const change = ref<Change>('from-here')

  const tick = computed(() => tickOf(player.shown.value, project.rate))
  const stretches = computed(() => stretchesOf(clip()))
  const here = computed(
    () => stretches.value.find((one) => one.from <= tick.value && tick.value < one.to) ?? null,
  )
  const live = computed(() => angles.liveAt(player.shown.value))

  function tap(angle: number) {
    const id = clip().id ?? ''
    if (player.playing.value) {
      const frame = Math.max(0, player.shown.value - angles.delay)
      angles.taps = [...angles.taps, { frame, angle }]
    } else if (change.value === 'stretch' && here.value) {
      project.edit({ kind: 'show_angle', clip: id, at: here.value.at, angle })
    } else if (live.value !== angle) {
      project.edit({ kind: 'switch', clip: id, cuts: [{ at: tick.value, angle }] })
    }
  }

  /** What was tapped becomes one step; what was there from the first tap to now goes. */
  async function land() {
    const tapped = angles.taps
    if (!tapped.length) return
    const cuts = tapped.map(({ frame, angle }) => ({ at: tickOf(frame, project.rate), angle }))
    const until = Math.max(tick.value, ...cuts.map(({ at }) => at + 1))
    // Shown as tapped until the step is done.
    await project.edit(
      { kind: 'switch', clip: clip().id ?? '', cuts, until },
      ({ code }) => code === 'nothing_changes',
    )
    angles.taps = angles.taps.slice(tapped.length)
  }

  watch(
    () => player.playing.value,
    (on) => {
      if (!on) land()
    },
  )
  onMounted(() => {
    angles.bench = 'switch'
    angles.taker = tap
  })
  onBeforeUnmount(() => {
    land()
    angles.bench = ''
    angles.taker = null
  })

  return { change, live, tap }
}
