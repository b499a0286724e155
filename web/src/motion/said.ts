import type { TextClip } from '@/api/types'

const count = (text: string) => text.split(/\s+/).filter(Boolean).length

/** What else changes with the words of a text: when each is said is not known any more if there are
 * more of them, or fewer.
 */
export function saidOtherwise(clip: TextClip, before: string, after: string): Partial<TextClip> {
  const stale = clip.said !== null && clip.said !== undefined && count(before) !== count(after)
  return stale ? { said: null } : {}
}
