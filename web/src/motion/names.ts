import type { Clip } from '@/api/types'
import { read } from './props'

const KNOWN: Record<string, string> = {
  'place/position': 'Position',
  'place/size': 'Size',
  'place/turn': 'Turn',
  'place/lean': 'Lean',
  'place/pivot': 'Pivot',
  'form/contours': 'Points of the path',
  'warp/points': 'Grid',
  'moves/shutter': 'Shutter',
  opacity: 'Opacity',
}
const LISTS: Record<string, string> = {
  effects: 'Effect',
  masks: 'Mask',
  pins: 'Pin',
  stops: 'Stop',
  zones: 'Zone',
  meanwhile: 'Meanwhile',
}

/** What a property is called, with the part that it belongs to. */
export function nameOf(clip: Clip | null, path: string): string {
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
  const text = words.join(' ').replaceAll('_', ' ')
  return text.charAt(0).toUpperCase() + text.slice(1)
}
