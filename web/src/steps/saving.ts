import type { Trouble } from './line'

export interface Saving {
  /** Steps that are not acknowledged. */
  waiting: number
  trouble: Trouble
  online: boolean
  /** Number of the newest step that is kept. */
  step: number
}

/** Whether something is amiss, so that it is told wherever there is room. */
export const isAmiss = ({ waiting, trouble, online }: Saving) =>
  !online || (waiting > 0 && trouble !== '')

/** What is true of the steps, in a few words. */
export function savingText(now: Saving): string {
  const { waiting, trouble, online, step } = now
  const steps = waiting === 1 ? '1 step' : `${waiting} steps`
  if (trouble === 'signed-out' && waiting) return `signed out: ${steps} kept here`
  if (!online)
    return waiting ? 'offline: your steps are kept here' : 'offline: new pictures come later'
  if (trouble && waiting) return `${steps} waiting`
  return waiting ? 'saving' : `saved · step ${step}`
}
