import Icon from '~icons/tabler/photo-plus'
import { defineStage } from '@/stages/stage'
import { t } from '@/texts'
import GatherBench from './GatherBench.vue'

export default defineStage({
  name: t('gather.stage.gather'),
  place: 1,
  icon: Icon,
  bench: GatherBench,
})
