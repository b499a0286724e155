import type { Control } from '@/stores/kit'
import { asWords, t } from '@/texts'

/** One field: a parameter, or one of the two numbers of a point. */
export interface Row {
  key: string
  label: string
  help: string
  value: unknown
  rest: unknown
  control: Control
  axis: number | null
  /** What is shown for 1: shares are shown in percent. */
  factor: number
  unit: string
  digits: number
}

const AXES: Record<string, [string, string]> = {
  size: [t('words.width'), t('words.height')],
  begin: [t('controls.rows.beginsAcross'), t('controls.rows.beginsDown')],
  end: [t('controls.rows.endsAcross'), t('controls.rows.endsDown')],
}

/** The fields of a parameter whose value is `now`, or else its default. */
export function rowOf(control: Control, now: unknown): Row[] {
  const value = now ?? control.default
  const share = !control.unit && control.control === 'slider' && (control.high ?? 2) <= 1
  const factor = share ? 100 : 1
  const step = (control.step ?? 1) * factor
  const shown = {
    help: control.help ?? '',
    control,
    factor,
    unit: share ? '%' : (control.unit ?? ''),
    digits: step >= 1 ? 0 : step >= 0.1 ? 1 : 2,
  }
  if (!Array.isArray(value)) {
    const label = labelOf(control)
    return [{ ...shown, key: control.name, label, value, rest: control.default, axis: null }]
  }
  return value.map((one: unknown, axis) => ({
    ...shown,
    key: `${control.name}-${axis}`,
    label: (AXES[control.name] ?? [t('words.across'), t('words.down')])[axis] ?? control.name,
    value: one,
    rest: (control.default as unknown[])[axis],
    axis,
  }))
}

function labelOf(control: Control): string {
  const words = asWords(control.name)
  return words.charAt(0).toUpperCase() + words.slice(1)
}
