import IconCameras from '~icons/tabler/device-computer-camera'
import IconCopy from '~icons/tabler/copy'
import IconEverything from '~icons/tabler/select-all'
import IconGroup from '~icons/tabler/stack-2'
import IconLoop from '~icons/tabler/repeat'
import IconOpen from '~icons/tabler/folder-open'
import IconSettings from '~icons/tabler/adjustments-check'
import IconOut from '~icons/tabler/arrow-back-up'
import IconPaste from '~icons/tabler/clipboard'
import IconUngroup from '~icons/tabler/box-multiple'
import IconInto from '~icons/tabler/stack-push'
import IconOutOf from '~icons/tabler/stack-pop'
import { isHolding, type Clip } from '@/api/types'
import { t } from '@/texts'
import { always, any, ids, ofKind, single, type Situation, type Verb } from './verb'

/** Several clips at once: groups, copies, everything from here. */
export const SEVERAL: Verb[] = [
  {
    id: 'copy',
    label: t('controls.several.copy'),
    help: t('controls.several.keepsACopyToPaste'),
    key: 'ctrl+c',
    icon: IconCopy,
    more: true,
    shown: any,
    ready: any,
    act: (now, hands) => hands.copy(now.hand),
  },
  {
    id: 'paste',
    label: t('controls.several.paste'),
    help: t('controls.several.putsWhatWasCopiedAt'),
    key: 'ctrl+v',
    icon: IconPaste,
    more: true,
    shown: (now) => Boolean(now.copied),
    ready: (now) => Boolean(now.copied),
    act: (now, hands) => hands.paste(now.at),
  },
  {
    id: 'settings',
    label: t('controls.several.giveCopiedSettings'),
    help: t('controls.several.givesThoseInHandThe'),
    key: 'ctrl+shift+v',
    icon: IconSettings,
    more: true,
    shown: (now) => any(now) && Boolean(now.copied),
    ready: always,
    act: (_, hands) => hands.giveSettings(),
  },
  {
    id: 'loop',
    label: t('controls.several.loop'),
    help: t('controls.several.playsWhatIsInHand'),
    key: 'shift+v',
    icon: IconLoop,
    more: true,
    shown: always,
    ready: always,
    act: (_, hands) => hands.loop(),
  },
  {
    id: 'everything',
    label: t('controls.several.everythingFromHere'),
    help: t('controls.several.takesAllClipsInHand'),
    key: 'e',
    icon: IconEverything,
    more: true,
    shown: always,
    ready: always,
    act: (now, hands) => {
      const all = (now.tracks ?? []).flatMap((track) => (track.locked ? [] : track.clips))
      const later = all.filter((clip) => (clip.start ?? 0) + clip.length > now.at)
      hands.takeAll(later.map((clip) => clip.id ?? ''))
    },
  },
  {
    id: 'open-group',
    label: t('controls.several.open'),
    help: t('controls.several.opensTheGroupItsClips'),
    key: 'o',
    icon: IconOpen,
    shown: (now) => single(now) && now.hand.some(({ clip }) => isHolding(clip)),
    ready: single,
    act: (now, hands) => hands.enter(ids(now)[0] ?? ''),
  },
  {
    id: 'cameras',
    label: t('controls.several.cameras'),
    help: t('controls.several.beginsAnEmptyClipOf'),
    key: 'shift+c',
    icon: IconCameras,
    more: true,
    brings: 'all',
    shown: (now) => !any(now),
    ready: always,
    step: () => ({ kind: 'gather_angles', takes: [], name: t('words.cameras') }),
  },
  {
    id: 'leave-group',
    label: t('controls.several.closeTheGroup'),
    help: t('controls.several.goesBackToTheTimeline'),
    key: 'shift+o',
    icon: IconOut,
    shown: (now) => Boolean(now.inGroup) && !any(now),
    ready: always,
    act: (_, hands) => hands.leave(),
  },
  {
    id: 'group',
    label: t('controls.several.group'),
    help: t('controls.several.makesThemOneClipThat'),
    key: 'g',
    icon: IconGroup,
    more: true,
    brings: 'all',
    shown: any,
    ready: any,
    step: (now) => ({ kind: 'group', clips: ids(now), name: nextName(now.tracks ?? []) }),
  },
  {
    id: 'put-in',
    label: t('controls.several.putIntoTheGroup'),
    help: t('controls.several.theOtherClipsInHand'),
    key: 'i',
    icon: IconInto,
    more: true,
    shown: (now) => now.hand.length > 1 && groupsIn(now).length === 1,
    ready: always,
    step: (now) => {
      const group = groupsIn(now)[0] ?? ''
      return { kind: 'put_in', group, clips: ids(now).filter((id) => id !== group) }
    },
  },
  {
    id: 'take-out',
    label: t('controls.several.takeOutOfTheGroup'),
    help: t('controls.several.laysItOnATrack'),
    key: 'shift+i',
    icon: IconOutOf,
    more: true,
    shown: (now) => Boolean(now.inGroup) && any(now),
    ready: always,
    act: (now, hands) => hands.takeOut(ids(now)),
  },
  {
    id: 'ungroup',
    label: t('controls.several.ungroup'),
    help: t('controls.several.laysItsClipsOnThe'),
    key: 'shift+g',
    icon: IconUngroup,
    more: true,
    shown: (now) => single(now) && ofKind(now, 'group'),
    ready: single,
    step: (now) => ({ kind: 'ungroup', clip: ids(now)[0] ?? '' }),
  },
]

function groupsIn(now: Situation): string[] {
  return now.hand.filter(({ clip }) => clip.kind === 'group').map(({ clip }) => clip.id ?? '')
}

function nextName(tracks: { clips?: unknown[] }[]): string {
  const clips = tracks.flatMap((track) => (track.clips ?? []) as Clip[])
  return t('controls.several.numberedGroup', {
    number: clips.filter((clip) => clip.kind === 'group').length + 1,
  })
}
