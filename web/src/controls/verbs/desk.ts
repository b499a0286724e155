import { inject, type ComputedRef, type InjectionKey } from 'vue'
import type { Situation, Verb } from './verb'

/** The verbs for what is in hand, what they would act on, and how one of them is done. */
export interface Desk {
  now: ComputedRef<Situation>
  shown: ComputedRef<Verb[]>
  act: (verb: Verb) => void
}

export const DESK: InjectionKey<Desk> = Symbol('desk')

export function useDesk(): Desk {
  const desk = inject(DESK)
  if (!desk) throw new Error('there is no desk here')
  return desk
}
