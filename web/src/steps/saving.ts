import { t } from '@/texts'
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
  const steps = t('steps.saving.steps', waiting)
  if (trouble === 'signed-out' && waiting) return t('steps.saving.signedOutKeptHere', { steps })
  if (!online)
    return waiting
      ? t('steps.saving.offlineYourStepsAreKept')
      : t('steps.saving.offlineNewPicturesComeLater')
  if (trouble && waiting) return t('steps.saving.waiting', { steps })
  return waiting ? t('steps.saving.saving') : t('steps.saving.savedStep', { step })
}
