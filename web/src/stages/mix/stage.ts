import Icon from '~icons/tabler/adjustments'
import { defineStage } from '@/stages/stage'
import { t } from '@/texts'
import MixBench from './MixBench.vue'

export default defineStage({
  name: t('mix.stage.mix'),
  place: 6,
  icon: Icon,
  bench: MixBench,
})
