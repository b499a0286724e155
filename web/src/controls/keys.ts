import { t } from '@/texts'

/** A key and what it does. A stage's list and the common one never hold a key twice. */
export interface Binding {
  key: string
  label: string
  run: () => void
  /** Whether it is done again and again while the key is held. */
  repeats?: boolean
}

const NAMES: Record<string, string> = { ' ': 'space', backspace: 'delete', escape: 'esc' }
/** Keys that are known by their place: what they write differs with the layout, and with Shift. */
const PLACES: Record<string, string> = { Comma: ',', Period: '.' }

/** The name of a pressed key as it stands in our map: `s`, `shift+delete`, `ctrl+z`, `space`. */
export function keyName(event: KeyboardEvent): string {
  const key = baseOf(event)
  const parts = []
  if (event.ctrlKey || event.metaKey) parts.push('ctrl')
  if (event.altKey) parts.push('alt')
  if (event.shiftKey && key !== '?') parts.push('shift')
  return [...parts, key].join('+')
}

function baseOf({ key, code }: KeyboardEvent): string {
  const plain = key.toLowerCase()
  if (PLACES[code]) return PLACES[code]
  if (NAMES[plain]) return NAMES[plain]
  // On a keyboard of other letters ours are where they are on a Latin one.
  const letter = /^Key([A-Z])$/.exec(code ?? '')?.[1]
  return letter && !/^[a-z]$/.test(plain) ? letter.toLowerCase() : plain
}

const ARROWS = [
  'pageup',
  'pagedown',
  'arrowleft',
  'arrowright',
  'arrowup',
  'arrowdown',
  'home',
  'end',
]
const NEEDS_SPACE =
  'input, select, summary, [role="checkbox"], [role="switch"], [role="radio"], [role="menuitem"]'

/**
 * Whether a key belongs to what has the focus and not to us. `clicked` is the control that was last
 * pressed by a pointer: it has the focus for that only, so Space does not press it again.
 */
export function keepsKey(
  target: EventTarget | null,
  key: string,
  clicked: Element | null,
): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target.isContentEditable || target.closest('.modal, .offcanvas, .dropdown-menu')) return true
  if (target.closest('textarea, select')) return true
  const field = target.closest('input')
  if (field?.type === 'range') return ARROWS.includes(key)
  if (field && !['checkbox', 'radio', 'button'].includes(field.type)) return true
  if (key === 'space' || key === 'enter') {
    if (key === 'space' && target.closest(NEEDS_SPACE)) return true
    const control = target.closest('button, a, [role="button"]')
    return control !== null && control !== clicked
  }
  return false
}

/** A key for people: `Shift + Delete`. */
export function keyLabel(key: string): string {
  const names: Record<string, string> = {
    arrowleft: '←',
    arrowright: '→',
    pageup: t('controls.keys.pageUp'),
    pagedown: t('controls.keys.pageDown'),
    esc: t('controls.keys.esc'),
    ctrl: t('controls.keys.ctrl'),
  }
  return key
    .split('+')
    .map((part) => names[part] ?? part.charAt(0).toUpperCase() + part.slice(1))
    .join(' + ')
}
