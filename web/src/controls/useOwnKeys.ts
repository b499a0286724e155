import { createSharedComposable, useLocalStorage } from '@vueuse/core'
import { computed } from 'vue'
import { useSession } from '@/stores/session'
import { keyNow, type OwnKeys } from './ownKeys'

interface Kept {
  keys: OwnKeys
  /** Whether keys of one letter do anything. */
  singles: boolean
}

const FRESH: Kept = { keys: {}, singles: true }

/** The keys of whoever is signed in, kept on this device. */
export const useOwnKeys = createSharedComposable(() => {
  const session = useSession()
  const all = useLocalStorage<Record<string, Kept>>('velvet-kite.keys', {})
  const mine = computed({
    get: () => ({ ...FRESH, ...all.value[session.name] }),
    set: (kept) => (all.value = { ...all.value, [session.name]: kept }),
  })
  const keys = computed({
    get: () => mine.value.keys,
    set: (set) => (mine.value = { ...mine.value, keys: set }),
  })
  const singles = computed({
    get: () => mine.value.singles,
    set: (on) => (mine.value = { ...mine.value, singles: on }),
  })
  const now = (group: string, key: string) => keyNow(keys.value, group, key, singles.value)
  return { keys, singles, now }
})
