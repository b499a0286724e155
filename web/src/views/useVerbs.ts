import { computed, provide, type Ref } from 'vue'
import { VERBS, type Hands, type Situation, type Verb } from '@/controls/verbs'
import { DESK } from '@/controls/verbs/desk'
import type { Player } from '@/player/usePlayer'
import { useClipboard } from '@/stores/clipboard'
import { useHand } from '@/stores/hand'
import { useLibrary } from '@/stores/library'
import { useNotes } from '@/stores/notes'
import { useProject } from '@/stores/project'
import { frameTicks, tickOf } from '@/time'

/** The verbs there are now, and doing them. `askSettings` asks which settings are to be given on. */
export function useVerbs(player: Player, ofStage: Ref<Verb[]>, askSettings: () => void) {
  const project = useProject()
  const library = useLibrary()
  const hand = useHand()
  const clipboard = useClipboard()
  const notes = useNotes()

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
      notes.told(held.length === 1 ? 'Copied.' : `${held.length} clips copied.`)
    },
    paste: (at) => hand.bring(clipboard.pasteStep(at)).then(() => library.refresh()),
    takeAll: (ids) => hand.takeAll(ids),
    enter: (group) => goInside(() => project.enter(group)),
    leave: () => goInside(() => project.enter('')),
    takeOut: (clips) => {
      const group = project.within
      const around = project.opened.at(-2) ?? null
      project.edit({ kind: 'take_out', group, clips, within: around })
    },
    giveSettings: askSettings,
    keepFrame: () => library.keepFrame(player.shown.value),
  }

  /** The playhead begins anew where another timeline is shown. */
  function goInside(go: () => void) {
    if (player.playing.value) player.pause()
    hand.release()
    go()
    player.seek(0)
  }

  function act(verb: Verb) {
    if (!verb.shown(now.value) || !verb.ready(now.value)) return
    if (verb.step && verb.brings) hand.bring(verb.step(now.value))
    else if (verb.step) project.edit(verb.step(now.value))
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
