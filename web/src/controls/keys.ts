/** The name of a pressed key as it stands in our map: `s`, `shift+delete`, `ctrl+z`, `space`. */
export function keyName(event: KeyboardEvent): string {
  const names: Record<string, string> = { ' ': 'space', backspace: 'delete', escape: 'esc' }
  const plain = event.key.toLowerCase()
  const key = names[plain] ?? plain
  const parts = []
  if (event.ctrlKey || event.metaKey) parts.push('ctrl')
  if (event.shiftKey && key !== '?') parts.push('shift')
  return [...parts, key].join('+')
}

/** Whether a key belongs to what has the focus (typing, a slider) and not to us. */
export function isTyping(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target.isContentEditable || target.closest('.modal')) return true
  const field = target.closest('input, textarea, select')
  if (!field) return Boolean(key === 'space' && target.closest('button, a, [role="button"]'))
  const range = field instanceof HTMLInputElement && field.type === 'range'
  return !range || key.startsWith('arrow') || key === 'home' || key === 'end'
}

export interface Shortcut {
  key: string
  label: string
  run: () => void
}

/** A key for people: `Shift + Delete`. */
export function keyLabel(key: string): string {
  const names: Record<string, string> = {
    arrowleft: '←',
    arrowright: '→',
    esc: 'Esc',
    ctrl: 'Ctrl',
  }
  return key
    .split('+')
    .map((part) => names[part] ?? part.charAt(0).toUpperCase() + part.slice(1))
    .join(' + ')
}
