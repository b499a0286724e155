import type { Binding } from '@/controls/keys'
import { ANYWHERE, WITH_CLIPS, type KeyGroup } from '@/controls/ownKeys'
import { VERBS, type Verb } from '@/controls/verbs'
import { STAGES } from '@/stages'

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
    { key: 'space', label: 'Play or pause', run: acts.toggle },
    { key: 'arrowleft', label: 'One frame back', ...step(-1) },
    { key: 'arrowright', label: 'One frame on', ...step(1) },
    { key: 'shift+arrowleft', label: 'Ten frames back', ...step(-10) },
    { key: 'shift+arrowright', label: 'Ten frames on', ...step(10) },
    { key: 'x', label: 'Play backwards; again: faster', run: () => acts.shuttle(-1) },
    { key: 'c', label: 'Stop', run: acts.pause },
    { key: 'v', label: 'Play forwards; again: faster', run: () => acts.shuttle(1) },
    { key: 'home', label: 'To the beginning', run: acts.toStart },
    { key: 'end', label: 'To the end', run: acts.toEnd },
    { key: 'pageup', label: 'To the join before', run: () => acts.toJoin(-1), repeats: true },
    { key: 'pagedown', label: 'To the next join', run: () => acts.toJoin(1), repeats: true },
    { key: 'shift+pageup', label: 'To the marker before', run: () => acts.toMarker(-1) },
    { key: 'shift+pagedown', label: 'To the next marker', run: () => acts.toMarker(1) },
    { key: 'ctrl+z', label: 'Undo', run: acts.undo, repeats: true },
    { key: 'ctrl+shift+z', label: 'Do again', run: acts.redo, repeats: true },
    { key: 'ctrl+a', label: 'Take all clips in hand', run: acts.takeEverything },
    { key: 'esc', label: 'Put down what is in hand; then close the group', run: acts.putDown },
    { key: 'n', label: 'Snapping on or off; Alt holds it off', run: acts.snapping },
    { key: '?', label: 'This list', run: acts.help },
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
    { name: ANYWHERE, keys: commonKeys(acts), everywhere: true },
    { name: WITH_CLIPS, keys: ofVerbs(VERBS), everywhere: true },
    ...STAGES.map((stage) => ({
      name: `In ${stage.name}`,
      keys: [...ofVerbs(stage.verbs ?? []), ...(stage.keys?.() ?? [])],
    })).filter((group) => group.keys.length),
  ]
}
