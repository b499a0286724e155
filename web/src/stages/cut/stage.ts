import Icon from '~icons/tabler/separator-vertical'
import { defineStage } from '@/stages/stage'
import { t } from '@/texts'
import { useAngles } from '@/stores/angles'
import CutBench from './CutBench.vue'

/** Of the angles of a multicam clip, in their order. */
const DIGITS = [...'1234567890']

export default defineStage({
  name: t('cut.stage.cut'),
  place: 2,
  icon: Icon,
  bench: CutBench,
  keys: () =>
    DIGITS.map((digit, index) => ({
      key: digit,
      label: t('cut.stage.angle', { digit }),
      run: () => useAngles().tap(index),
    })),
})
