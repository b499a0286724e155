import { keyLabel } from './keys'
import { ANYWHERE } from './ownKeys'
import { useOwnKeys } from './useOwnKeys'

/** Tells what a control does with the key that does it too, as that is set now; by its first key. */
export function useToldKeys() {
  const own = useOwnKeys()
  return (what: string, key: string) => {
    const now = own.now(ANYWHERE, key)
    return now ? `${what} (${keyLabel(now)})` : what
  }
}
