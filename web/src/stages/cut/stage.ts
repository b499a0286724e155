import Icon from '~icons/tabler/separator-vertical'
import { defineStage } from '@/stages/stage'
import { t } from '@/texts'
import CutBench from './CutBench.vue'

export default defineStage({
  name: t('cut.stage.cut'),
  place: 2,
  icon: Icon,
  bench: CutBench,
})
