import { computed, inject, onBeforeUnmount, onMounted, provide, type Ref } from 'vue'
import { inOrder, TRAY, type Entry } from './tray'

/**
 * Makes a control one of those of the tray that it stands in, if it stands in one. `alone`: it is
 * the one that has the place to itself; `away`: another has it. What lies inside belongs to it.
 */
export function useEntry(
  element: Ref<HTMLElement | null>,
  name: () => string,
  told: () => string = () => '',
  keyed: () => boolean = () => false,
  last: () => boolean = () => false,
) {
  const tray = inject(TRAY, null)
  provide(TRAY, null)
  if (!tray) return { alone: computed(() => false), away: computed(() => false) }
  const entry: Entry = { id: Symbol(name()), name, told, keyed, element, last }
  const here = computed(() => tray.taken.value === entry.id)

  onMounted(() => (tray.entries.value = inOrder([...tray.entries.value, entry])))
  onBeforeUnmount(() => (tray.entries.value = tray.entries.value.filter((one) => one !== entry)))

  return {
    alone: computed(() => tray.single.value && here.value),
    away: computed(() => tray.single.value && !here.value),
  }
}
