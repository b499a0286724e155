import { useEventListener } from '@vueuse/core'
import { keepsKey, keyName, type Binding } from './keys'

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
    const key = keyName(event)
    const found = bindings().find((one) => one.key === key)
    if (!found || event.isComposing || keepsKey(event.target, key, clicked)) return
    event.preventDefault()
    if (event.repeat && !found.repeats) return
    found.run()
  })
}
