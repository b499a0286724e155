import { useEventListener } from '@vueuse/core'
import { keepsKey, keyName, type Binding } from './keys'

/** Escape belongs to a menu that is open; it closes wherever the focus is, as fingers leave it on nothing. */
function closesMenu(event: KeyboardEvent): boolean {
  if (event.key !== 'Escape' || !document.querySelector('.dropdown-menu.show')) return false
  const toggle = document.querySelector<HTMLElement>('.dropdown-toggle[aria-expanded="true"]')
  if (event.target === document.body) toggle?.click()
  return true
}

/** Do what keys are bound to, as long as the focus is not on something that needs them. */
export function useKeyMap(bindings: () => Binding[]) {
  let clicked: Element | null = null

  useEventListener(
    window,
    'pointerdown',
    ({ target }) => {
      clicked = target instanceof Element ? target.closest('button, a, [role="button"]') : null
    },
    { capture: true },
  )

  useEventListener(window, 'keydown', (event: KeyboardEvent) => {
    if (event.key === 'Tab') clicked = null
    if (closesMenu(event)) return
    const key = keyName(event)
    const found = bindings().find((one) => one.key === key)
    if (!found || event.isComposing || keepsKey(event.target, key, clicked)) return
    event.preventDefault()
    if (event.repeat && !found.repeats) return
    found.run()
  })
}
