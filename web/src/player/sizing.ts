import { computed, ref, type Ref } from 'vue'
import type { Quality } from '@/stores/viewing'

/** Pixels of the longer side of what plays. */
export const SIDES = { full: 1280, half: 640, quarter: 320 } as const
type Size = keyof typeof SIDES

/** Share of a piece's own length in which it should come; later, playing would soon run dry. */
const LATE = 0.9
/** Share in which pieces come where there is room for larger ones. */
const EARLY = 0.3
/** Pieces in a row after which the size changes. */
const IN_A_ROW = { late: 2, early: 6 }

/**
 * How large pieces are asked for: as chosen, or, left to itself, half size that becomes a quarter
 * while pieces come too late.
 */
export function useSizing(quality: Ref<Quality>) {
  const found = ref<Size>('half')
  const size = computed<Size>(() => (quality.value === 'auto' ? found.value : quality.value))
  let late = 0
  let early = 0

  /** A piece of so many seconds took so many to come. */
  function came(seconds: number, took: number) {
    late = took > seconds * LATE ? late + 1 : 0
    early = took < seconds * EARLY ? early + 1 : 0
    if (late >= IN_A_ROW.late) found.value = 'quarter'
    else if (early >= IN_A_ROW.early) found.value = 'half'
  }

  return {
    size,
    came,
    get longSide(): number {
      return SIDES[size.value]
    },
  }
}

export type Sizing = ReturnType<typeof useSizing>
