import { useEventListener } from '@vueuse/core'

/** Enter in a field of a dialog is its main button, as in a form. */
export function useEnterMeansOk() {
  useEventListener(document, 'keydown', (event) => {
    const field = event.target as HTMLElement
    if (event.key !== 'Enter' || event.isComposing || !field.matches('input:not([type=button])')) {
      return
    }
    const main = field
      .closest('.modal')
      ?.querySelector<HTMLButtonElement>('.modal-footer .btn-primary')
    if (!main || main.disabled || field.closest('form')) return
    event.preventDefault()
    main.click()
  })
}
