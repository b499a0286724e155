import type { Clip } from '@/api/types'
import { asWords, t } from '@/texts'
import { read, wholeOf } from './props'

const KNOWN: Record<string, string> = {
  'place/position': t('words.position'),
  'place/size': t('words.size'),
  'place/turn': t('motion.names.turn'),
  'place/lean': t('motion.names.lean'),
  'place/pivot': t('motion.names.pivot'),
  'form/contours': t('motion.names.pointsOfThePath'),
  'warp/points': t('motion.names.grid'),
  'moves/shutter': t('motion.names.shutter'),
  opacity: t('words.opacity'),
  text: t('motion.names.words'),
  said: t('motion.names.said'),
}
const LISTS: Record<string, string> = {
  effects: t('motion.names.effect'),
  masks: t('words.mask'),
  pins: t('motion.names.pin'),
  stops: t('motion.names.stop'),
  zones: t('motion.names.zone'),
  meanwhile: t('motion.names.meanwhile'),
  trackers: t('motion.names.tracker'),
}

/** What a property is called, with the part that it belongs to. */
export function nameOf(clip: Clip | null, path: string): string {
  const whole = wholeOf(path)
  if (whole !== path) {
    const way = path.endsWith('across') ? t('words.across') : t('words.down')
    return t('motion.names.oneWay', { name: nameOf(clip, whole), way: way.toLowerCase() })
  }
  const known = KNOWN[path]
  if (known) return known
  const words: string[] = []
  const parts = path.split('/')
  parts.forEach((part, index) => {
    const before = parts[index - 1] ?? ''
    const list = LISTS[before]
    if (list) {
      const all = read(clip, parts.slice(0, index).join('/')) as { id?: string; kind?: string }[]
      const place = Math.max(0, all?.findIndex((one) => one.id === part) ?? 0)
      const kind = all?.[place]?.kind
      words.push(kind && before !== 'masks' ? kind : `${list} ${place + 1}`)
    } else if (!LISTS[part] && !['place', 'warp', 'form', 'moves', 'at'].includes(part)) {
      words.push(part)
    }
  })
  const text = words.map(asWords).join(' ')
  return text.charAt(0).toUpperCase() + text.slice(1)
}
