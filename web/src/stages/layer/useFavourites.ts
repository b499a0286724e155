import { useLocalStorage } from '@vueuse/core'

/** Kinds of effects that this person takes often, kept on this device. */
export function useFavourites() {
  const favourites = useLocalStorage<string[]>('velvet-kite.effects', [])
  function turn(kind: string) {
    const without = favourites.value.filter((one) => one !== kind)
    favourites.value =
      without.length < favourites.value.length ? without : [...favourites.value, kind]
  }
  return { favourites, turn }
}
