import type { Binding } from '@/controls/keys'
import { ANYWHERE, WITH_CLIPS, type KeyGroup } from '@/controls/ownKeys'
import { VERBS, type Verb } from '@/controls/verbs'
import { STAGES } from '@/stages'
import { t } from '@/texts'

interface Acts {
  toggle: () => void
  step: (by: number) => void
  shuttle: (way: 1 | -1) => void
  pause: () => void
  toStart: () => void
  toEnd: () => void
  toJoin: (way: 1 | -1) => void
  toMarker: (way: 1 | -1) => void
  undo: () => void
  redo: () => void
  takeEverything: () => void
  putDown: () => void
  snapping: () => void
  help: () => void
}

/** The keys that mean the same in every stage. */
export function commonKeys(acts: Acts): Binding[] {
  const step = (by: number) => ({ run: () => acts.step(by), repeats: true })
  return [
    { key: 'space', label: t('views.keys.playOrPause'), run: acts.toggle },
    { key: 'arrowleft', label: t('views.keys.oneFrameBack'), ...step(-1) },
    { key: 'arrowright', label: t('views.keys.oneFrameOn'), ...step(1) },
    { key: 'shift+arrowleft', label: t('views.keys.tenFramesBack'), ...step(-10) },
    { key: 'shift+arrowright', label: t('views.keys.tenFramesOn'), ...step(10) },
    { key: 'x', label: t('views.keys.playBackwardsAgainFaster'), run: () => acts.shuttle(-1) },
    { key: 'c', label: t('views.keys.stop'), run: acts.pause },
    { key: 'v', label: t('views.keys.playForwardsAgainFaster'), run: () => acts.shuttle(1) },
    { key: 'home', label: t('views.keys.toTheBeginning'), run: acts.toStart },
    { key: 'end', label: t('views.keys.toTheEnd'), run: acts.toEnd },
    {
      key: 'pageup',
      label: t('views.keys.toTheJoinBefore'),
      run: () => acts.toJoin(-1),
      repeats: true,
    },
    {
      key: 'pagedown',
      label: t('views.keys.toTheNextJoin'),
      run: () => acts.toJoin(1),
      repeats: true,
    },
    { key: 'shift+pageup', label: t('views.keys.toTheMarkerBefore'), run: () => acts.toMarker(-1) },
    { key: 'shift+pagedown', label: t('views.keys.toTheNextMarker'), run: () => acts.toMarker(1) },
    { key: 'ctrl+z', label: t('views.keys.undo'), run: acts.undo, repeats: true },
    { key: 'ctrl+shift+z', label: t('views.keys.doAgain'), run: acts.redo, repeats: true },
    { key: 'ctrl+a', label: t('views.keys.takeAllClipsInHand'), run: acts.takeEverything },
    { key: 'esc', label: t('views.keys.putDownWhatIsIn'), run: acts.putDown },
    { key: 'n', label: t('views.keys.snappingOnOrOffAlt'), run: acts.snapping },
    { key: '?', label: t('views.keys.thisList'), run: acts.help },
  ]
}

/** The key of a verb, told by what will happen. */
export function keyOfVerb({ key, label, help, repeats }: Verb, run: () => void): Binding {
  const told = `${label}: ${help.charAt(0).toLowerCase()}${help.slice(1)}`
  return { key, label: told, run, repeats }
}

/** All keys there are, under the headings by which they are told and kept. */
export function keyGroups(act: (verb: Verb) => void, acts: Acts): KeyGroup[] {
  const ofVerbs = (verbs: Verb[]) => verbs.map((verb) => keyOfVerb(verb, () => act(verb)))
  return [
    { id: ANYWHERE, name: t('views.keys.anywhere'), keys: commonKeys(acts), everywhere: true },
    { id: WITH_CLIPS, name: t('views.keys.withClips'), keys: ofVerbs(VERBS), everywhere: true },
    ...STAGES.map((stage) => ({
      id: stage.id,
      name: t('views.keys.in', { name: stage.name }),
      keys: [...ofVerbs(stage.verbs ?? []), ...(stage.keys?.() ?? [])],
    })).filter((group) => group.keys.length),
  ]
}
