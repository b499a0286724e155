import { computed, provide, type Ref } from 'vue'
import type { Step } from '@/api/types'
import { VERBS, type Hands, type Situation, type Verb } from '@/controls/verbs'
import { DESK } from '@/controls/verbs/desk'
import type { Player } from '@/player/usePlayer'
import { useClipboard } from '@/stores/clipboard'
import { useHand, type InHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { endOf, startOf, useProject } from '@/stores/project'
import { useViewing } from '@/stores/viewing'
import { t } from '@/texts'
import { useInside } from '@/timeline/useInside'
import { frameOf, frameTicks, tickOf } from '@/time'

const byStart = (a: InHand, b: InHand) => startOf(a.clip) - startOf(b.clip)

/** Of what a step made, what comes in hand. */
const BROUGHT = {
  all: (made: InHand[]) => made,
  first: (made: InHand[]) => [...made].sort(byStart).slice(0, 1),
}

/** The verbs there are now, and doing them. `askSettings` asks which settings are to be given on. */
export function useVerbs(player: Player, ofStage: Ref<Verb[]>, askSettings: () => void) {
  const project = useProject()
  const library = useLibrary()
  const hand = useHand()
  const clipboard = useClipboard()
  const notes = useNotes()
  const viewing = useViewing()
  const inside = useInside(player)

  const verbs = computed(() => [...VERBS, ...ofStage.value])
  const now = computed<Situation>(() => ({
    hand: hand.found,
    at: tickOf(player.frame.value, project.rate),
    frame: frameTicks(project.rate),
    tracks: project.tracks,
    inGroup: Boolean(project.within),
    markers: project.markers,
    copied: clipboard.count,
    chosen: library.take,
  }))

  const hands: Hands = {
    copy(held) {
      if (project.document) clipboard.copy(held, project.tracks, project.document.canvas)
      notes.told(t('views.useVerbs.clipsCopied', held.length))
    },
    paste: (at) => hand.bring(clipboard.pasteStep(at)).then(() => library.refresh()),
    takeAll: (ids) => hand.takeAll(ids),
    enter: inside.enter,
    leave: inside.leave,
    loop,
    takeOut: (clips) => {
      const group = project.within
      const around = project.opened.at(-2) ?? null
      project.edit({ kind: 'take_out', group, clips, within: around })
    },
    giveSettings: askSettings,
    keepFrame: () => library.keepFrame(player.shown.value),
  }

  /** What is in hand plays again and again, or the whole film; or what did no longer does. */
  function loop() {
    if (viewing.loop) return (viewing.loop = null)
    const clips = hand.found.map(({ clip }) => clip)
    const [from, to] = [Math.min(...clips.map(startOf)), Math.max(...clips.map(endOf))]
    viewing.loop = clips.length
      ? { from: frameOf(from, project.rate), to: frameOf(to, project.rate) }
      : { from: 0, to: project.frames }
  }

  /** The playhead stays on the picture that it was on, wherever that lies now. */
  async function send(step: Step, moment: number | null) {
    const done = await project.edit(step)
    if (done && moment !== null && !player.playing.value) {
      player.seek(frameOf(moment, project.rate))
    }
  }

  function act(verb: Verb) {
    if (!verb.shown(now.value) || !verb.ready(now.value)) return
    if (verb.step && verb.brings) hand.bring(verb.step(now.value), BROUGHT[verb.brings])
    else if (verb.step) send(verb.step(now.value), verb.moves?.(now.value) ?? null)
    else verb.act?.(now.value, hands)
  }

  function takeEverything() {
    hand.takeAll(project.tracks.flatMap((track) => track.clips.map((clip) => clip.id ?? '')))
  }

  function putDown() {
    if (hand.ids.length) hand.release()
    else if (project.within) hands.leave()
  }

  const shown = computed(() => verbs.value.filter((verb) => verb.shown(now.value)))
  provide(DESK, { now, shown, act })
  return { act, takeEverything, putDown }
}
